#include "desk/suspects/suspects_model.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/quantity.h"
#include "judged/judged.h"
#include "kit/designator.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr double kEnough = 0.8;   ///< of the belief: one suspect is enough ahead
constexpr double kLeast = 0.005;  ///< of the belief to be shown
constexpr std::size_t kMost = 9;  ///< suspects shown
constexpr double kFits = 2;       ///< deviations that speak for it

Unit unitOf(What quantity) {
    return quantity == What::voltage ? Unit::volt : quantity == What::current ? Unit::ampere : Unit::ohm;
}

std::string shownValue(double value, What quantity) {
    if (std::isinf(value)) return "beyond the range";
    if (std::isnan(value)) return "not known";
    const Unit unit = unitOf(quantity);
    // What a meter would show: millivolts, microamperes.
    const double step = unit == Unit::volt ? 1e-3 : unit == Unit::ampere ? 1e-6 : 1e-2;
    return formatQuantity(std::round(value / step) * step, unit, 3);
}

/// All hypotheses of one part together.
double ofPart(const Suspicion& s, const std::string& ref) {
    double out = 0;
    for (const Suspect& x : s.suspects) out += x.ref == ref ? x.odds : 0;
    return out;
}

void sayNext(const RigOnBench& rig, SuspectsView& v) {
    const NextReading& n = rig.suspicion.next;
    if (n.node.empty()) return;
    const CircuitReading probe = n.reading();
    v.next = Subject::node(probeWords(probe));
    for (const Check& check : rig.kit.checks) {
        const auto of = probeOf(rig.circuit, rig.kit, check);
        if (of && sameProbe(*of, probe)) v.next = Subject::check(check.id);
    }
    v.touch = touchAt(rig.circuit, rig.kit, n.node);
    v.nextUnit = unitOf(probe.quantity);
    if (probe.quantity == What::resistance)
        v.touch = "ohms from " + v.touch + " to " +
                  (n.node2 == "0" ? std::string("ground") : touchAt(rig.circuit, rig.kit, n.node2));
    // Ohms are never read with power on, whatever the circuit calls its states.
    v.state = probe.quantity == What::resistance && n.state.empty() ? "power off" : n.state;
    // Only what the line names: a rail is on half of the board.
    for (const std::string& ref : partsAt(rig.circuit, rig.kit, n.node)) {
        if (namesPart(v.touch, ref)) v.nextParts.push_back(ref);
    }
}

std::string belief(const SuspectsView& v, const Suspicion& s) {
    if (v.suspects.empty()) return "";
    const Suspect& first = s.suspects.front();
    return "Likeliest so far: " + suspectName(first) + ", " + oddsText(first.odds) + ".";
}

/// The parts that together have most of the belief, "C5, C6 or U2".
std::string amongThese(const Suspicion& s) {
    constexpr std::size_t kNamed = 4;
    std::vector<std::string> refs;
    double sum = 0;
    for (const Suspect& x : s.suspects) {
        if (sum > kEnough || refs.size() == kNamed) break;
        sum += x.odds;
        if (!x.ref.empty() && std::find(refs.begin(), refs.end(), x.ref) == refs.end()) refs.push_back(x.ref);
    }
    std::string out;
    for (std::size_t i = 0; i < refs.size(); ++i)
        out += (i == 0 ? "" : i + 1 == refs.size() ? " or " : ", ") + refs[i];
    return out;
}

void say(const RigOnBench& rig, SuspectsView& v) {
    const Suspicion& s = rig.suspicion;
    const Suspect& first = s.suspects.front();
    const std::string where = v.touch + (v.state.empty() ? "" : " (" + v.state + ")");
    if (rig.taken.empty()) {
        v.now = "Nothing is read yet: F4 makes the checks.";
        v.why = "What is read there is held against every single fault of the circuit.";
    } else if (s.unexplained) {
        std::size_t worst = 0;
        double most = 0;
        for (std::size_t i = 0; i < rig.taken.size(); ++i) {
            const double z = std::abs(deviations(rig.taken[i].reading, first.reads[i], s.spreads[i]));
            if (z > most) worst = i, most = z;
        }
        v.now =
            "No fault, and no two at once, explain all of it: read \"" + rig.taken[worst].title + "\" again.";
        v.why = "Something else, or more than two things, or a reading that slipped. " + belief(v, s);
    } else if (first.ref.empty() && s.sound) {
        v.now = "What was read is what a sound rig reads.";
        v.why = "Faults that these readings do not show are left" +
                (v.next.is(Subject::Kind::unknown) ? std::string(".")
                                                   : ": " + where + " would tell most of them.");
    } else if (!first.ref.empty() && !v.settled && v.next.is(Subject::Kind::unknown)) {
        v.now = "It is one of these: " + amongThese(s) + ".";
        v.why = "Nothing that may be read with every leg in place tells them apart. " +
                suspectLooks(rig.kit, first);
    } else if (!first.ref.empty() && v.settled) {
        v.now = suspectName(first) + ": " + oddsText(ofPart(s, first.ref)) + " sure that it is " + first.ref +
                ".";
        v.why = suspectLooks(rig.kit, first) + " M when it is mended: then measure again.";
    } else {
        v.now = "Measure next: " + where + ".";
        std::string why = s.next.why;
        if (!why.empty()) why[0] = char(std::toupper(static_cast<unsigned char>(why[0])));
        v.why = why + " " + belief(v, s);
    }
}

}  // namespace

