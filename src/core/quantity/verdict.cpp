#include "core/quantity/verdict.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/text/enumerators.h"

namespace ombrek {

Limits limitsAround(double nominal, double tolerancePercent) {
    const double width = std::fabs(nominal) * tolerancePercent / 100.0;
    return {nominal - width, nominal + width};
}

int figuresFor(const Limits& limits) {
    const double largest = std::max(std::fabs(limits.low), std::fabs(limits.high));
    const double half = limits.halfWidth();
    if (!std::isfinite(largest) || !(half > 0)) return 4;
    return std::clamp(static_cast<int>(std::ceil(std::log10(largest / half))) + 2, 4, 9);
}

std::string limitsText(const Limits& limits, Unit unit) {
    const int figures = figuresFor(limits);
    const auto text = [&](double value) { return formatQuantity(value, unit, figures); };
    if (std::isinf(limits.low)) return "at most " + text(limits.high);
    if (std::isinf(limits.high)) return "at least " + text(limits.low);
    return text(limits.low) + " to " + text(limits.high);
}

std::string_view word(VerdictState state) {
    static constexpr std::array<std::string_view, 5> words{"pass", "doubtful", "fail", "cannot tell",
                                                           "not done"};
    static_assert(words.size() == enumerators<VerdictState>());
    return words[static_cast<std::size_t>(state)];
}

namespace {

/// Positive inside, negative outside: the distance to the nearer limit.
double margin(double reading, const Limits& limits) {
    return std::min(reading - limits.low, limits.high - reading);
}

}  // namespace

Verdict judgeBeyond(double least, const Limits& limits, Unit unit) {
    Verdict verdict{VerdictState::cannotTell, "", least, limits, 0, unit};
    const std::string wanted = limitsText(limits, unit);
    const bool open = std::isinf(least);
    const std::string shown = open ? "Open" : "Over " + formatQuantity(least, unit, 3);
    if (least > limits.high) {
        verdict.state = VerdictState::fail;
        verdict.sentence = shown + ", above " + wanted + ".";
    } else if (std::isinf(limits.high) && least >= limits.low) {
        verdict.state = VerdictState::pass;
        verdict.sentence = shown + ": " + wanted + " it is.";
    } else {
        verdict.sentence =
            shown + " is all the meter says; wanted " + wanted + ". Measure in a higher range.";
    }
    return verdict;
}

Verdict judge(double reading, const Limits& limits, double uncertainty, VerdictRule rule, Unit unit) {
    if (std::isinf(reading) && reading > 0) return judgeBeyond(reading, limits, unit);
    Verdict verdict{VerdictState::pass, "", reading, limits, uncertainty, unit};
    const std::string wanted = limitsText(limits, unit);
    if (!std::isfinite(reading)) {
        verdict.state = VerdictState::cannotTell;
        verdict.sentence = "The meter gives no number; wanted " + wanted + ".";
        return verdict;
    }
    // More than any meter's error can be, or none: nothing can be told by it.
    constexpr double kMost = 1e100;
    if (rule == VerdictRule::guardBand && !(uncertainty >= 0 && uncertainty < kMost)) {
        verdict.state = VerdictState::cannotTell;
        verdict.sentence = "How far the meter may be off is not known; wanted " + wanted + ". Read it again.";
        return verdict;
    }
    const double inside = margin(reading, limits);
    const double guard = rule == VerdictRule::guardBand ? uncertainty : 0.0;
    const std::string spare = formatQuantity(std::fabs(inside), unit, 2);
    if (inside < -guard) {
        verdict.state = VerdictState::fail;
        verdict.sentence = "Outside " + wanted + " by " + spare + ".";
    } else if (guard > limits.halfWidth()) {
        verdict.state = VerdictState::cannotTell;
        verdict.sentence = "This meter is good to ±" + formatQuantity(uncertainty, unit, 2) +
                           " here; a verdict needs one good to ±" +
                           formatQuantity(limits.halfWidth() / 4, unit, 2) + " or better.";
    } else if (guard > 0.0 && inside <= guard) {
        verdict.state = VerdictState::doubtful;
        verdict.sentence = (inside >= 0 ? "Inside " : "Outside ") + wanted + " by only " + spare +
                           ", and the meter itself may be off by " + formatQuantity(uncertainty, unit, 2) +
                           ".";
    } else {
        verdict.sentence = "Inside " + wanted + ", " + spare + " to spare.";
    }
    return verdict;
}

VerdictState worst(const std::vector<VerdictState>& states) {
    static constexpr std::array<VerdictState, 5> order{VerdictState::fail, VerdictState::cannotTell,
                                                       VerdictState::doubtful, VerdictState::notDone,
                                                       VerdictState::pass};
    for (const VerdictState state : order) {
        if (std::find(states.begin(), states.end(), state) != states.end()) return state;
    }
    return VerdictState::notDone;
}

}  // namespace ombrek
