#include "core/quantity/earned.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace ombrek {
namespace {

constexpr int kUsual = 4;  ///< digits of a value without an uncertainty

bool earns(double value, double u) { return u > 0 && std::isfinite(u) && std::isfinite(value); }

/// How a value is written so that the second digit of its uncertainty is the last: in which prefix, with how
/// many decimals.
struct Written {
    double factor = 1;
    std::string unit;
    int places = 0;
};
Written writtenWith(double value, double u, Unit unit) {
    const double base = std::max(std::abs(value), u);
    const SplitText split = splitQuantity(base, unit, 9);
    Written out;
    out.unit = split.unit;
    std::string number = split.number;
    std::replace(number.begin(), number.end(), ',', '.');
    double shown = 0;
    std::from_chars(number.data(), number.data() + number.size(), shown);
    if (shown > 0) out.factor = std::pow(10.0, 3 * std::round(std::log10(base / shown) / 3));
    const double digit = std::floor(std::log10(u / out.factor) + 1e-9);
    out.places = std::clamp(int(1 - digit), 0, 9);
    return out;
}

std::string behind(const Written& w, Unit unit) {
    return unit == Unit::none || unit == Unit::degree ? w.unit : "\u202f" + w.unit;
}

}  // namespace

std::string earnedValue(double value, double uncertainty, Unit unit) {
    if (!earns(value, uncertainty)) return formatQuantity(value, unit, kUsual, Zeros::keep);
    const Written w = writtenWith(value, uncertainty, unit);
    return decimals(value / w.factor, w.places) + behind(w, unit);
}

std::string earnedText(double value, double uncertainty, Unit unit) {
    const std::string out = earnedValue(value, uncertainty, unit);
    if (!earns(value, uncertainty)) return out;
    constexpr double kFar = 1e-4;  // beyond it so many zeros tell less than a smaller prefix
    if (uncertainty < kFar * std::abs(value))
        return out + " ± " + formatQuantity(uncertainty, unit, 2, Zeros::keep);
    const Written w = writtenWith(value, uncertainty, unit);
    return out + " ± " + decimals(uncertainty / w.factor, w.places) + behind(w, unit);
}

}  // namespace ombrek
