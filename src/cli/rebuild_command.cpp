#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "station/rebuild.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Json elementJson(const std::string& ref, const Rebuilt& rebuilt) {
    if (const Rewound* coil = rebuilt.coil(ref)) {
        Json out{{"ref", ref},
                 {"kind", "coil"},
                 {"unit", "H"},
                 {"before", coil->before},
                 {"wanted", coil->wanted},
                 {"after", coil->after},
                 {"core_before", coil->coreBefore},
                 {"core_after", coil->coreAfter},
                 {"turns_before", coil->turnsBefore.front()},
                 {"turns_after", coil->turnsAfter.front()},
                 {"windings_before", coil->turnsBefore},
                 {"windings_after", coil->turnsAfter}};
        if (!coil->note.empty()) out["note"] = coil->note;
        return out;
    }
    const Recapped* capacitor = rebuilt.capacitor(ref);
    return {{"ref", ref},
            {"kind", "capacitor"},
            {"unit", "F"},
            {"before", capacitor ? capacitor->before : 0},
            {"wanted", capacitor ? capacitor->wanted : 0},
            {"after", capacitor ? capacitor->after : 0}};
}

Json answerJson(const Rebuilt& rebuilt) {
    Json elements = Json::array(), tuned = Json::array(), response = Json::array();
    const auto inLowPass = [&](const std::string& ref) {
        return std::any_of(rebuilt.lowPass.begin(), rebuilt.lowPass.end(),
                           [&](const FilterElement& e) { return e.ref == ref; });
    };
    for (const FilterElement& element : rebuilt.lowPass) {
        if (rebuilt.before.empty()) break;
        Json row = elementJson(element.ref, rebuilt);
        row["arm"] = element.series ? "series" : "shunt";
        elements.push_back(std::move(row));
    }
    for (const Rewound& coil : rebuilt.coils) {
        if (!inLowPass(coil.ref)) tuned.push_back(elementJson(coil.ref, rebuilt));
    }
    for (const Recapped& capacitor : rebuilt.capacitors) {
        if (!inLowPass(capacitor.ref)) tuned.push_back(elementJson(capacitor.ref, rebuilt));
    }
    for (const ResponsePoint& point : rebuilt.response)
        response.push_back(
            {{"frequency", point.frequency}, {"before", point.before}, {"after", point.after}});
    return {{"from", {{"low", rebuilt.from.low}, {"high", rebuilt.from.high}}},
            {"band", {{"low", rebuilt.band.low}, {"high", rebuilt.band.high}}},
            {"ohms", rebuilt.ohms},
            {"elements", elements},
            {"tuned", tuned},
            {"response", response},
            {"again", rebuilt.again},
            {"doubts", rebuilt.doubts},
            {"barred", rebuilt.barred}};
}

void print(const Rebuilt& rebuilt) {
    for (const Rewound& coil : rebuilt.coils) {
        std::printf("%s: %s %d turns, %s -> %s %d turns, %s\n", coil.ref.c_str(), coil.coreBefore.c_str(),
                    coil.turnsBefore.front(), formatQuantity(coil.before, Unit::henry, 3).c_str(),
                    coil.coreAfter.c_str(), coil.turnsAfter.front(),
                    formatQuantity(coil.after, Unit::henry, 3).c_str());
        if (!coil.note.empty()) std::printf("    %s\n", coil.note.c_str());
    }
    for (const Recapped& c : rebuilt.capacitors) {
        std::printf("%s: %s -> %s\n", c.ref.c_str(), formatQuantity(c.before, Unit::farad, 3).c_str(),
                    formatQuantity(c.after, Unit::farad, 3).c_str());
    }
    for (const auto& again : rebuilt.again) std::printf("    %s\n", again.c_str());
    for (const auto& doubt : rebuilt.doubts) std::printf("  ? %s\n", doubt.c_str());
}

}  // namespace

int rebuildCommand(const RebuildQuestion& q, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto file = readKitFile(q.kit, tables->cores);
    if (!file) return refuse(file.error(), json);
    const auto band = readBand(q.band);
    if (!band) return refuse(band.error(), json);
    const auto rebuilt = rebuild(file->kit, *band, tables->cores, q.prototype);
    if (!rebuilt) return refuse(rebuilt.error(), json);
    if (!q.out.empty() && !rebuilt->barred.empty()) return refuse(Problem{"low_pass", rebuilt->barred}, json);
    if (json) {
        printJson(answerJson(*rebuilt));
    } else {
        print(*rebuilt);
    }
    if (q.out.empty()) return 0;
    const auto written = writeFile(q.out, withBand(file->text, *rebuilt));
    return written ? 0 : refuse(written.error(), json);
}

}  // namespace ombrek
