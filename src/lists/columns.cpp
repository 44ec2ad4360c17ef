#include "lists/columns.h"

#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "core/text/enumerators.h"
#include "core/text/letters.h"
#include "lists/amount.h"
#include "lists/designators.h"
#include "lists/kind_evidence.h"
#include "lists/token.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, kColumns> kWords{
    "not used",  "Designator", "Quantity",   "Kind",    "Value",       "Description",
    "Tolerance", "Package",    "Voltage",    "Mark",    "Order code",  "Part number",
    "Remark",    "Fitted",     "Not fitted", "Variant", "For variant", "Winding"};

struct Heading {
    std::string_view word;  ///< lower case
    Column column;
    double weight = 4;  ///< 4: sure; 2: what stands in the column decides
};
// A word may stand for several; what stands below decides.
constexpr Heading kHeadings[] = {{"ref", Column::refs},
                                 {"refs", Column::refs},
                                 {"reference", Column::refs},
                                 {"references", Column::refs},
                                 {"reference designator", Column::refs},
                                 {"refdes", Column::refs},
                                 {"ref des", Column::refs},
                                 {"part reference", Column::refs},
                                 {"designator", Column::refs},
                                 {"designators", Column::refs},
                                 {"designation", Column::refs, 2},
                                 {"designation", Column::value, 2},
                                 {"part", Column::refs, 2},
                                 {"part", Column::value, 2},
                                 {"part", Column::mpn, 1},
                                 {"parts", Column::refs, 3},
                                 {"component", Column::refs, 2},
                                 {"component", Column::value, 1.5},
                                 {"component", Column::description, 1},
                                 {"components", Column::refs, 2},
                                 {"bauteil", Column::refs, 2},
                                 {"bauteil", Column::description, 1.5},
                                 {"bauteile", Column::refs, 2},
                                 {"bezeichner", Column::refs},
                                 {"bezeichnung", Column::refs, 2},
                                 {"bezeichnung", Column::description, 2.5},
                                 {"bauteilbezeichnung", Column::refs, 2},
                                 {"position", Column::refs, 2},
                                 {"pos", Column::refs, 2},
                                 {"positionsnummer", Column::refs, 2},
                                 {"rep\u00e8re", Column::refs},
                                 {"repere", Column::refs},
                                 {"rep\u00e8res", Column::refs},
                                 {"r\u00e9f\u00e9rence", Column::refs, 2.5},
                                 {"r\u00e9f", Column::refs, 2.5},
                                 {"referencia", Column::refs, 2.5},
                                 {"referencias", Column::refs, 2.5},
                                 {"riferimento", Column::refs, 3},
                                 {"sigla", Column::refs, 3},
                                 {"componente", Column::refs, 2},
                                 {"composant", Column::refs, 2},
                                 {"composants", Column::refs, 2},
                                 {"location", Column::refs, 2},
                                 {"board location", Column::refs, 3},
                                 {"symbol", Column::refs, 2},
                                 {"name", Column::refs, 1.5},
                                 {"name", Column::value, 1},
                                 {"name", Column::description, 1.5},
                                 {"qty", Column::quantity},
                                 {"qnty", Column::quantity},
                                 {"quantity", Column::quantity},
                                 {"quant", Column::quantity},
                                 {"count", Column::quantity},
                                 {"pcs", Column::quantity},
                                 {"nos", Column::quantity},
                                 {"no", Column::quantity, 2},
                                 {"number", Column::quantity, 1},
                                 {"anzahl", Column::quantity},
                                 {"anz", Column::quantity},
                                 {"menge", Column::quantity},
                                 {"st\u00fcck", Column::quantity},
                                 {"stk", Column::quantity},
                                 {"st\u00fcckzahl", Column::quantity},
                                 {"qt\u00e9", Column::quantity},
                                 {"qte", Column::quantity},
                                 {"quantit\u00e9", Column::quantity},
                                 {"nombre", Column::quantity, 3},
                                 {"nb", Column::quantity, 3},
                                 {"cantidad", Column::quantity},
                                 {"cant", Column::quantity},
                                 {"quantit\u00e0", Column::quantity},
                                 {"q.t\u00e0", Column::quantity},
                                 {"qta", Column::quantity},
                                 {"aantal", Column::quantity},
                                 {"kind", Column::kind},
                                 {"category", Column::kind, 3},
                                 {"art", Column::kind, 2},
                                 {"type", Column::kind, 2},
                                 {"type", Column::value, 1.8},
                                 {"type", Column::mpn, 1},
                                 {"typ", Column::value, 2},
                                 {"typ", Column::kind, 1.5},
                                 {"tipo", Column::kind, 2},
                                 {"tipo", Column::value, 1.5},
                                 {"device", Column::kind, 1},
                                 {"device", Column::description, 1.5},
                                 {"value", Column::value},
                                 {"values", Column::value},
                                 {"val", Column::value},
                                 {"wert", Column::value},
                                 {"werte", Column::value},
                                 {"valeur", Column::value},
                                 {"valor", Column::value},
                                 {"valore", Column::value},
                                 {"waarde", Column::value},
                                 {"nominal", Column::value},
                                 {"part value", Column::value},
                                 {"value/type", Column::value},
                                 {"type/value", Column::value},
                                 {"wert/typ", Column::value},
                                 {"typ/wert", Column::value},
                                 {"comment", Column::value, 2.2},
                                 {"comment", Column::remark, 2},
                                 {"description", Column::description},
                                 {"desc", Column::description},
                                 {"part description", Column::description},
                                 {"beschreibung", Column::description},
                                 {"descripci\u00f3n", Column::description},
                                 {"descripcion", Column::description},
                                 {"descrizione", Column::description},
                                 {"omschrijving", Column::description},
                                 {"d\u00e9signation", Column::description, 3},
                                 {"d\u00e9signation", Column::value, 2},
                                 {"details", Column::description, 3},
                                 {"rating", Column::description, 3},
                                 {"ratings", Column::description, 3},
                                 {"specification", Column::description, 3},
                                 {"spec", Column::description, 3},
                                 {"item", Column::description, 1.5},
                                 {"notes", Column::remark},
                                 {"note", Column::remark},
                                 {"remark", Column::remark},
                                 {"remarks", Column::remark},
                                 {"bemerkung", Column::remark},
                                 {"bemerkungen", Column::remark},
                                 {"anmerkung", Column::remark},
                                 {"hinweis", Column::remark},
                                 {"kommentar", Column::remark},
                                 {"remarque", Column::remark},
                                 {"remarques", Column::remark},
                                 {"commentaire", Column::remark},
                                 {"observaciones", Column::remark},
                                 {"notas", Column::remark},
                                 {"opmerking", Column::remark},
                                 {"tolerance", Column::tolerance},
                                 {"tolerance pct", Column::tolerance},
                                 {"tol", Column::tolerance},
                                 {"toleranz", Column::tolerance},
                                 {"tol\u00e9rance", Column::tolerance},
                                 {"tolerancia", Column::tolerance},
                                 {"tolleranza", Column::tolerance},
                                 {"package", Column::package},
                                 {"pkg", Column::package},
                                 {"footprint", Column::package},
                                 {"pattern", Column::package, 3},
                                 {"case", Column::package, 3},
                                 {"geh\u00e4use", Column::package},
                                 {"bauform", Column::package},
                                 {"bo\u00eetier", Column::package},
                                 {"boitier", Column::package},
                                 {"encapsulado", Column::package},
                                 {"contenitore", Column::package},
                                 {"behuizing", Column::package},
                                 {"size", Column::package, 2},
                                 {"voltage", Column::volts},
                                 {"volts", Column::volts},
                                 {"spannung", Column::volts},
                                 {"tension", Column::volts},
                                 {"tensi\u00f3n", Column::volts},
                                 {"rated voltage", Column::volts},
                                 {"mark", Column::mark},
                                 {"marking", Column::mark},
                                 {"markings", Column::mark},
                                 {"marked", Column::mark},
                                 {"aufdruck", Column::mark},
                                 {"marquage", Column::mark},
                                 {"marcado", Column::mark},
                                 {"colour code", Column::mark, 3},
                                 {"color code", Column::mark, 3},
                                 {"colours", Column::mark, 3},
                                 {"farbcode", Column::mark, 3},
                                 {"code", Column::code, 2},
                                 {"code", Column::mark, 1.5},
                                 {"supplier code", Column::code},
                                 {"order code", Column::code},
                                 {"order no", Column::code},
                                 {"order number", Column::code},
                                 {"stock code", Column::code},
                                 {"stock no", Column::code},
                                 {"sku", Column::code},
                                 {"supplier part", Column::code},
                                 {"supplier part number", Column::code},
                                 {"supplier and ref", Column::code},
                                 {"distributor part number", Column::code},
                                 {"bestell-nr", Column::code},
                                 {"bestellnr", Column::code},
                                 {"bestellnummer", Column::code},
                                 {"best.-nr", Column::code},
                                 {"artikelnummer", Column::code},
                                 {"artikel-nr", Column::code},
                                 {"code commande", Column::code},
                                 {"vendor", Column::none, 4},
                                 {"supplier", Column::none, 4},
                                 {"manufacturer", Column::none, 4},
                                 {"mfr", Column::none, 4},
                                 {"mfg", Column::none, 4},
                                 {"hersteller", Column::none, 4},
                                 {"fabricant", Column::none, 4},
                                 {"datasheet", Column::none, 4},
                                 {"library", Column::none, 4},
                                 {"libpart", Column::none, 3},
                                 {"libref", Column::none, 3},
                                 {"sheet", Column::none, 3},
                                 {"price", Column::none, 4},
                                 {"cost", Column::none, 4},
                                 {"unit price", Column::none, 4},
                                 {"preis", Column::none, 4},
                                 {"prix", Column::none, 4},
                                 {"id", Column::none, 3},
                                 {"line", Column::none, 3},
                                 {"item no", Column::none, 3},
                                 {"item number", Column::none, 3},
                                 {"part number", Column::mpn, 3.5},
                                 {"part no", Column::mpn, 3.5},
                                 {"mpn", Column::mpn},
                                 {"manufacturer part number", Column::mpn},
                                 {"manufacturer part", Column::mpn},
                                 {"manufacturer pn", Column::mpn},
                                 {"manf#", Column::mpn},
                                 {"mfr part", Column::mpn},
                                 {"mfr part no", Column::mpn},
                                 {"mfr part number", Column::mpn},
                                 {"mfr pn", Column::mpn},
                                 {"mfg part", Column::mpn},
                                 {"mfg part no", Column::mpn},
                                 {"mfg part number", Column::mpn},
                                 {"mfg pn", Column::mpn},
                                 {"manf part", Column::mpn},
                                 {"p/n", Column::mpn, 3},
                                 {"mfr p/n", Column::mpn},
                                 {"mfr. p/n", Column::mpn},
                                 {"mfg p/n", Column::mpn},
                                 {"mfg. p/n", Column::mpn},
                                 {"manufacturer p/n", Column::mpn},
                                 {"supplier p/n", Column::code},
                                 {"vendor p/n", Column::code},
                                 {"herstellernummer", Column::mpn},
                                 {"hersteller-nr", Column::mpn},
                                 {"herstellernr", Column::mpn},
                                 {"hersteller-teilenummer", Column::mpn},
                                 {"r\u00e9f\u00e9rence fabricant", Column::mpn},
                                 {"r\u00e9f fabricant", Column::mpn},
                                 {"referencia fabricante", Column::mpn},
                                 {"fitted", Column::fitted},
                                 {"populate", Column::fitted},
                                 {"populated", Column::fitted},
                                 {"mounted", Column::fitted},
                                 {"stuff", Column::fitted},
                                 {"best\u00fcckt", Column::fitted},
                                 {"best\u00fccken", Column::fitted},
                                 {"mont\u00e9", Column::fitted},
                                 {"montado", Column::fitted},
                                 {"dnp", Column::notFitted},
                                 {"dni", Column::notFitted},
                                 {"dnf", Column::notFitted},
                                 {"do not populate", Column::notFitted},
                                 {"not fitted", Column::notFitted},
                                 {"exclude from bom", Column::notFitted},
                                 {"nicht best\u00fcckt", Column::notFitted},
                                 {"non mont\u00e9", Column::notFitted},
                                 {"variant", Column::forVariant, 3},
                                 {"version", Column::forVariant, 3},
                                 {"variante", Column::forVariant, 3},
                                 {"ausf\u00fchrung", Column::forVariant, 3},
                                 {"band", Column::forVariant, 3},
                                 {"turns", Column::winding},
                                 {"no of turns", Column::winding},
                                 {"no. of turns", Column::winding},
                                 {"number of turns", Column::winding},
                                 {"windings", Column::winding},
                                 {"windungen", Column::winding},
                                 {"wdg", Column::winding},
                                 {"windungszahl", Column::winding},
                                 {"spires", Column::winding},
                                 {"nombre de spires", Column::winding},
                                 {"vueltas", Column::winding},
                                 {"espiras", Column::winding},
                                 {"spire", Column::winding},
                                 {"windingen", Column::winding},
                                 {"core", Column::winding},
                                 {"toroid core", Column::winding},
                                 {"kern", Column::winding},
                                 {"ringkern", Column::winding},
                                 {"noyau", Column::winding},
                                 {"tore", Column::winding},
                                 {"n\u00facleo", Column::winding},
                                 {"nucleo", Column::winding},
                                 {"wire", Column::winding},
                                 {"wire size", Column::winding},
                                 {"wire gauge", Column::winding},
                                 {"awg", Column::winding},
                                 {"swg", Column::winding},
                                 {"draht", Column::winding},
                                 {"fil", Column::winding},
                                 {"hilo", Column::winding},
                                 {"alambre", Column::winding},
                                 {"filo", Column::winding},
                                 {"draad", Column::winding},
                                 {"wire length", Column::winding},
                                 {"drahtl\u00e4nge", Column::winding},
                                 {"toroid", Column::winding, 3},
                                 {"length", Column::winding, 3},
                                 {"l\u00e4nge", Column::winding, 3},
                                 {"longueur", Column::winding, 3},
                                 {"longitud", Column::winding, 3},
                                 {"lunghezza", Column::winding, 3},
                                 {"lengte", Column::winding, 3},
                                 {"coil", Column::refs, 2},
                                 {"coils", Column::refs, 2},
                                 {"inductor", Column::refs, 2},
                                 {"spule", Column::refs, 2},
                                 {"bobine", Column::refs, 2},
                                 {"bobina", Column::refs, 2},
                                 {"spoel", Column::refs, 2}};

