#include "core/parts/assignment.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <random>

using namespace ombrek;

namespace {

/// The cheapest pairing by trying every one; `row` may be forced to `column` (or kUnpaired).
double cheapestOfAll(const CostTable& costs, int row = -2, int column = -2) {
    double best = std::numeric_limits<double>::infinity();
    std::vector<char> used(costs.columns, 0);
    const std::function<void(std::size_t, double)> go = [&](std::size_t r, double sum) {
        if (r == costs.rows) {
            best = std::min(best, sum);
            return;
        }
        if (int(r) != row || column == kUnpaired) go(r + 1, sum);
        for (std::size_t c = 0; c < costs.columns; ++c) {
            if (used[c] || (int(r) == row && int(c) != column)) continue;
            used[c] = 1;
            go(r + 1, sum + costs.at(r, c));
            used[c] = 0;
        }
    };
    go(0, 0);
    return best;
}

CostTable randomCosts(std::mt19937& engine) {
    CostTable out(1 + engine() % 5, 1 + engine() % 5);
    std::uniform_real_distribution<double> any(-12, 4);
    for (double& cost : out.cost)
        cost = engine() % 4 == 0 ? std::numeric_limits<double>::infinity() : any(engine);
    return out;
}

}  // namespace

TEST_CASE("the assignment agrees with trying every pairing", "[reference]") {
    // Source: exhaustive search over all pairings of up to five rows and columns.
    std::mt19937 engine(7);
    for (int round = 0; round < 2000; ++round) {
        const CostTable costs = randomCosts(engine);
        const Assignment found = cheapestAssignment(costs);
        REQUIRE(found.cost == Approx(cheapestOfAll(costs)).margin(1e-9));
        double sum = 0;
        for (std::size_t r = 0; r < costs.rows; ++r) {
            if (found.columnOf[r] == kUnpaired) continue;
            sum += costs.at(r, std::size_t(found.columnOf[r]));
            REQUIRE(found.rowOf[std::size_t(found.columnOf[r])] == int(r));
        }
        REQUIRE(sum == Approx(found.cost).margin(1e-9));
    }
}

TEST_CASE("classes of like columns tell the same as forcing every place", "[reference]") {
    // Source: exhaustive search over all pairings, columns repeated so that some are alike.
    std::mt19937 engine(11);
    for (int round = 0; round < 400; ++round) {
        const CostTable kinds = randomCosts(engine);
        std::vector<std::size_t> classOf;
        for (std::size_t k = 0; k < kinds.columns && classOf.size() < 5; ++k)
            classOf.insert(classOf.end(), 1 + engine() % 3, k);
        CostTable costs(kinds.rows, classOf.size());
        for (std::size_t r = 0; r < costs.rows; ++r) {
            for (std::size_t c = 0; c < costs.columns; ++c) costs.at(r, c) = kinds.at(r, classOf[c]);
        }
        const Assignment best = cheapestAssignment(costs);
        ClassDetours detours(costs, best, classOf, std::numeric_limits<double>::infinity());
        for (std::size_t r = 0; r < costs.rows; ++r) {
            const ClassDetours::Of of = detours.of(r);
            const auto agrees = [&](double dearer, double forced) {
                return std::isinf(forced) ? std::isinf(dearer)
                                          : dearer == Approx(forced - best.cost).margin(1e-6);
            };
            REQUIRE(agrees(of.unpaired, cheapestOfAll(costs, int(r), kUnpaired)));
            for (std::size_t c = 0; c < costs.columns; ++c) {
                double forced = std::numeric_limits<double>::infinity();
                for (std::size_t other = 0; other < costs.columns; ++other) {
                    if (classOf[other] == classOf[c])
                        forced = std::min(forced, cheapestOfAll(costs, int(r), int(other)));
                }
                REQUIRE(agrees(of.toClass[classOf[c]], forced));
            }
        }
    }
}

TEST_CASE("what another place would cost agrees with forcing it", "[reference]") {
    // Source: exhaustive search with one row held to one column, or to none.
    std::mt19937 engine(11);
    for (int round = 0; round < 600; ++round) {
        const CostTable costs = randomCosts(engine);
        const Assignment best = cheapestAssignment(costs);
        const std::size_t row = engine() % costs.rows;
        const Detours detour = detours(costs, best, row);
        REQUIRE(best.cost + detour.unpaired ==
                Approx(cheapestOfAll(costs, int(row), kUnpaired)).margin(1e-9));
        for (std::size_t c = 0; c < costs.columns; ++c) {
            const double forced = cheapestOfAll(costs, int(row), int(c));
            if (std::isinf(forced)) {
                REQUIRE(std::isinf(detour.toColumn[c]));
            } else {
                REQUIRE(best.cost + detour.toColumn[c] == Approx(forced).margin(1e-9));
            }
        }
    }
}

TEST_CASE("a bounded search tells every cost inside its bound and hides none as cheaper") {
    std::mt19937 engine(17);
    constexpr double bound = 7;
    for (int round = 0; round < 600; ++round) {
        const CostTable costs = randomCosts(engine);
        const Assignment best = cheapestAssignment(costs);
        const std::size_t row = engine() % costs.rows;
        const Detours whole = detours(costs, best, row), bounded = detours(costs, best, row, bound);
        const auto agrees = [&](double exact, double found) {
            if (exact <= bound) REQUIRE(found == Approx(exact).margin(1e-9));
            if (exact > bound) REQUIRE(found > bound);
        };
        agrees(whole.unpaired, bounded.unpaired);
        for (std::size_t c = 0; c < costs.columns; ++c) agrees(whole.toColumn[c], bounded.toColumn[c]);
    }
}

TEST_CASE("nothing to pair is no fault") {
    CHECK(cheapestAssignment(CostTable(0, 4)).rowOf == std::vector<int>(4, kUnpaired));
    CHECK(cheapestAssignment(CostTable(3, 0)).columnOf == std::vector<int>(3, kUnpaired));
    const CostTable forbidden(2, 2);
    CHECK(cheapestAssignment(forbidden).cost == 0);
    CHECK(std::isinf(detours(forbidden, cheapestAssignment(forbidden), 0).toColumn[1]));
}
