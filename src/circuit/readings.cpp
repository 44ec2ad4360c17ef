#include <algorithm>
#include <cmath>

#include "circuit/netlist.h"
#include "circuit/reading.h"
#include "core/quantity/shown.h"
#include "core/text/letters.h"
#include "formats/table_csv.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

std::string word(const std::string& cell) { return lowered(trimmed(cell)); }

struct Column {
    const char* name;
    std::size_t at = std::string::npos;
};

std::optional<What> quantityOf(const std::string& word) {
    if (word.empty() || word.starts_with("volt") || word == "v") return What::voltage;
    if (word.starts_with("curr") || word == "a" || word == "i") return What::current;
    if (word.starts_with("res") || word.starts_with("ohm") || word == "r") return What::resistance;
    return std::nullopt;
}

Unit unitOf(What quantity) {
    return quantity == What::voltage ? Unit::volt : quantity == What::current ? Unit::ampere : Unit::ohm;
}

/// Why no meter shows so much; what is next to nothing is nothing.
std::optional<std::string> beyondMeters(double value, What quantity) {
    return impossible(std::fabs(value) < 1e-3 ? 0 : value, unitOf(quantity));
}

}  // namespace

bool sameProbe(const CircuitReading& a, const CircuitReading& b) {
    return a.quantity == b.quantity && a.state == b.state && circuitNode(a.node) == circuitNode(b.node) &&
           circuitNode(a.node2) == circuitNode(b.node2);
}

Result<std::vector<CircuitReading>> readCircuitReadings(const std::string& bytes) {
    const auto table = readTable(bytes);
    if (!table) return tl::make_unexpected(table.error());
    if (table->rows.empty()) return problem("", "There is no reading in this file.");
    Column columns[] = {{"node"}, {"node2"}, {"quantity"}, {"value"}, {"error"}, {"state"}};
    for (std::size_t i = 0; i < table->rows[0].size(); ++i) {
        for (Column& column : columns) {
            if (word(table->rows[0][i]) == column.name) column.at = i;
        }
    }
    if (columns[0].at == std::string::npos || columns[3].at == std::string::npos)
        return problem("line 1", "Readings want a heading: node, node2, quantity, value, error, state.");
    std::vector<CircuitReading> out;
    for (std::size_t row = 1; row < table->rows.size(); ++row) {
        const auto cell = [&](int column) {
            const std::size_t at = columns[column].at;
            return at < table->rows[row].size() ? table->rows[row][at] : std::string();
        };
        const std::string where = "line " + std::to_string(table->lines[row]);
        const auto quantity = quantityOf(word(cell(2)));
        if (!quantity)
            return problem(where, "\"" + cell(2).substr(0, 30) + "\" is no voltage, current or resistance.");
        CircuitReading r;
        r.quantity = *quantity;
        r.node = word(cell(0));
        r.node2 = word(cell(1)).empty() ? "0" : word(cell(1));
        r.state = word(cell(5));
        r.line = table->lines[row];
        // A number without a unit is SI as it stands.
        const auto plain = parseQuantity(cell(3), unitOf(*quantity));
        const auto shown = parseShown(cell(3), unitOf(*quantity));
        if (plain) {
            if (const auto why = beyondMeters(plain->value, *quantity)) return problem(where, *why);
            r.value = plain->value;
        } else if (shown && shown->beyond && *quantity == What::resistance) {
            r.value = INFINITY;
        } else {
            return problem(where, "\"" + cell(3).substr(0, 30) + "\" is no reading.");
        }
        if (!word(cell(4)).empty()) {
            const auto error = parseQuantity(cell(4), unitOf(*quantity));
            if (!error || error->value < 0 || beyondMeters(error->value, *quantity))
                return problem(where, "\"" + cell(4).substr(0, 30) + "\" is no error of a reading.");
            r.error = error->value;
        }
        out.push_back(std::move(r));
    }
    if (out.empty()) return problem("", "There is no reading in this file.");
    return out;
}

}  // namespace ombrek
