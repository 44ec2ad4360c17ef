#include "formats/trace_csv.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>
#include <span>
#include <string_view>

#include "core/text/letters.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::size_t kFewest = 5;  ///< rows that are a trace

constexpr std::size_t kSample = 4000;  ///< lines that tell how the others are written

using Cells = std::vector<std::string_view>;

std::optional<double> numberIn(std::string_view text, bool comma) {
    text = trimmed(text);
    if (text.starts_with('"') && text.ends_with('"') && text.size() > 1)
        text = text.substr(1, text.size() - 2);
    if (text.starts_with('+')) text.remove_prefix(1);
    char pointed[64];
    if (comma && text.find(',') != std::string_view::npos) {
        if (text.size() > sizeof pointed) return std::nullopt;
        std::replace_copy(text.begin(), text.end(), pointed, ',', '.');
        text = {pointed, text.size()};
    }
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

void cellsOf(std::string_view line, const Dialect& dialect, Cells& out) {
    out.clear();
    const bool blanks = dialect.parted == ' ';
    std::size_t from = 0;
    for (std::size_t i = 0; i <= line.size(); ++i) {
        const bool parts =
            i == line.size() || (blanks ? line[i] == ' ' || line[i] == '\t' : line[i] == dialect.parted);
        if (!parts) continue;
        if (!blanks || i > from) out.push_back(line.substr(from, i - from));
        from = i + 1;
    }
}

struct Table {
    std::vector<std::vector<double>> rows;
    std::vector<std::string> head;  ///< the line before them; may be anything
};

/// The longest run of lines with the same number of numbers, two at least.
Table tableIn(std::span<const std::string_view> lines, const Dialect& dialect) {
    Table best, now;
    std::string_view before;
    Cells cells;
    const auto end = [&] {
        if (now.rows.size() > best.rows.size()) best = std::move(now);
        now = {};
    };
    const auto headed = [&] {
        Cells head;
        cellsOf(before, dialect, head);
        now.head.assign(head.begin(), head.end());
    };
    for (const std::string_view line : lines) {
        cellsOf(line, dialect, cells);
        std::vector<double> row;
        row.reserve(cells.size());
        for (const std::string_view cell : cells) {
            const auto value = numberIn(cell, dialect.comma);
            row.push_back(value.value_or(NAN));
        }
        while (!row.empty() && std::isnan(row.back())) row.pop_back();
        const auto count =
            std::size_t(std::count_if(row.begin(), row.end(), [](double v) { return !std::isnan(v); }));
        if (count < 2 || (!now.rows.empty() && now.rows.front().size() != row.size())) {
            end();
            before = line;
            if (count < 2) continue;
        }
        if (now.rows.empty()) headed();
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

/// A table of an antenna bridge: ohms, or a standing-wave ratio, and no column of levels.
bool isOfImpedances(const Table& table) {
    bool ohms = false;
    for (std::size_t c = 0; c < table.head.size(); ++c) {
        const std::string head = std::string(trimmed(headOf(table, c)));
        if (says(head, {"dbm", "dbv", "dbu", "db", "level", "ampl", "power"})) return false;
        const bool exactly = head == "r" || head == "x" || head == "z" || head == "rs" || head == "xs" ||
                             head == "rp" || head == "xp";
        ohms = ohms || exactly || says(head, {"ohm", "ω", "Ω", "swr", "imped", "resist", "react", "|z|"});
    }
    return ohms;
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

std::vector<std::string_view> linesOf(std::string_view text) {
    std::vector<std::string_view> out;
    std::size_t from = 0;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        if (i < text.size() && text[i] != '\n' && text[i] != '\r') continue;
        if (i > from) out.push_back(text.substr(from, i - from));
        from = i + 1;
    }
    return out;
}

/// A table with its columns, read one way.
struct Reading {
    Table table;
    Dialect dialect;
    std::size_t frequency = 0, level = 0, holes = 0;
    bool rows = false;  ///< there are rows of numbers, in some dialect
};

bool columnsOf(Reading& read) {
    if (read.table.rows.size() < kFewest) return false;
    read.rows = true;
    const auto f = frequencyColumn(read.table);
    const auto l = f ? levelColumn(read.table, *f) : std::nullopt;
    if (!l) return false;
    read.frequency = *f;
    read.level = *l;
    // A decimal comma taken for the mark between cells leaves cells that are no numbers.
    read.holes = holesIn(read.table);
    return true;
}

/// The dialect that makes the longest table of these lines.
Reading bestOf(std::span<const std::string_view> lines) {
    Reading best;
    for (const Dialect& dialect :
         {Dialect{',', false}, {';', false}, {';', true}, {'\t', false}, {'\t', true}, {' ', false}}) {
        Reading read{tableIn(lines, dialect), dialect};
        const bool whole = columnsOf(read);
        best.rows = best.rows || read.rows;
        const std::size_t size = read.table.rows.size(), most = best.table.rows.size();
        if (!whole || !(size > most || (size == most && read.holes < best.holes))) continue;
        best = std::move(read);
    }
    return best;
}

/// Of a long file the beginning tells the dialect; where that does not hold for the most of it, all of it.
Reading readAll(std::span<const std::string_view> lines) {
    if (lines.size() <= kSample) return bestOf(lines);
    Reading sample = bestOf(lines.subspan(0, kSample));
    if (!sample.table.rows.empty()) {
        sample.table = tableIn(lines, sample.dialect);
        if (columnsOf(sample) && 2 * sample.table.rows.size() > lines.size()) return sample;
    }
    return bestOf(lines);
}

}  // namespace

Result<std::vector<TracePoint>> readTrace(const std::string& bytes, double carrier) {
    const std::string text = toUtf8(bytes);
    const Reading read = readAll(linesOf(text));
    if (read.table.rows.empty())
        return problem("", read.rows ? "No column rises as a frequency does, with a level beside it."
                                     : "This holds no trace: lines of a frequency and a level are wanted.");
    if (isOfImpedances(read.table))
        return problem("", "These are impedances, not levels: a spectrum has a column in dBm or dB.");
    const double scale = scaleOf(read.table, read.frequency, carrier);
    std::vector<TracePoint> out;
    out.reserve(read.table.rows.size());
    for (const auto& row : read.table.rows) out.push_back({row[read.frequency] * scale, row[read.level]});
    return out;
}

}  // namespace ombrek
