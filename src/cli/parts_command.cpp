#include <cmath>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/parts/bag.h"
#include "core/parts/marks.h"
#include "core/quantity/instrument.h"
#include "core/text/letters.h"
#include "formats/files.h"
#include "formats/stock_csv.h"
#include "lists/parts_list.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Result<std::optional<PartKind>> kindAsked(const std::string& text) {
    if (text.empty()) return std::optional<PartKind>();
    const auto kind = partKind(text);
    if (!kind || unitOf(*kind) == Unit::none)
        return problem("kind", "\"" + text + "\" is not resistor, capacitor or inductor.");
    return kind;
}

/// A CSV with a header, as rows of cells by column name.
struct NamedRows {
    CsvTable table;
    std::vector<std::size_t> columns;
    std::string cell(std::size_t row, std::size_t column) const {
        const auto& cells = table.rows[row];
        return columns[column] < cells.size() ? std::string(trimmed(cells[columns[column]])) : std::string();
    }
    std::string place(std::size_t row) const { return "line " + std::to_string(table.lines[row]); }
};

Result<NamedRows> readNamed(const std::string& file, const std::vector<std::string>& names) {
    const auto bytes = readFile(file, kLargestList);
    if (!bytes) return tl::make_unexpected(bytes.error());
    auto table = readTable(*bytes);
    if (!table) return tl::make_unexpected(table.error());
    NamedRows out{std::move(*table), {}};
    if (out.table.rows.empty()) return problem(file, "The file is empty.");
    for (const auto& name : names) {
        const auto& header = out.table.rows.front();
        const auto hit = std::find_if(header.begin(), header.end(), [&](const std::string& cell) {
            return lowered(trimmed(cell)) == name;
        });
        if (hit == header.end()) return problem(file + ", line 1", "There is no column \"" + name + "\".");
        out.columns.push_back(std::size_t(hit - header.begin()));
    }
    return out;
}

Result<double> readNumber(const NamedRows& rows, std::size_t row, std::size_t column, Unit unit, double low,
                          double high, const std::string& what) {
    const auto value = parseQuantity(rows.cell(row, column), unit);
    if (!value) return problem(rows.place(row) + ", " + what, value.error().sentence);
    if (!(value->value >= low) || value->value > high)
        return problem(rows.place(row) + ", " + what, "This " + what + " is out of range.");
    return value->value;
}

Result<PartKind> readKind(const NamedRows& rows, std::size_t row, std::size_t column) {
    const auto kind = partKind(lowered(rows.cell(row, column)));
    if (!kind || unitOf(*kind) == Unit::none)
        return problem(rows.place(row) + ", kind",
                       "\"" + rows.cell(row, column) + "\" is not resistor, capacitor or inductor.");
    return *kind;
}

Result<std::vector<WantedPart>> readWanted(const std::string& file) {
    const auto rows = readNamed(file, {"ref", "kind", "value", "tolerance_pct"});
    if (!rows) return tl::make_unexpected(rows.error());
    std::vector<WantedPart> out;
    for (std::size_t r = 1; r < rows->table.rows.size(); ++r) {
        const auto kind = readKind(*rows, r, 1);
        if (!kind) return tl::make_unexpected(kind.error());
        const auto value = readNumber(*rows, r, 2, unitOf(*kind), 1e-15, 1e15, "value");
        if (!value) return tl::make_unexpected(value.error());
        const auto tolerance = readNumber(*rows, r, 3, Unit::percent, 0, 100, "tolerance");
        if (!tolerance) return tl::make_unexpected(tolerance.error());
        out.push_back({rows->cell(r, 0), *kind, *value, *tolerance});
    }
    return out;
}

Result<std::vector<FoundPart>> readBag(const std::string& file) {
    const auto rows = readNamed(file, {"id", "kind", "value", "error_pct"});
    if (!rows) return tl::make_unexpected(rows.error());
    std::vector<FoundPart> out;
    for (std::size_t r = 1; r < rows->table.rows.size(); ++r) {
        const auto kind = readKind(*rows, r, 1);
        if (!kind) return tl::make_unexpected(kind.error());
        const auto value = readNumber(*rows, r, 2, unitOf(*kind), 1e-15, 1e15, "value");
        if (!value) return tl::make_unexpected(value.error());
        const auto error = readNumber(*rows, r, 3, Unit::percent, 0, 100, "error");
        if (!error) return tl::make_unexpected(error.error());
        out.push_back({rows->cell(r, 0), *kind, *value, expandedUncertainty({*error}, *value), {}, ""});
    }
    return out;
}

}  // namespace

