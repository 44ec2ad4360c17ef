#include "station/tune/tune_ways.h"

#include <cmath>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kMostBackedOff = 0.05;  ///< 1 to 3 % are common practice

}  // namespace

std::optional<BackOff> readBackOff(std::string_view text) {
    const auto percent = parseQuantity(text, Unit::percent);
    if (!percent || !(std::abs(percent->value) <= 100 * kMostBackedOff + 1e-9)) return std::nullopt;
    return BackOff{std::abs(percent->value) / 100, percent->value >= 0};
}

std::string keptOf(const BackOff& way) {
    return (way.toMore ? "" : "-") + decimals(way.share * 100, 1) + " %";
}

std::string wordOf(const BackOff& way) {
    if (!(way.share > 0)) return "left at the peak";
    return "backed off " + decimals(way.share * 100, way.share * 100 == std::round(way.share * 100) ? 0 : 1) +
           "\u202f% towards " + (way.toMore ? "more" : "less");
}

BackOff backOffOf(const Build& build) {
    return readBackOff(build.chosen(Choice::backOff)).value_or(BackOff{});
}

bool commonOrder(const Build& build) { return build.chosen(Choice::tuningOrder) == kCommonOrder; }

}  // namespace ombrek
