#include "core/parts/substitute.h"

#include <cmath>
#include <random>

using namespace ombrek;

namespace {

constexpr auto kR = PartKind::resistor;
constexpr auto kC = PartKind::capacitor;

}  // namespace

TEST_CASE("two in series or parallel by the usual sums", "[reference]") {
    // Source: series and parallel connection: 10 k and 4.7 k in parallel 3.197 k; 47 n and 33 n in
    // series 19.39 n.
    const auto parallel =
        substitutes({kR, 3.2e3, 5}, {{"a", kR, 10e3, 1, 0, 0, 1}, {"b", kR, 4.7e3, 1, 0, 0, 1}});
    REQUIRE(parallel.size() == 1);
    CHECK(parallel[0].how == Substitute::How::parallel);
    CHECK(parallel[0].value == Approx(10.0 * 4.7 / 14.7 * 1e3));
    CHECK(parallel[0].limits.low == Approx(0.99 * 10.0 * 4.7 / 14.7 * 1e3));  // both 1 %: the pair is 1 %
    CHECK(parallel[0].within);
    CHECK(parallel[0].deviation == Approx(100 * (10.0 * 4.7 / 14.7 / 3.2 - 1)));
    const auto series =
        substitutes({kC, 19.4e-9, 10}, {{"a", kC, 47e-9, 5, 0, 0, 1}, {"b", kC, 33e-9, 5, 0, 0, 1}});
    REQUIRE(series.size() == 1);
    CHECK(series[0].how == Substitute::How::series);
    CHECK(series[0].value == Approx(47.0 * 33 / 80 * 1e-9));
    const auto sum =
        substitutes({kC, 80e-9, 10}, {{"a", kC, 47e-9, 5, 0, 0, 1}, {"b", kC, 33e-9, 5, 0, 0, 1}});
    REQUIRE(sum.size() == 1);
    CHECK(sum[0].how == Substitute::How::parallel);
}

TEST_CASE("the same value with a better tolerance comes before any pair") {
    const auto list = substitutes({kR, 1e3, 5}, {{"half", kR, 500, 1, 0, 0, 4},
                                                 {"exact", kR, 1e3, 1, 0, 0, 1},
                                                 {"loose", kR, 1e3, 10, 0, 0, 9},
                                                 {"none left", kR, 1e3, 0.1, 0, 0, 0}});
    REQUIRE(list.size() == 3);
    CHECK(list[0].parts == std::vector<std::size_t>{1});
    CHECK(list[1].how == Substitute::How::series);
    CHECK_FALSE(list[2].within);  // 10 % does not lie inside 5 %
}

TEST_CASE("ratings are shared as the current and the voltage share them", "[reference]") {
    // Source: series capacitors carry one charge, so the smaller takes the larger voltage: 10 n and 20 n of
    // 50 V each bear 75 V; 20 n takes a third.
    const std::vector<StockPart> caps{{"a", kC, 10e-9, 5, 50, 0, 1}, {"b", kC, 20e-9, 5, 50, 0, 1}};
    const auto ok = substitutes({kC, 6.667e-9, 10, 75}, caps);
    REQUIRE(ok.size() == 1);
    CHECK(ok[0].volts == Approx(75));
    CHECK(substitutes({kC, 6.667e-9, 10, 76}, caps).empty());
    // Two equal quarter-watt resistors bear half a watt either way.
    const std::vector<StockPart> resistors{{"a", kR, 100, 5, 0, 0.25, 2}};
    CHECK(substitutes({kR, 200, 5, 0, 0.5}, resistors).size() == 1);
    CHECK(substitutes({kR, 50, 5, 0, 0.5}, resistors).size() == 1);
    CHECK(substitutes({kR, 50, 5, 0, 0.6}, resistors).empty());
    CHECK(substitutes({kC, 10e-9, 5, 63}, {{"a", kC, 10e-9, 5, 0, 0, 1}})
              .empty());  // an unknown rating is none
}

TEST_CASE("one of a line cannot be used twice, and kinds are not mixed") {
    CHECK(substitutes({kR, 200, 5}, {{"a", kR, 100, 5, 0, 0, 1}}).empty());
    CHECK(substitutes({kR, 200, 5}, {{"a", kC, 200, 5, 0, 0, 1}}).empty());
    CHECK(substitutes({kR, 0, 5}, {{"a", kR, 100, 5, 0, 0, 1}}).empty());
    CHECK(substitutes({kR, 200, 5}, {}).empty());
}

TEST_CASE("the search over pairs finds what trying all pairs finds", "[reference]") {
    // Source: exhaustive search over all pairs.
    std::mt19937 engine(2);
    for (int round = 0; round < 60; ++round) {
        std::vector<StockPart> stock;
        for (int i = 0; i < 14; ++i)
            stock.push_back({"", round % 2 ? kR : kC, std::pow(10.0, int(engine() % 200) / 100.0), 1, 0, 0,
                             int(1 + engine() % 2)});
        const double wanted = std::pow(10.0, int(engine() % 200) / 100.0);
        std::size_t count = 0;
        const auto tally = [&](double value) { count += std::fabs(value / wanted - 1) <= 0.05 + 1e-12; };
        for (std::size_t i = 0; i < stock.size(); ++i) {
            tally(stock[i].value);
            for (std::size_t j = i; j < stock.size(); ++j) {
                if (i == j && stock[i].count < 2) continue;
                tally(stock[i].value + stock[j].value);
                tally(stock[i].value * stock[j].value / (stock[i].value + stock[j].value));
            }
        }
        CHECK(substitutes({stock[0].kind, wanted, 5}, stock, 1000).size() == count);
    }
}

TEST_CASE("many lines of one part are offered no more than twice, and a pair may come from two drawers") {
    std::vector<StockPart> stock;
    for (int i = 0; i < 50; ++i) stock.push_back({"d" + std::to_string(i), kR, 2e3, 1, 0, 0, 1});
    const auto single = substitutes({kR, 2e3, 5}, stock);
    CHECK(single.size() == 2);
    const auto pair = substitutes({kR, 1e3, 5}, stock);
    REQUIRE(pair.size() == 1);  // one piece in each drawer: two drawers make the pair
    CHECK(pair[0].how == Substitute::How::parallel);
    CHECK(pair[0].parts[0] != pair[0].parts[1]);
    CHECK(pair[0].value == Approx(1e3));
}
