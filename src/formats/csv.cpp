#include "formats/csv.h"

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

bool isNumber(const std::string& cell) {
    char* end = nullptr;
    std::strtod(cell.c_str(), &end);
    return !cell.empty() && *end == '\0';
}

std::string neutralised(const std::string& cell) {
    const bool formula = !cell.empty() && (std::string("=+-@\t\r").find(cell[0]) != std::string::npos);
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
