#pragma once

#include <string_view>

#include "core/coil/core.h"

namespace ombrek {

/// What one writes of a ring that is in no table, a word at a time: "AL4.9n" (henry for a turn squared;
/// tables count in different units, so its prefix must stand there) or "12.7x7.7x4.8" (outer diameter, inner
/// diameter, height in mm). The ring becomes the builder's own: it keeps size, AL and tolerance as far as
/// they are not said anew, and loses what only the table knew of it. Example:
///
///     MagneticCore core;
///     takeOwnCore(core, "AL4.9n") && takeOwnCore(core, "12.7x7.7x4.8") && whole(core);
///
/// @return whether the word is one of these
bool takeOwnCore(MagneticCore& core, std::string_view word);

/// A core with an AL and with a size that has a hole.
bool whole(const MagneticCore& core);

}  // namespace ombrek
