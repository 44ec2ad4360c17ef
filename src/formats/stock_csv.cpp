#include "formats/stock_csv.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/parts/part_kind.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

enum class Field { none, drawer, kind, value, tolerance, volts, watts, what, count, id };

struct HeaderWord {
    std::string_view word;
    Field field;
};
constexpr std::array<HeaderWord, 28> kHeaders{{{"drawer", Field::drawer},
                                               {"location", Field::drawer},
                                               {"box", Field::drawer},
                                               {"place", Field::drawer},
                                               {"kind", Field::kind},
                                               {"type", Field::kind},
                                               {"value", Field::value},
                                               {"wert", Field::value},
                                               {"tolerance_pct", Field::tolerance},
                                               {"tolerance", Field::tolerance},
                                               {"tol", Field::tolerance},
                                               {"volts", Field::volts},
                                               {"voltage", Field::volts},
                                               {"rated_volts", Field::volts},
                                               {"watts", Field::watts},
                                               {"power", Field::watts},
                                               {"what", Field::what},
                                               {"description", Field::what},
                                               {"note", Field::what},
                                               {"notes", Field::what},
                                               {"package", Field::what},
                                               {"count", Field::count},
                                               {"qty", Field::count},
                                               {"quantity", Field::count},
                                               {"stock", Field::count},
                                               {"id", Field::id},
                                               {"part", Field::what},
                                               {"max_volts", Field::volts}}};

Field fieldOf(std::string_view heading) {
    const std::string word = lowered(trimmed(heading));
    for (const HeaderWord& h : kHeaders) {
        if (word == h.word) return h.field;
    }
    return Field::none;
}

/// A number in its own unit, or plain; empty is 0.
std::optional<double> number(std::string_view text, Unit unit, double most) {
    const auto cell = trimmed(text);
    if (cell.empty()) return 0;
    const auto value = parseQuantity(cell, unit);
    if (!value || value->value < 0 || value->value > most) return std::nullopt;
    return value->value;
}

/// One row; a sentence when it is refused.
std::string readRow(const CsvRow& row, const std::vector<Field>& fields, StockLine& out) {
    std::string value, tolerance, volts, watts, count = "1";
    for (std::size_t c = 0; c < row.size() && c < fields.size(); ++c) {
        const std::string cell(trimmed(row[c]));
        switch (fields[c]) {
            case Field::drawer:
                out.drawer = cell;
                break;
            case Field::kind:
                if (const auto kind = partKind(lowered(cell))) {
                    out.kind = *kind;
                } else if (!cell.empty()) {
                    return "\"" + cell.substr(0, 40) + "\" is no kind of part.";
                }
                break;
            case Field::value:
                value = cell;
                break;
            case Field::tolerance:
                tolerance = cell;
                break;
            case Field::volts:
                volts = cell;
                break;
            case Field::watts:
                watts = cell;
                break;
            case Field::what:
                if (!cell.empty()) out.what += (out.what.empty() ? "" : ", ") + cell;
                break;
            case Field::count:
                count = cell;
                break;
            case Field::id:
            case Field::none:
                break;
        }
    }
    std::optional<Quantity> quantity;
    if (const auto read = parseQuantity(value, unitOf(out.kind))) quantity = *read;
    if (unitOf(out.kind) == Unit::none) quantity = partQuantity(value);
    if (quantity && quantity->value > 0) {
        for (const PartKind kind : {PartKind::resistor, PartKind::capacitor, PartKind::inductor}) {
            if (out.kind == PartKind::other && quantity->unit == unitOf(kind)) out.kind = kind;
        }
        if (unitOf(out.kind) != Unit::none) {
            out.value = quantity->value;
            out.unit = unitOf(out.kind);
        }
    }
    if (out.value <= 0) {
        if (unitOf(out.kind) != Unit::none)
            return "\"" + value.substr(0, 40) + "\" is no value of a " + std::string(word(out.kind)) + ".";
        if (!value.empty()) out.what = value + (out.what.empty() ? "" : ", " + out.what);
        if (out.what.empty()) return "The row does not say what the part is.";
    }
    const auto percent = number(tolerance, Unit::percent, 100), rated = number(volts, Unit::volt, 1e5),
               power = number(watts, Unit::watt, 1e4), parts = number(count, Unit::none, 1e6);
    if (!percent) return "\"" + tolerance.substr(0, 40) + "\" is no tolerance.";
    if (!rated) return "\"" + volts.substr(0, 40) + "\" is no voltage.";
    if (!power) return "\"" + watts.substr(0, 40) + "\" is no power.";
    if (!parts || *parts != std::floor(*parts)) return "\"" + count.substr(0, 40) + "\" is no count.";
    out.tolerance = *percent;
    out.volts = *rated;
    out.watts = *power;
    out.count = int(*parts);
    return "";
}

}  // namespace

Result<StockFile> readStock(const std::string& bytes, const Progress& progress) {
    const auto table = readTable(bytes, [&](double done) { return !progress || progress(done / 2); });
    if (!table) return tl::make_unexpected(table.error());
    if (table->rows.empty()) return problem("", "The file is empty.");
    std::vector<Field> fields;
    for (const auto& cell : table->rows.front()) fields.push_back(fieldOf(cell));
    if (std::count(fields.begin(), fields.end(), Field::value) +
            std::count(fields.begin(), fields.end(), Field::what) ==
        0)
        return problem(
            "line " + std::to_string(table->lines.front()),
            "The first row of a stock file names its columns: drawer, kind, value, tolerance, volts, "
            "watts, what, count.");
    StockFile out;
    out.lines.reserve(table->rows.size());
    for (std::size_t r = 1; r < table->rows.size(); ++r) {
        if (progress && r % 1024 == 0 && !progress(0.5 + 0.5 * double(r) / double(table->rows.size())))
            return problem("", "Reading was stopped; nothing was taken.");
        StockLine line;
        const std::string reason = readRow(table->rows[r], fields, line);
        if (reason.empty()) {
            out.lines.push_back(std::move(line));
        } else {
            std::string text;
            for (const auto& cell : table->rows[r]) text += (text.empty() ? "" : "  ") + cell.substr(0, 40);
            out.refused.push_back({table->lines[r], text.substr(0, 200), reason});
        }
    }
    return out;
}

std::string writeStock(const std::vector<StockLine>& stock) {
    const auto shown = [](double value) { return value > 0 ? plainNumber(value) : std::string(); };
    std::string out = csvLine({"drawer", "kind", "value", "tolerance", "volts", "watts", "what", "count"});
    for (const StockLine& line : stock) {
        out += csvLine({line.drawer, std::string(word(line.kind)), shown(line.value), shown(line.tolerance),
                        shown(line.volts), shown(line.watts), line.what, std::to_string(line.count)});
    }
    return out;
}

}  // namespace ombrek
