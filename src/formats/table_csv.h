#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"
#include "formats/csv.h"
#include "formats/encoding.h"

namespace ombrek {

/// How a table of text is written.
struct CsvDialect {
    char separator = ',';
    char quote = '"';
};

/// The separator (comma, semicolon, tab or bar) and quote that cut most lines into equally many cells.
CsvDialect guessDialect(const std::string& text);

/// A table of cells with the source line of each row, counted from 1.
struct CsvTable {
    CsvDialect dialect;
    std::vector<CsvRow> rows;
    std::vector<std::size_t> lines;
    std::vector<std::size_t> strayQuotes;  ///< source lines on which a quote was left out: it has no partner
};

/// A row of a source that gave nothing, and why.
struct RefusedLine {
    std::size_t line = 0;
    std::string text, reason;
};

/// Any dialect of CSV, in UTF-8, UTF-16 or Latin-1, by libcsv; a quote that opens a cell and
/// is not closed at its end (RFC 4180) is left out and its line told, so that it swallows no rows. Rows of
/// empty cells are left out.
/// @return a Problem when `progress` says stop
Result<CsvTable> readTable(const std::string& bytes, const Progress& progress = {});

}  // namespace ombrek
