#include "lists/parts_list.h"

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <set>

#include "core/parts/part_kind.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "lists/band_words.h"
#include "lists/token.h"
#include "station/board/plan_from_parts.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

/// What a kit file takes as a value to measure.
bool measurable(const ListLine& line) {
    switch (line.kind) {
        case PartKind::resistor:
            return line.nominal >= 0.001 && line.nominal <= 1e12;
        case PartKind::capacitor:
            return line.nominal >= 1e-14 && line.nominal <= 10;
        case PartKind::inductor:
            return line.nominal >= 1e-10 && line.nominal <= 100;
        default:
            return false;
    }
}

std::string bounded(const std::string& text, std::size_t most) {
    if (text.size() <= most) return text;
    std::size_t end = most;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80) --end;
    return text.substr(0, end);
}

/// Without control characters, and never empty.
std::string plain(const std::string& text, const std::string& otherwise) {
    std::string out;
    for (const char c : text) {
        if (static_cast<unsigned char>(c) >= 0x20 && c != 0x7f) out.push_back(c);
    }
    return out.empty() ? otherwise : out;
}

Json partJson(const ListLine& line, const std::string& ref) {
    Json out{{"ref", ref}, {"kind", word(line.kind)}};
    const std::string said = bounded(!line.value.empty()  ? line.value
                                     : !line.text.empty() ? line.text
                                                          : ref,
                                     120);
    if (measurable(line)) {
        out["value"] = line.nominal;
        out["tolerance"] = std::clamp(line.tolerance, 0.001, 100.0);
    } else {
        // A resistor without a value, or of nothing, stays a resistor: to be looked at, not measured.
        out[unitOf(line.kind) != Unit::none ? "described" : "value"] = said;
    }
    if (line.kind == PartKind::trimmer && line.high > line.low) {
        out["low"] = line.low;
        out["high"] = line.high;
    }
    if (!line.description.empty() && line.description != line.value)
        out["what"] = bounded(line.description, 120);
    if (!line.mark.empty()) out["mark"] = bounded(line.mark, 60);
    if (!line.code.empty()) out["code"] = bounded(line.code, 60);
    if (!line.mpn.empty()) out["mpn"] = bounded(line.mpn, 60);
    if (!line.package.empty()) out["package"] = bounded(line.package, 60);
    if (line.volts > 0 && line.volts <= 100000) out["volts"] = line.volts;
    if (line.watts > 0 && line.watts <= 10000) out["watts"] = line.watts;
    return out;
}

/// A row without a designator is one part of the bag: "4 × M3 x 6 screws", to be ticked off together.
Json hardwareJson(const Hardware& hardware, int number) {
    std::string count = plainNumber(hardware.count);
    if (hardware.unit != "pcs") count += " " + hardware.unit;
    return {{"ref", "HW" + std::to_string(number)},
            {"kind", word(PartKind::other)},
            {"value", bounded(hardware.unit == "pcs" ? count + " \u00d7 " + hardware.what
                                                     : count + " " + hardware.what,
                              120)}};
}

/// A coil whose core is in the table, whose turns are said and whose wire is known; nothing for another: it
/// is a part until somebody says what is missing. Its inductance follows from the core's AL.
std::optional<Json> coilJson(const ListCoil& coil, const std::vector<MagneticCore>& cores) {
    const auto core =
        std::find_if(cores.begin(), cores.end(), [&](const auto& c) { return c.designation == coil.core; });
    if (core == cores.end() || coil.windings.empty()) return std::nullopt;
    const bool wireSaid = parseWire(coil.wire).has_value();
    const double turns = coil.windings.front().turns;
    Json out{
        {"ref", coil.ref},
        {"core", coil.core},
        {"wire", wireSaid ? coil.wire : kWireAssumed},
        {"target", core->al * turns * turns},
        {"note",
         std::string("From the list; the target is reckoned from the core's AL. Confirm it before winding.") +
             (wireSaid ? "" : " The list does not say which wire: 26AWG is assumed.")}};
    for (const ListCoil::Winding& winding : coil.windings) {
        Json row{{"name", winding.name}, {"turns", winding.turns}};
        for (const int at : winding.taps) {
            if (at >= 1 && at < winding.turns)
                row["taps"].push_back({{"at", at}, {"name", "tap at " + std::to_string(at)}});
        }
        out["windings"].push_back(std::move(row));
    }
    if (coil.twisted.size() > 1) out["twisted"] = coil.twisted;
    return out;
}

/// How much of a list was understood: designators with a value, doubts taken off.
double meritOfList(const PartsList& list) {
    double out = 0;
    for (const ListLine& line : list.lines)
        out += (ombrek::meritOf(line) + 1) * double(std::min<std::size_t>(line.refs.size(), 20));
    return out - double(list.refused.size());
}