int markCommand(const std::string& text, const std::string& kindText, bool json) {
    const auto kind = kindAsked(kindText);
    if (!kind) return refuse(kind.error(), json);
    const auto readings = readMark(text, *kind);
    if (readings.empty())
        return refuse({"", "\"" + text.substr(0, 40) +
                               "\" is no mark that is known: try 104, 4k7, 68X or three to "
                               "six colours."},
                      json);
    auto list = Json::array();
    for (const MarkReading& r : readings) {
        Json row{{"kind", word(r.kind)}, {"value", r.value}, {"unit", symbol(r.unit)}};
        row["tolerance"] = r.tolerancePercent ? Json(*r.tolerancePercent) : Json(nullptr);
        row["meaning"] = meaning(r);
        if (r.toleranceLow) row["tolerance_low"] = *r.toleranceLow;
        if (r.volts) row["volts"] = *r.volts;
        list.push_back(row);
        if (!json)
            std::printf("%s  %s  (%s)\n", std::string(word(r.kind)).c_str(),
                        formatQuantity(r.value, r.unit, 4).c_str(), meaning(r).c_str());
    }
    if (json) printJson({{"readings", list}});
    return 0;
}

int matchCommand(const std::string& listFile, const std::string& bagFile, bool json) {
    const auto wanted = readWanted(listFile);
    if (!wanted) return refuse(wanted.error(), json);
    const auto found = readBag(bagFile);
    if (!found) return refuse(found.error(), json);
    const BagAnswer answer = matchBag(*wanted, *found);
    Json assigned = Json::array(), missing = Json::array(), surplus = Json::array();
    for (const BagPair& pair : answer.pairs) {
        assigned.push_back({{"id", (*found)[pair.found].id},
                            {"ref", (*wanted)[pair.wanted].ref},
                            {"verdict", word(pair.verdict.state)},
                            {"odds", pair.odds},
                            {"reason", pair.reason}});
        if (!json)
            std::printf("%s  %s  %s: %s\n", (*found)[pair.found].id.c_str(),
                        (*wanted)[pair.wanted].ref.c_str(), std::string(word(pair.verdict.state)).c_str(),
                        pair.reason.c_str());
    }
    for (const BagLeft& left : answer.missing) {
        missing.push_back((*wanted)[left.index].ref);
        if (!json) std::printf("missing %s: %s\n", (*wanted)[left.index].ref.c_str(), left.reason.c_str());
    }
    for (const BagLeft& left : answer.surplus) {
        surplus.push_back((*found)[left.index].id);
        if (!json) std::printf("over %s: %s\n", (*found)[left.index].id.c_str(), left.reason.c_str());
    }
    if (json)
        printJson({{"assigned", assigned},
                   {"missing", missing},
                   {"surplus", surplus},
                   {"decider", answer.decider}});
    else if (!answer.decider.empty())
        std::printf("%s\n", answer.decider.c_str());
    return 0;
}

int substituteCommand(const SubstituteQuestion& q, bool json) {
    const auto kind = kindAsked(q.kind);
    if (!kind) return refuse(kind.error(), json);
    if (!*kind) return refuse({"kind", "Say --kind resistor, capacitor or inductor."}, json);
    const auto value = parseQuantity(q.want, unitOf(**kind));
    if (!value) return refuse({"want", value.error().sentence}, json);
    if (!(value->value > 0)) return refuse({"want", "The value wanted is above zero."}, json);
    if (!(q.tolerance > 0) || q.tolerance > 100)
        return refuse({"tolerance", "A tolerance is 0 to 100 %."}, json);
    const auto bytes = readFile(q.stock, kLargestList);
    if (!bytes) return refuse(bytes.error(), json);
    const auto stock = readStock(*bytes);
    if (!stock) return refuse(stock.error(), json);
    for (const RefusedLine& r : stock->refused)
        std::fprintf(stderr, "ombrek-cli: line %zu is left out: %s\n", r.line, r.reason.c_str());
    std::vector<StockLine> lines = stock->lines;
    for (std::size_t i = 0; i < lines.size(); ++i) lines[i].id = std::int64_t(i + 1);
    const auto found = substitutes({**kind, value->value, q.tolerance, q.volts, 0}, freeStock(lines, {}, 0));
    Json list = Json::array();
    for (const Substitute& s : found) {
        Json parts = Json::array();
        std::string named;
        for (const std::size_t i : s.parts) {
            parts.push_back(
                {{"drawer", lines[i].drawer}, {"value", lines[i].value}, {"tolerance", lines[i].tolerance}});
            named += (named.empty() ? "" : " + ") + describe(lines[i]) + " (" + lines[i].drawer + ")";
        }
        list.push_back({{"how", word(s.how)},
                        {"parts", parts},
                        {"value", s.value},
                        {"low", s.limits.low},
                        {"high", s.limits.high},
                        {"deviation", s.deviation},
                        {"within", s.within},
                        {"working", s.working.text()}});
        if (!json)
            std::printf("%s %s: %s (%s)%s\n", std::string(word(s.how)).c_str(), named.c_str(),
                        formatQuantity(s.value, unitOf(**kind), 4).c_str(),
                        limitsText(s.limits, unitOf(**kind)).c_str(),
                        s.within ? "" : ", limits wider than wanted");
    }
    if (json) printJson({{"substitutes", list}});
    return 0;
}

}  // namespace ombrek
