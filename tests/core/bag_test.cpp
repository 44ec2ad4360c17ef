#include "core/parts/bag.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "core/quantity/instrument.h"
#include "core/quantity/preferred.h"

using namespace ombrek;

namespace {

constexpr auto kR = PartKind::resistor;
constexpr auto kC = PartKind::capacitor;

/// A part measured with a meter of so many per cent.
FoundPart measured(const std::string& id, PartKind kind, double value, double percent = 1) {
    return {id, kind, value, expandedUncertainty({percent}, value), {}, ""};
}

std::string lineOf(const BagAnswer& answer, const std::vector<WantedPart>& wanted, std::size_t found) {
    for (const BagPair& pair : answer.pairs) {
        if (pair.found == found) return wanted[pair.wanted].ref;
    }
    return "";
}

const BagPair& pairOf(const BagAnswer& answer, std::size_t found) {
    return *std::find_if(answer.pairs.begin(), answer.pairs.end(),
                         [&](const BagPair& p) { return p.found == found; });
}

}  // namespace

TEST_CASE("readings go to the lines a builder would give them", "[reference]") {
    // Source: common practice: 0.990 k is a 1 k; 98.4 k is a 100 k, not a 10 k; 0.095 µF is a 0.1 µF.
    const std::vector<WantedPart> wanted{
        {"R1", kR, 1e3, 5}, {"R2", kR, 10e3, 5}, {"R3", kR, 100e3, 5}, {"C1", kC, 100e-9, 10}};
    const std::vector<FoundPart> found{measured("a", kR, 98.4e3), measured("b", kC, 95e-9),
                                       measured("c", kR, 990)};
    const BagAnswer answer = matchBag(wanted, found);
    CHECK(lineOf(answer, wanted, 0) == "R3");
    CHECK(lineOf(answer, wanted, 1) == "C1");
    CHECK(lineOf(answer, wanted, 2) == "R1");
    REQUIRE(answer.missing.size() == 1);
    CHECK(wanted[answer.missing[0].index].ref == "R2");
    CHECK(answer.surplus.empty());
    for (const BagPair& pair : answer.pairs) {
        CHECK(pair.verdict.state == VerdictState::pass);
        CHECK(pair.odds > 0.99);
    }
}

TEST_CASE("the odd one out falls out by elimination") {
    // Two 22 pF parts and one 24 pF at the rim of both: it is the line that is left.
    const std::vector<WantedPart> wanted{{"C1", kC, 22e-12, 5}, {"C2", kC, 22e-12, 5}, {"C3", kC, 24e-12, 5}};
    const std::vector<FoundPart> found{measured("rim", kC, 22.95e-12, 2), measured("b", kC, 21.9e-12, 2),
                                       measured("c", kC, 22.1e-12, 2)};
    const BagAnswer whole = matchBag(wanted, found);
    CHECK(lineOf(whole, wanted, 0) == "C3");
    CHECK(whole.missing.empty());
    const BagAnswer alone = matchBag(wanted, {found[0]}, VerdictRule::guardBand, false);
    CHECK(alone.could[0].size() == 2);
    CHECK(alone.could[0][0].odds < 0.99);
    CHECK_FALSE(alone.decider.empty());
    CHECK(alone.missing.empty());  // the bag is not through
}

TEST_CASE("a resistor missing and another over are told apart from a substitution") {
    const std::vector<WantedPart> wanted{
        {"R1", kR, 1e3, 5}, {"R2", kR, 1e6, 5}, {"C1", kC, 22e-9, 10}, {"C2", kC, 22e-9, 10}};
    const std::vector<FoundPart> found{measured("a", kR, 1.01e3), measured("b", kR, 33e3),
                                       measured("c", kC, 33.1e-9), measured("d", kC, 32.6e-9)};
    const BagAnswer answer = matchBag(wanted, found);
    REQUIRE(answer.missing.size() == 1);
    CHECK(wanted[answer.missing[0].index].ref == "R2");
    REQUIRE(answer.surplus.size() == 1);
    CHECK(found[answer.surplus[0].index].id == "b");
    CHECK(answer.surplus[0].reason.find("33.0") != std::string::npos);
    // Every capacitor of one value half as large again: substituted, not missing and over.
    for (const std::size_t i : {2, 3}) {
        CHECK(pairOf(answer, i).what == BagCase::substituted);
        CHECK(pairOf(answer, i).verdict.state == VerdictState::fail);
    }
}

TEST_CASE("one over is told when every line has its part") {
    const std::vector<WantedPart> wanted{{"R1", kR, 1e3, 5}};
    const BagAnswer answer = matchBag(wanted, {measured("a", kR, 1e3), measured("b", kR, 1.04e3)});
    REQUIRE(answer.surplus.size() == 1);
    CHECK(answer.surplus[0].reason.find("one over") != std::string::npos);
    CHECK(answer.missing.empty());
}