/// Lower case, without hashes, points and what stands in brackets; underlines are blanks.
std::string plainHeading(std::string_view cell) {
    std::string out;
    int depth = 0;
    for (const char c : lowerText(trimmed(cell))) {
        depth += c == '(' || c == '[';
        const bool inside = depth > 0;
        depth -= c == ')' || c == ']';
        if (inside || c == ':' || (c == '#' && out.empty())) continue;
        out += c == '_' ? ' ' : c;
    }
    std::string text(trimmed(out));
    while (!text.empty() && (text.back() == '.' || text.back() == '#')) text.pop_back();
    return std::string(trimmed(text));
}

std::map<Column, double> headingScores(std::string_view cell) {
    std::map<Column, double> out;
    const std::string word = plainHeading(cell);
    if (word.empty() || word.size() > 40) return out;
    const std::string whole = lowerText(trimmed(cell));
    for (const Heading& h : kHeadings) {
        if (h.word == word || h.word == whole) out[h.column] = h.weight;
    }
    if (!out.empty()) return out;
    // "Reference(s)" is met above; "Value 1", "Quantity per board" begin with a word that is known.
    for (const Heading& h : kHeadings) {
        if (h.word.size() > 3 && word.starts_with(h.word) && word.size() > h.word.size() &&
            word[h.word.size()] == ' ')
            out[h.column] = std::max(out[h.column], 0.75 * h.weight);
    }
    return out;
}