std::string suspectName(const Suspect& s) {
    if (s.ref.empty()) return "nothing: a sound rig";
    return s.ref + " " + s.what + (s.ref2.empty() ? "" : ", and " + s.ref2 + " " + s.what2);
}

std::string oddsText(double odds) {
    const int percent = int(std::lround(100 * odds));
    if (percent < 1) return "under 1\u202f%";
    return (percent > 99 ? "over 99" : std::to_string(percent)) + "\u202f%";
}

std::string suspectLooks(const Kit& kit, const Suspect& s) {
    struct Look {
        const char *word, *says;
    };
    static constexpr Look looks[] = {
        {"bridged to",
         "Power off. Look between the two under the loupe, wick what is there, and read ohms between them."},
        {"bridged", "Power off. Look between the pins under the loupe; wipe or wick the bridge."},
        {"turned round", "Power off. Hold it against the print: band, flat, notch."},
        {"times its value", "Power off. Read its marks again; lift a leg and measure it."},
        {"tenth of its value", "Power off. Read its marks again; lift a leg and measure it."},
        {"wrong value", "Power off. Read its marks again; lift a leg and measure it."},
        {"missing", "Look whether it is there, and whether every leg is in its hole."},
        {"short", "Power off. Look for a bridge under it; lift a leg and read ohms across it."},
        {"pin", "Power off. Look whether the leg is bent under, then reflow it."},
        {"open",
         "Power off. Reflow its joints, then read ohms from pad to pad; a dry joint is likelier than a "
         "dead part."}};
    const Part* part = kit.part(s.ref);
    const std::string what = part == nullptr || part->what.empty() ? "" : " (" + part->what + ")";
    for (const Look& look : looks) {
        if (s.what.find(look.word) != std::string::npos) return s.ref + what + ": " + look.says;
    }
    return s.ref + what + ": power off, look at it under the loupe.";
}

SuspectsView suspectsView(const RigOnBench& rig, std::size_t at) {
    SuspectsView v;
    const Suspicion& s = rig.suspicion;
    for (const Suspect& x : s.suspects) {
        if (v.suspects.size() < kMost && (x.odds >= kLeast || v.suspects.empty())) v.suspects.push_back(x);
    }
    if (v.suspects.empty()) return v;
    v.at = std::min(at, v.suspects.size() - 1);
    const Suspect& first = s.suspects.front();
    v.settled = !first.ref.empty() && ofPart(s, first.ref) >= kEnough;
    sayNext(rig, v);
    say(rig, v);
    const auto sound =
        std::find_if(s.suspects.begin(), s.suspects.end(), [](const Suspect& x) { return x.ref.empty(); });
    const Suspect& chosen = v.suspects[v.at];
    for (std::size_t i = 0; i < rig.taken.size(); ++i) {
        const TakenReading& t = rig.taken[i];
        const double z = std::abs(deviations(t.reading, chosen.reads[i], s.spreads[i]));
        const double zSound =
            sound == s.suspects.end() ? NAN : std::abs(deviations(t.reading, sound->reads[i], s.spreads[i]));
        const bool against = z > kAgainst, speaksFor = z < kFits && !chosen.ref.empty() && zSound > kAgainst;
        const std::string read = shownValue(t.reading.value, t.reading.quantity);
        const std::string should = shownValue(chosen.reads[i], t.reading.quantity);
        v.evidence.push_back({t.title, speaksFor || read == should ? read : read + ", not " + should,
                              std::max(std::isfinite(z) ? z : 0, std::isfinite(zSound) ? zSound : 0),
                              against     ? VerdictState::fail
                              : speaksFor ? VerdictState::pass
                                          : VerdictState::notDone});
    }
    // What speaks most stands first.
    std::stable_sort(v.evidence.begin(), v.evidence.end(),
                     [](const EvidenceRow& a, const EvidenceRow& b) { return a.weight > b.weight; });
    return v;
}

}  // namespace ombrek
