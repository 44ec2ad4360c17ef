#pragma once

#include <cstddef>
#include <limits>
#include <vector>

namespace ombrek {

/// What it costs to pair each row with each column; infinity forbids a pair.
struct CostTable {
    std::size_t rows = 0, columns = 0;
    std::vector<double> cost;  ///< row by row

    CostTable(std::size_t rows, std::size_t columns, double fill = std::numeric_limits<double>::infinity())
        : rows(rows), columns(columns), cost(rows * columns, fill) {}
    double& at(std::size_t row, std::size_t column) { return cost[row * columns + column]; }
    double at(std::size_t row, std::size_t column) const { return cost[row * columns + column]; }
};

inline constexpr int kUnpaired = -1;

/// A pairing of least total cost, with the prices that prove it.
struct Assignment {
    std::vector<int> columnOf;  ///< of each row, or kUnpaired
    std::vector<int> rowOf;     ///< of each column, or kUnpaired
    double cost = 0;
    std::vector<double> rowPrice, columnPrice;  ///< cost − rowPrice − columnPrice ≥ 0 everywhere
};

/// Pair rows with columns, each used at most once, at the least total cost. A row or a column may stay
/// unpaired at no cost, so only pairs of negative cost are ever worth making.
///
/// Time goes with rows² × columns, memory with the table.
/// Source: shortest augmenting paths with prices; Kuhn 1955, Jonker & Volgenant 1987.
Assignment cheapestAssignment(const CostTable& costs);

/// How much dearer the whole pairing becomes when one row is made to take each column, or none.
struct Detours {
    std::vector<double> toColumn;  ///< 0 for the column it has
    double unpaired = 0;           ///< 0 if it has none
};

/// Exact, by one shortest-path search over the prices of a finished assignment.
/// @param bound  the search ends there: costs beyond it are only told to be beyond it
Detours detours(const CostTable& costs, const Assignment& best, std::size_t row,
                double bound = std::numeric_limits<double>::infinity());

/// The same for tables in which many columns are alike (equal cost for every row), asked of many rows: the
/// search goes over classes of columns, and once for each class a row may sit in. 2,000 parts take a second
/// where `detours` takes a minute.
class ClassDetours {
 public:
    /// @param classOf  of each column, from 0 @param bound  costs beyond it are only told to be beyond it
    ClassDetours(const CostTable& costs, const Assignment& best, std::vector<std::size_t> classOf,
                 double bound);

    struct Of {
        std::vector<double> toClass;  ///< 0 for the one it is in
        double unpaired = 0;          ///< 0 if it has no column
    };
    /// The detours of one row.
    Of of(std::size_t row);

 private:
    struct Edge {
        std::size_t from;
        double cost;
    };
    double reduced(std::size_t row, std::size_t cls) const;
    void join();
    const std::vector<double>& distancesTo(std::size_t node);

    const CostTable& costs_;
    const Assignment& best_;
    std::vector<std::size_t> classOf_, example_;  ///< a column of each class
    double bound_;
    std::size_t nowhere_;                  ///< the node of unpaired rows and free columns
    std::vector<std::vector<Edge>> into_;  ///< who may move into each node, and at what cost
    std::vector<std::vector<double>> distances_;
};

}  // namespace ombrek