/// Shares of a column's cells that read as designators, whole numbers, values, percentages.
struct Contents {
    double refs = 0, whole = 0, value = 0, percent = 0, volts = 0, words = 0, package = 0, filled = 0;
    bool counter = false;  ///< long whole numbers that rise: a shop's or a store's own, no value
};

Contents contentsOf(const CsvTable& table, std::size_t column, std::size_t from) {
    Contents out;
    double cells = 0, rows = 0, before = -1;
    bool rising = true;
    const std::size_t most = std::min(table.rows.size(), from + 200);
    for (std::size_t r = from; r < most; ++r) {
        ++rows;
        if (column >= table.rows[r].size()) continue;
        const auto cell = trimmed(table.rows[r][column]);
        if (cell.empty()) continue;
        ++cells;
        const bool whole = wholeNumber(cell, 4);
        const double number =
            wholeNumber(cell, 9) && cell.size() >= 3 ? double(std::stol(std::string(cell))) : -1;
        rising = rising && number > before;
        before = number;
        bool value = false, percent = false, volts = false;
        const auto tokens = tokensOf(cell);
        for (const Unit unit : {Unit::ohm, Unit::farad, Unit::henry}) {
            const auto amount = tokens.empty() ? std::nullopt : readAmount(tokens[0].text, unit);
            value = value || (amount && (amount->said != Amount::Said::number || !whole));
        }
        if (!tokens.empty() && tokens.size() <= 2) {
            const auto a = readAmount(tokens[0].text, Unit::percent),
                       b = readAmount(tokens[0].text, Unit::volt);
            percent = (a && a->said == Amount::Said::unit) || (tokens.size() == 2 && tokens[1].text == "%");
            volts = b && b->said == Amount::Said::unit;
        }
        const std::string text(cell);
        // "R1" reads as a tenth of an ohm, too; its letters are a designator's.
        const bool usual = onlyDesignators(text).has_value();
        out.refs += usual || (onlyDesignators(text, {Letters::any}).has_value() && !byType(text) && !value);
        value = value && !usual;
        out.whole += whole;
        out.percent += percent;
        out.volts += volts;
        out.value += value && !whole;
        out.package += byPackage(cell).has_value() && !whole;
        out.words += !value && cell.find(' ') != std::string_view::npos;
    }
    for (double* share :
         {&out.refs, &out.whole, &out.value, &out.percent, &out.volts, &out.words, &out.package})
        *share = cells > 0 ? *share / cells : 0;
    out.filled = rows > 0 ? cells / rows : 0;
    out.counter = rising && cells >= 3;
    return out;
}

