#include "lists/packing_list.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace ombrek {
namespace {

enum class Field { none, code, description, ordered, shipped, backOrdered, substitute };

struct HeaderWord {
    std::string_view word;
    Field field;
};
/// Matched as a part of the heading, the first that fits.
constexpr std::array<HeaderWord, 25> kHeaders{
    {{"substitut", Field::substitute}, {"replace", Field::substitute},  {"instead", Field::substitute},
     {"ersatz", Field::substitute},    {"back", Field::backOrdered},    {"rückstand", Field::backOrdered},
     {"b/o", Field::backOrdered},      {"pending", Field::backOrdered}, {"to follow", Field::backOrdered},
     {"shipped", Field::shipped},      {"sent", Field::shipped},        {"delivered", Field::shipped},
     {"supplied", Field::shipped},     {"geliefert", Field::shipped},   {"ordered", Field::ordered},
     {"order qty", Field::ordered},    {"bestellt", Field::ordered},    {"qty", Field::ordered},
     {"quantity", Field::ordered},     {"menge", Field::ordered},       {"description", Field::description},
     {"item", Field::description},     {"article", Field::description}, {"code", Field::code},
     {"number", Field::code}}};

Field fieldOf(std::string_view heading) {
    const std::string word = lowered(trimmed(heading));
    for (const HeaderWord& h : kHeaders) {
        if (word.find(h.word) != std::string::npos) return h.field;
    }
    return word == "part" || word == "sku" ? Field::code : Field::none;
}

std::optional<int> wholeNumber(std::string_view text) {
    const auto cell = trimmed(text);
    if (cell.empty()) return 0;
    const auto value = parseQuantity(cell);
    if (!value || value->unit != Unit::none || value->value < 0 || value->value > 1e6 ||
        value->value != std::floor(value->value))
        return std::nullopt;
    return int(value->value);
}

/// The supplier's words as a value, to meet a list line that has no code.
ListLine asLine(const std::string& description, PartKind kind) {
    ListFields fields;
    fields.kind = word(kind);
    fields.quantity = "1";
    fields.description = description;
    return understand(fields);
}

bool meets(const ListLine& order, const PackingLine& packed) {
    if (!order.code.empty() && !packed.code.empty()) return lowered(order.code) == lowered(packed.code);
    if (packed.description.empty()) return false;
    if (order.nominal > 0) {
        const ListLine read = asLine(packed.description, order.kind);
        const bool kindSaid = lowered(packed.description).find(word(order.kind)) != std::string::npos;
        const bool unitSaid =
            read.nominal > 0 && std::none_of(read.doubts.begin(), read.doubts.end(),
                                             [](auto& d) { return d.find("no unit") != std::string::npos; });
        return read.nominal > 0 && std::fabs(read.nominal / order.nominal - 1) < 1e-6 &&
               (kindSaid || unitSaid);
    }
    return !order.value.empty() &&
           lowered(packed.description).find(lowered(order.value)) != std::string::npos;
}

std::string counted(int count, int of, const std::string& what) {
    return std::to_string(count) + " of " + std::to_string(of) + " " + what;
}

DeliveryLine delivered(const ListLine& order, const PackingLine& packed) {
    DeliveryLine out;
    out.what = valueText(order);
    out.refs = order.refs;
    out.wanted = std::max(int(order.refs.size()), order.quantity);
    out.shipped = packed.shipped;
    out.backOrdered = packed.backOrdered;
    if (!packed.substitutedBy.empty()) {
        out.state = Delivery::substituted;
        out.sentence = counted(packed.shipped, out.wanted, "shipped, as ") + packed.substitutedBy +
                       ": check that it will do before it is fitted.";
    } else if (packed.shipped >= out.wanted) {
        out.state = Delivery::complete;
        out.sentence = counted(packed.shipped, out.wanted, "shipped") +
                       (packed.shipped > out.wanted
                            ? ", " + std::to_string(packed.shipped - out.wanted) + " for the drawer."
                            : ".");
    } else if (packed.backOrdered > 0) {
        out.state = Delivery::backOrdered;
        out.sentence = counted(packed.shipped, out.wanted, "shipped, ") + std::to_string(packed.backOrdered) +
                       " to follow.";
    } else {
        out.state = Delivery::shortShipped;
        out.sentence =
            counted(packed.shipped, out.wanted, "shipped and no back order") + ": ask the supplier.";
    }
    return out;
}

}  // namespace

std::string_view word(Delivery delivery) {
    static constexpr std::array<std::string_view, 6> words{
        "complete", "back-ordered", "substituted", "short-shipped", "not ordered", "not on the packing list"};
    return words[static_cast<std::size_t>(delivery)];
}

