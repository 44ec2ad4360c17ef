#include "lists/placement.h"
#include "lists/token.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>
#include <optional>
#include <set>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/encoding.h"
#include "formats/table_csv.h"
#include "lists/amount.h"
#include "lists/designators.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr double kMargin = 6;     ///< of board beyond the outermost part's middle [mm]
constexpr double kLargest = 600;  ///< believable width of a kit's board [mm]
constexpr double kSmallest = 8;   ///< and the smallest

enum Field { ref, x, y, turn, side, mirror, package, kFields };

struct Word {
    Field field;
    std::vector<std::string_view> headings;  ///< letters only
};
const std::vector<Word> kWords{
    {ref,
     {"ref", "refdes", "designator", "reference", "part", "name", "bauteil", "repere", "component",
      "partname", "referencia", "id", "designatorname"}},
    {x,
     {"x", "posx", "midx", "centerx", "centrex", "xpos", "xposition", "locationx", "xlocation", "xcoord",
      "xcoordinate", "xmitte", "positionx", "refx", "padx", "xcenter"}},
    {y,
     {"y", "posy", "midy", "centery", "centrey", "ypos", "yposition", "locationy", "ylocation", "ycoord",
      "ycoordinate", "ymitte", "positiony", "refy", "pady", "ycenter"}},
    {turn,
     {"rot", "rotation", "angle", "turn", "rotationdeg", "winkel", "drehung", "drehwinkel", "orientation",
      "giro", "rotacion", "rotaci", "orient", "theta", "rotationangle"}},
    {side,
     {"side", "layer", "tb", "face", "seite", "topbottom", "lage", "cara", "couche", "boardside", "lado",
      "mountside", "layername"}},
    {mirror, {"mirror", "mirrored", "gespiegelt", "miroir"}},
    {package,
     {"package", "footprint", "pattern", "gehaeuse", "gehuse", "case", "boitier", "description", "shape"}}};

/// Letters only, without a unit in brackets: "Mid X (mm)" is "midx".
std::string headingOf(const std::string& cell) {
    std::string out;
    for (const char c : lowered(cell.substr(0, cell.find_first_of("([")))) {
        if (c >= 'a' && c <= 'z') out += c;
    }
    for (const char* unit : {"mm", "mil", "mils", "inch"}) {
        if (out.size() > std::string_view(unit).size() && out.ends_with(unit))
            out.resize(out.size() - std::string_view(unit).size());
    }
    return out;
}

std::optional<Field> fieldOf(const std::string& cell) {
    const std::string heading = headingOf(cell);
    for (const Word& word : kWords) {
        if (!heading.empty() &&
            std::find(word.headings.begin(), word.headings.end(), heading) != word.headings.end())
            return word.field;
    }
    return std::nullopt;
}

/// Millimetres in a unit's word; 0: no unit named.
double unitIn(const std::string& text) {
    const std::string low = lowered(text);
    if (low.find("mil") != std::string::npos && low.find("millim") == std::string::npos) return 0.0254;
    if (low.find("thou") != std::string::npos) return 0.0254;
    if (low.find("inch") != std::string::npos || low.find("(in)") != std::string::npos) return 25.4;
    return low.find("mm") != std::string::npos || low.find("millim") != std::string::npos ? 1 : 0;
}

struct Coordinate {
    double value = 0, unit = 0;  ///< as written; millimetres in its unit, 0: none named
};

std::optional<Coordinate> readCoordinate(std::string_view cell, const Manner& manner) {
    std::string text(trimmed(cell));
    Coordinate out;
    out.unit = unitIn(text);
    if (!text.empty() && text.back() == '"') out.unit = 25.4;
    if (lowered(text).ends_with("in")) out.unit = 25.4;
    while (!text.empty() && (std::isalpha(static_cast<unsigned char>(text.back())) || text.back() == '"' ||
                             text.back() == ' '))
        text.pop_back();
    const bool negative = text.starts_with("-");
    const std::string digits = plainDigits(negative ? text.substr(1) : text, manner);
    const auto number = parseQuantity(digits);
    if (digits.find_first_not_of("0123456789.eE+-") != std::string::npos || !number ||
        std::fabs(number->value) > 1e7)
        return std::nullopt;
    out.value = negative ? -number->value : number->value;
    return out;
}

