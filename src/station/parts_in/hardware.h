#pragma once

#include <string_view>
#include <vector>

#include "kit/kit.h"

namespace ombrek {

/// Screws, wire, knobs: what the list names by its words and size alone.

/// Sizes that words name [m]: "M3 x 6 screws" 3 mm and 6 mm, "0.4 mm enamelled wire", "1/4 in spacer". A
/// number that counts, or names a type, is none.
std::vector<double> sizesIn(std::string_view words);

/// A thing of the kit that has a size.
struct OfSize {
    const Part* part = nullptr;
    double size = 0;  ///< which of its sizes [m]
};
/// What a calliper reading finds, the nearest first: within 4 % and 0.2 mm (a thread measures less than its
/// name, enamel adds to its wire: common practice).
std::vector<OfSize> hardwareOfSize(const Kit& kit, double metres);

/// Whether an instruction speaks of a thing: every word of it that is no number stands there, in the singular
/// or the plural.
bool namesThing(std::string_view text, const Part& thing);

}  // namespace ombrek
