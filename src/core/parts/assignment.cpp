#include "core/parts/assignment.h"

#include <algorithm>

namespace ombrek {
namespace {

constexpr double kFar = std::numeric_limits<double>::infinity();

/// The growing tree of one augmentation. Columns are numbered from 1; column 0 stands for the row put in.
struct Tree {
    std::vector<double> distance;
    std::vector<std::size_t> from;
    std::vector<char> used;
    explicit Tree(std::size_t columns)
        : distance(columns + 1, kFar), from(columns + 1, 0), used(columns + 1, 0) {}
};

class Solver {
 public:
    explicit Solver(const CostTable& costs)
        : costs_(costs), u_(costs.rows + 1, 0), v_(costs.columns + 1, 0), owner_(costs.columns + 1, 0) {}

    Assignment solve() {
        for (std::size_t row = 1; row <= costs_.rows; ++row) putIn(row);
        Assignment out;
        out.columnOf.assign(costs_.rows, kUnpaired);
        out.rowOf.assign(costs_.columns, kUnpaired);
        for (std::size_t c = 1; c <= costs_.columns; ++c) {
            if (owner_[c] == 0) continue;
            out.columnOf[owner_[c] - 1] = int(c - 1);
            out.rowOf[c - 1] = int(owner_[c] - 1);
            out.cost += costs_.at(owner_[c] - 1, c - 1);
        }
        out.rowPrice.assign(u_.begin() + 1, u_.end());
        out.columnPrice.assign(v_.begin() + 1, v_.end());
        return out;
    }

 private:
    void putIn(std::size_t row) {
        Tree tree(costs_.columns);
        owner_[0] = row;
        std::size_t at = 0;
        while (true) {
            tree.used[at] = 1;
            reach(tree, at);
            // Either the nearest column, or a row of the tree gives up its column and stays unpaired.
            double nearest = kFar;
            std::size_t next = 0, giver = 0;
            bool gives = false;
            for (std::size_t c = 0; c <= costs_.columns; ++c) {
                if (tree.used[c]) {
                    if (-u_[owner_[c]] < nearest) nearest = -u_[owner_[c]], giver = c, gives = true;
                } else if (c > 0 && tree.distance[c] < nearest) {
                    nearest = tree.distance[c], next = c, gives = false;
                }
            }
            raisePrices(tree, nearest);
            at = gives ? giver : next;
            if (gives || owner_[at] == 0) break;
        }
        while (at != 0) {
            const std::size_t before = tree.from[at];
            owner_[at] = owner_[before];
            at = before;
        }
    }

    void reach(Tree& tree, std::size_t at) const {
        const std::size_t row = owner_[at];
        const double* cost = &costs_.cost[(row - 1) * costs_.columns];
        for (std::size_t c = 1; c <= costs_.columns; ++c) {
            if (tree.used[c]) continue;
            const double reduced = cost[c - 1] - u_[row] - v_[c];
            if (reduced < tree.distance[c]) tree.distance[c] = reduced, tree.from[c] = at;
        }
    }

    void raisePrices(Tree& tree, double by) {
        for (std::size_t c = 0; c <= costs_.columns; ++c) {
            if (tree.used[c]) {
                u_[owner_[c]] += by;
                v_[c] -= by;
            } else {
                tree.distance[c] -= by;
            }
        }
    }

    const CostTable& costs_;
    std::vector<double> u_, v_;
    std::vector<std::size_t> owner_;
};

}  // namespace

Assignment cheapestAssignment(const CostTable& costs) {
    if (costs.rows == 0 || costs.columns == 0) {
        return {std::vector<int>(costs.rows, kUnpaired), std::vector<int>(costs.columns, kUnpaired), 0,
                std::vector<double>(costs.rows, 0.0), std::vector<double>(costs.columns, 0.0)};
    }
    return Solver(costs).solve();
}

Detours detours(const CostTable& costs, const Assignment& best, std::size_t row, double bound) {
    // Nodes are the columns and, last, "nowhere": unpaired rows, free columns. The distance of a node is what
    // it costs to move whoever sits there along a chain that ends at this row's own place.
    const std::size_t nowhere = costs.columns;
    const std::size_t own = best.columnOf[row] == kUnpaired ? nowhere : std::size_t(best.columnOf[row]);
    const auto reduced = [&](std::size_t r, std::size_t c) {
        return std::max(0.0, costs.at(r, c) - best.rowPrice[r] - best.columnPrice[c]);
    };
    std::vector<std::size_t> idle;
    for (std::size_t r = 0; r < costs.rows; ++r) {
        if (best.columnOf[r] == kUnpaired) idle.push_back(r);
    }
    /// One move backwards: from `x` to the settled node `y`.
    const auto step = [&](std::size_t x, std::size_t y) {
        if (x == nowhere) {
            double out = best.rowOf[y] == kUnpaired ? kFar : std::max(0.0, -best.columnPrice[y]);
            for (const std::size_t r : idle) out = std::min(out, reduced(r, y));
            return out;
        }
        const int owner = best.rowOf[x];
        if (y == nowhere) return owner == kUnpaired ? 0.0 : std::max(0.0, -best.rowPrice[std::size_t(owner)]);
        return owner == kUnpaired ? kFar : reduced(std::size_t(owner), y);
    };
    std::vector<double> distance(costs.columns + 1, kFar);
    std::vector<char> settled(costs.columns + 1, 0);
    distance[own] = 0;
    for (std::size_t round = 0; round <= costs.columns; ++round) {
        std::size_t y = costs.columns + 1;
        for (std::size_t c = 0; c <= costs.columns; ++c) {
            if (!settled[c] && distance[c] < kFar && (y > costs.columns || distance[c] < distance[y])) y = c;
        }
        if (y > costs.columns || distance[y] > bound) break;
        settled[y] = 1;
        for (std::size_t x = 0; x <= costs.columns; ++x) {
            if (!settled[x]) distance[x] = std::min(distance[x], distance[y] + step(x, y));
        }
    }
    Detours out;
    out.toColumn.resize(costs.columns);
    for (std::size_t c = 0; c < costs.columns; ++c)
        out.toColumn[c] = int(c) == best.columnOf[row] ? 0.0 : reduced(row, c) + distance[c];
    out.unpaired = own == nowhere ? 0.0 : std::max(0.0, -best.rowPrice[row]) + distance[nowhere];
    return out;
}

}  // namespace ombrek