double contentScore(const Contents& c, Column column) {
    if (c.counter && (column == Column::value || column == Column::mpn || column == Column::mark)) return -6;
    switch (column) {
        case Column::refs:
            return c.refs > 0.5 ? 4 * c.refs : c.filled > 0.3 && c.refs < 0.2 ? -6 : 0;
        case Column::quantity:
            return c.whole > 0.7 ? 2 : c.filled > 0 && c.whole < 0.3 ? -2 : 0;
        case Column::value:
            return c.value > 0.3 ? 2.5 * c.value : c.whole > 0.9 ? -0.5 : 0;
        case Column::tolerance:
            return c.percent > 0.5 ? 3 : 0;
        case Column::volts:
            return c.volts > 0.5 ? 3 : 0;
        case Column::package:
            return c.package > 0.5 ? 2 : 0;
        case Column::description:
            return c.words > 0.3 ? 1 : c.whole > 0.7 ? -5 : 0;
        default:
            return 0;
    }
}

std::size_t headerRow(const CsvTable& table) {
    const std::size_t most = std::min<std::size_t>(table.rows.size(), 30);
    for (std::size_t r = 0; r < most; ++r) {
        if (isHeader(table.rows[r])) return r;
    }
    return table.rows.size();
}

bool single(Column column) {
    return column != Column::winding && column != Column::description && column != Column::none &&
           column != Column::remark && column != Column::variant;
}

}  // namespace

