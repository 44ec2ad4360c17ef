#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// A column of a table of numbers, and the names that people give it.
struct NumberColumn {
    std::vector<std::string> names;  ///< the first is its own; in small letters
    Unit unit = Unit::none;
    bool needed = true;
    bool text = false;  ///< an id, no number
};

/// A table of numbers read by what its columns are called.
struct NumberTable {
    std::vector<std::string> heads;               ///< as they were written, by column; empty: it is missing
    std::vector<std::vector<double>> rows;        ///< [row][column]; NaN: an empty cell
    std::vector<std::vector<std::string>> texts;  ///< the same as they stand
    std::vector<std::size_t> lines;
    bool has(std::size_t column) const { return !heads[column].empty(); }
};

/// Any dialect of CSV, values as people write them. A table without a heading has the columns in their order.
/// @return a Problem that names the line: a needed column or cell that is missing, or what is no number
Result<NumberTable> readNumbers(const std::string& bytes, const std::vector<NumberColumn>& columns);

}  // namespace ombrek
