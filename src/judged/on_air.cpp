#include "judged/on_air.h"

#include <algorithm>
#include <cmath>

#include "core/proof/exposure.h"
#include "core/quantity/quantity.h"
#include "judged/sign_off.h"

namespace ombrek {

const std::vector<AirStep>& airSteps() {
    static const std::vector<AirStep> steps{
        {"practice",
         "Key without power",
         "Key without power: does it key, and stay silent?",
         "Practice mode, or the finals' supply off. A second receiver beside the rig hears whether anything "
         "leaves it.",
         "Keep the dummy load on: a rig that should be silent may not be.",
         {{"silent", "Nothing with the key up",
           "No carrier is heard with the key up, in any position of the switches.",
           "A carrier with the key up: keying stage or transmit-receive switch; go to First light."},
          {"sidetone", "Sidetone", "The tone follows the key at once, without a second one beside it.",
           "No tone, or a late one: audio mute and keying line."}}},
        {"load",
         "On the dummy load",
         "Key into the dummy load; listen with a second receiver.",
         "It stands across the room. Each of five things is heard and noted; W says what was wrong.",
         "The load and finals get hot: key a few seconds at a time. Never key without a load.",
         {{"tone", "Tone", "A clean single note, as from a tuning fork.",
           "Rough or gurgling: radio frequency in the oscillator's supply, or a self-oscillating stage."},
          {"clicks", "Clicks", "The note begins and ends softly; nothing is heard a kilohertz beside it.",
           "Clicks beside the note: the keying rises too fast; enlarge the capacitor that shapes it."},
          {"chirp", "Chirp", "The note keeps its height while the key is pressed.",
           "It slides as the key goes down: the oscillator's supply sags or its buffer is too weak."},
          {"hum", "Hum and ripple", "No hum under the note, on battery and on the mains supply.",
           "Hum: the supply's filter, or a loop through the earth of the mains supply."},
          {"position", "Place of the note",
           "It is heard where the dial says, with the offset the right way round.",
           "Beside its place: transmit offset and sideband; go to Tune."}}},
        {"antenna",
         "The antenna",
         "Load off, antenna on: read its SWR at the lowest power.",
         "One reading a band; type it, as 1.4.",
         "Masts and wires stay away from power lines. Nobody touches the antenna or stands near it while the "
         "key is down: its ends burn.",
         {{"swr", "SWR", "At most 2; the finals are easy up to there (common practice).",
           "Over 2: tune the antenna or its coupler first. Over 3: do not key into it.", true}},
         true},
        {"receive",
         "Receive, compared",
         "Compare the same weak signals with another receiver.",
         "One you trust, in turn. Type what you heard: equal, weaker, much weaker, not heard; or S5 S7, the "
         "rig first.",
         "One antenna for both, moved over each time; a switch costs nothing and is faster.",
         {{"compared", "Comparison", "Three signals or more, within 3 dB of the other receiver.",
           "Less: the receive circuits are off their peak, or a stage does not work.", false, true}}},
        {"call",
         "The first call",
         "Lowest power. Is the frequency free? Ask, then call.",
         "Band, mode and power by your licence; a watt goes further than one thinks.",
         "Under your own callsign only, and under somebody who may where you may not yet.",
         {{"called", "Called",
           "The frequency was free; the call went out, and reports of receivers or an answer came.",
           "Nobody hears it: hear yourself with a receiver far away, look at the SWR, try another hour."}},
         true},
        {"contact",
         "The first contact",
         "Write the first contact down: Enter, then A.",
         "The first contact of this rig goes on its report.",
         "",
         {{"contact", "First contact", "The first line of the log with this rig.", ""}},
         true}};
    return steps;
}

std::vector<std::string> bandsOnAir(const Judged& judged) {
    std::vector<std::string> out;
    for (const FitFor& f : fitFor(judged)) {
        if (f.fit && f.what.starts_with("the air")) out.push_back(f.band);
    }
    return out;
}

std::string airTitle(const AirNote& note) {
    const std::size_t at = note.item.find('@');
    const std::string id = note.item.substr(0, at),
                      band = at == std::string::npos ? "" : ", " + note.item.substr(at + 1);
    for (const AirStep& step : airSteps()) {
        for (const AirItem& item : step.items) {
            if (note.step == step.id && id == item.id) return item.title + band;
        }
    }
    return "On the air, " + note.item;
}

namespace {

constexpr double kSwrGood = 2, kSwrMost = 3;

/// When the rig was last another one: the last repair that is mended.
std::int64_t mendedLast(const Build& build) {
    std::int64_t out = 0;
    for (const Repair& r : build.repairs) out = std::max(out, r.at);
    return out;
}

const AirNote* lastNote(const Build& build, const std::string& step, const std::string& item) {
    const std::int64_t since = mendedLast(build);
    const AirNote* out = nullptr;
    for (const AirNote& n : build.air) {
        if (n.step == step && n.item == item && n.at > since) out = &n;
    }
    return out;
}

void judgeSwr(AirItemState& out) {
    if (out.note == nullptr || !(out.note->value >= 1)) return;
    const double swr = out.note->value;
    out.state = swr <= kSwrGood   ? VerdictState::pass
                : swr <= kSwrMost ? VerdictState::doubtful
                                  : VerdictState::fail;
    out.sentence = "SWR " + decimals(swr, swr < 10 ? 1 : 0) + ". " +
                   (out.state == VerdictState::pass ? out.item->right : out.item->wrong);
}

AirItemState stateOf(const Build& build, const AirStep& step, const AirItem& item, const std::string& band) {
    AirItemState out{&item, band, nullptr, VerdictState::notDone, item.right};
    out.note = lastNote(build, step.id, std::string(item.id) + (band.empty() ? "" : "@" + band));
    if (item.compared) {
        const ReceiveVerdict v = receiveVerdict(build);
        out.state = v.state;
        out.sentence = v.sentence + (v.remedy.empty() ? "" : " " + v.remedy);
        return out;
    }
    if (item.swr) {
        judgeSwr(out);
        return out;
    }
    if (out.note == nullptr) return out;
    out.state = out.note->state;
    if (out.state != VerdictState::pass)
        out.sentence = (out.note->text.empty() ? "" : "\"" + out.note->text + "\". ") + item.wrong;
    else if (!out.note->text.empty())
        out.sentence = out.note->text;
    return out;
}

/// The bands that an item is asked on: an antenna's SWR where the rig may radiate, on all while it may
/// nowhere and the step is barred; anything else once.
std::vector<std::string> bandsOf(const AirItem& item, const Judged& judged) {
    if (!item.swr) return {""};
    const auto fit = bandsOnAir(judged);
    return fit.empty() ? judged.kit().ratings.bandNames() : fit;
}

/// Why the rig must not radiate; empty: on a band at least it may.
std::string whyNotRadiate(const Judged& judged) {
    std::string why;
    for (const FitFor& f : fitFor(judged)) {
        if (!f.what.starts_with("the air")) continue;
        if (f.fit) return "";
        if (why.empty()) why = f.why;
    }
    return why.empty() ? "This kit does not transmit." : "It is not fit for the air yet. " + why + ".";
}

}  // namespace

std::vector<HeardDifference> comparisonsOf(const Build& build) {
    std::vector<HeardDifference> out;
    const std::int64_t since = mendedLast(build);
    for (const AirNote& n : build.air) {
        if (n.step != "receive" || n.at <= since) continue;
        if (const auto heard = readComparison(n.text)) out.push_back(*heard);
    }
    return out;
}

ReceiveVerdict receiveVerdict(const Build& build) { return judgeReceive(comparisonsOf(build)); }

std::vector<AirStepState> airStates(const Judged& judged, const Contact* first) {
    const Build& build = judged.build();
    const std::string barred = whyNotRadiate(judged);
    std::vector<AirStepState> out;
    for (const AirStep& step : airSteps()) {
        AirStepState state;
        state.step = &step;
        std::vector<VerdictState> states;
        for (const AirItem& item : step.items) {
            for (const std::string& band : bandsOf(item, judged)) {
                AirItemState of = stateOf(build, step, item, band);
                if (std::string_view(item.id) == "contact" && first != nullptr) {
                    of.state = VerdictState::pass;
                    of.sentence = first->call + (first->band.empty() ? "" : " on " + first->band) + ".";
                }
                states.push_back(of.state);
                state.items.push_back(std::move(of));
            }
        }
        // One band with its antenna is enough to go on with.
        const bool one =
            !step.items.empty() && step.items.front().swr &&
            std::any_of(states.begin(), states.end(), [](auto s) { return s == VerdictState::pass; }) &&
            std::none_of(states.begin(), states.end(), [](auto s) { return s == VerdictState::fail; });
        state.state = one ? VerdictState::pass : worst(states);
        if (step.radiates) state.barred = barred;
        out.push_back(std::move(state));
    }
    return out;
}

const AirStepState* nextAirStep(const std::vector<AirStepState>& states) {
    const auto hit = std::find_if(states.begin(), states.end(),
                                  [](const AirStepState& s) { return s.state != VerdictState::pass; });
    return hit == states.end() ? nullptr : &*hit;
}

const Contact* firstContact(const std::vector<Contact>& log, std::int64_t build) {
    const Contact* out = nullptr;
    for (const Contact& c : log) {
        if (c.build == build && build != 0 && (out == nullptr || c.at < out->at)) out = &c;
    }
    return out;
}

double swrOf(std::string_view text) {
    std::string number(text.substr(0, text.find(':')));
    while (!number.empty() && number.back() == ' ') number.pop_back();
    const auto read = parseQuantity(number);
    constexpr double kMost = 1000;
    return read && read->unit == Unit::none && read->value >= 1 && read->value <= kMost ? read->value : 0;
}

std::string keepAway(const Judged& judged) {
    constexpr double kDipole = 2.15;  // [dB] over isotropic
    double metres = 0;
    for (const std::string& band : judged.kit().ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        if (!proof.power) continue;
        const auto e = exposureOf(proof.power->watts + proof.power->uncertainty, kDipole, 1,
                                  judged.kit().ratings.on(band).frequency);
        if (e) metres = std::max(metres, e->metres);
    }
    if (metres == 0) return "";
    return "People keep " + decimals(std::max(1.0, std::ceil(metres * 10) / 10), 1) +
           " m or more from a dipole at this power, key down all the time (an estimate; follow your rules).";
}

}  // namespace ombrek
