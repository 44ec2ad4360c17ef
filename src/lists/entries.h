#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/coil/core.h"
#include "kit/kit.h"

namespace ombrek {

/// One line that a builder writes or pastes at a station, understood; nothing when it cannot be kept.
template <class T>
struct Entry {
    std::size_t line = 0;
    std::string text;  ///< as it stood
    std::optional<T> kept;
    std::string says;                 ///< what was understood, for the preview
    std::vector<std::string> doubts;  ///< why it was not, or what was assumed; sentences
};

/// Coils to wind, a line each: "L1  T50-2, 28 turns #28, tunes 7.0 to 7.2 MHz with C10 and C11". The target
/// is said in henry or reckoned from the core's AL; a wire that is not said is taken as 26AWG, and that is a
/// doubt. Of the parts named behind "with" a trimmer tunes it, capacitors stand across it.
std::vector<Entry<Coil>> readCoilEntries(const std::string& bytes, const Kit& kit,
                                         const std::vector<MagneticCore>& cores);

/// Adjustments, a line each: "C10: peak the audio at the phones", "R62 bias: 50 mA", "C22: 5.000 MHz ±100
/// Hz".
std::vector<Entry<Adjustment>> readAdjustmentEntries(const std::string& bytes, const Kit& kit);

/// What the first page promises: "5 W at 13.8 V, 7.0 to 7.2 MHz", "at least 4 W", "does not transmit".
/// Together one record; `before` is what the kit says now.
Entry<Ratings> readPromises(const std::string& bytes, const Ratings& before);

/// A plan with steps from the paper put in: parts that they fit leave the steps made from the list, which
/// keep the rest; steps that are done stay as they are.
std::vector<Step> mergedSteps(const Kit& kit, const std::vector<Step>& pasted,
                              const std::vector<std::string>& done);

}  // namespace ombrek
