#pragma once

#include <QString>
#include <cstdint>
#include <string>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What the Photographs page shows of a step.
struct PhotosView {
    QString now, why;
    bool known = false;                  ///< the kit has this step
    std::int64_t before = 0, after = 0;  ///< the last photograph of each side; 0: none

    /// The last that was taken; 0: none.
    std::int64_t last() const { return before > after ? before : after; }
};

/// What Photographs shows of a step.
PhotosView photosView(const Kit& kit, const Build& build, const std::string& step);

}  // namespace ombrek
