#pragma once

#include <string_view>

namespace ombrek {

/// Where work on a kit is done, in the order of the work.
enum class Station { partsIn, winding, board, firstLight, tune, proof, signOff, none };

/// What it is called, "First light"; of none: nothing.
std::string_view word(Station station);
/// By which its page is opened, "first-light".
std::string_view idOf(Station station);

}  // namespace ombrek
