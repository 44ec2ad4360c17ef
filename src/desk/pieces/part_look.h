#pragma once

#include "kit/kit.h"
#include "look/part_picture.h"

namespace ombrek {

/// A part as every page draws it: its body by what the kit says of it or lets tell, its polarity as the
/// sanity pass asks for it. The one source of both.
PartLook partLookOf(const Part& part);

}  // namespace ombrek