/// Words of a line set with blanks; what stands in quotes is one.
std::vector<std::string> wordsOf(const std::string& line) {
    std::vector<std::string> out;
    std::string word;
    bool quoted = false, any = false;
    for (const char c : line) {
        if (c == '"') {
            quoted = !quoted;
            any = true;
        } else if (!quoted && (c == ' ' || c == '\t')) {
            if (!word.empty() || any) out.push_back(std::exchange(word, ""));
            any = false;
        } else {
            word += c;
        }
    }
    if (!word.empty() || any) out.push_back(word);
    return out;
}

struct Columns {
    std::array<int, kFields> at{-1, -1, -1, -1, -1, -1, -1};
    double unit = 0;  ///< by the heading
    bool whole() const { return at[ref] >= 0 && at[x] >= 0 && at[y] >= 0; }
};

Columns columnsOf(const std::vector<std::string>& cells) {
    Columns out;
    for (std::size_t c = 0; c < cells.size(); ++c) {
        const auto field = fieldOf(cells[c]);
        if (!field || out.at[*field] >= 0) continue;
        out.at[*field] = int(c);
        if (*field == x || *field == y) out.unit = std::max(out.unit, unitIn(cells[c]));
    }
    return out;
}

/// A heading set with blanks, whose names may be two words: "Mid X", and "Ref X" where as many cells stand
/// below.
Columns columnsOfWords(const std::vector<std::string>& words, std::size_t below = 0) {
    Columns out;
    std::size_t off = static_cast<std::size_t>(-1);
    for (const bool pairs : {false, true}) {
        std::vector<std::string> cells;
        for (std::size_t i = 0; i < words.size(); ++i) {
            const auto both = i + 1 < words.size() ? fieldOf(words[i] + words[i + 1]) : std::nullopt;
            const bool axis = both && (*both == x || *both == y) && words[i + 1].size() == 1;
            const bool two = both && (!fieldOf(words[i]) || (pairs && axis));
            cells.push_back(two ? words[i] + words[i + 1] : words[i]);
            i += two;
        }
        const std::size_t by = cells.size() > below ? cells.size() - below : below - cells.size();
        if (pairs && by >= off) break;
        off = by;
        out = columnsOf(cells);
    }
    return out;
}

std::string cellOf(const CsvRow& row, int column) {
    return column >= 0 && std::size_t(column) < row.size() ? std::string(trimmed(row[std::size_t(column)]))
                                                           : std::string();
}

bool isUnderside(const std::string& cell) {
    const std::string low = lowered(cell);
    static constexpr std::array<std::string_view, 9> words{"b",     "solder",    "u",        "dessous", "inf",
                                                           "abajo", "r\u00fcck", "l\u00f6t", "yes"};
    return std::any_of(words.begin(), words.end(),
                       [&](std::string_view word) { return low.starts_with(word); });
}
bool isMirrored(const std::string& cell) {
    const std::string low = lowered(cell);
    return low == "1" || low.starts_with("y") || low.starts_with("m") || low == "true" || low == "x" ||
           low.starts_with("j");
}

/// The rows of a file, however they are set, and where their columns are.
struct Rows {
    Columns columns;
    std::vector<CsvRow> rows;
    std::vector<std::size_t> lines;
};

/// Where the columns are, of rows without a heading: a designator first, two columns of numbers that differ,
/// a column of right angles, a column of sides.
Columns columnsByContent(const std::vector<CsvRow>& rows, const Manner& manner) {
    Columns out;
    std::size_t width = 0;
    for (const auto& row : rows) width = std::max(width, row.size());
    for (std::size_t c = 0; c < width; ++c) {
        std::size_t refs = 0, numbers = 0, angles = 0, sides = 0, filled = 0;
        std::set<double> values;
        for (const auto& row : rows) {
            const std::string cell = cellOf(row, int(c));
            if (cell.empty()) continue;
            ++filled;
            refs += readDesignator(cell, Letters::any).has_value();
            const auto number = readCoordinate(cell, manner);
            numbers += number.has_value();
            if (number) values.insert(number->value);
            angles +=
                number && std::fmod(std::fabs(number->value), 45) == 0 && std::fabs(number->value) <= 360;
            const std::string low = lowered(cell);
            sides += low == "t" || low == "b" || low.starts_with("top") || low.starts_with("bot");
        }
        const auto most = [&](std::size_t count) { return filled > 0 && count * 10 >= filled * 9; };
        if (out.at[ref] < 0 && most(refs)) {
            out.at[ref] = int(c);
        } else if (most(sides)) {
            out.at[side] = int(c);
        } else if (most(angles) && out.at[x] >= 0 && out.at[y] >= 0) {
            out.at[turn] = int(c);
        } else if (most(numbers) && values.size() > 1 && out.at[x] < 0) {
            out.at[x] = int(c);
        } else if (most(numbers) && values.size() > 1 && out.at[y] < 0) {
            out.at[y] = int(c);
        }
    }
    return out;
}

