#include <algorithm>

#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/tables.h"
#include "lists/parts_list.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Json lineJson(const ListLine& line) {
    Json out{{"line", line.line}, {"refs", line.refs}, {"kind", word(line.kind)}};
    if (line.nominal > 0 || line.link) {
        out["value"] = line.nominal;
        out["unit"] = symbol(line.unit);
        out["tolerance"] = line.tolerance;
        out["tolerance_assumed"] = line.toleranceAssumed;
    } else {
        out["value"] = line.value;
    }
    if (line.quantity > 0) out["quantity"] = line.quantity;
    if (line.volts > 0) out["volts"] = line.volts;
    if (line.watts > 0) out["watts"] = line.watts;
    if (!line.mark.empty()) out["mark"] = line.mark;
    if (!line.description.empty()) out["description"] = line.description;
    if (!line.code.empty()) out["code"] = line.code;
    if (!line.variants.empty()) out["by_variant"] = line.variants;
    out["fitted"] = line.fitted;
    out["mpn"] = line.mpn;
    out["package"] = line.package;
    out["part_count"] = line.refs.size();
    out["doubts"] = line.doubts;
    return out;
}

Json coilJson(const ListCoil& coil) {
    Json windings = Json::array();
    for (const ListCoil::Winding& winding : coil.windings)
        windings.push_back({{"name", winding.name}, {"turns", winding.turns}, {"taps", winding.taps}});
    Json out{{"ref", coil.ref},
             {"core", coil.core},
             {"wire", coil.wire},
             {"windings", windings},
             {"twisted", coil.twisted}};
    if (coil.wireLength > 0) out["wire_length"] = coil.wireLength;
    out["doubts"] = coil.doubts;
    return out;
}

Json listJson(const ListSource& source) {
    const PartsList& list = source.list;
    Json lines = Json::array(), refused = Json::array(), coils = Json::array(), hardware = Json::array();
    for (const ListLine& line : list.lines) lines.push_back(lineJson(line));
    for (const RefusedLine& r : list.refused)
        refused.push_back({{"line", r.line}, {"text", r.text}, {"reason", r.reason}});
    for (const ListCoil& coil : list.coils) coils.push_back(coilJson(coil));
    for (const Hardware& h : list.hardware)
        hardware.push_back({{"line", h.line}, {"what", h.what}, {"count", h.count}, {"unit", h.unit}});
    return {{"form", source.table ? "table" : "text"},
            {"parts", list.parts()},
            {"lines", lines},
            {"variants", list.variants},
            {"coils", coils},
            {"hardware", hardware},
            {"notes", list.notes},
            {"refused", refused}};
}

void printList(const PartsList& list) {
    for (const ListLine& line : list.lines) {
        std::string refs;
        for (const auto& ref : line.refs) refs += (refs.empty() ? "" : ", ") + ref;
        std::printf("%4zu  %s  %s%s\n", line.line, refs.c_str(), valueText(line).c_str(),
                    line.fitted ? "" : "  (not fitted)");
        for (const auto& doubt : line.doubts) std::printf("      ? %s\n", doubt.c_str());
    }
    for (const Hardware& h : list.hardware)
        std::printf("%4zu  %g %s  %s\n", h.line, h.count, h.unit.c_str(), h.what.c_str());
    for (const RefusedLine& r : list.refused) std::printf("%4zu  left out: %s\n", r.line, r.reason.c_str());
    for (const auto& note : list.notes) std::printf("      %s\n", note.c_str());
}

}  // namespace

int listCommand(const ListQuestion& q, bool json) {
    const auto bytes = readFile(q.file, kLargestList);
    if (!bytes) return refuse(bytes.error(), json);
    const auto source = readPartsList(*bytes, {}, {}, q.variant);
    if (!source) return refuse(source.error(), json);
    if (const auto unknown = unknownVariant(source->list, q.variant)) return refuse(*unknown, json);
    if (json) {
        printJson(listJson(*source));
    } else {
        printList(source->list);
    }
    if (q.kit.empty()) return 0;
    if (!anyFitted(source->list))
        return refuse({q.file, "No part of this list is fitted: no kit was written."}, json);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto written = writeFile(q.kit, kitFromList(source->list, q.name, tables->cores));
    return written ? 0 : refuse(written.error(), json);
}

}  // namespace ombrek
