#pragma once

#include <string>
#include <vector>

#include "core/quantity/verdict.h"
#include "formats/parts_list.h"

namespace ombrek {

/// A parts list before it becomes a kit: what was understood of each row, doubtful ones first, to be
/// corrected.
class ListModel {
 public:
    struct Row {
        std::size_t line = 0;                     ///< in the source
        std::string text, right;                  ///< "C1, C2: 100 nF ±10 %", "2 of 2"
        VerdictState state = VerdictState::pass;  ///< fail: refused; doubtful: has a doubt
        std::string source;                       ///< as it stood
        std::string doubts;                       ///< sentences
        std::size_t index = 0;                    ///< in the list's lines, or in its refused ones
    };

    void take(ListSource source);
    bool empty() const { return rows_.empty(); }
    const std::vector<Row>& rows() const { return rows_; }
    const ListSource& source() const { return source_; }
    int parts() const { return source_.list.parts(); }
    int doubtful() const;
    int refused() const { return int(source_.list.refused.size()); }

    /// What to type to say a row again: "C1, C2 100 nF 10% …", or the source where nothing was understood.
    std::string rowText(std::size_t row) const;
    /// The row as the builder says it. @return a Problem when it is no parts-list line; the row stays
    Result<void> correct(std::size_t row, const std::string& text);
    /// The row is right as it was understood.
    void confirm(std::size_t row);
    void drop(std::size_t row);
    /// What a column of a table holds, the next of the choices; all rows are read again.
    void turnColumn(std::size_t column, int by);
    /// The heading of a column, or its number.
    std::string columnName(std::size_t column) const;

 private:
    void sortRows();

    ListSource source_;
    std::vector<Row> rows_;
};

}  // namespace ombrek