/// How many words most rows have, from one on.
std::size_t usualWidth(const std::vector<CsvRow>& rows, std::size_t from) {
    std::map<std::size_t, int> widths;
    for (std::size_t r = from; r < rows.size(); ++r) ++widths[rows[r].size()];
    const auto most = std::max_element(widths.begin(), widths.end(),
                                       [](const auto& a, const auto& b) { return a.second < b.second; });
    return most == widths.end() ? 0 : most->first;
}

Result<Rows> rowsOf(const std::string& bytes, const Manner& manner) {
    const std::string text = withoutLongLines(toUtf8(bytes));
    std::vector<std::pair<std::size_t, std::string>> lines;
    Columns told;  // of a comment
    double unit = 0;
    std::string plain;
    std::size_t number = 0;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        std::string line = text.substr(from, end - from);
        from = end + 1;
        ++number;
        const auto body = trimmed(line);
        if (body.starts_with('#')) {
            const std::string comment(trimmed(body.substr(
                body.find_first_not_of('#') == std::string_view::npos ? body.size()
                                                                      : body.find_first_not_of('#'))));
            unit = std::max(unit, unitIn(comment));
            const auto table = readTable(comment + "\n");
            Columns columns = table && !table->rows.empty() ? columnsOf(table->rows[0]) : Columns{};
            if (!columns.whole()) columns = columnsOfWords(wordsOf(comment));
            if (columns.whole()) told = columns;
            plain += "\n";
            continue;
        }
        lines.emplace_back(number, line);
        plain += line + "\n";
    }
    Rows out;
    const auto table = readTable(plain);
    if (!table) return tl::make_unexpected(table.error());
    for (std::size_t r = 0; r < std::min<std::size_t>(table->rows.size(), 30); ++r) {
        const Columns columns = columnsOf(table->rows[r]);
        if (!columns.whole()) continue;
        out.columns = columns;
        out.rows.assign(table->rows.begin() + std::ptrdiff_t(r) + 1, table->rows.end());
        out.lines.assign(table->lines.begin() + std::ptrdiff_t(r) + 1, table->lines.end());
        out.columns.unit = std::max(out.columns.unit, unit);
        return out;
    }
    // Columns set with blanks, with a heading or without.
    std::vector<CsvRow> words;
    std::vector<std::size_t> at;
    for (const auto& [line, body] : lines) {
        if (trimmed(body).empty()) continue;
        words.push_back(wordsOf(body));
        at.push_back(line);
    }
    for (std::size_t r = 0; r < std::min<std::size_t>(words.size(), 30); ++r) {
        const Columns columns = columnsOfWords(words[r], usualWidth(words, r + 1));
        if (!columns.whole()) continue;
        out.columns = columns;
        words.erase(words.begin(), words.begin() + std::ptrdiff_t(r) + 1);
        at.erase(at.begin(), at.begin() + std::ptrdiff_t(r) + 1);
        out.rows = std::move(words);
        out.lines = std::move(at);
        out.columns.unit = std::max(out.columns.unit, unit);
        return out;
    }
    const bool cells =
        std::any_of(table->rows.begin(), table->rows.end(), [](const auto& row) { return row.size() > 3; });
    out.rows = cells ? table->rows : words;
    out.lines = cells ? table->lines : at;
    out.columns = told.whole() ? told : columnsByContent(out.rows, manner);
    out.columns.unit = std::max(out.columns.unit, unit);
    if (!out.columns.whole())
        return problem("", "This is no placement table: it wants columns for the designator, x and y.");
    return out;
}

