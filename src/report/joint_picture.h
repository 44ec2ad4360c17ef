#pragma once

#include <QPainter>

#include "kit/build.h"
#include "look/colours.h"

namespace ombrek {

/// A joint in section, as the loupe may find it: our own drawing of a lead in its pad with good solder, or
/// with what is wrong.
/// @param what  nothing: a good joint
void drawJoint(QPainter& p, const QRectF& room, std::optional<Finding::What> what, const Colours& colours);

}  // namespace ombrek