static_assert(kColumns == enumerators<Column>());
std::string_view word(Column column) { return kWords[static_cast<std::size_t>(column)]; }

bool isVariantWord(std::string_view cell) {
    std::string text = lowerText(trimmed(cell));
    for (const std::string_view lead : {"value ", "wert ", "valeur ", "valor ", "for ", "c ", "l "}) {
        if (text.starts_with(lead)) text = text.substr(lead.size());
    }
    for (const std::string_view tail : {" value", " band", "-band", " version", " wert"}) {
        if (text.ends_with(tail)) text.resize(text.size() - tail.size());
    }
    for (const std::string_view lead :
         {"version ", "variant ", "variante ", "model ", "modell ", "band ", "typ ", "kit "}) {
        if (text.starts_with(lead) && text.size() <= lead.size() + 6) return true;
    }
    std::size_t i = 0;
    while (i < text.size() && ((text[i] >= '0' && text[i] <= '9') || text[i] == '.' || text[i] == ',' ||
                               text[i] == '/' || text[i] == '-'))
        ++i;
    const auto unit = trimmed(std::string_view(text).substr(i));
    return i > 0 && (unit == "m" || unit == "cm" || unit == "mhz");
}

std::size_t headingsIn(const CsvRow& row) {
    return std::size_t(std::count_if(row.begin(), row.end(),
                                     [](const std::string& cell) { return !headingScores(cell).empty(); }));
}

bool isHeader(const CsvRow& row) {
    bool leads = false;
    std::size_t filled = 0, designators = 0;
    for (const std::string& cell : row) designators += readDesignator(trimmed(cell)).has_value();
    if (designators > 1) return false;
    for (const std::string& cell : row) {
        filled += !trimmed(cell).empty();
        const auto scores = headingScores(cell);
        leads = leads || scores.contains(Column::refs) || scores.contains(Column::value);
    }
    const auto variants = std::size_t(
        std::count_if(row.begin(), row.end(), [](const auto& cell) { return isVariantWord(cell); }));
    const std::size_t known = headingsIn(row) + (variants > 1 ? variants : 0);
    return leads && known >= 2 && known * 3 >= filled;
}

