#include "core/proof/frequency.h"

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

}  // namespace ombrek
