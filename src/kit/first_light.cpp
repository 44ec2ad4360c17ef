#include "kit/first_light.h"

namespace ombrek {

Verdict checkVerdict(const Check& check, const Build& build) {
    const Reading* reading = build.last("check:" + check.id);
    if (reading == nullptr) return {};
    return judge(reading->value, check.limits, reading->uncertainty, build.rule, check.unit);
}

const Check* nextCheck(const Kit& kit, const Build& build) {
    const Check* untouched = nullptr;
    for (const Check& check : kit.checks) {
        const VerdictState state = checkVerdict(check, build).state;
        if (check.gate && state != VerdictState::pass && state != VerdictState::notDone) return &check;
        if (state == VerdictState::notDone && untouched == nullptr) untouched = &check;
    }
    return untouched;
}

const Check* barredBy(const Kit& kit, const Check& check, const Build& build) {
    for (const Check& earlier : kit.checks) {
        if (&earlier == &check) return nullptr;
        if (earlier.gate && checkVerdict(earlier, build).state != VerdictState::pass) return &earlier;
    }
    return nullptr;
}

}  // namespace ombrek
