#include "formats/placement.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <optional>
#include <set>

#include "core/quantity/quantity.h"
#include "formats/encoding.h"
#include "formats/table_csv.h"

namespace ombrek {
namespace {

constexpr double kMargin = 6;     ///< of board beyond the outermost part's middle [mm]
constexpr double kLargest = 600;  ///< believable width of a kit's board [mm]
constexpr double kSmallest = 8;   ///< and the smallest

enum Field { ref, x, y, turn, side, kFields };

struct Word {
    Field field;
    std::array<std::string_view, 8> headings;
};
const std::array<Word, kFields> kWords{
    {{ref, {"ref", "refdes", "designator", "reference", "part", "name", "bauteil", "repere"}},
     {x, {"x", "posx", "midx", "centerx", "xpos", "refx", "", ""}},
     {y, {"y", "posy", "midy", "centery", "ypos", "refy", "", ""}},
     {turn, {"rot", "rotation", "angle", "turn", "rotationdeg", "", "", ""}},
     {side, {"side", "layer", "tb", "face", "seite", "", "", ""}}}};

/// Letters only, without a unit in brackets: "Mid X (mm)" is "midx".
std::string headingOf(const std::string& cell) {
    std::string out;
    for (const char c : lowered(cell.substr(0, cell.find_first_of("([")))) {
        if (c >= 'a' && c <= 'z') out += c;
    }
    for (const char* unit : {"mm", "mil", "inch"}) {
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
    if (low.find("mil") != std::string::npos || low.find("thou") != std::string::npos) return 0.0254;
    if (low.find("inch") != std::string::npos || low.find("(in)") != std::string::npos) return 25.4;
    return low.find("mm") != std::string::npos ? 1 : 0;
}

struct Coordinate {
    double value = 0, unit = 0;  ///< as written; millimetres in its unit, 0: none named
};

std::optional<Coordinate> readCoordinate(std::string_view cell) {
    std::string text(trimmed(cell));
    Coordinate out;
    out.unit = unitIn(text);
    if (!text.empty() && text.back() == '"') out.unit = 25.4;
    if (lowered(text).ends_with("in")) out.unit = 25.4;
    while (!text.empty() && (std::isalpha(static_cast<unsigned char>(text.back())) || text.back() == '"' ||
                             text.back() == ' '))
        text.pop_back();
    const bool negative = text.starts_with("-");
    const auto number = parseQuantity(negative ? text.substr(1) : text);
    if (!number || std::fabs(number->value) > 1e7) return std::nullopt;
    out.value = negative ? -number->value : number->value;
    return out;
}

struct Columns {
    std::array<int, kFields> at{-1, -1, -1, -1, -1};
    std::size_t header = 0;
    double unit = 0;  ///< by the heading
};

std::optional<Columns> columnsOf(const CsvTable& table) {
    for (std::size_t row = 0; row < std::min<std::size_t>(table.rows.size(), 30); ++row) {
        Columns out;
        out.header = row;
        for (std::size_t c = 0; c < table.rows[row].size(); ++c) {
            const auto field = fieldOf(table.rows[row][c]);
            if (!field || out.at[*field] >= 0) continue;
            out.at[*field] = int(c);
            if (*field == x || *field == y) out.unit = std::max(out.unit, unitIn(table.rows[row][c]));
        }
        if (out.at[ref] >= 0 && out.at[x] >= 0 && out.at[y] >= 0) return out;
    }
    return std::nullopt;
}

std::string cellOf(const CsvRow& row, int column) {
    return column >= 0 && std::size_t(column) < row.size() ? std::string(trimmed(row[std::size_t(column)]))
                                                           : std::string();
}

bool isUnderside(const std::string& cell) {
    const std::string low = lowered(cell);
    return low.starts_with("b") || low.starts_with("solder") || low.starts_with("u");
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

std::string nameOfUnit(double unit) { return unit == 1 ? "millimetres" : unit == 25.4 ? "inches" : "mils"; }

}  // namespace

Result<Placement> readPlacement(const std::string& bytes) {
    const auto table = readTable(bytes);
    if (!table) return tl::make_unexpected(table.error());
    const auto columns = columnsOf(*table);
    if (!columns)
        return problem(
            "", "This is no placement table: its first row names columns for the designator, x and y.");
    Placement out;
    double named = columns->unit;
    std::set<std::string> seen;
    for (std::size_t i = columns->header + 1; i < table->rows.size(); ++i) {
        const CsvRow& row = table->rows[i];
        const std::string line = "line " + std::to_string(table->lines[i]);
        const std::string name = cellOf(row, columns->at[ref]);
        const auto px = readCoordinate(cellOf(row, columns->at[x])),
                   py = readCoordinate(cellOf(row, columns->at[y]));
        if (name.empty() || name.size() > 16 || !px || !py) {
            out.refused.push_back({line, "No designator with x and y."});
            continue;
        }
        if (!seen.insert(name).second) {
            out.refused.push_back({line, name + " is placed twice; the first place is kept."});
            continue;
        }
        named = std::max({named, px->unit, py->unit});
        const auto angle = readCoordinate(cellOf(row, columns->at[turn]));
        const double turned = angle ? std::fmod(std::fmod(-angle->value, 360) + 360, 360) : 0;
        out.parts.push_back(
            {name, px->value, py->value, turned, isUnderside(cellOf(row, columns->at[side]))});
    }
    if (out.parts.empty()) return problem("", "No row of this table places a part.");
    const auto [left, right] =
        std::minmax_element(out.parts.begin(), out.parts.end(), [](auto& a, auto& b) { return a.x < b.x; });
    const auto [low, high] =
        std::minmax_element(out.parts.begin(), out.parts.end(), [](auto& a, auto& b) { return a.y < b.y; });
    const double fromX = left->x, spanX = right->x - fromX, toY = high->y, spanY = toY - low->y;
    std::string guesses;
    const double unit = believable(std::max(spanX, spanY), named, guesses);
    out.units = nameOfUnit(unit);
    for (PlacedPart& part : out.parts) {
        part.x = (part.x - fromX) * unit + kMargin;
        part.y = (toY - part.y) * unit + kMargin;
    }
    out.width = spanX * unit + 2 * kMargin;
    out.height = spanY * unit + 2 * kMargin;
    out.guesses = guesses + "Read as " + out.units + (named == unit ? "" : " (guessed)") +
                  ", y upwards, the corner " + personNumber(kMargin) +
                  " mm beyond the outermost part: a board of " + personNumber(std::round(out.width)) +
                  " by " + personNumber(std::round(out.height)) + " mm.";
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

}  // namespace ombrek
