#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "kit/build.h"

namespace ombrek {

/// What Choice::tuningOrder is when the common order is followed.
inline constexpr const char* kCommonOrder = "common";

/// How a peak of power is left: at the peak, or where the power has just fallen by this much, so that the
/// stage is less near to taking off by itself (two schools, common practice).
struct BackOff {
    double share = 0;    ///< of the power; 0: left at the peak
    bool toMore = true;  ///< towards more of the adjuster's travel
};

/// What was chosen; at the peak before.
BackOff backOffOf(const Build& build);
/// "left at the peak", "backed off 2 % towards more".
std::string wordOf(const BackOff& way);
/// "0", "2", "-1.5 %": per cent of the power, below nothing towards less. @return nothing beyond 0 to 5 %
std::optional<BackOff> readBackOff(std::string_view text);
/// As it is kept, and read again by readBackOff.
std::string keptOf(const BackOff& way);

/// Whether the common order is followed; else the kit's list as it stands.
bool commonOrder(const Build& build);

}  // namespace ombrek
