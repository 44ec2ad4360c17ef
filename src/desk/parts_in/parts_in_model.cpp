#include "desk/parts_in/parts_in_model.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace ombrek {
namespace {

struct RowOf {
    const char* name;
    std::vector<PartKind> kinds;
};
const std::vector<RowOf>& rowsOfBag() {
    static const std::vector<RowOf> rows{{"Resistors", {PartKind::resistor}},
                                         {"Capacitors", {PartKind::capacitor}},
                                         {"Semis", {PartKind::diode, PartKind::transistor, PartKind::ic}},
                                         {"Coils", {PartKind::coil, PartKind::inductor}},
                                         {"Trimmers", {PartKind::trimmer, PartKind::crystal}},
                                         {"Other", {PartKind::other}}};
    return rows;
}

std::string toleranceText(const Part& part) {
    return part.nominal > 0 ? part.value + " ±" + personNumber(part.tolerance) + "\u202f%" : part.value;
}

/// "three" of "one of three 4.7 kΩ"; larger counts in figures.
std::string countWord(std::size_t count) {
    static constexpr std::array<const char*, 10> words{"no",   "one", "two",   "three", "four",
                                                       "five", "six", "seven", "eight", "nine"};
    return count < words.size() ? words[count] : std::to_string(count);
}

std::string nowSentence(const Kit& kit, const Part& part, const PartAsk& ask) {
    const std::string bag = part.bag.empty() ? "" : ", from bag " + part.bag;
    const std::size_t like = likeParts(kit, part).size();
    switch (ask.how) {
        case PartAsk::How::measure:
            return "Measure " + part.ref + ": " + (like > 1 ? "one of " + countWord(like) + " " : "") +
                   part.value + bag + ".";
        case PartAsk::How::count:
            return ask.refs.size() == 1
                       ? "Is " + part.ref + " there: " + part.value + bag + "?"
                       : "Are there " + countWord(ask.refs.size()) + " of " + part.value + bag + "?";
        case PartAsk::How::look:
            break;
    }
    if (part.measurable()) return "Is " + part.ref + " marked " + part.mark + "?";
    return "Find " + part.ref + ": " + part.value + bag + ".";
}

std::string whySentence(const Part& part, const PartAsk& ask, bool zeroTaken) {
    constexpr double kSmall = 100e-12;  // [F] below which a stray of half a picofarad counts
    std::string out;
    const auto add = [&](const std::string& text) {
        if (!text.empty()) out += (out.empty() ? "" : " · ") + text;
    };
    if (ask.how == PartAsk::How::count && ask.refs.size() > 1) add(listed(ask.refs, 8));
    if (!ask.reason.empty()) add("measured because " + ask.reason);
    if (!zeroTaken && part.unit == Unit::farad && part.nominal < kSmall)
        add("take the clips' stray off first: F9");
    add(part.what);
    if (!part.mark.empty()) add("marked " + part.mark);
    add(part.orientation);
    return out;
}

std::string countsText(const BagCount& bag) {
    std::string out = std::to_string(bag.in) + " of " + std::to_string(bag.total) + " in";
    const std::array<std::pair<int, const char*>, 3> rest{
        {{bag.missing, " missing"}, {bag.wrong, " of another value"}, {bag.doubtful, " doubtful"}}};
    for (const auto& [count, what] : rest) {
        if (count > 0) out += " · " + std::to_string(count) + what;
    }
    return out;
}

/// The part whose reading was taken last, or null in a fresh bag.
const Part* lastRead(const Kit& kit, const Build& build) {
    const auto hit = std::find_if(build.readings.rbegin(), build.readings.rend(),
                                  [](const Reading& r) { return r.subject.starts_with("part:"); });
    return hit == build.readings.rend() ? nullptr : kit.part(hit->subject.substr(5));
}

void fillBag(const Kit& kit, const Build& build, PartsInView& out) {
    const auto order = partsInOrder(kit, build);
    for (const RowOf& row : rowsOfBag()) {
        PartsInView::Row shown{row.name, {}};
        for (const Part* each : order) {
            const Part& part = *each;
            if (std::find(row.kinds.begin(), row.kinds.end(), part.kind) == row.kinds.end()) continue;
            shown.dots.push_back({part.ref, partVerdict(part, build).state});
        }
        if (!shown.dots.empty()) out.rows.push_back(std::move(shown));
    }
    BagStory story = bagStory(kit, build);
    out.troubles = std::move(story.troubles);
    out.decider = std::move(story.decider);
    for (const BagTrouble& t : out.troubles) out.remedies.push_back(remedyText(build, t.ref));
}

/// Why nothing is asked for: everything is known, or the board has to catch up first.
void nothingWanted(const Build& build, const BagCount& bag, PartsInView& out) {
    if (build.way == BagWay::beforeFitting && bag.waiting > 0) {
        out.now = "Every part of the step at hand is in: fit it.";
        out.why = "F3 goes to the Board; the next parts are asked for when it is done.";
    } else if (bag.in == bag.total) {
        out.now = "Every part is in: wind the coils.";
        out.why = "F2 goes to Winding.";
    } else {
        out.now = "The bag is through: look again for what is wrong.";
        out.why =
            "W says where to look and what your drawers have. Most missing parts are found the next day.";
    }
}

}  // namespace

