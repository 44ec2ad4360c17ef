#include "desk/winding/winding_model.h"

#include <array>
#include <cmath>

#include "core/coil/loss.h"
#include "core/coil/transformer.h"
#include "core/coil/winding.h"
#include "core/quantity/shown.h"

namespace ombrek {
namespace {

std::string small(int n) {
    static constexpr std::array<const char*, 20> words{
        "none",     "one",     "two",     "three",     "four",     "five",    "six",
        "seven",    "eight",   "nine",    "ten",       "eleven",   "twelve",  "thirteen",
        "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"};
    return n >= 0 && n < 20 ? words[std::size_t(n)] : std::to_string(n);
}

std::string capital(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z') text[0] = char(text[0] - 'a' + 'A');
    return text;
}

std::string passes(int n) { return small(n) + (n == 1 ? " pass" : " passes"); }

std::string nameOf(const Coil& coil, std::size_t winding) {
    const auto together = namesTogether(coil, winding);
    if (together.size() > 1) {
        std::string out = coil.ref + " ";
        for (std::size_t i = 0; i < together.size(); ++i)
            out += (i == 0 ? "" : i + 1 == together.size() ? " and " : ", ") + together[i];
        return out + ", twisted";
    }
    return coil.windings.size() == 1 ? coil.ref : coil.ref + " " + coil.windings[winding].name;
}

std::string millimetres(double metres) { return decimals(metres * 1000, 2) + "\u202fmm"; }

std::string measuredText(const Reading& r) {
    if (std::isnan(r.value)) return "no number";
    return r.beyond ? shownText({r.value, true}, Unit::henry, 3)
                    : formatQuantity(r.value, Unit::henry, 3, Zeros::keep);
}

std::string startSentence(const Coil& coil) {
    if (coil.core.shape == MagneticCore::Shape::twoHole)
        return "One turn is through both holes. Mark the first winding's start.";
    return "One layer, ends apart. The first push through the ring is pass one.";
}

std::string cutSentence(const Coil& coil) {
    std::string out = "Cut ";
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        const Winding& w = coil.windings[i];
        out += (i == 0                          ? ""
                : i + 1 == coil.windings.size() ? " and "
                                                : ", ") +
               lengthName(lengthToCut(coil, w));
    }
    return out + " of " + wireName(coil.wireText, coil.wire) + " for " + coil.ref + ".";
}

/// "this side's 1 with the other's 1 and 2": the test that tells most.
std::string twistSentence(const Coil& coil, const Build& build) {
    const WireTest test = twistedOf(coil, build).next();
    std::string others;
    for (std::size_t i = 0; i < test.others.size(); ++i)
        others += (i == 0                        ? ""
                   : i + 1 == test.others.size() ? " and "
                                                 : ", ") +
                  std::to_string(test.others[i] + 1);
    return "Does wire " + std::to_string(test.lead + 1) + " here beep with " + others + " at the other end?";
}

std::string endsText(const Coil& coil, const Build& build) {
    std::string out;
    const std::vector<int> ends = twistedOf(coil, build).otherEnds();
    for (std::size_t i = 0; i < coil.twisted.size(); ++i)
        out += (i ? ", " : "") + std::to_string(i + 1) + " is " + std::to_string(ends[i] + 1);
    return out;
}

/// What the pass in hand is for; at a tap's turn, the tap.
std::string windSentence(const WindingView& v, const std::string& name) {
    for (const Winding::Tap& tap : v.coil->windings[*v.inHand].taps) {
        if (v.turns == tap.at)
            return "Twist a loop for the tap " + tap.name + ", then go on: " + passes(v.wanted - v.turns) +
                   " to go.";
    }
    return "Wind " + name + ": " + passes(v.wanted - v.turns) + " to go.";
}

/// Before the first pass how to begin; after it where one stands, so that one may stop at any time.
std::string windWhy(const WindingView& v) {
    const Coil& coil = *v.coil;
    if (v.turns > 0)
        return std::to_string(v.turns) + (v.turns == 1 ? " is on" : " are on") +
               (v.turns < 10 ? "" : ": " + tensOf(v.turns)) + ". Stop where you like.";
    return coil.what.empty() ? startSentence(coil) : capital(coil.what) + ". " + startSentence(coil);
}

struct StageText {
    std::string now, why;
};

StageText textOf(const WindingView& v, const Build& build) {
    const Coil& coil = *v.coil;
    using Stage = WindingView::Stage;
    const std::string name = v.inHand ? nameOf(coil, *v.inHand) : coil.ref;
    switch (v.stage) {
        case Stage::cut:
            return {cutSentence(coil), "Generously reckoned, tails included. Enter when it is cut."};
        case Stage::wind:
            return {windSentence(v, name), windWhy(v)};
        case Stage::full:
            return {
                name + " has its " + std::to_string(v.wanted) + ": recount, then Enter.",
                "Count with a toothpick under the loupe, along the inside of the ring, or in a picture: P."};
        case Stage::over:
            return {name + " has " + std::to_string(v.turns - v.wanted) + " more than the kit says.",
                    "Backspace takes one back. Enter keeps them, if they are meant."};
        case Stage::measure:
            return {
                "Measure " + coil.ref + ": " + formatQuantity(coil.target, Unit::henry, 3) + " wanted.",
                "The ends of its tails scraped bare first: no meter reads through enamel. Enter takes the "
                "reading, or type it; T trusts the count."};
        case Stage::advice:
            if (v.cover && v.cover->state == VerdictState::pass)
                return {coil.ref + " is off, but " + coil.tune->trimmer +
                            " tunes it over the band: K keeps it as it is.",
                        "Or: " + v.advice->sentence};
            return {
                v.advice->sentence,
                v.advice->act == TrimAdvice::Act::distrust
                    ? "Enter measures it again. A opens the winding, to count it again."
                : v.advice->act == TrimAdvice::Act::addTurns || v.advice->act == TrimAdvice::Act::removeTurns
                    ? "A opens the winding again; then count the turns on or off, and measure."
                    : "S when it is squeezed or spread, then it is measured again."};
        case Stage::strip:
            return {"Strip the tails of " + coil.ref + ", and tin them.",
                    "Enter: scraped. H: hot solder blob. E: flame and emery. A badly stripped tail is the "
                    "commonest dry joint."};
        case Stage::untwist:
            return {twistSentence(coil, build), "Untwist both ends first. Enter: it beeps. N: it does not."};
        case Stage::continuity:
            return {"Prove " + coil.ref + " " + coil.windings[*v.toProve].name +
                        ": tail to tail, on the tinned ends.",
                    "Once it is soldered: pad to pad. Enter: the meter beeps. N: it does not."};
        case Stage::isolation:
            return {"Prove that the windings of " + coil.ref + " are apart.",
                    "From each winding to the next: Enter: no beep. N: it beeps."};
        case Stage::ready:
            break;
    }
    const std::string value = std::isfinite(v.verdict.reading)
                                  ? formatQuantity(v.verdict.reading, Unit::henry, 3, Zeros::keep)
                                  : "counted and trusted";
    return {coil.ref + " is right: " + value + ".",
            "Enter goes to the next coil. Tails stay long until Tune."};
}

/// The usual caution of each way to take the enamel off.
std::string cautionOf(WindingView::Stage stage) {
    if (stage != WindingView::Stage::strip) return "";
    return "Knife away from you. A blob of about 400 °C spits and smokes: eye protection, ventilate. Flame: "
           "clear the "
           "bench, hold the tail in a clip. Follow your local rules.";
}

void fillFacts(const Kit& kit, const Build& build, WindingView& v) {
    const Coil& coil = *v.coil;
    const bool ring = coil.core.shape == MagneticCore::Shape::ring;
    const double filled = coreFill(coil);
    v.facts.push_back(
        {"Wanted",
         formatQuantity(coil.target, Unit::henry, 3) + " ±" + personNumber(coil.tolerance) + "\u202f%",
         {}});
    if (const Reading* measured = build.last(Subject::coil(coil.ref))) {
        v.facts.push_back({"Measured", measuredText(*measured), v.verdict.state});
    }
    const std::string paint = coil.core.paint.empty() ? coil.core.material : coil.core.paint;
    v.facts.push_back({"Core", coil.core.designation + (ring ? ", " + paint : ""), {}});
    const std::string wire = wireName(coil.wireText, coil.wire);
    const bool metric = wire.find("mm") != std::string::npos;
    v.facts.push_back({"Wire", metric ? wire : wire + ", " + millimetres(coil.wire.bare), {}});
    for (const Winding& w : coil.windings) {
        if (!v.inHand) break;  // nothing is cut any more
        const std::string name = coil.windings.size() == 1 ? "Cut" : "Cut, " + w.name;
        v.facts.push_back({name, lengthName(lengthToCut(coil, w)), {}});
    }
    if (ring) {
        int all = 0;
        for (const Winding& w : coil.windings) all += w.turns;
        v.facts.push_back(
            {"Room",
             std::to_string(all) + " of " + std::to_string(turnsThatFit(coil.core, coil.wire)) + " fit",
             filled > 1 ? std::optional(VerdictState::fail) : std::nullopt});
    }
    if (ring && v.seen.size() > 1) {
        std::string seen;
        for (const int n : v.seen) seen += (seen.empty() ? "" : "-") + std::to_string(n);
        v.facts.push_back({"Seen before parting", seen, {}});
    }
    if (ring && coil.windings.size() < 3 && kit.ratings.frequency > 0 && coil.target > 0) {
        const double q =
            copperQ(coil.target, coil.wire, wireOnCore(coil.core, coil.wire, coil.windings.front().turns),
                    coil.tune ? std::sqrt(coil.tune->low * coil.tune->high) : kit.ratings.frequency);
        v.facts.push_back({"Copper Q at most", formatQuantity(q, Unit::none, 2), {}});
    }
    if (const auto transformer = coilTransformer(coil)) {
        v.facts.push_back({"Reactance at " + formatQuantity(coil.lowest, Unit::hertz, 3),
                           formatQuantity(transformer->times, Unit::none, 2) + " times " +
                               formatQuantity(coil.impedance, Unit::ohm, 3),
                           transformer->state});
        v.facts.push_back({"Impedance ratio", ratioText(transformer->impedanceRatio), {}});
    }
    v.cover = coilCover(kit, coil, build);
    if (v.cover) {
        const std::string low = formatQuantity(v.cover->lowest, Unit::hertz, 4),
                          high = formatQuantity(v.cover->highest, Unit::hertz, 4);
        v.facts.push_back({coil.tune->trimmer + " reaches", low.substr(0, low.find("\u202f")) + " to " + high,
                           v.cover->state});
    }
}

}  // namespace

