#include "formats/trace_csv.h"

#include <algorithm>
#include <charconv>
#include <cmath>

#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::size_t kFewest = 5;  ///< rows that are a trace

using Cells = std::vector<std::string>;

std::optional<double> numberIn(std::string text, bool comma) {
    text = std::string(trimmed(text));
    if (text.starts_with('"') && text.ends_with('"') && text.size() > 1)
        text = text.substr(1, text.size() - 2);
    if (comma) std::replace(text.begin(), text.end(), ',', '.');
    if (text.starts_with('+')) text.erase(0, 1);
    double value = 0;
    const auto read = std::from_chars(text.data(), text.data() + text.size(), value);
    if (text.empty() || read.ec != std::errc{} || read.ptr != text.data() + text.size()) return std::nullopt;
    return std::isfinite(value) ? std::optional(value) : std::nullopt;
}

/// How the cells of a file are parted.
struct Dialect {
    char parted = ',';   ///< ' ': any run of blanks
    bool comma = false;  ///< as the decimal mark
};

Cells cellsOf(const std::string& line, const Dialect& dialect) {
    Cells out(1);
    for (const char c : line) {
        const bool parts = dialect.parted == ' ' ? c == ' ' || c == '\t' : c == dialect.parted;
        if (!parts) {
            out.back() += c;
        } else if (dialect.parted != ' ' || !out.back().empty()) {
            out.emplace_back();
        }
    }
    if (dialect.parted == ' ' && out.back().empty()) out.pop_back();
    return out;
}

struct Table {
    std::vector<std::vector<double>> rows;
    Cells head;  ///< the line before them; may be anything
};

/// The longest run of lines with the same number of numbers, two at least.
Table tableIn(const std::vector<std::string>& lines, const Dialect& dialect) {
    Table best, now;
    Cells before;
    const auto end = [&] {
        if (now.rows.size() > best.rows.size()) best = now;
        now = {};
    };
    for (const std::string& line : lines) {
        const Cells cells = cellsOf(line, dialect);
        std::vector<double> row;
        for (const std::string& cell : cells) {
            const auto value = numberIn(cell, dialect.comma);
            row.push_back(value.value_or(NAN));
        }
        while (!row.empty() && std::isnan(row.back())) row.pop_back();
        const auto count =
            std::size_t(std::count_if(row.begin(), row.end(), [](double v) { return !std::isnan(v); }));
        if (count < 2 || (!now.rows.empty() && now.rows.front().size() != row.size())) {
            end();
            before = cells;
            if (count < 2) continue;
        }
        if (now.rows.empty()) now.head = before;
        now.rows.push_back(std::move(row));
    }
    end();
    return best;
}

bool rises(const Table& table, std::size_t column) {
    for (std::size_t i = 0; i < table.rows.size(); ++i) {
        if (std::isnan(table.rows[i][column])) return false;
        if (i > 0 && !(table.rows[i][column] > table.rows[i - 1][column])) return false;
    }
    return true;
}

std::string headOf(const Table& table, std::size_t column) {
    return column < table.head.size() ? lowered(table.head[column]) : "";
}

bool says(const std::string& text, std::initializer_list<const char*> words) {
    return std::any_of(words.begin(), words.end(),
                       [&](const char* word) { return text.find(word) != std::string::npos; });
}

/// The column of frequencies: one that rises, called so if any is; a point's number is none.
std::optional<std::size_t> frequencyColumn(const Table& table) {
    std::optional<std::size_t> out;
    for (std::size_t c = 0; c < table.rows.front().size(); ++c) {
        if (!rises(table, c)) continue;
        if (says(headOf(table, c), {"freq", "hz"})) return c;
        const bool counts = table.rows.front()[c] <= 1 &&
                            table.rows.back()[c] == table.rows.front()[c] + double(table.rows.size()) - 1;
        if (!out && !(counts && table.rows.front().size() > 2)) out = c;
    }
    return out;
}

std::optional<std::size_t> levelColumn(const Table& table, std::size_t frequency) {
    std::optional<std::size_t> out;
    for (std::size_t c = 0; c < table.rows.front().size(); ++c) {
        if (c == frequency) continue;
        const std::string head = headOf(table, c);
        if (says(head, {"dbm", "dbv", "dbu", "level", "ampl", "power", "mag", "trace"})) return c;
        if (!out && !says(head, {"point", "index", "no.", "phase", "deg"})) out = c;
    }
    return out;
}

/// Hertz in one of the column's units: by its heading, by the carrier that must lie in it, by its size.
double scaleOf(const Table& table, std::size_t column, double carrier) {
    const std::string head = headOf(table, column);
    for (const auto& [word, scale] : {std::pair{"ghz", 1e9}, {"mhz", 1e6}, {"khz", 1e3}})
        if (says(head, {word})) return scale;
    const double low = table.rows.front()[column], high = table.rows.back()[column];
    if (says(head, {"hz"})) return 1;
    for (const double scale : {1.0, 1e6, 1e3, 1e9})
        if (carrier > 0 && carrier >= low * scale && carrier <= high * scale) return scale;
    return high < 1e4 ? 1e6 : 1;
}

std::size_t holesIn(const Table& table) {
    std::size_t out = 0;
    for (const auto& row : table.rows)
        out += std::size_t(std::count_if(row.begin(), row.end(), [](double v) { return std::isnan(v); }));
    return out;
}

std::vector<std::string> linesOf(const std::string& bytes) {
    std::vector<std::string> out(1);
    for (const char c : bytes) {
        if (c == '\n' || c == '\r') {
            if (!out.back().empty()) out.emplace_back();
        } else {
            out.back() += c;
        }
    }
    return out;
}

}  // namespace

Result<std::vector<TracePoint>> readTrace(const std::string& bytes, double carrier) {
    const auto lines = linesOf(toUtf8(bytes));
    Table table;
    std::size_t frequency = 0, level = 0, holes = 0;
    bool rows = false;
    for (const Dialect& dialect :
         {Dialect{',', false}, {';', false}, {';', true}, {'\t', false}, {'\t', true}, {' ', false}}) {
        Table read = tableIn(lines, dialect);
        if (read.rows.size() < kFewest) continue;
        rows = true;
        const auto f = frequencyColumn(read);
        const auto l = f ? levelColumn(read, *f) : std::nullopt;
        if (!l) continue;
        // A decimal comma taken for the mark between cells leaves cells that are no numbers.
        const std::size_t empty = holesIn(read);
        const bool better =
            read.rows.size() > table.rows.size() || (read.rows.size() == table.rows.size() && empty < holes);
        if (!better) continue;
        table = std::move(read);
        frequency = *f;
        level = *l;
        holes = empty;
    }
    if (table.rows.empty())
        return problem("", rows ? "No column rises as a frequency does, with a level beside it."
                                : "This holds no trace: lines of a frequency and a level are wanted.");
    const double scale = scaleOf(table, frequency, carrier);
    std::vector<TracePoint> out;
    for (const auto& row : table.rows) out.push_back({row[frequency] * scale, row[level]});
    return out;
}

}  // namespace ombrek
