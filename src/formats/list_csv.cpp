#include "formats/list_csv.h"

#include <algorithm>
#include <array>
#include <set>

#include "formats/designators.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, kColumns> kWords{"not used", "Designator",  "Quantity",  "Kind",
                                                        "Value",    "Description", "Tolerance", "Package",
                                                        "Voltage",  "Mark",        "Order code"};

struct HeaderWord {
    std::string_view word;  ///< lower case
    Column column;
    int weight;  ///< 2: sure; 1: what stands in the column decides
};
constexpr std::array<HeaderWord, 66> kHeaders{{{"ref", Column::refs, 2},
                                               {"refs", Column::refs, 2},
                                               {"reference", Column::refs, 2},
                                               {"references", Column::refs, 2},
                                               {"reference designator", Column::refs, 2},
                                               {"refdes", Column::refs, 2},
                                               {"ref des", Column::refs, 2},
                                               {"designator", Column::refs, 2},
                                               {"designators", Column::refs, 2},
                                               {"designation", Column::refs, 1},
                                               {"part", Column::refs, 1},
                                               {"parts", Column::refs, 1},
                                               {"bauteil", Column::refs, 1},
                                               {"bezeichner", Column::refs, 2},
                                               {"position", Column::refs, 1},
                                               {"pos", Column::refs, 1},
                                               {"repère", Column::refs, 2},
                                               {"location", Column::refs, 1},
                                               {"qty", Column::quantity, 2},
                                               {"quantity", Column::quantity, 2},
                                               {"quant", Column::quantity, 2},
                                               {"count", Column::quantity, 2},
                                               {"pcs", Column::quantity, 2},
                                               {"no.", Column::quantity, 1},
                                               {"anzahl", Column::quantity, 2},
                                               {"menge", Column::quantity, 2},
                                               {"stück", Column::quantity, 2},
                                               {"qté", Column::quantity, 2},
                                               {"quantité", Column::quantity, 2},
                                               {"kind", Column::kind, 2},
                                               {"type", Column::kind, 1},
                                               {"category", Column::kind, 1},
                                               {"value", Column::value, 2},
                                               {"val", Column::value, 2},
                                               {"wert", Column::value, 2},
                                               {"valeur", Column::value, 2},
                                               {"valor", Column::value, 2},
                                               {"nominal", Column::value, 2},
                                               {"description", Column::description, 2},
                                               {"desc", Column::description, 2},
                                               {"beschreibung", Column::description, 2},
                                               {"comment", Column::description, 1},
                                               {"notes", Column::description, 1},
                                               {"remarks", Column::description, 1},
                                               {"name", Column::description, 1},
                                               {"tolerance", Column::tolerance, 2},
                                               {"tolerance_pct", Column::tolerance, 2},
                                               {"tol", Column::tolerance, 2},
                                               {"tol.", Column::tolerance, 2},
                                               {"toleranz", Column::tolerance, 2},
                                               {"package", Column::package, 2},
                                               {"footprint", Column::package, 2},
                                               {"case", Column::package, 2},
                                               {"gehäuse", Column::package, 2},
                                               {"size", Column::package, 1},
                                               {"voltage", Column::volts, 2},
                                               {"volts", Column::volts, 2},
                                               {"spannung", Column::volts, 2},
                                               {"rated voltage", Column::volts, 2},
                                               {"mark", Column::mark, 2},
                                               {"marking", Column::mark, 2},
                                               {"code", Column::code, 1},
                                               {"supplier code", Column::code, 2},
                                               {"order code", Column::code, 2},
                                               {"part number", Column::code, 2},
                                               {"supplier part", Column::code, 2}}};

const HeaderWord* headerWord(std::string_view cell) {
    const std::string word = lowered(trimmed(cell));
    const auto hit = std::find_if(kHeaders.begin(), kHeaders.end(), [&](const HeaderWord& h) {
        return word == h.word || (h.word.size() > 3 && word.starts_with(h.word));
    });
    return hit == kHeaders.end() ? nullptr : &*hit;
}

