#include "core/proof/frequency.h"

#include <algorithm>
#include <stdexcept>

namespace ombrek {

double partsPerMillion(double read, double reference) {
    if (!(reference > 0)) throw std::domain_error("a reference frequency is positive");
    return (read - reference) / reference * 1e6;
}

Working deviationWorking(double read, double reference, Unit unit) {
    Working out;
    out.lines = {
        {"difference", formatQuantity(read, unit, 9) + " − " + formatQuantity(reference, unit, 9),
         formatQuantity(read - reference, unit, 4)},
        {"difference / reference × 10⁶", "", formatQuantity(partsPerMillion(read, reference), Unit::ppm, 4)}};
    out.source = "definition of ppm";
    return out;
}

Verdict judgeFrequency(double read, double rated, double tolerancePpm, double uncertainty, VerdictRule rule) {
    return judge(partsPerMillion(read, rated), {-tolerancePpm, tolerancePpm}, uncertainty / rated * 1e6, rule,
                 Unit::ppm);
}

Verdict judgeInsideBand(double read, double uncertainty, double bandwidth, double low, double high) {
    Verdict out = judge(read, {low + bandwidth / 2, high - bandwidth / 2}, uncertainty,
                        VerdictRule::guardBand, Unit::hertz);
    const double left = std::min(read - low, high - read) - bandwidth / 2 - uncertainty;
    if (out.state == VerdictState::pass)
        out.sentence =
            formatQuantity(left, Unit::hertz, 3) + " are left to the edge of the band at its worst.";
    if (out.state == VerdictState::doubtful || out.state == VerdictState::cannotTell)
        out.sentence = "Its worst error may carry it over the edge of the band: keep off it.";
    if (out.state == VerdictState::fail) out.sentence = "It lies outside the band. Do not transmit.";
    return out;
}

}  // namespace ombrek
