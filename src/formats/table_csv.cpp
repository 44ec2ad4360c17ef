#include "formats/table_csv.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <map>
#include <optional>

#include "core/text/letters.h"

namespace ombrek {
namespace {

/// Cells of a line if it were cut by `separator`, quotes respected.
std::size_t cellsOf(std::string_view line, char separator, char quote) {
    std::size_t out = 1;
    bool inside = false;
    for (const char c : line) {
        if (c == quote) inside = !inside;
        if (c == separator && !inside) ++out;
    }
    return out;
}

std::vector<std::string_view> firstLines(const std::string& text, std::size_t most) {
    std::vector<std::string_view> out;
    std::size_t from = 0;
    while (from < text.size() && out.size() < most) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        const std::string_view line(text.data() + from, end - from);
        if (!trimmed(line).empty()) out.push_back(line);
        from = end + 1;
    }
    return out;
}

/// The quote that opens more cells; the usual one where neither does.
char quoteOf(const std::vector<std::string_view>& lines) {
    const auto opened = [&](char quote) {
        std::size_t out = 0;
        for (const auto line : lines) {
            for (std::size_t i = 0; i < line.size(); ++i)
                out += line[i] == quote &&
                       (i == 0 || std::string_view(",;\t|").find(line[i - 1]) != std::string_view::npos);
        }
        return out;
    };
    return opened('\'') > opened('"') ? '\'' : '"';
}

struct Collector {
    CsvTable& table;
    std::size_t line = 1;
    CsvRow row;
    std::size_t seen = 0;  ///< bytes of line ends inside quoted cells are counted by the caller
};

void onCell(void* data, std::size_t length, void* target) {
    auto& collector = *static_cast<Collector*>(target);
    collector.row.emplace_back(static_cast<const char*>(data), length);
    collector.seen += std::size_t(std::count(collector.row.back().begin(), collector.row.back().end(), '\n'));
}

void onRow(int, void* target) {
    auto& collector = *static_cast<Collector*>(target);
    const bool empty = std::all_of(collector.row.begin(), collector.row.end(),
                                   [](const std::string& cell) { return trimmed(cell).empty(); });
    if (!empty) {
        collector.table.lines.push_back(collector.line);
        collector.table.rows.push_back(std::move(collector.row));
    }
    collector.line += 1 + collector.seen;
    collector.seen = 0;
    collector.row.clear();
}

/// Where the quoted cell that opens at `open` ends: behind its closing quote; nothing where what follows that
/// is no end of a cell, or where none closes it.
std::optional<std::size_t> quotedEnd(const std::string& text, std::size_t open, CsvDialect dialect) {
    for (std::size_t i = open + 1; i < text.size(); ++i) {
        if (text[i] != dialect.quote) continue;
        if (i + 1 < text.size() && text[i + 1] == dialect.quote) {
            ++i;
            continue;
        }
        const std::size_t next = std::min(text.find_first_not_of(" \t", i + 1), text.size());
        const bool ends = next == text.size() || text[next] == '\n' || text[next] == '\r' ||
                          text[i + 1] == dialect.separator || text[next] == dialect.separator;
        // Within one line a quote inside is an inch or a nickname, and nothing is swallowed.
        const bool oneLine = text.find('\n', open) > i;
        if (ends || oneLine) return i + 1;
        return std::nullopt;
    }
    return std::nullopt;
}

/// The text with quotes that would swallow the rows below blanked out. @param lines  gets their lines, from 1
std::string withoutStrayQuotes(std::string text, CsvDialect dialect, std::vector<std::size_t>& lines) {
    bool start = true;  // of a cell
    std::size_t line = 1;
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (start && text[i] == dialect.quote) {
            if (const auto end = quotedEnd(text, i, dialect)) {
                line += std::size_t(
                    std::count(text.begin() + std::ptrdiff_t(i), text.begin() + std::ptrdiff_t(*end), '\n'));
                i = *end - 1;
                start = false;
                continue;
            }
            text[i] = ' ';
            lines.push_back(line);
        }
        line += text[i] == '\n';
        start =
            text[i] == dialect.separator || text[i] == '\n' || (start && (text[i] == ' ' || text[i] == '\r'));
    }
    return text;
}

}  // namespace

CsvDialect guessDialect(const std::string& text) {
    const auto lines = firstLines(text, 60);
    const char quote = quoteOf(lines);
    CsvDialect best{',', quote};
    double bestScore = 0;
    for (const char separator : {',', ';', '\t', '|'}) {
        std::map<std::size_t, std::size_t> counts;
        for (const auto line : lines) {
            if (const auto cells = cellsOf(line, separator, quote); cells > 1) ++counts[cells];
        }
        std::size_t most = 0, width = 1;
        for (const auto& [cells, count] : counts) {
            if (count > most) most = count, width = cells;
        }
        const bool quoted = std::any_of(lines.begin(), lines.end(), [&](std::string_view line) {
            const auto at = line.find(quote);
            return at == 0 || (at != std::string_view::npos && at > 0 && line[at - 1] == separator);
        });
        const double score = double(most) / double(std::max<std::size_t>(lines.size(), 1)) +
                             0.001 * double(std::min<std::size_t>(width, 20)) + (quoted ? 0.05 : 0.0);
        if (most > 0 && score > bestScore) bestScore = score, best = {separator, quote};
    }
    return best;
}

Result<CsvTable> readTable(const std::string& bytes, const Progress& progress) {
    const std::string given = toUtf8(bytes);
    CsvTable out;
    out.dialect = guessDialect(given);
    const std::string text = withoutStrayQuotes(given, out.dialect, out.strayQuotes);
    csv_parser parser;
    if (csv_init(&parser, CSV_REPALL_NL) != 0) return problem("", "The CSV reader could not start.");
    csv_set_delim(&parser, static_cast<unsigned char>(out.dialect.separator));
    csv_set_quote(&parser, static_cast<unsigned char>(out.dialect.quote));
    Collector collector{out, 1, {}, 0};
    constexpr std::size_t step = 1 << 18;
    bool stopped = false;
    for (std::size_t at = 0; at < text.size() && !stopped; at += step) {
        const std::size_t length = std::min(step, text.size() - at);
        if (csv_parse(&parser, text.data() + at, length, onCell, onRow, &collector) != length) break;
        stopped = progress && !progress(double(at + length) / double(text.size()));
    }
    csv_fini(&parser, onCell, onRow, &collector);
    csv_free(&parser);
    if (stopped) return problem("", "Reading was stopped.");
    return out;
}

}  // namespace ombrek
