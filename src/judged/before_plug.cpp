#include "judged/before_plug.h"

#include <algorithm>

#include "core/quantity/quantity.h"
#include "core/text/says.h"
#include "station/board/loupe.h"

namespace ombrek {
namespace {

bool anyPart(const Kit& kit, bool (*is)(const Part&)) {
    return std::any_of(kit.parts.begin(), kit.parts.end(), is);
}

bool isPolarised(const Part& part) { return !senseOf(part).empty(); }
bool isChip(const Part& part) { return part.kind == PartKind::ic; }
bool isJumper(const Part& part) {
    return holdsStem(part.what, {"jumper", "link", "header"}) || part.ref.starts_with("JP");
}
bool isOnASink(const Part& part) {
    // A film resistor lies on no sink.
    const bool film = part.kind == PartKind::other && holdsWord(part.what, {"film"});
    return film || holdsStem(part.what + " " + part.package, {"heat sink", "heatsink", "washer",
                                                              "insulating film", "mica", "to-220", "to220"});
}

/// An item that a kit has when its parts list says so.
struct ItemRow {
    const char *gate, *name;
    bool (*is)(const Part&);
    const char *now, *why;
};
constexpr ItemRow kRows[] = {
    {"before:chips", "Chips", isChip, "Is every chip that has a socket out of it?",
     "First power goes in without them, unless the manual says otherwise: what a wrong rail kills is then "
     "not "
     "in. Enter: they are out, or soldered in as the manual wants."},
    {"before:jumpers", "Jumpers and links", isJumper,
     "Do jumpers and links stand as the manual wants for first power?", "Enter: they do."},
    {"before:film", "Film and washers", isOnASink, "Are film, washers and bushings under every tab?",
     "Ohms from each tab to the sink before power: beyond the range. Enter: they are, or nothing is on the "
     "sink "
     "yet."}};

PlugItem sanity(const Judged& judged) {
    PlugItem out{"before:senses", "Polarised parts", "", "", false};
    const auto left = sensesToLookAt(judged.kit(), judged.build());
    if (left.empty()) {
        // None of none is not seen: somebody has to look.
        out.seen = sensesLookedAt(judged.kit(), judged.build()) > 0;
        out.now = "Hold every polarised part against the print.";
        out.why =
            "The plan knows of none that is fitted, so nobody was asked yet. Enter: they are all right.";
        return out;
    }
    constexpr std::size_t kNamed = 6;
    std::string refs;
    for (std::size_t i = 0; i < std::min(kNamed, left.size()); ++i)
        refs += (i > 0 ? " " : "") + left[i].part->ref;
    out.now =
        "Hold the polarised parts against the print: " + refs + (left.size() > kNamed ? " …" : "") + ".";
    out.why = "Bands, flats, notches and longer legs, " + std::to_string(left.size()) +
              " of them. F3, N, S keeps each; Enter: they are all right.";
    return out;
}

}  // namespace

bool powered(const Check& check) {
    const bool off =
        check.unit == Unit::ohm || check.diode || holdsStem(check.condition + " " + check.at, {"power off"});
    return !off;
}

bool powerWasOn(const Judged& judged) {
    const auto& checks = judged.kit().checks;
    return std::any_of(checks.begin(), checks.end(), [&](const Check& check) {
        return powered(check) && judged.check(check).state != VerdictState::notDone;
    });
}

std::vector<PlugItem> beforePlug(const Judged& judged) {
    const Kit& kit = judged.kit();
    const auto given = [&](const std::string& gate) { return judged.build().gates.contains(gate); };
    std::vector<PlugItem> out;
    if (anyPart(kit, isPolarised)) out.push_back(sanity(judged));
    for (const ItemRow& row : kRows) {
        if (anyPart(kit, row.is)) out.push_back({row.gate, row.name, row.now, row.why, false});
    }
    out.push_back({"before:plug", "The plug",
                   "Is the plug right: its sense as the print has it" +
                       (kit.ratings.supply > 0 ? ", and " + formatQuantity(kit.ratings.supply, Unit::volt, 3)
                                               : std::string()) +
                       ", read with nothing on it?",
                   "And the supply's limit set, or a fuse in the lead. Enter: it is.", false});
    for (PlugItem& item : out) item.seen = item.seen || given(item.gate);
    return out;
}

std::optional<PlugItem> askBeforePlug(const Judged& judged, const Check& check) {
    if (!powered(check) || powerWasOn(judged)) return std::nullopt;
    const auto items = beforePlug(judged);
    const auto next = std::find_if(items.begin(), items.end(), [](const PlugItem& i) { return !i.seen; });
    return next == items.end() ? std::nullopt : std::optional(*next);
}

}  // namespace ombrek
