#include "lists/packing_list.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "core/text/enumerators.h"
#include "core/text/letters.h"
#include "formats/encoding.h"
#include "lists/kind_evidence.h"
#include "lists/token.h"

namespace ombrek {
namespace {

enum class Field { none, code, description, ordered, shipped, backOrdered, substitute };

struct HeaderWord {
    std::string_view word;
    Field field;
};
/// Matched as a part of the heading, the first that fits. English, German, French, Spanish, Italian,
/// Portuguese, Dutch, Swedish, Polish.
constexpr HeaderWord kHeaders[] = {{"substitut", Field::substitute},
                                   {"replace", Field::substitute},
                                   {"instead", Field::substitute},
                                   {"ersatz", Field::substitute},
                                   {"remplac", Field::substitute},
                                   {"sustitu", Field::substitute},
                                   {"back", Field::backOrdered},
                                   {"r\u00fcckstand", Field::backOrdered},
                                   {"b/o", Field::backOrdered},
                                   {"pending", Field::backOrdered},
                                   {"to follow", Field::backOrdered},
                                   {"nachliefer", Field::backOrdered},
                                   {"reliquat", Field::backOrdered},
                                   {"reste \u00e0 livrer", Field::backOrdered},
                                   {"pendiente", Field::backOrdered},
                                   {"arretrat", Field::backOrdered},
                                   {"nalever", Field::backOrdered},
                                   {"restnoter", Field::backOrdered},
                                   {"shipped", Field::shipped},
                                   {"shp", Field::shipped},
                                   {"ship qty", Field::shipped},
                                   {"sent", Field::shipped},
                                   {"delivered", Field::shipped},
                                   {"supplied", Field::shipped},
                                   {"packed", Field::shipped},
                                   {"dispatched", Field::shipped},
                                   {"despatched", Field::shipped},
                                   {"geliefert", Field::shipped},
                                   {"liefermenge", Field::shipped},
                                   {"versandt", Field::shipped},
                                   {"livr\u00e9", Field::shipped},
                                   {"exp\u00e9di", Field::shipped},
                                   {"entregad", Field::shipped},
                                   {"enviad", Field::shipped},
                                   {"consegnat", Field::shipped},
                                   {"spedit", Field::shipped},
                                   {"fornit", Field::shipped},
                                   {"fornecid", Field::shipped},
                                   {"geleverd", Field::shipped},
                                   {"levererat", Field::shipped},
                                   {"dostarcz", Field::shipped},
                                   {"wys\u0142an", Field::shipped},
                                   {"ordered", Field::ordered},
                                   {"order qty", Field::ordered},
                                   {"qty ord", Field::ordered},
                                   {"bestellt", Field::ordered},
                                   {"command\u00e9", Field::ordered},
                                   {"pedid", Field::ordered},
                                   {"ordinat", Field::ordered},
                                   {"besteld", Field::ordered},
                                   {"best\u00e4lld", Field::ordered},
                                   {"zam\u00f3wi", Field::ordered},
                                   {"qty", Field::ordered},
                                   {"quantity", Field::ordered},
                                   {"menge", Field::ordered},
                                   {"qt\u00e9", Field::ordered},
                                   {"quantit", Field::ordered},
                                   {"cantidad", Field::ordered},
                                   {"aantal", Field::ordered},
                                   {"antal", Field::ordered},
                                   {"ilo\u015b\u0107", Field::ordered},
                                   {"artikelnr", Field::code},
                                   {"artikelnummer", Field::code},
                                   {"artikel-nr", Field::code},
                                   {"art.-nr", Field::code},
                                   {"art.nr", Field::code},
                                   {"best.-nr", Field::code},
                                   {"best.nr", Field::code},
                                   {"bestellnr", Field::code},
                                   {"bestellnummer", Field::code},
                                   {"code", Field::code},
                                   {"r\u00e9f\u00e9rence", Field::code},
                                   {"c\u00f3digo", Field::code},
                                   {"codice", Field::code},
                                   {"kod", Field::code},
                                   {"number", Field::code},
                                   {"part no", Field::code},
                                   {"item no", Field::code},
                                   {"description", Field::description},
                                   {"bezeichnung", Field::description},
                                   {"beschreibung", Field::description},
                                   {"d\u00e9signation", Field::description},
                                   {"descripci", Field::description},
                                   {"descrizione", Field::description},
                                   {"descri\u00e7", Field::description},
                                   {"omschrijving", Field::description},
                                   {"beskrivning", Field::description},
                                   {"ben\u00e4mning", Field::description},
                                   {"opis", Field::description},
                                   {"artikel", Field::description},
                                   {"art\u00edculo", Field::description},
                                   {"articolo", Field::description},
                                   {"item", Field::description},
                                   {"article", Field::description}};

Field fieldOf(std::string_view heading) {
    const std::string word = lowerText(trimmed(heading));
    for (const HeaderWord& h : kHeaders) {
        if (word.find(h.word) != std::string::npos) return h.field;
    }
    return word == "part" || word == "sku" ? Field::code : Field::none;
}

std::optional<int> countNumber(std::string_view text) {
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
    static_assert(words.size() == enumerators<Delivery>());
    return words[static_cast<std::size_t>(delivery)];
}

namespace {

struct Heading {
    std::size_t row = 0;
    std::vector<Field> fields;
};

/// The first row that names what was shipped, and a code or a description.
std::optional<Heading> headingOf(const CsvTable& table) {
    constexpr std::size_t kDeepest = 30;
    for (std::size_t r = 0; r < std::min(table.rows.size(), kDeepest); ++r) {
        Heading out{r, {}};
        for (const auto& cell : table.rows[r]) out.fields.push_back(fieldOf(cell));
        const auto has = [&](Field field) {
            return std::find(out.fields.begin(), out.fields.end(), field) != out.fields.end();
        };
        if (has(Field::shipped) && (has(Field::code) || has(Field::description))) return out;
    }
    return std::nullopt;
}

/// A sheet whose columns stand by place, below a line of headings; two blanks and more part its cells.
std::optional<CsvTable> byPlace(const std::string& text) {
    CsvTable out;
    std::vector<Piece> columns;
    std::size_t number = 0;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        const std::string_view line(text.data() + from, end - from);
        from = end + 1;
        ++number;
        const auto pieces = piecesOf(line);
        if (columns.empty()) {
            CsvTable head;
            head.rows.emplace_back();
            for (const Piece& p : pieces) head.rows[0].emplace_back(line.substr(p.begin, p.end - p.begin));
            head.lines.push_back(number);
            if (!headingOf(head)) continue;
            columns = pieces;
            out = std::move(head);
            continue;
        }
        CsvRow row(columns.size());
        const bool whole =
            pieces.size() == columns.size();  // a cell each: by their order, however they stand
        for (std::size_t i = 0; i < pieces.size(); ++i) {
            const Piece& p = pieces[i];
            const auto away = [&](const Piece& c) {
                return p.begin >= c.end   ? p.begin - c.end
                       : c.begin >= p.end ? c.begin - p.end
                                          : std::size_t(0);
            };
            std::size_t best = whole ? i : 0;
            for (std::size_t c = 1; c < columns.size() && !whole; ++c) {
                if (away(columns[c]) < away(columns[best])) best = c;
            }
            row[best] += (row[best].empty() ? "" : " ") + std::string(line.substr(p.begin, p.end - p.begin));
        }
        if (!pieces.empty()) {
            out.rows.push_back(std::move(row));
            out.lines.push_back(number);
        }
    }
    return out.rows.size() > 1 ? std::optional(std::move(out)) : std::nullopt;
}

/// "2", "2 pcs".
std::optional<int> countOf(const std::string& cell) {
    if (const auto number = countNumber(cell)) return number;
    const int said = readQuantity(cell);
    return said > 0 ? std::optional(said) : std::nullopt;
}

}  // namespace

Result<std::vector<PackingLine>> readPackingList(const std::string& bytes, const Progress& progress) {
    auto table = readTable(bytes, [&](double done) { return !progress || progress(done / 2); });
    if (!table) return tl::make_unexpected(table.error());
    auto heading = headingOf(*table);
    if (!heading) {
        // Columns by place, as a printed sheet has them.
        const std::string text = withoutLongLines(toUtf8(bytes));
        if (auto placed = text.size() < 2000000 ? byPlace(text) : std::nullopt) {
            heading = headingOf(*placed);
            if (heading) table = std::move(*placed);
        }
    }
    if (!heading)
        return problem("",
                       "This is no packing list: it wants a heading with what was shipped, and a code or a "
                       "description.");
    const std::size_t header = heading->row;
    const std::vector<Field>& fields = heading->fields;
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
            const auto count = countOf(cell);
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