/// The unit that makes a board of a believable size: as given, else millimetres, else inches, else mils.
double believable(double span, double named, std::string& guesses) {
    if (named > 0) {
        const double board = span * named;
        if (board <= kLargest) return named;
        guesses +=
            "Taken as written the board would be " + personNumber(std::round(board / 100) / 10) + " m wide. ";
    }
    for (const double unit : {1.0, 25.4, 0.0254}) {
        if (unit != named && span * unit >= kSmallest && span * unit <= kLargest) return unit;
    }
    return named > 0 ? named : 1;
}

/// A file that shows the underside from below has all of its x below zero.
void turnUnderside(Placement& out) {
    bool any = false, below = true, above = true;
    for (const PlacedPart& part : out.parts) {
        if (part.underside) {
            any = true;
            below = below && part.x < 0;
        } else {
            above = above && part.x >= 0;
        }
    }
    if (!any || !below || !above) return;
    for (PlacedPart& part : out.parts) {
        if (part.underside) part.x = -part.x;
    }
}

std::string nameOfUnit(double unit) { return unit == 1 ? "millimetres" : unit == 25.4 ? "inches" : "mils"; }

}  // namespace

Result<Placement> readPlacement(const std::string& bytes, const PlacementContext& context) {
    const Manner manner = mannerOf(toUtf8(bytes));
    auto table = rowsOf(bytes, manner);
    if (!table) return tl::make_unexpected(table.error());
    const Columns& columns = table->columns;
    Placement out;
    double named = columns.unit;
    std::set<std::string> seen;
    for (std::size_t i = 0; i < table->rows.size(); ++i) {
        const CsvRow& row = table->rows[i];
        const std::string line = "line " + std::to_string(table->lines[i]);
        const std::string name = cellOf(row, columns.at[ref]);
        const auto px = readCoordinate(cellOf(row, columns.at[x]), manner),
                   py = readCoordinate(cellOf(row, columns.at[y]), manner);
        if (name.empty() || name.size() > 16 || !px || !py) {
            if (!row.empty() && cellOf(row, 0).find_first_not_of("-=") == std::string::npos) continue;
            out.refused.push_back({line, "No designator with x and y."});
            continue;
        }
        if (!seen.insert(name).second) {
            out.refused.push_back({line, name + " is placed twice; the first place is kept."});
            continue;
        }
        named = std::max({named, px->unit, py->unit});
        const auto angle = readCoordinate(cellOf(row, columns.at[turn]), manner);
        const double turned = angle ? std::fmod(std::fmod(-angle->value, 360) + 360, 360) : 0;
        const bool under = columns.at[mirror] >= 0 && columns.at[side] < 0
                               ? isMirrored(cellOf(row, columns.at[mirror]))
                               : isUnderside(cellOf(row, columns.at[side]));
        out.parts.push_back({name, px->value, py->value, turned, under, cellOf(row, columns.at[package])});
    }
    if (out.parts.empty()) return problem("", "No row of this table places a part.");
    turnUnderside(out);
    // A row that no part has, a fiducial far out, does not make the board larger.
    const std::set<std::string> known(context.refs.begin(), context.refs.end());
    std::vector<const PlacedPart*> counted;
    for (const PlacedPart& part : out.parts) {
        if (known.empty() || known.contains(part.ref)) counted.push_back(&part);
    }
    if (counted.empty()) {
        for (const PlacedPart& part : out.parts) counted.push_back(&part);
    }
    double left = counted[0]->x, right = left, low = counted[0]->y, high = low;
    for (const PlacedPart* part : counted) {
        left = std::min(left, part->x), right = std::max(right, part->x);
        low = std::min(low, part->y), high = std::max(high, part->y);
    }
    std::string guesses;
    double unit = believable(std::max(right - left, high - low), named, guesses);
    if (context.origin) {
        left = context.origin->left;
        high = context.origin->top;
        unit = context.origin->unit;
        guesses += "Laid on the corner of the file before. ";
    }
    out.origin = {left, high, unit};
    out.units = nameOfUnit(unit);
    for (PlacedPart& part : out.parts) {
        part.x = (part.x - left) * unit + kMargin;
        part.y = (high - part.y) * unit + kMargin;
    }
    for (const PlacedPart* part : counted) {
        out.width = std::max(out.width, part->x + kMargin);
        out.height = std::max(out.height, part->y + kMargin);
    }
    out.guesses = guesses + "Read as " + out.units + (named == unit ? "" : " (guessed)") +
                  ", y upwards, the corner " + personNumber(kMargin) +
                  " mm beyond the outermost part: a board of " + personNumber(std::round(out.width)) +
                  " by " + personNumber(std::round(out.height)) + " mm.";
    return out;
}