PartsInView partsInView(const Kit& kit, const Build& build, const std::string& wanted,
                        const std::string& shown, bool zeroTaken) {
    PartsInView out;
    out.wanted = wanted.empty() ? nextPart(kit, build) : kit.part(wanted);
    out.shown = shown.empty() ? lastRead(kit, build) : kit.part(shown);
    if (out.shown == nullptr) out.shown = out.wanted;
    const BagCount bag = countBag(kit, build);
    out.counts = countsText(bag);
    if (out.wanted != nullptr) {
        out.ask = askFor(kit, build, *out.wanted);
        out.now = nowSentence(kit, *out.wanted, out.ask);
        out.why = whySentence(*out.wanted, out.ask, zeroTaken);
    } else {
        nothingWanted(build, bag, out);
    }
    if (out.shown != nullptr) {
        out.beside = toleranceText(*out.shown);
        out.verdict = partVerdict(*out.shown, build);
        if (out.shown->measurable() && !std::isfinite(out.verdict.reading)) {
            out.verdict.limits = partLimits(*out.shown);
            out.verdict.unit = out.shown->unit;
        }
    }
    fillBag(kit, build, out);
    return out;
}

std::string listed(const std::vector<std::string>& refs, std::size_t most) {
    std::string out;
    for (std::size_t i = 0; i < refs.size() && i < most; ++i) out += (i ? ", " : "") + refs[i];
    if (refs.size() > most) out += " and " + std::to_string(refs.size() - most) + " more";
    return out;
}

std::string markSentence(const Part& part, const std::string& printed) {
    if (markAgrees(part, printed)) return printed + " is as the list wants.";
    if (!part.measurable())
        return printed + " is not " + (part.mark.empty() ? part.value : part.mark) +
               ": E accepts another type.";
    const auto readings = readMark(printed, part.kind);
    if (readings.empty()) return "\"" + printed + "\" is no mark that is known: measure it.";
    const MarkReading& r = readings.front();
    const std::string tolerance = toleranceText(r);
    return printed + " is " + formatQuantity(r.value, r.unit, 4) +
           (tolerance.empty() ? "" : " " + tolerance) + ", not " + part.value + ": measure it.";
}

std::string remedyText(const Build& build, const std::string& ref) {
    const auto remedy = build.remedies.find(ref);
    if (remedy == build.remedies.end()) return "";
    switch (remedy->second.how) {
        case Remedy::How::drawer:
            return "from your drawers: " + remedy->second.note;
        case Remedy::How::shopping:
            return "on the shopping list";
        case Remedy::How::supplier:
            return "asked of the supplier";
        case Remedy::How::equivalent:
            return "another type: " + remedy->second.note;
    }
    return "";
}

}  // namespace ombrek