Result<std::vector<PackingLine>> readPackingList(const std::string& bytes, const Progress& progress) {
    const auto table = readTable(bytes, [&](double done) { return !progress || progress(done / 2); });
    if (!table) return tl::make_unexpected(table.error());
    std::size_t header = table->rows.size();
    std::vector<Field> fields;
    for (std::size_t r = 0; r < std::min<std::size_t>(table->rows.size(), 30) && header == table->rows.size();
         ++r) {
        fields.clear();
        for (const auto& cell : table->rows[r]) fields.push_back(fieldOf(cell));
        const bool counts = std::find(fields.begin(), fields.end(), Field::shipped) != fields.end();
        const bool named = std::find(fields.begin(), fields.end(), Field::code) != fields.end() ||
                           std::find(fields.begin(), fields.end(), Field::description) != fields.end();
        if (counts && named) header = r;
    }
    if (header == table->rows.size())
        return problem("",
                       "This is no packing list: it wants a heading with what was shipped, and a code or a "
                       "description.");
    std::vector<PackingLine> out;
    for (std::size_t r = header + 1; r < table->rows.size(); ++r) {
        if (progress && r % 1024 == 0 && !progress(0.5 + 0.5 * double(r) / double(table->rows.size())))
            return problem("", "Reading was stopped; nothing was taken.");
        const CsvRow& row = table->rows[r];
        PackingLine line;
        line.line = table->lines[r];
        bool ordered = false;
        for (std::size_t c = 0; c < row.size() && c < fields.size(); ++c) {
            const auto cell = std::string(trimmed(row[c]));
            const auto count = wholeNumber(cell);
            const bool wantsCount =
                fields[c] == Field::ordered || fields[c] == Field::shipped || fields[c] == Field::backOrdered;
            if (wantsCount && !count)
                return problem("line " + std::to_string(line.line),
                               "\"" + cell.substr(0, 40) + "\" is no count.");
            switch (fields[c]) {
                case Field::code:
                    if (line.code.empty()) line.code = cell;
                    break;
                case Field::description:
                    line.description += (line.description.empty() ? "" : " ") + cell;
                    break;
                case Field::ordered:
                    line.ordered = *count;
                    ordered = true;
                    break;
                case Field::shipped:
                    line.shipped = *count;
                    break;
                case Field::backOrdered:
                    line.backOrdered = *count;
                    break;
                case Field::substitute:
                    line.substitutedBy = cell;
                    break;
                case Field::none:
                    break;
            }
        }
        if (line.code.empty() && line.description.empty()) continue;
        if (!ordered) line.ordered = line.shipped + line.backOrdered;
        out.push_back(std::move(line));
    }
    return out;
}

std::vector<ListLine> orderOf(const Kit& kit) {
    std::vector<ListLine> out;
    for (const Part& part : kit.parts) {
        const auto same = std::find_if(out.begin(), out.end(), [&](const ListLine& line) {
            return line.kind == part.kind && line.value == part.value && line.tolerance == part.tolerance &&
                   line.volts == part.volts && line.code == part.code;
        });
        if (same != out.end()) {
            same->refs.push_back(part.ref);
            continue;
        }
        ListLine line;
        line.refs = {part.ref};
        line.kind = part.kind;
        line.value = part.value;
        line.nominal = part.nominal;
        line.unit = part.unit;
        line.tolerance = part.tolerance;
        line.volts = part.volts;
        line.watts = part.watts;
        line.code = part.code;
        out.push_back(std::move(line));
    }
    return out;
}

std::vector<DeliveryLine> reconcile(const std::vector<ListLine>& order,
                                    const std::vector<PackingLine>& packing) {
    std::vector<DeliveryLine> out;
    std::vector<char> used(packing.size(), 0);
    for (const ListLine& line : order) {
        const auto hit = std::find_if(packing.begin(), packing.end(), [&](const PackingLine& p) {
            return !used[std::size_t(&p - packing.data())] && meets(line, p);
        });
        if (hit == packing.end()) {
            DeliveryLine missing;
            missing.state = Delivery::notOnList;
            missing.what = valueText(line);
            missing.refs = line.refs;
            missing.wanted = std::max(int(line.refs.size()), line.quantity);
            missing.sentence = "The packing list does not name it.";
            out.push_back(std::move(missing));
            continue;
        }
        used[std::size_t(hit - packing.begin())] = 1;
        out.push_back(delivered(line, *hit));
    }
    for (std::size_t i = 0; i < packing.size(); ++i) {
        if (used[i]) continue;
        DeliveryLine extra;
        extra.state = Delivery::notOrdered;
        extra.what = packing[i].description.empty() ? packing[i].code : packing[i].description;
        extra.shipped = packing[i].shipped;
        extra.sentence = std::to_string(packing[i].shipped) + " shipped that the list does not want.";
        out.push_back(std::move(extra));
    }
    return out;
}

}  // namespace ombrek
