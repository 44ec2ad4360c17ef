#include "desk/parts_in/parts_in_model.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "judged/bag.h"
#include "station/parts_in/one_cause.h"
#include "station/phrases.h"

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
                                  [](const Reading& r) { return r.subject.is(Subject::Kind::part); });
    return hit == build.readings.rend() ? nullptr : kit.part(hit->subject.id);
}

void fillBag(const Judged& judged, PartsInView& out) {
    std::array<std::size_t, kPartKinds> rowOf{};
    for (std::size_t row = 0; row < rowsOfBag().size(); ++row) {
        out.rows.push_back({rowsOfBag()[row].name, {}});
        for (const PartKind kind : rowsOfBag()[row].kinds) rowOf[std::size_t(kind)] = row;
    }
    for (const Part* part : judged.partsInOrder())
        out.rows[rowOf[std::size_t(part->kind)]].dots.push_back({part->ref, judged.part(*part).state});
    std::erase_if(out.rows, [](const PartsInView::Row& row) { return row.dots.empty(); });
    const BagStory& story = judged.story();
    out.troubles = toldOnce(story.troubles, oneCauses(judged.kit(), judged.build()));
    if (story.weighing) {
        out.decider = "The last reading is being weighed against the whole bag …";
    } else if (!story.troubles.empty()) {
        out.decider = story.decider;
    }
    for (const BagTrouble& t : out.troubles) out.remedies.push_back(remedyText(judged.build(), t.ref));
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

PartsInView partsInView(const Judged& judged, const std::string& wanted, const std::string& shown,
                        bool zeroTaken) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    PartsInView out;
    out.wanted = wanted.empty() ? nextPart(judged) : kit.part(wanted);
    out.shown = shown.empty() ? lastRead(kit, build) : kit.part(shown);
    if (out.shown == nullptr) out.shown = out.wanted;
    const BagCount& bag = judged.bag();
    out.counts = countsText(bag);
    if (out.wanted != nullptr) {
        out.ask = askFor(judged, *out.wanted);
        out.now = nowSentence(kit, *out.wanted, out.ask);
        out.why = whySentence(*out.wanted, out.ask, zeroTaken);
    } else {
        nothingWanted(build, bag, out);
    }
    if (out.shown != nullptr) {
        out.beside = valueText(*out.shown);
        out.verdict = judged.part(*out.shown);
        if (out.shown->measurable() && !std::isfinite(out.verdict.reading)) {
            out.verdict.limits = partLimits(*out.shown);
            out.verdict.unit = out.shown->unit;
        }
    }
    fillBag(judged, out);
    return out;
}

}  // namespace ombrek