std::size_t headerRow(const CsvTable& table) {
    const std::size_t most = std::min<std::size_t>(table.rows.size(), 20);
    for (std::size_t r = 0; r < most; ++r) {
        int known = 0;
        for (const auto& cell : table.rows[r]) known += headerWord(cell) != nullptr;
        if (known >= 2) return r;
    }
    return table.rows.size();
}

/// Shares of a column's cells that read as designators, whole numbers, values, percentages.
struct Contents {
    double refs = 0, whole = 0, value = 0, percent = 0, volts = 0, words = 0;
};

Contents contentsOf(const CsvTable& table, std::size_t column, std::size_t from) {
    Contents out;
    double cells = 0;
    const std::size_t most = std::min(table.rows.size(), from + 200);
    for (std::size_t r = from; r < most; ++r) {
        if (column >= table.rows[r].size()) continue;
        const auto cell = trimmed(table.rows[r][column]);
        if (cell.empty()) continue;
        ++cells;
        const bool whole = std::all_of(cell.begin(), cell.end(), [](char c) { return c >= '0' && c <= '9'; });
        const auto value = parseQuantity(cell);
        out.refs += onlyDesignators(cell).has_value();
        out.whole += whole && cell.size() <= 4;
        out.percent += value && value->unit == Unit::percent;
        out.volts += value && value->unit == Unit::volt;
        out.value += value && !whole && value->unit != Unit::percent && value->unit != Unit::volt;
        out.words += !value && cell.find(' ') != std::string_view::npos;
    }
    for (double* share : {&out.refs, &out.whole, &out.value, &out.percent, &out.volts, &out.words})
        *share = cells > 0 ? *share / cells : 0;
    return out;
}

Column byContents(const Contents& c) {
    if (c.refs > 0.6) return Column::refs;
    if (c.percent > 0.6) return Column::tolerance;
    if (c.volts > 0.6) return Column::volts;
    if (c.value > 0.4) return Column::value;
    if (c.whole > 0.8) return Column::quantity;
    return c.words > 0.3 ? Column::description : Column::none;
}

std::string cellOf(const CsvRow& row, const ListShape& shape, Column column) {
    std::string out;
    for (std::size_t c = 0; c < row.size() && c < shape.columns.size(); ++c) {
        if (shape.columns[c] == column) out += (out.empty() ? "" : " ") + std::string(trimmed(row[c]));
    }
    return out;
}

std::string rowText(const CsvRow& row) {
    std::string out;
    for (const auto& cell : row) out += (out.empty() ? "" : "  ") + std::string(trimmed(cell));
    return out.size() > 300 ? out.substr(0, 300) : out;
}

}  // namespace

std::string_view word(Column column) { return kWords[static_cast<std::size_t>(column)]; }

ListShape guessShape(const CsvTable& table) {
    ListShape out;
    const std::size_t header = headerRow(table);
    const bool headed = header < table.rows.size();
    out.headerRows = headed ? header + 1 : 0;
    std::size_t width = 0;
    for (std::size_t r = 0; r < table.rows.size() && r < 200; ++r)
        width = std::max(width, table.rows[r].size());
    out.columns.assign(std::min<std::size_t>(width, 64), Column::none);
    std::set<Column> taken;
    const auto give = [&](std::size_t c, Column column) {
        const bool many = column == Column::description || column == Column::none;
        if (!many && !taken.insert(column).second) return;
        out.columns[c] = column;
    };
    std::vector<Contents> contents;
    for (std::size_t c = 0; c < out.columns.size(); ++c)
        contents.push_back(contentsOf(table, c, out.headerRows));
    for (const int weight : {2, 1}) {
        for (std::size_t c = 0; headed && c < out.columns.size() && c < table.rows[header].size(); ++c) {
            const HeaderWord* h = headerWord(table.rows[header][c]);
            if (h == nullptr || h->weight != weight || out.columns[c] != Column::none) continue;
            const bool fits = weight == 2 || h->column != Column::refs || contents[c].refs > 0.5;
            if (fits) give(c, h->column);
        }
    }
    // Designators and values are never left to chance: what stands in the columns speaks too.
    for (std::size_t c = 0; c < out.columns.size(); ++c) {
        if (out.columns[c] != Column::none) continue;
        const Column guess = byContents(contents[c]);
        if (!headed || guess == Column::refs || (guess == Column::value && !taken.contains(Column::value)))
            give(c, guess);
    }
    if (headed) {
        for (const auto& cell : table.rows[header])
            out.key += (out.key.empty() ? "" : "|") + lowered(trimmed(cell));
    }
    return out;
}

