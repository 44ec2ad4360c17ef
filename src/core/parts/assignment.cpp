#include "core/parts/assignment.h"

#include <algorithm>
#include <functional>
#include <queue>
#include <utility>

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

ClassDetours::ClassDetours(const CostTable& costs, const Assignment& best, std::vector<std::size_t> classOf,
                           double bound)
    : costs_(costs), best_(best), classOf_(std::move(classOf)), bound_(bound) {
    const std::size_t classes =
        classOf_.empty() ? 0 : *std::max_element(classOf_.begin(), classOf_.end()) + 1;
    example_.assign(classes, 0);
    for (std::size_t c = 0; c < classOf_.size(); ++c) example_[classOf_[c]] = c;
    nowhere_ = classes;
    join();
    distances_.resize(classes + 1);
}

/// Columns that are alike have the same price in a finished assignment, so any of them stands for its class.
double ClassDetours::reduced(std::size_t row, std::size_t cls) const {
    const std::size_t c = example_[cls];
    return std::max(0.0, costs_.at(row, c) - best_.rowPrice[row] - best_.columnPrice[c]);
}

void ClassDetours::join() {
    into_.resize(nowhere_ + 1);
    // The cheapest move from each class into each other, over the rows that sit there; idle rows sit nowhere.
    std::vector<double> cheapest((nowhere_ + 1) * (nowhere_ + 1), kFar);
    const auto offer = [&](std::size_t from, std::size_t to, double cost) {
        double& held = cheapest[from * (nowhere_ + 1) + to];
        held = std::min(held, cost);
    };
    for (std::size_t row = 0; row < costs_.rows; ++row) {
        const int column = best_.columnOf[row];
        const std::size_t from = column == kUnpaired ? nowhere_ : classOf_[std::size_t(column)];
        for (std::size_t to = 0; to < nowhere_; ++to) {
            if (to != from) offer(from, to, reduced(row, to));
        }
        if (from != nowhere_) offer(from, nowhere_, std::max(0.0, -best_.rowPrice[row]));
    }
    for (std::size_t c = 0; c < costs_.columns; ++c) {
        if (best_.rowOf[c] == kUnpaired) {
            offer(classOf_[c], nowhere_, 0.0);  // a free column: nobody has to move
        } else {
            offer(nowhere_, classOf_[c], std::max(0.0, -best_.columnPrice[c]));  // it may stay empty
        }
    }
    for (std::size_t from = 0; from <= nowhere_; ++from) {
        for (std::size_t to = 0; to <= nowhere_; ++to) {
            const double cost = cheapest[from * (nowhere_ + 1) + to];
            if (from != to && cost <= bound_) into_[to].push_back({from, cost});
        }
    }
}

/// What it costs that whoever sits in each node moves along a chain that ends in this one.
const std::vector<double>& ClassDetours::distancesTo(std::size_t node) {
    std::vector<double>& distance = distances_[node];
    if (!distance.empty()) return distance;
    distance.assign(nowhere_ + 1, kFar);
    using Entry = std::pair<double, std::size_t>;
    std::priority_queue<Entry, std::vector<Entry>, std::greater<>> open;
    distance[node] = 0;
    open.push({0.0, node});
    while (!open.empty()) {
        const auto [far, at] = open.top();
        open.pop();
        if (far > distance[at] || far > bound_) continue;
        for (const Edge& edge : into_[at]) {
            if (far + edge.cost >= distance[edge.from]) continue;
            distance[edge.from] = far + edge.cost;
            open.push({distance[edge.from], edge.from});
        }
    }
    return distance;
}

ClassDetours::Of ClassDetours::of(std::size_t row) {
    const int column = best_.columnOf[row];
    const std::size_t own = column == kUnpaired ? nowhere_ : classOf_[std::size_t(column)];
    const std::vector<double>& distance = distancesTo(own);
    Of out;
    out.toClass.resize(nowhere_);
    for (std::size_t k = 0; k < nowhere_; ++k)
        out.toClass[k] = k == own ? 0.0 : reduced(row, k) + distance[k];
    out.unpaired = own == nowhere_ ? 0.0 : std::max(0.0, -best_.rowPrice[row]) + distance[nowhere_];
    return out;
}

}  // namespace ombrek
