#include "formats/parts_list.h"

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <set>

#include "core/parts/part_kind.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "station/plan_from_parts.h"

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
    // A resistor without a value, or with an absurd one, is a part to look at, not to measure.
    const bool measured = measurable(line);
    const PartKind kind = !measured && unitOf(line.kind) != Unit::none ? PartKind::other : line.kind;
    Json out{{"ref", ref}, {"kind", word(kind)}};
    if (measured) {
        out["value"] = line.nominal;
        out["tolerance"] = std::clamp(line.tolerance, 0.001, 100.0);
    } else {
        out["value"] = line.value.empty() ? (line.text.empty() ? ref : bounded(line.text, 120))
                                          : bounded(line.value, 120);
    }
    if (kind == PartKind::trimmer && line.high > line.low) {
        out["low"] = line.low;
        out["high"] = line.high;
    }
    if (measured && !line.description.empty()) out["what"] = bounded(line.description, 120);
    if (!line.mark.empty()) out["mark"] = bounded(line.mark, 60);
    if (!line.code.empty()) out["code"] = bounded(line.code, 60);
    if (line.volts > 0 && line.volts <= 100000) out["volts"] = line.volts;
    if (line.watts > 0 && line.watts <= 10000) out["watts"] = line.watts;
    return out;
}

std::string idOf(const std::string& name) {
    std::string out;
    for (const char c : lowered(name)) {
        if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
            out.push_back(c);
        else if (!out.empty() && out.back() != '-')
            out.push_back('-');
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    return out.empty() ? "list" : out;
}

}  // namespace

Result<ListSource> readPartsList(
    const std::string& bytes, const Progress& progress,
    const std::function<std::optional<ListShape>(const std::string&)>& remembered) {
    ListSource out;
    out.table = looksLikeTable(bytes);
    const auto stopped = [&] { return problem("", "Reading was stopped; nothing was taken."); };
    bool go = true;
    const auto part = [&](double from, double share) -> Progress {
        if (!progress) return {};
        return [&, from, share](double done) { return go = progress(from + share * done); };
    };
    if (out.table) {
        auto table = readTable(bytes, part(0, 0.3));
        if (!table) return tl::make_unexpected(table.error());
        out.cells = std::move(*table);
        out.shape = guessShape(out.cells);
        if (remembered && !out.shape.key.empty()) {
            if (auto known = remembered(out.shape.key);
                known && known->columns.size() == out.shape.columns.size()) {
                known->key = out.shape.key;
                known->headerRows = out.shape.headerRows;
                out.shape = std::move(*known);
            }
        }
        out.list = readListTable(out.cells, out.shape, part(0.3, 0.7));
    } else {
        out.list = readListText(bytes, part(0, 1));
    }
    if (!go) return stopped();
    if (out.list.lines.empty()) {
        return problem("",
                       "No line of this names a part. A line wants a designator and a value, such as "
                       "\"C1, C2  100nF\", or a table with a column of designators.");
    }
    return out;
}

std::string kitFromList(const PartsList& list, const std::string& name) {
    Json kit{{"format", "ombrek-kit"},
             {"version", 1},
             {"id", idOf(name)},
             {"name", plain(bounded(name, 120), "Parts list")},
             {"summary", "from a parts list"}};
    Json parts = Json::array();
    std::set<std::string> seen;
    for (const ListLine& line : list.lines) {
        for (const std::string& ref : line.refs) {
            if (ref.size() > 16 || !seen.insert(ref).second) continue;
            parts.push_back(partJson(line, ref));
        }
    }
    kit["parts"] = std::move(parts);
    const auto bare = readKit(kit.dump(-1, ' ', false, Json::error_handler_t::replace), {});
    kit["steps"] = stepsJson(planFromParts(bare ? bare->parts : std::vector<Part>{}));
    return kit.dump(1, ' ', false, Json::error_handler_t::replace);
}

}  // namespace ombrek
