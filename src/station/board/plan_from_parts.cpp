#include "station/board/plan_from_parts.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

#include "core/text/letters.h"
#include "core/text/says.h"
#include "kit/package.h"
#include "station/board/cautions.h"

namespace ombrek {
namespace {

constexpr std::size_t kTogether = 8;  ///< parts in one step

/// What a group of parts is, and how it is fitted. Heights and minutes are common practice.
struct Group {
    const char* name;  ///< "resistors", for a step without a value
    const char* id;
    double height;   ///< above the board [mm]
    double minutes;  ///< a part
    const char* caution;
    const char* note;
    enum class When { onBoard, afterVolts, last } when;
};
using When = Group::When;

const char* kLeads = "Cut leads fly: eye protection on, cut downward into a hand or tray.";
const char* kStatic = "Static-shy: wrist strap on, touch ground first.";

enum GroupId {
    resistor,
    diode,
    choke,
    socket,
    capacitor,
    crystal,
    transistor,
    trimmer,
    electrolytic,
    coil,
    connector,
    soldered,
    ic,
    display,
    hardware
};

const Group kGroups[] = {
    {"resistors", "r", 2.5, 1.6, kLeads, "", When::onBoard},
    {"diodes", "d", 2.6, 2, "", "Heat-shy: be quick, the band as the print has it.", When::onBoard},
    {"chokes", "ch", 3.5, 2, "", "", When::onBoard},
    {"IC sockets", "s", 4.5, 4, "",
     "Notch as the print has it; one corner, look, the opposite corner, then the rest.", When::onBoard},
    {"capacitors", "c", 5, 1.8, kLeads, "", When::onBoard},
    {"crystals", "x", 5.5, 3, "",
     "Heat-shy: be quick. Leave a little air under the can, so that it does not short the pads; cut its "
     "leads with a shear, do not snap them.",
     When::onBoard},
    {"transistors", "q", 6, 2.5, kStatic, "Heat-shy: be quick, flat or tab as the print has it.",
     When::onBoard},
    {"trimmers", "v", 6.5, 2.5, "", "Heat-shy plastic: be quick.", When::onBoard},
    {"electrolytic capacitors", "e", 9, 2, "",
     "The stripe is minus, the longer lead and the square pad plus.", When::onBoard},
    {"coils", "l", 10, 6, "",
     "Tin the tails, prove them pad to pad; leave them long and unglued until it is tuned.", When::onBoard},
    {"connectors, switches and the like", "j", 12, 4, "", "One pin, see that it sits square, then the rest.",
     When::onBoard},
    {"ICs, soldered", "u", 3, 6, kStatic, "Notch as the print has it.", When::afterVolts},
    {"ICs into their sockets", "ic", 8, 3, kStatic,
     "Straighten the legs, notch as the print has it, look for a leg bent under.", When::afterVolts},
    {"display", "disp", 14, 10, "", "Leave the film on until the case is closed.", When::last},
    {"hardware", "h", 15, 5, "Screws finger-tight: an over-tightened one cracks the board.", "", When::last}};

bool says(const Part& part, std::initializer_list<std::string_view> words) {
    return holdsStem(part.value + " " + part.what, words);
}

bool named(const Part& part, std::initializer_list<const char*> prefixes) {
    std::string letters;
    for (const char c : part.ref) {
        if (std::isalpha(static_cast<unsigned char>(c))) letters += c;
    }
    return std::any_of(prefixes.begin(), prefixes.end(), [&](const char* p) { return letters == p; });
}

/// A three-terminal or low-drop regulator by its words or its type: it makes the voltages that are proven
/// before any other chip goes in.
bool regulator(const Part& part) {
    if (says(part, {"*regulator", "*regler", "r\u00e9gulateur", "regulador", "regolatore"})) return true;
    std::string type = lowered(part.mpn.empty() ? part.value : part.mpn);
    for (const char* maker : {"lm", "l", "mc", "ua", "ka", "ta", "njm"}) {
        const std::string start = maker;
        if (type.starts_with(start + "78") || type.starts_with(start + "79"))
            type = type.substr(start.size());
    }
    static constexpr const char* types[] = {"78",      "79",     "lm317",  "lm337",  "lm1117",
                                            "ams1117", "lm2940", "lp2950", "lp2951", "lm723",
                                            "tl431",   "mcp170", "ld1117"};
    return std::any_of(std::begin(types), std::end(types),
                       [&](const char* t) { return type.starts_with(t); });
}

GroupId groupOf(const Part& part, bool sockets) {
    if (part.kind == PartKind::other && says(part, {"*socket", "ic-fassung"}) &&
        !says(part, {"supply", "power", "jack", "antenna", "phones"}))
        return socket;
    switch (part.kind) {
        case PartKind::resistor:
            return resistor;
        case PartKind::diode:
            return diode;
        case PartKind::inductor:
            return choke;
        case PartKind::capacitor:
            return polarisedCapacitor(part) ? electrolytic : capacitor;
        case PartKind::crystal:
            return crystal;
        case PartKind::transistor:
            return transistor;
        case PartKind::trimmer:
            return trimmer;
        case PartKind::coil:
            return coil;
        case PartKind::ic:
            if (regulator(part)) return transistor;
            return sockets || says(part, {"*socket", "*sockel", "*fassung"}) ? ic : soldered;
        case PartKind::other:
            break;
    }
    if (says(part, {"*display", "lcd"})) return display;
    if (named(part, {"H", "HW", "M", "MP", "PCB"})) return hardware;
    if (says(part, {"*bead", "*perle"})) return choke;
    if (says(part, {"screw", "standoff", "knob", "enclosure", "spacer", "*schraube", "*geh\u00e4use"}) &&
        !says(part, {"terminal"}))
        return hardware;
    return connector;
}

std::string stepTitle(const Group& group, const std::string& value, const std::vector<std::string>& refs) {
    std::string list;
    for (std::size_t i = 0; i < refs.size(); ++i)
        list += (i == 0 ? "" : i + 1 == refs.size() ? " and " : ", ") + refs[i];
    return "Fit " + list + ": " + (value.empty() ? group.name : value);
}

Step workStep(const char* id, const char* title, double minutes, std::vector<std::string> after) {
    Step step;
    step.id = id;
    step.title = title;
    step.minutes = minutes;
    step.after = std::move(after);
    return step;
}

std::vector<std::string> idsOf(const std::vector<Step>& steps) {
    std::vector<std::string> out;
    for (const Step& step : steps) out.push_back(step.id);
    return out;
}

}  // namespace

std::vector<Step> planFromParts(const std::vector<Part>& parts) {
    const bool sockets = std::any_of(parts.begin(), parts.end(), [](const Part& p) {
        return p.kind == PartKind::other && says(p, {"ic socket", "dip socket", "dil socket", "pin socket"});
    });
    struct Values {
        std::vector<std::pair<std::string, std::vector<std::string>>> list;  ///< refs by value, as listed
        std::map<std::string, std::size_t> at;
    };
    std::map<int, Values> groups;
    for (const Part& part : parts) {
        Values& values = groups[groupOf(part, sockets)];
        const auto [hit, fresh] = values.at.emplace(part.value, values.list.size());
        if (fresh) values.list.push_back({part.value, {}});
        values.list[hit->second].second.push_back(part.ref);
    }
    std::vector<Step> onBoard, afterVolts, last;
    for (const auto& [which, values] : groups) {
        const Group& group = kGroups[which];
        auto& into = group.when == When::onBoard      ? onBoard
                     : group.when == When::afterVolts ? afterVolts
                                                      : last;
        int number = 0;
        for (const auto& [value, refs] : values.list) {
            for (std::size_t i = 0; i < refs.size(); i += kTogether) {
                Step step;
                step.fits.assign(refs.begin() + std::ptrdiff_t(i),
                                 refs.begin() + std::ptrdiff_t(std::min(refs.size(), i + kTogether)));
                step.id = std::string("fit-") + group.id + "-" + std::to_string(++number);
                step.title = stepTitle(group, value, step.fits);
                step.minutes = group.minutes * double(step.fits.size());
                step.height = group.height;
                step.note = group.note;
                step.caution = withMore(group.caution, cautionsOf(step.note));
                into.push_back(std::move(step));
            }
        }
    }
    std::vector<Step> out;
    out.push_back(
        workStep("lay-out", "Lay out the bench: strap on, board in its holder, print towards you", 10, {}));
    out.back().caution = "Hot iron and fumes: ventilate, eye protection on, wash hands after leaded solder.";
    out.back().tools = {"fine iron", "flush cutters", "tweezers", "loupe", "wrist strap"};
    out.push_back(workStep("look-board", "Look over both sides of the bare board for nicks and bridges", 5,
                           {"lay-out"}));
    for (Step& step : onBoard) step.after = {"look-board"};
    out.insert(out.end(), onBoard.begin(), onBoard.end());
    out.push_back(workStep("look-joints", "Inspect every joint under the loupe",
                           5 + 0.3 * double(parts.size()), idsOf(onBoard)));
    if (onBoard.empty()) out.back().after = {"look-board"};
    std::string gate = "look-joints";
    if (!afterVolts.empty()) {
        Step volts =
            workStep("prove-volts", "Prove the supply voltages before any IC goes in", 12, {"look-joints"});
        volts.hold = HoldPoint{
            {}, "A wrong voltage here destroys the ICs. Look for a short first, then limit the current."};
        volts.caution =
            "A fuse in the lead, and the supply's current limited as First light says. Never touch the board "
            "while it is powered.";
        volts.tools = {"multimeter", "current-limited supply"};
        volts.before = idsOf(afterVolts);
        out.push_back(volts);
        gate = "prove-volts";
        for (Step& step : afterVolts) step.after = {gate};
        out.insert(out.end(), afterVolts.begin(), afterVolts.end());
    }
    for (Step& step : last) {
        step.after = afterVolts.empty() ? std::vector<std::string>{gate} : idsOf(afterVolts);
    }
    out.insert(out.end(), last.begin(), last.end());
    return out;
}

Craft craftOf(const Kit& kit, const std::vector<std::string>& fits) {
    Craft out;
    for (const std::string& ref : fits) {
        const Part* part = kit.part(ref);
        if (part == nullptr) continue;
        const Group& group = kGroups[groupOf(*part, false)];
        out.caution = withMore(std::move(out.caution), group.caution);
        out.note = withMore(std::move(out.note), group.note);
    }
    return out;
}

std::vector<Step> withEveryPart(const Kit& kit) {
    std::set<std::string> fitted, ids;
    for (const Step& step : kit.steps) {
        ids.insert(step.id);
        fitted.insert(step.fits.begin(), step.fits.end());
    }
    std::vector<Part> open;
    for (const Part& part : kit.parts) {
        if (!fitted.contains(part.ref)) open.push_back(part);
    }
    std::vector<Step> out = kit.steps;
    if (open.empty()) return out;
    const auto find = [&](const char* id) {
        return std::find_if(out.begin(), out.end(), [&](const Step& step) { return step.id == id; });
    };
    const bool looked = find("look-board") != out.end();
    std::vector<Step> more;
    for (Step& step : planFromParts(open)) {
        if (step.fits.empty()) continue;
        const std::string base = step.id;
        for (int n = 2; !ids.insert(step.id).second; ++n) step.id = base + "-" + std::to_string(n);
        step.after = looked ? std::vector<std::string>{"look-board"} : std::vector<std::string>{};
        more.push_back(std::move(step));
    }
    const auto joints = find("look-joints");
    if (joints != out.end()) {
        for (const Step& step : more) joints->after.push_back(step.id);
    }
    out.insert(joints, more.begin(), more.end());
    return out;
}

}  // namespace ombrek
