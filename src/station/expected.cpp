#include "station/expected.h"

#include <cmath>

#include "core/quantity/shown.h"
#include "station/proof/power_method.h"

namespace ombrek {
namespace {

Expected about(double value, double times, Unit unit, const std::string& who) {
    if (!(value > 0)) return {};
    return {value, value / times, value * times, who + " " + formatQuantity(value, unit, 3)};
}

/// Between two limits the middle is expected; with one limit nothing is. A fault may read nothing at all, so
/// that only what is far above is asked about.
Expected between(const Limits& limits, Unit unit) {
    Expected out;
    const bool both = std::isfinite(limits.low) && std::isfinite(limits.high);
    if (both) out.value = (limits.low + limits.high) / 2;
    const double most = std::max(std::isfinite(limits.low) ? std::fabs(limits.low) : 0,
                                 std::isfinite(limits.high) ? std::fabs(limits.high) : 0);
    if ((unit == Unit::volt || unit == Unit::ampere || unit == Unit::watt) && most > 0 &&
        std::isfinite(limits.high)) {
        out.high = std::max(20 * most, unit == Unit::volt ? 60.0 : 0.0);
        out.low = -out.high;
        out.why = "the kit expects " + limitsText(limits, unit);
    }
    if (unit == Unit::hertz && both) {
        out.low = limits.low / 2;
        out.high = limits.high * 2;
        out.why = "the kit expects " + limitsText(limits, unit);
    }
    return out;
}

Expected ofPower(const Kit& kit, const Reading& reading) {
    constexpr double kTimes = 10;
    const double watts = kit.ratings.on(reading.subject.band).power, ohms = kit.ratings.ohms;
    const std::string why = "the kit promises " + formatQuantity(watts, Unit::watt, 3);
    if (!(watts > 0)) return {};
    switch (reading.unit) {
        case Unit::watt:
            return {watts, watts / 1000, watts * kTimes, why};
        case Unit::volt: {
            const double volts = std::sqrt((reading.method == "peak-to-peak" ? 8 : 2) * watts * ohms);
            return {volts, volts / 30, volts * std::sqrt(kTimes), why};
        }
        case Unit::dbm:
            return {0, -90, 10 * std::log10(watts * 1000 * kTimes), why};
        default:
            return {};
    }
}

}  // namespace

Expected expectedOf(const Kit& kit, const Reading& reading) {
    const std::string& id = reading.subject.id;
    switch (reading.subject.kind) {
        case Subject::Kind::part: {
            const Part* part = kit.part(id);
            return part == nullptr ? Expected{} : about(part->nominal, 1000, part->unit, "the list wants");
        }
        case Subject::Kind::coil: {
            const Coil* coil = kit.coil(id);
            Expected out =
                coil == nullptr ? Expected{} : about(coil->target, 30, Unit::henry, "the kit wants");
            out.low = std::min(out.low, 0.0);  // a short is a reading, and its advice says so
            return out;
        }
        case Subject::Kind::check: {
            const Check* check = kit.check(id);
            return check == nullptr || check->yesNo() ? Expected{} : between(check->limits, check->unit);
        }
        case Subject::Kind::adjustment: {
            const Adjustment* a = kit.adjustment(id);
            if (a == nullptr) return {};
            if (a->sets()) return between({a->target - a->tolerance, a->target + a->tolerance}, a->unit);
            return a->unit == Unit::watt ? ofPower(kit, reading) : Expected{};
        }
        case Subject::Kind::power:
            return ofPower(kit, reading);
        case Subject::Kind::current:
            return kit.ratings.currentHigh > 0
                       ? about(kit.ratings.currentHigh, 5, Unit::ampere, "the kit promises")
                       : Expected{};
        case Subject::Kind::supply:
            return about(kit.ratings.supply, 4, Unit::volt, "the kit is rated at");
        case Subject::Kind::frequency:
            return about(kit.ratings.on(reading.subject.band).frequency, 1.5, Unit::hertz,
                         "the kit is rated at");
        case Subject::Kind::harmonic:
            return {0, 0, 120, "harmonics are 20 to 70 dB below, usually"};
        default:
            return {};
    }
}

std::string surprise(const Kit& kit, const Reading& reading) {
    // A level behind an attenuator says nothing before what stands between is put back: 36.9 dBm behind 30 dB
    // is 4.9 kW.
    if (reading.subject.is(Subject::Kind::power) && reading.unit == Unit::dbm && !reading.beyond) {
        Reading whole = reading;
        whole.value = powerOf(reading, kit.ratings.ohms).watts;
        whole.unit = Unit::watt;
        if (std::isfinite(whole.value)) return surprise(kit, whole);
    }
    const Expected expected = expectedOf(kit, reading);
    if (expected.high <= expected.low) return "";
    // Of an overload the true value is that or more: only what lies above already is a surprise.
    if (reading.beyond && !(std::fabs(reading.value) > expected.high)) return "";
    if (reading.value >= expected.low && reading.value <= expected.high) return "";
    std::string why = expected.why;
    if (!why.empty() && why[0] >= 'a' && why[0] <= 'z') why[0] = char(why[0] - 'a' + 'A');
    return (reading.beyond ? shownText({reading.value, true}, reading.unit)
                           : formatQuantity(reading.value, reading.unit, 4)) +
           "? " + why + ".";
}

void holdAgainst(const Kit& kit, const Reading& reading, Verdict& verdict) {
    if (verdict.state != VerdictState::pass && verdict.state != VerdictState::doubtful) return;
    const std::string why = surprise(kit, reading);
    if (!why.empty()) {
        verdict.state = VerdictState::cannotTell;
        verdict.sentence = why + " Read it again before anything rests on it.";
    } else if (reading.beyond && !(std::isinf(verdict.limits.high) && reading.value >= verdict.limits.low)) {
        verdict.state = VerdictState::cannotTell;
        verdict.sentence = shownText({reading.value, true}, reading.unit) +
                           " is all the meter says: measure in a higher range.";
    }
}

}  // namespace ombrek
