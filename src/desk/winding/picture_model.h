#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "kit/build.h"
#include "kit/kit.h"
#include "picture/turn_count.h"

namespace ombrek {

/// What the page says of the turns that were counted in a picture.
struct PictureCountView {
    QString now, why, text;
    std::vector<Fact> facts;
};

/// @param ref      designator of the coil; may be none of the kit's
/// @param opened   there is a picture
/// @param changed  marks were struck or added
PictureCountView pictureCountView(const Kit& kit, const Build& build, const std::string& ref,
                                  const TurnCount& count, bool opened, bool changed);

}  // namespace ombrek