TEST_CASE("kinds are never mixed, whatever the numbers say") {
    const BagAnswer answer = matchBag({{"L1", PartKind::inductor, 1e-6, 10}}, {measured("a", kC, 1e-6)});
    CHECK(answer.pairs.empty());
    CHECK(answer.missing.size() == 1);
    CHECK(answer.surplus.size() == 1);
}

TEST_CASE("a mark that lies, and a part in another's place") {
    const std::vector<WantedPart> wanted{{"C1", kC, 10e-9, 10}, {"C2", kC, 22e-9, 10}};
    FoundPart liar = measured("a", kC, 10.2e-9);
    liar.marked = {22e-9};
    FoundPart other = measured("b", kC, 21.8e-9);
    other.takenFor = "C1";
    const BagAnswer answer = matchBag(wanted, {liar, other});
    CHECK(lineOf(answer, wanted, 0) == "C1");
    CHECK(pairOf(answer, 0).what == BagCase::mismarked);
    CHECK(lineOf(answer, wanted, 1) == "C2");
    CHECK(pairOf(answer, 1).what == BagCase::misplaced);
    CHECK(pairOf(answer, 1).reason.find("Taken for C1") == 0);
}

TEST_CASE("a mark without a measurement counts, the likelier reading more") {
    const std::vector<WantedPart> wanted{{"C1", kC, 30e-12, 5}, {"R1", kR, 30, 5}};
    FoundPart part{"a", kC, NAN, 0, {30e-12}, ""};
    const BagAnswer answer = matchBag(wanted, {part});
    CHECK(lineOf(answer, wanted, 0) == "C1");
    CHECK(pairOf(answer, 0).verdict.sentence.find("not measured") != std::string::npos);
}

TEST_CASE("the builder's own pairing stands when nothing speaks against it") {
    const std::vector<WantedPart> wanted{{"R1", kR, 1e3, 5}, {"R2", kR, 1e3, 5}};
    FoundPart a = measured("part:R2", kR, 1.001e3), b = measured("part:R1", kR, 0.999e3);
    a.takenFor = "R2";
    b.takenFor = "R1";
    const BagAnswer answer = matchBag(wanted, {a, b});
    CHECK(lineOf(answer, wanted, 0) == "R2");
    CHECK(lineOf(answer, wanted, 1) == "R1");
    CHECK(pairOf(answer, 0).what == BagCase::fits);
}

TEST_CASE("the deciding measurement names a meter that is good enough") {
    // 20 and 22 ohm of 2 % are told apart by 5 % meters no better than by eye.
    const std::vector<WantedPart> wanted{{"R1", kR, 20, 2}, {"R2", kR, 22, 2}};
    const BagAnswer answer = matchBag(wanted, {measured("a", kR, 21, 5)}, VerdictRule::guardBand, false);
    REQUIRE(answer.could[0].size() == 2);
    CHECK(answer.could[0][0].odds < 0.7);
    CHECK(answer.deciderFound == 0);
    CHECK(answer.decider.find("good to ±250\u202fmΩ") != std::string::npos);  // a quarter of half the gap
    double sum = 0;
    for (const Explanation& e : answer.could[0]) sum += e.odds;
    CHECK(sum == Approx(1).epsilon(0.01));
}

TEST_CASE("a random bag within tolerance is sorted without a fault") {
    std::mt19937 engine(5);
    std::uniform_real_distribution<double> scatter(-0.045, 0.045);
    std::vector<WantedPart> wanted;
    std::vector<FoundPart> found;
    const auto e12 = decadeOf(Series::e12);
    for (int i = 0; i < 60; ++i) {
        const double nominal = e12[engine() % e12.size()] * std::pow(10.0, int(engine() % 5));
        wanted.push_back({"R" + std::to_string(i), kR, nominal, 5});
        found.push_back(measured("p" + std::to_string(i), kR, nominal * (1 + scatter(engine)), 0.5));
    }
    std::shuffle(found.begin(), found.end(), engine);
    const BagAnswer answer = matchBag(wanted, found);
    CHECK(answer.missing.empty());
    CHECK(answer.surplus.empty());
    for (const BagPair& pair : answer.pairs) CHECK(pair.verdict.state != VerdictState::fail);
}

TEST_CASE("marks are ranked by what the kit needs") {
    const auto plain = readMark("100");
    REQUIRE(plain.front().kind == kC);  // 10 pF first, as the code says
    const auto ranked = rankByNeed(plain, {{"L1", PartKind::inductor, 10e-6, 10}});
    CHECK(ranked.front().kind == PartKind::inductor);
    CHECK(ranked.size() == plain.size());
}
