#include "desk/winding/winding_model.h"

#include <array>
#include <cmath>
#include <cstdio>

#include "core/coil/winding.h"

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
    return coil.windings.size() == 1 ? coil.ref : coil.ref + " " + coil.windings[winding].name;
}

std::string centimetres(double metres) {
    char buffer[32];
    std::snprintf(buffer, sizeof buffer, "%.0f\u202fcm", metres * 100);
    return buffer;
}

std::string millimetres(double metres) {
    char buffer[32];
    std::snprintf(buffer, sizeof buffer, "%.2f\u202fmm", metres * 1000);
    return buffer;
}

std::string startSentence(const Coil& coil) {
    if (coil.core.shape == MagneticCore::Shape::twoHole)
        return "One turn is through both holes. Mark the first winding's start.";
    return "One layer, ends apart. The first push through the ring is pass one.";
}

void sayStage(WindingView& v) {
    const Coil& coil = *v.coil;
    using Stage = WindingView::Stage;
    const std::string name = v.inHand ? nameOf(coil, *v.inHand) : coil.ref;
    switch (v.stage) {
        case Stage::wind:
            v.now = "Wind " + name + ": " + passes(v.wanted - v.turns) + " to go.";
            v.why = coil.what.empty() ? startSentence(coil) : capital(coil.what) + ". " + startSentence(coil);
            break;
        case Stage::full:
            v.now = name + " has its " + std::to_string(v.wanted) + ": recount, then Enter.";
            v.why = "Count with a toothpick under the loupe, along the inside of the ring.";
            break;
        case Stage::over:
            v.now = name + " has " + std::to_string(v.turns - v.wanted) + " more than the kit says.";
            v.why = "Backspace takes one back. Enter keeps them, if they are meant.";
            break;
        case Stage::measure:
            v.now = "Measure " + coil.ref + ": " + formatQuantity(coil.target, Unit::henry, 3) + " wanted.";
            v.why = "On the L/C meter, tails short and still. Enter takes the reading, or type it.";
            break;
        case Stage::advice:
            v.now = v.advice->sentence;
            v.why =
                v.advice->act == TrimAdvice::Act::addTurns || v.advice->act == TrimAdvice::Act::removeTurns
                    ? "A opens the winding again; then count the turns on or off, and measure."
                    : "S when it is squeezed or spread, then it is measured again.";
            break;
        case Stage::finished:
            v.now = coil.ref +
                    " is right: " + formatQuantity(v.verdict.reading, Unit::henry, 3, Zeros::keep) + ".";
            v.why = "Enter goes to the next coil. Tails stay long until Tune.";
            break;
    }
}

void fillFacts(const Kit& kit, const Build& build, WindingView& v) {
    const Coil& coil = *v.coil;
    const bool ring = coil.core.shape == MagneticCore::Shape::ring;
    const double filled = coreFill(coil);
    v.facts.push_back(
        {"Wanted",
         formatQuantity(coil.target, Unit::henry, 3) + " ±" + plainNumber(coil.tolerance) + "\u202f%",
         {}});
    if (const Reading* measured = build.last("coil:" + coil.ref)) {
        v.facts.push_back(
            {"Measured", formatQuantity(measured->value, Unit::henry, 3, Zeros::keep), v.verdict.state});
    }
    const std::string paint = coil.core.paint.empty() ? coil.core.material : coil.core.paint;
    v.facts.push_back({"Core", coil.core.designation + (ring ? ", " + paint : ""), {}});
    v.facts.push_back({"Wire", coil.wireText + ", " + millimetres(coil.wire.bare), {}});
    for (const Winding& w : coil.windings) {
        const std::string name = coil.windings.size() == 1 ? "Cut" : "Cut, " + w.name;
        v.facts.push_back({name, centimetres(wireToCut(coil.core, coil.wire, w.turns, coil.tail)), {}});
    }
    if (ring) {
        int all = 0;
        for (const Winding& w : coil.windings) all += w.turns;
        v.facts.push_back(
            {"Room",
             std::to_string(all) + " of " + std::to_string(turnsThatFit(coil.core, coil.wire)) + " fit",
             filled > 1 ? std::optional(VerdictState::fail) : std::nullopt});
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
        for (const Winding& w : coil.windings) turns += build.winding(coil.ref, w.name).turns;
        const Reading* measured = build.last("coil:" + coil.ref);
        const std::string right = isWound && measured
                                      ? formatQuantity(measured->value, Unit::henry, 3, Zeros::keep)
                                  : isWound   ? "to measure"
                                  : turns > 0 ? std::to_string(turns) + " turns on"
                                              : "";
        v.coils.push_back({coil.ref, coil.ref + "  " + coil.what, right, verdict.state});
    }
    if (kit.coils.empty()) return v;
    v.coil = chosen.empty() ? nextCoil(kit, build) : kit.coil(chosen);
    if (v.coil == nullptr) v.coil = &kit.coils.back();
    const Coil& coil = *v.coil;
    v.inHand = windingInHand(coil, build);
    const Winding& winding = coil.windings[v.inHand.value_or(0)];
    v.turns = build.winding(coil.ref, winding.name).turns;
    v.wanted = winding.turns;
    v.tens = tensOf(v.turns);
    v.verdict = coilVerdict(coil, build);
    v.advice = coilAdvice(coil, build);
    using Stage = WindingView::Stage;
    if (v.inHand) {
        v.stage = v.turns < v.wanted ? Stage::wind : v.turns == v.wanted ? Stage::full : Stage::over;
    } else if (!v.advice) {
        v.stage = Stage::measure;
    } else {
        v.stage = v.advice->act == TrimAdvice::Act::leave ? Stage::finished : Stage::advice;
    }
    fillFacts(kit, build, v);
    v.note = coil.note.empty()
                 ? "Pull every turn snug, turns side by side, a gap of 30° between start and end."
                 : coil.note;
    sayStage(v);
    return v;
}

}  // namespace ombrek