ListShape guessShape(const CsvTable& table) {
    ListShape out;
    const std::size_t header = headerRow(table);
    const bool headed = header < table.rows.size();
    out.headerRows = headed ? header + 1 : 0;
    std::size_t width = 0;
    for (std::size_t r = 0; r < table.rows.size() && r < 200; ++r)
        width = std::max(width, table.rows[r].size());
    width = std::min<std::size_t>(width, 64);
    out.columns.assign(width, Column::none);
    if (headed) out.headings = table.rows[header];
    out.headings.resize(width);
    struct Bid {
        double score;
        std::size_t column;
        Column role;
    };
    std::vector<Bid> bids;
    std::set<std::size_t> variants;
    for (std::size_t c = 0; c < width; ++c) {
        if (isVariantWord(out.headings[c])) variants.insert(c);
    }
    if (variants.size() < 2) variants.clear();
    for (std::size_t c = 0; c < width; ++c) {
        const Contents contents = contentsOf(table, c, out.headerRows);
        const auto said = headingScores(out.headings[c]);
        if (variants.contains(c)) {
            out.columns[c] = Column::variant;
            continue;
        }
        for (int r = 1; r < kColumns; ++r) {
            const auto role = static_cast<Column>(r);
            const auto hit = said.find(role);
            double score = contentScore(contents, role);
            if (hit != said.end()) {
                score += hit->second;
            } else if (!said.empty() || (headed && role != Column::refs && role != Column::value)) {
                // A heading that says something else keeps its column, except from the designators.
                if (role != Column::refs || contents.refs < 0.8) continue;
                score -= 3;
            }
            if ((role == Column::forVariant || role == Column::winding) && hit == said.end()) continue;
            if (score > 0.9) bids.push_back({score, c, role});
        }
    }
    std::stable_sort(bids.begin(), bids.end(), [](const Bid& a, const Bid& b) { return a.score > b.score; });
    std::set<Column> taken;
    for (const Bid& bid : bids) {
        if (out.columns[bid.column] != Column::none) continue;
        if (single(bid.role) && !taken.insert(bid.role).second) continue;
        out.columns[bid.column] = bid.role;
    }
    if (headed) {
        for (const auto& cell : table.rows[header])
            out.key += (out.key.empty() ? "" : "|") + lowered(trimmed(cell));
    }
    return out;
}

std::vector<std::string> variantsOf(const ListShape& shape) {
    std::vector<std::string> out;
    for (std::size_t c = 0; c < shape.columns.size() && c < shape.headings.size(); ++c) {
        if (shape.columns[c] == Column::variant) out.emplace_back(trimmed(shape.headings[c]));
    }
    return out;
}

std::string prefixOf(std::string_view heading) {
    const std::string folded = foldSigns(heading);
    const std::string low = lowerText(folded);
    for (const auto& [text, prefix] : {std::pair{"pf", "pF"},
                                       {"nf", "nF"},
                                       {"uf", "uF"},
                                       {"mfd", "uF"},
                                       {"nh", "nH"},
                                       {"uh", "uH"},
                                       {"kohm", "kohm"},
                                       {"k ohm", "kohm"},
                                       {"mohm", "Mohm"}}) {
        const std::string name(text);
        const auto at = low.find(name);
        const auto inner = [&](std::size_t i) { return i < low.size() && low[i] >= 'a' && low[i] <= 'z'; };
        if (at != std::string::npos && (at == 0 || !inner(at - 1)) && !inner(at + name.size())) return prefix;
    }
    return "";
}

std::string countedBy(std::string_view heading) {
    const std::string low = lowerText(heading);
    struct Counted {
        std::string_view word, unit;
    };
    static constexpr Counted rows[] = {
        {"turn", "turns"},   {"winding", "turns"}, {"windung", "turns"}, {"wdg", "turns"}, {"spire", "turns"},
        {"vuelta", "turns"}, {"espira", "turns"},  {"awg", "AWG"},       {"swg", "SWG"},   {"(mm)", "mm"},
        {"(cm)", "cm"},      {"(in)", "in"},       {" mm", "mm"},        {" cm", "cm"}};
    const auto hit = std::find_if(std::begin(rows), std::end(rows), [&](const Counted& row) {
        return low.find(row.word) != std::string::npos;
    });
    return hit == std::end(rows) ? "" : std::string(hit->unit);
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

}  // namespace ombrek