void noteManner(PartsList& list, const std::string& text) {
    const auto digit = [&](std::size_t i) { return i < text.size() && text[i] >= '0' && text[i] <= '9'; };
    bool grouped = false;
    for (auto comma = text.find(','); comma != std::string::npos && !grouped;
         comma = text.find(',', comma + 1)) {
        std::size_t first = comma;
        while (first > 0 && comma - first < 4 && digit(first - 1)) --first;
        const std::size_t before = comma - first;
        const bool alone = first == 0 || text[first - 1] == ' ' || text[first - 1] == '\t' ||
                           text[first - 1] == '\n' || text[first - 1] == '"';
        grouped = before >= 1 && before <= 3 && alone && digit(comma + 1) && digit(comma + 2) &&
                  digit(comma + 3) && !digit(comma + 4);
    }
    if (!grouped) return;
    const Manner manner = mannerOf(foldSigns(text));
    if (manner.comma == Manner::Comma::decimal)
        list.notes.push_back("The comma is the decimal mark in this list: 1,000 is one.");
    if (manner.comma == Manner::Comma::thousands)
        list.notes.push_back("The comma sets off thousands in this list: 1,000 is a thousand.");
}

/// What a whole list says that no list means: quotes without a partner, and nothing that is fitted.
void doubtWhole(PartsList& list, const std::vector<std::size_t>& strayQuotes) {
    for (const std::size_t at : strayQuotes) {
        const std::string sentence =
            "Line " + std::to_string(at) + " has a quote without its partner; it was left out.";
        list.notes.push_back(sentence);
        for (ListLine& line : list.lines) {
            if (line.line == at) line.doubts.push_back("A quote without its partner stands here.");
        }
    }
    if (!anyFitted(list) && !list.lines.empty())
        list.lines.front().doubts.push_back("No part of this list is fitted, it says: is that so?");
}

/// A list with a table of bands in it: the list, and a row a part of the table. A row of the list that only
/// points to the table gives way.
Result<ListSource> withBandTable(
    const BandTable& bands, const Progress& progress,
    const std::function<std::optional<ListShape>(const std::string& key)>& remembered,
    const std::string& variant) {
    const ListShape shape = guessShape(bands.table);
    PartsList table = readListTable(bands.table, shape, {}, variant);
    auto rest = readPartsList(bands.rest, progress, remembered, variant);
    if (!rest) {
        if (bands.rest.find_first_not_of(" \r\n\t") == std::string::npos || table.parts() > 0)
            return ListSource{true, bands.table, shape, std::move(table)};
        return rest;
    }
    ListSource out;
    out.list = std::move(rest->list);
    const auto inTable = [&](const std::string& ref) {
        return std::any_of(table.lines.begin(), table.lines.end(), [&](const ListLine& line) {
            return std::find(line.refs.begin(), line.refs.end(), ref) != line.refs.end();
        });
    };
    std::erase_if(out.list.lines, [&](const ListLine& line) {
        return !(line.nominal > 0) && !line.refs.empty() &&
               std::all_of(line.refs.begin(), line.refs.end(), inTable);
    });
    std::erase_if(out.list.coils, [&](const ListCoil& coil) { return inTable(coil.ref); });
    out.list.lines.insert(out.list.lines.end(), table.lines.begin(), table.lines.end());
    out.list.coils.insert(out.list.coils.end(), table.coils.begin(), table.coils.end());
    for (const std::string& name : table.variants) {
        if (std::find(out.list.variants.begin(), out.list.variants.end(), name) == out.list.variants.end())
            out.list.variants.push_back(name);
    }
    checkTwice(out.list);
    return out;
}

}  // namespace

namespace {

/// Why these bytes are no list of parts at all; empty: they may be one.
std::string noList(const std::string& bytes) {
    const std::string head = lowerText(std::string_view(bytes).substr(0, 65536));
    for (const char* tag : {"<html", "<!doctype html", "<table", "<td", "<tr"}) {
        if (head.find(tag) != std::string::npos)
            return "This is the source of a web page. Open it in a browser, copy its table and paste that.";
    }
    // UTF-16 has every second byte zero, and says so with its first two.
    const bool wide = bytes.starts_with("\xff\xfe") || bytes.starts_with("\xfe\xff");
    const auto odd = std::count_if(head.begin(), head.end(), [](char c) {
        const auto byte = static_cast<unsigned char>(c);
        return byte < 0x20 && c != '\n' && c != '\r' && c != '\t' && c != '\f';
    });
    const auto nothing = std::count(head.begin(), head.end(), '\0');
    // UTF-16 without its mark: at most every second byte is zero, and no other is odd.
    const bool wideUnmarked = nothing == odd && nothing * 5 > std::ptrdiff_t(head.size()) * 2;
    if (!wide && !wideUnmarked && odd * 50 > std::ptrdiff_t(head.size()))
        return "This is no text: a program's own file. Export the list as text or CSV.";
    return "";
}

}  // namespace

