#include "formats/number_table.h"

#include <algorithm>
#include <cmath>

#include "core/text/letters.h"
#include "formats/table_csv.h"

namespace ombrek {
namespace {

/// "Position (deg)" is "position".
std::string nameOf(const std::string& head) {
    const std::string text = lowered(trimmed(head));
    return std::string(trimmed(text.substr(0, text.find_first_of("([{"))));
}

/// Which column of the file each wanted one is; npos: none.
std::vector<std::size_t> places(const CsvRow& heading, const std::vector<NumberColumn>& columns) {
    std::vector<std::size_t> out(columns.size(), std::string::npos);
    for (std::size_t c = 0; c < columns.size(); ++c) {
        for (std::size_t i = 0; i < heading.size() && out[c] == std::string::npos; ++i) {
            const auto& names = columns[c].names;
            if (std::find(names.begin(), names.end(), nameOf(heading[i])) != names.end()) out[c] = i;
        }
    }
    return out;
}

}  // namespace

Result<NumberTable> readNumbers(const std::string& bytes, const std::vector<NumberColumn>& columns) {
    const auto table = readTable(bytes);
    if (!table) return tl::make_unexpected(table.error());
    if (table->rows.empty()) return problem("", "There is nothing in this file.");
    auto at = places(table->rows[0], columns);
    const bool heading =
        std::any_of(at.begin(), at.end(), [](std::size_t i) { return i != std::string::npos; });
    NumberTable out;
    out.heads.assign(columns.size(), "");
    for (std::size_t c = 0; c < columns.size(); ++c) {
        if (!heading) at[c] = c < table->rows[0].size() ? c : std::string::npos;
        if (at[c] != std::string::npos)
            out.heads[c] = heading ? std::string(trimmed(table->rows[0][at[c]])) : columns[c].names.front();
        if (columns[c].needed && at[c] == std::string::npos)
            return problem("line " + std::to_string(table->lines[0]),
                           "There is no column \"" + columns[c].names.front() + "\".");
    }
    for (std::size_t r = heading ? 1 : 0; r < table->rows.size(); ++r) {
        const std::string line = "line " + std::to_string(table->lines[r]);
        out.rows.emplace_back();
        out.texts.emplace_back();
        out.lines.push_back(table->lines[r]);
        for (std::size_t c = 0; c < columns.size(); ++c) {
            const bool there = at[c] != std::string::npos && at[c] < table->rows[r].size();
            const std::string cell(there ? trimmed(table->rows[r][at[c]]) : std::string_view());
            out.texts.back().push_back(cell);
            out.rows.back().push_back(NAN);
            if (cell.empty() && columns[c].needed)
                return problem(line, "The " + columns[c].names.front() + " is missing here.");
            if (cell.empty() || columns[c].text) continue;
            const auto value = parseQuantity(cell, columns[c].unit);
            if (!value)
                return problem(line,
                               "\"" + cell.substr(0, 30) + "\" is no " + columns[c].names.front() + ".");
            out.rows.back().back() = value->value;
        }
    }
    if (out.rows.empty()) return problem("", "There is no row in this file.");
    return out;
}

}  // namespace ombrek
