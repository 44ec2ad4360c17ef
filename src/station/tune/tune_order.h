#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// An adjustment in its place, and why it stands there.
struct TuneTurn {
    const Adjustment* adjustment = nullptr;
    std::string reason;
};

/// In which order a kit's adjustments are made: as its list stands, or the common one (contrast, reference,
/// carrier oscillator, start of the range, intermediate frequency, receive band-pass, nulls, offset, levels,
/// transmit band-pass, bias before power; band by band); in both none before what it rests on. A ring of
/// these is taken as the list stands.
/// @return pointers into kit.adjustments
std::vector<TuneTurn> tuningOrder(const Kit& kit, bool common);

/// As the builder chose for this build.
std::vector<TuneTurn> tuningOrder(const Kit& kit, const Build& build);

}  // namespace ombrek