std::string tensOf(int turns) {
    const int tens = turns / 10, ones = turns % 10;
    if (tens == 0) return small(ones);
    const std::string head = small(tens) + (tens == 1 ? " ten" : " tens");
    return ones == 0 ? head : head + " and " + small(ones);
}

WindingView windingView(const Kit& kit, const Build& build, const std::string& chosen) {
    WindingView v;
    for (const Coil& coil : kit.coils) {
        const bool isWound = wound(coil, build);
        const Verdict verdict = coilVerdict(coil, build);
        int turns = 0;
        for (std::size_t i = 0; i < coil.windings.size(); ++i) {
            if (woundTogether(coil, i).front() == i)
                turns += build.winding(coil.ref, coil.windings[i].name).turns;
        }
        const Reading* measured = build.last(Subject::coil(coil.ref));
        const std::string right = isWound && measured ? measuredText(*measured)
                                  : isWound           ? "to measure"
                                  : turns > 0         ? std::to_string(turns) + " turns on"
                                                      : "";
        v.coils.push_back({coil.ref, coil.ref + "  " + coil.what, right, verdict.state});
    }
    if (kit.coils.empty()) return v;
    v.coil = chosen.empty() ? nextCoil(kit, build) : kit.coil(chosen);
    if (v.coil == nullptr) v.coil = &kit.coils.back();
    const Coil& coil = *v.coil;
    v.inHand = windingInHand(coil, build);
    v.toProve = windingToProve(coil, build);
    const Winding& winding = coil.windings[v.inHand.value_or(0)];
    v.turns = build.winding(coil.ref, winding.name).turns;
    v.wanted = winding.turns;
    v.tens = tensOf(v.turns);
    v.verdict = coilVerdict(coil, build);
    v.advice = coilAdvice(coil, build);
    v.stage = coilStage(coil, build);
    v.lay = layOf(kit, coil);
    std::vector<int> turns;
    for (std::size_t i = 0; i < coil.windings.size(); ++i) {
        if (woundTogether(coil, i).front() == i) turns.push_back(coil.windings[i].turns);
    }
    v.seen = turnsAsSeen(turns);
    fillFacts(kit, build, v);
    v.note = layTrouble(kit, coil);
    if (v.note.empty())
        v.note = !coil.note.empty() ? coil.note
                 : coil.core.shape == MagneticCore::Shape::twoHole
                     ? "Pull every turn snug; each goes up one hole and down the other. Mark the ends of "
                       "each winding."
                     : "Pull every turn snug, turns side by side, a gap of 30° between start and end.";
    using Stage = WindingView::Stage;
    if (v.stage == Stage::strip || v.stage == Stage::continuity || v.stage == Stage::isolation) {
        if (const std::string told = toldApart(coil); !told.empty()) v.note = told;
    }
    v.caution = cautionOf(v.stage);
    const StageText text = textOf(v, build);
    v.now = text.now;
    v.why = text.why;
    if (v.stage == WindingView::Stage::continuity && !coil.twisted.empty())
        v.why = "At the other end " + endsText(coil, build) + ". " + v.why;
    return v;
}

}  // namespace ombrek