PartsList readListTable(const CsvTable& table, const ListShape& shape, const Progress& progress) {
    PartsList out;
    for (std::size_t r = shape.headerRows; r < table.rows.size(); ++r) {
        if (progress && r % 512 == 0 && !progress(double(r) / double(table.rows.size()))) return {};
        const CsvRow& row = table.rows[r];
        const auto cell = [&](Column column) { return cellOf(row, shape, column); };
        ListFields fields{cell(Column::refs),    cell(Column::quantity),    cell(Column::kind),
                          cell(Column::value),   cell(Column::description), cell(Column::tolerance),
                          cell(Column::package), cell(Column::volts),       cell(Column::mark),
                          cell(Column::code)};
        if (designatorRuns(fields.refs).empty()) {
            out.refused.push_back({table.lines[r], rowText(row),
                                   fields.refs.empty()
                                       ? "No designator stands in this row."
                                       : "\"" + fields.refs.substr(0, 40) + "\" is no designator."});
            continue;
        }
        ListLine line = understand(fields);
        line.line = table.lines[r];
        line.text = rowText(row);
        out.lines.push_back(std::move(line));
    }
    checkTwice(out);
    return out;
}

std::string shapeText(const ListShape& shape) {
    std::string out = std::to_string(shape.headerRows);
    for (const Column column : shape.columns) out += "," + std::to_string(static_cast<int>(column));
    return out;
}

std::optional<ListShape> readShape(const std::string& text) {
    ListShape out;
    std::size_t from = 0;
    bool first = true;
    while (from <= text.size()) {
        const std::size_t end = std::min(text.find(',', from), text.size());
        const std::string number = text.substr(from, end - from);
        if (number.empty() || number.size() > 3 ||
            number.find_first_not_of("0123456789") != std::string::npos)
            return std::nullopt;
        const int value = std::stoi(number);
        if (first) {
            out.headerRows = std::size_t(value);
        } else {
            if (value >= kColumns || out.columns.size() >= 64) return std::nullopt;
            out.columns.push_back(static_cast<Column>(value));
        }
        first = false;
        from = end + 1;
    }
    return out;
}

bool looksLikeTable(const std::string& bytes) {
    const auto table = readTable(bytes.substr(0, 20000));
    if (!table || table->rows.empty()) return false;
    std::size_t wide = 0, whole = 0, width = table->rows.front().size();
    for (const auto& row : table->rows) width = std::max(width, row.size());
    for (const auto& row : table->rows) {
        wide += row.size() + 1 >= width && row.size() > 1;
        whole += row.size() == width;
    }
    const double rows = double(table->rows.size());
    const ListShape shape = guessShape(*table);
    const bool refs =
        std::find(shape.columns.begin(), shape.columns.end(), Column::refs) != shape.columns.end();
    const bool even =
        shape.headerRows > 0 ? double(wide) >= 0.6 * rows : width >= 3 && double(whole) >= 0.9 * rows;
    return refs && table->dialect.separator != '|' && even;
}

}  // namespace ombrek