std::string withPlaces(const std::string& kitText, const Placement& placement) {
    Json kit = Json::parse(kitText);
    std::map<std::string, const PlacedPart*> byRef;
    for (const PlacedPart& placed : placement.parts) byRef.emplace(placed.ref, &placed);
    for (Json& part : kit["parts"]) {
        const auto hit = byRef.find(part.value("ref", ""));
        if (hit == byRef.end()) continue;
        const PlacedPart& placed = *hit->second;
        if (placed.x < 0 || placed.y < 0 || placed.x > 1000 || placed.y > 1000) continue;
        Json place = part.contains("place") ? part["place"] : Json::object();
        place.erase("turn");
        place.erase("underside");
        place["x"] = std::round(placed.x * 100) / 100;
        place["y"] = std::round(placed.y * 100) / 100;
        if (placed.turn != 0) place["turn"] = placed.turn;
        if (placed.underside) place["underside"] = true;
        part["place"] = std::move(place);
        if (!placed.package.empty() && !part.contains("package"))
            part["package"] = placed.package.substr(0, 60);
    }
    const bool small = kit.contains("board") && (kit["board"].value("width_mm", 0.0) < placement.width ||
                                                 kit["board"].value("height_mm", 0.0) < placement.height);
    if (!kit.contains("board") || small)
        kit["board"] = {{"width_mm", std::clamp(std::ceil(placement.width), 5.0, 1000.0)},
                        {"height_mm", std::clamp(std::ceil(placement.height), 5.0, 1000.0)}};
    kit["x-placement"] = {
        {"left", placement.origin.left}, {"top", placement.origin.top}, {"unit", placement.origin.unit}};
    return kit.dump(1);
}

PlacementContext placementContext(const std::string& kitText) {
    const Json kit = Json::parse(kitText, nullptr, false);
    PlacementContext out;
    if (!kit.is_object() || !kit.contains("parts")) return out;
    for (const Json& part : kit["parts"]) out.refs.push_back(part.value("ref", ""));
    if (!kit.contains("x-placement")) return out;
    const Json& origin = kit["x-placement"];
    if (origin.value("unit", 0.0) > 0)
        out.origin =
            PlaceOrigin{origin.value("left", 0.0), origin.value("top", 0.0), origin.value("unit", 1.0)};
    return out;
}

std::vector<std::string> disagreements(const Placement& placement, const std::vector<std::string>& refs) {
    const std::set<std::string> listed(refs.begin(), refs.end());
    std::set<std::string> placed;
    std::string unknown, missing;
    int unknowns = 0, missings = 0;
    const auto add = [](std::string& list, int& count, const std::string& name) {
        if (++count <= 8) list += (list.empty() ? "" : ", ") + name;
        if (count == 9) list += ", …";
    };
    for (const PlacedPart& part : placement.parts) {
        placed.insert(part.ref);
        if (!listed.contains(part.ref)) add(unknown, unknowns, part.ref);
    }
    for (const std::string& name : refs) {
        if (!placed.contains(name)) add(missing, missings, name);
    }
    std::vector<std::string> out;
    if (unknowns > 0) out.push_back("Not in the parts list, left out: " + unknown + ".");
    if (missings > 0) out.push_back("Without a place: " + missing + ".");
    return out;
}

bool isOtherSide(const Placement& placement, const std::string& kitText) {
    const Json kit = Json::parse(kitText, nullptr, false);
    std::set<std::string> placed;
    if (kit.is_object() && kit.contains("parts")) {
        for (const Json& part : kit["parts"]) {
            if (part.contains("place")) placed.insert(part.value("ref", ""));
        }
    }
    const auto known = std::count_if(placement.parts.begin(), placement.parts.end(),
                                     [&](const PlacedPart& part) { return placed.contains(part.ref); });
    return known * 2 < std::ptrdiff_t(placement.parts.size());
}

}  // namespace ombrek
