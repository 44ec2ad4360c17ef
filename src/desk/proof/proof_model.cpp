#include "desk/proof/proof_model.h"

#include <cmath>

#include "core/proof/frequency.h"
#include "core/quantity/shown.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

std::string text(const Reading* r, int digits) {
    if (r == nullptr) return "";
    return r->beyond ? shownText({r->value, true}, r->unit)
                     : formatQuantity(r->value, r->unit, digits, Zeros::keep);
}

void fillItems(const Kit& kit, const Build& build, const PowerMethod& method, const std::string& band,
               ProofView& v) {
    const Reading* supply = build.last(Subject::supply());
    const auto frequency = lastStanding(kit, build, Subject::frequency(band));
    v.items.push_back({Subject::supply(), "Supply while transmitting", Unit::volt, text(supply, 4),
                       v.proof.supplyVerdict.state});
    v.items.push_back({Subject::power(band), "Power", method.unit,
                       v.proof.power ? formatQuantity(v.proof.power->watts, Unit::watt, 3, Zeros::keep) : "",
                       v.proof.powerVerdict.state});
    v.items.push_back({Subject::frequency(band), "Frequency", Unit::hertz,
                       frequency ? text(&*frequency, 8) : "", v.proof.frequencyVerdict.state});
    for (int order = 2; order <= kit.ratings.harmonics; ++order) {
        const Subject subject = Subject::harmonic(order, band);
        const auto r = lastStanding(kit, build, subject);
        v.items.push_back({subject, "Harmonic " + std::to_string(order), Unit::decibel,
                           r ? text(&*r, 3) + " below" : "",
                           v.proof.harmonicVerdicts[std::size_t(order - 2)].state});
    }
}

void say(const Kit& kit, const PowerMethod& method, const std::string& band, ProofView& v) {
    const std::string on = band.empty() ? "" : " on " + band;
    const Subject& subject = v.items[v.inHand].subject;
    if (v.finished) {
        bool all = true;
        for (const auto& item : v.items) all = all && item.state == VerdictState::pass;
        v.now = all ? "Proved" + on + ": clean, on frequency, as strong as promised."
                    : "Measured" + on + ", but not all of it is right.";
        v.why = all ? "F7 goes to Sign-off." : "Up and Down choose what to measure again.";
    } else if (subject.is(Subject::Kind::supply)) {
        v.now = "Key down into the dummy load: read the supply.";
        v.why = "Power goes with its square; the kit is rated at " +
                formatQuantity(kit.ratings.supply, Unit::volt, 3) + ".";
    } else if (subject.is(Subject::Kind::power)) {
        v.now = "Measure the power" + on + ", " + std::string(method.name) + ".";
        v.why = method.id == "attenuator" ? "Never the transmitter straight into the meter: the attenuator "
                                            "first, rated for the power. M for another way."
                                          : "M for another way of measuring.";
    } else if (subject.is(Subject::Kind::frequency)) {
        v.now = "Count the frequency: " + formatQuantity(kit.ratings.on(band).frequency, Unit::hertz, 6) +
                " on the dial.";
        v.why = "A counter is only as good as its reference.";
    } else {
        v.now = "Read harmonic " + subject.id + on + " below the fundamental.";
        v.why = "At least " + formatQuantity(v.proof.required, Unit::decibel, 3) +
                " below. Through the attenuator only.";
    }
}

}  // namespace

std::string bandToProve(const Judged& judged) {
    const auto bands = judged.kit().ratings.bandNames();
    for (const std::string& band : bands) {
        const ProofState& proof = judged.proof(band);
        bool whole = proof.power && proof.frequency;
        for (const Verdict& v : proof.harmonicVerdicts) whole = whole && v.state != VerdictState::notDone;
        if (!whole) return band;
    }
    return bands.front();
}

ProofView proofView(const Judged& judged, const std::optional<Subject>& chosen, const PowerMethod& method,
                    const std::string& band) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    ProofView v;
    if (!kit.ratings.transmits()) {
        const bool silent = kit.ratings.mayTransmit();
        v.now = silent ? "This kit does not say what it transmits."
                       : "This kit does not transmit: nothing to prove.";
        v.why = silent ? "Ins writes what the first page promises: 5 W at 13.8 V, 7.03 MHz. Without it "
                         "Ombrek cannot tell whether the power is right."
                       : "F7 goes to Sign-off.";
        return v;
    }
    v.proof = judged.proof(band);
    fillItems(kit, build, method, band, v);
    v.inHand = v.items.size();
    for (std::size_t i = 0; i < v.items.size(); ++i) {
        const bool wanted =
            !chosen ? !lastStanding(kit, build, v.items[i].subject) : v.items[i].subject == *chosen;
        if (wanted) {
            v.inHand = i;
            break;
        }
    }
    if (v.inHand == v.items.size()) {
        v.inHand = 0;
        v.finished = true;
    }
    say(kit, method, band, v);
    return v;
}

}  // namespace ombrek