Result<ListSource> readPartsList(
    const std::string& bytes, const Progress& progress,
    const std::function<std::optional<ListShape>(const std::string&)>& remembered,
    const std::string& variant) {
    const auto stopped = [&] { return problem("", "Reading was stopped; nothing was taken."); };
    bool go = true;
    const auto part = [&](double from, double share) -> Progress {
        if (!progress) return {};
        return [&, from, share](double done) { return go = progress(from + share * done); };
    };
    if (const std::string why = noList(bytes); !why.empty()) return problem("", why);
    const std::string text = withoutLongLines(toUtf8(bytes));
    ListSource out;
    if (text.size() < 200000) {
        if (const auto bands = bandTableIn(text)) return withBandTable(*bands, progress, remembered, variant);
    }
    auto table = readTable(text, part(0, 0.2));
    if (!go) return stopped();
    const auto strayQuotes = table ? table->strayQuotes : std::vector<std::size_t>{};
    const bool cells = table && looksLikeTable(*table);
    // Columns by place are looked for where no separator makes any; a long text is not set by hand.
    if (!cells && text.size() < 2000000) {
        if (auto placed = tableByPlace(text)) table = std::move(*placed), out.table = true;
    }
    out.table = out.table || cells;
    if (out.table) {
        out.cells = unfolded(std::move(*table));
        out.shape = guessShape(out.cells);
        if (remembered && !out.shape.key.empty()) {
            if (auto known = remembered(out.shape.key);
                known && known->columns.size() == out.shape.columns.size()) {
                known->key = out.shape.key;
                known->headings = out.shape.headings;
                known->headerRows = out.shape.headerRows;
                out.shape = std::move(*known);
            }
        }
        out.list = readListTable(out.cells, out.shape, part(0.2, 0.4), variant);
    }
    // A table without a separator beyond doubt is read as text too, and the better reading is taken.
    const bool certain = out.table && cells && out.shape.headerRows > 0;
    if (go && !certain && text.size() < 2000000) {
        PartsList asText = readListText(text, part(0.6, 0.4), variant);
        const bool better =
            out.list.parts() < 0.9 * asText.parts() || meritOfList(asText) > 1.15 * meritOfList(out.list);
        if (!out.table || better) {
            out = ListSource{};
            out.list = std::move(asText);
        }
    }
    if (!go) return stopped();
    if (out.list.lines.empty()) {
        return problem("",
                       "No line of this names a part. A line wants a designator and a value, such as "
                       "\"C1, C2  100nF\", or a table with a column of designators.");
    }
    noteManner(out.list, text);
    doubtWhole(out.list, out.table ? strayQuotes : std::vector<std::size_t>{});
    return out;
}

std::optional<Problem> unknownVariant(const PartsList& list, const std::string& variant) {
    if (variant.empty()) return std::nullopt;
    std::string names;
    for (const std::string& name : list.variants) {
        if (plainVariant(name) == plainVariant(variant)) return std::nullopt;
        names += (names.empty() ? "" : ", ") + name;
    }
    return Problem{"variant", names.empty()
                                  ? "This list comes in one variant only."
                                  : "This list has no variant \"" + variant + "\"; it has " + names + "."};
}

bool anyFitted(const PartsList& list) {
    return !list.hardware.empty() || std::any_of(list.lines.begin(), list.lines.end(),
                                                 [](const ListLine& line) { return line.fitted; });
}

std::string kitFromList(const PartsList& list, const std::string& name,
                        const std::vector<MagneticCore>& cores) {
    Json kit{{"format", "ombrek-kit"},
             {"version", 1},
             {"id", plainId(name, "list")},
             {"name", plain(bounded(name, 120), "Parts list")},
             {"summary", "from a parts list"}};
    Json parts = Json::array();
    std::set<std::string> seen;
    for (const ListLine& line : list.lines) {
        if (!line.fitted) continue;
        for (const std::string& ref : line.refs) {
            if (ref.size() > 16 || !seen.insert(ref).second) continue;
            parts.push_back(partJson(line, ref));
        }
    }
    int number = 0;
    for (const Hardware& hardware : list.hardware) parts.push_back(hardwareJson(hardware, ++number));
    kit["parts"] = std::move(parts);
    std::set<std::string> wound;
    for (const ListCoil& coil : list.coils) {
        if (!seen.contains(coil.ref) || !wound.insert(coil.ref).second) continue;
        if (const auto row = coilJson(coil, cores)) kit["coils"].push_back(*row);
    }
    const auto bare = readKit(kit.dump(-1, ' ', false, Json::error_handler_t::replace), cores);
    kit["steps"] = stepsJson(planFromParts(bare ? bare->parts : std::vector<Part>{}));
    return kit.dump(1, ' ', false, Json::error_handler_t::replace);
}

}  // namespace ombrek
