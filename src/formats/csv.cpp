#include "formats/csv.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include <csv.h>

#include <cstdlib>

namespace ombrek {
namespace {

struct Collector {
    std::vector<CsvRow> rows;
    CsvRow row;
};

void onCell(void* data, std::size_t length, void* target) {
    static_cast<Collector*>(target)->row.emplace_back(static_cast<const char*>(data), length);
}

void onRow(int, void* target) {
    auto* collector = static_cast<Collector*>(target);
    collector->rows.push_back(std::move(collector->row));
    collector->row.clear();
}

/// A plain decimal number: digits, a point, an exponent; no words, no hexadecimal.
bool isNumber(std::string_view cell) {
    if (cell.starts_with('+')) cell.remove_prefix(1);
    double value = 0;
    const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
    return !cell.empty() && error == std::errc{} && end == cell.data() + cell.size() && std::isfinite(value);
}

/// What a spreadsheet takes for the beginning of a formula, also in its full-width form.
constexpr std::array<std::string_view, 10> kFormula{"=",  "+",      "-",      "@",      "\t",
                                                    "\r", "\uff1d", "\uff0b", "\uff0d", "\uff20"};

std::string neutralised(const std::string& cell) {
    const bool formula = std::any_of(kFormula.begin(), kFormula.end(),
                                     [&](std::string_view sign) { return cell.starts_with(sign); });
    return formula && !isNumber(cell) ? "'" + cell : cell;
}

}  // namespace

Result<std::vector<CsvRow>> readCsv(const std::string& text) {
    std::string_view body = text;
    if (body.starts_with("\xEF\xBB\xBF")) body.remove_prefix(3);
    csv_parser parser;
    if (csv_init(&parser, CSV_STRICT | CSV_STRICT_FINI) != 0)
        return problem("", "The CSV reader could not start.");
    Collector collector;
    const std::size_t used = csv_parse(&parser, body.data(), body.size(), onCell, onRow, &collector);
    const bool ended = used == body.size() && csv_fini(&parser, onCell, onRow, &collector) == 0;
    csv_free(&parser);
    if (!ended) {
        return problem("line " + std::to_string(collector.rows.size() + 1),
                       "A quote is opened or closed in the wrong place.");
    }
    return collector.rows;
}

std::string csvLine(const CsvRow& cells) {
    std::string out;
    for (const std::string& raw : cells) {
        if (&raw != &cells.front()) out += ',';
        const std::string cell = neutralised(raw);
        if (cell.find_first_of(",\"\r\n") == std::string::npos) {
            out += cell;
            continue;
        }
        out += '"';
        for (const char c : cell) out += c == '"' ? std::string("\"\"") : std::string(1, c);
        out += '"';
    }
    return out + "\r\n";
}

}  // namespace ombrek
