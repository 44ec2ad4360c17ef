#include "station/first_light/key_down.h"

#include <algorithm>
#include <cctype>

#include "core/text/says.h"
#include "station/board/sitting.h"

namespace ombrek {
namespace {

/// The kit's hold point on the load that is not done, or null.
const Step* openLoadHold(const Kit& kit, const Build& build) {
    for (const Step& step : kit.steps) {
        const bool names = step.hold && holdsStem(step.title + " " + step.hold->say + " " + step.caution,
                                                  {"dummy load", "load on", "load is on", "into a load"});
        if (names && !build.done(step.id)) return &step;
    }
    return nullptr;
}

/// The builder's word is of this evening.
bool confirmedTonight(const Kit& kit, const Build& build, std::int64_t now) {
    const auto word = build.gates.find(kLoadOn);
    if (word == build.gates.end() || newSitting(build, now)) return false;
    const auto evenings = eveningsOf(kit, build);
    return evenings.empty() || word->second.at >= evenings.back().start;
}

}  // namespace

bool keyDown(const Check& check) {
    return check.unit == Unit::watt ||
           holdsStem(check.title + " " + check.at + " " + check.condition, {"key down", "keyed", "transmit"});
}

bool keyDown(const Adjustment& a) {
    return a.unit == Unit::watt || a.unit == Unit::dbm || a.safe != SafeEnd::none ||
           holdsStem(a.title + " " + a.reads + " " + a.caution, {"key down", "dummy load", "transmit"});
}

LoadAsk askForLoad(const Kit& kit, const Build& build, std::int64_t now, bool ownHolds) {
    LoadAsk out;
    if (ownHolds) out.hold = openLoadHold(kit, build);
    if (out.hold != nullptr) {
        out.now = "Before the key goes down: " + out.hold->title + ".";
        out.why = "This hold point is not done yet. F3 goes to the Board; it may be passed knowingly there.";
    } else if (!confirmedTonight(kit, build, now)) {
        out.confirm = true;
        out.now = "Is a dummy load on the antenna socket? Enter: yes, it is.";
        out.why =
            "One that takes the power, before the key goes down. Asked once an evening; follow your local "
            "rules.";
    }
    return out;
}

}  // namespace ombrek
