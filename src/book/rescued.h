#pragma once

#include <cstddef>
#include <string>
#include <vector>

namespace ombrek {

/// What became of one table's rows when a damaged book was copied.
struct RescuedRecord {
    std::string name;
    std::size_t saved = 0;
    std::size_t unread = 0;  ///< numbers at which the file gives an error: so many rows at most are lost
    std::vector<std::string>
        leftOut;      ///< rows that were read and are none that Ombrek writes, "id=12, unit=zork"
    std::string why;  ///< of what is missing; empty: nothing is known to be
};

/// A rescue copy, table by table.
struct Rescued {
    std::vector<RescuedRecord> records;
    std::string leftOutFile;    ///< where the rows that were left out stand as text; empty: there were none
    bool schemaMended = false;  ///< the description of its tables was damaged and taken from a new book

    /// All that were saved, of every table.
    std::size_t rows() const;
    /// "511 rows are in the copy. Of reading, 1 was left out: \"unit\" says what no Ombrek writes." All that
    /// is missing.
    std::string sentence() const;
    /// Nothing is known to be missing, and its tables were as it said.
    bool complete() const;
};

}  // namespace ombrek
