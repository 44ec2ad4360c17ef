#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// Where a rig is otherwise than its paper: what the paper has wrong, which goes with the kit, and what its
/// builder did otherwise, which is of this build alone.
struct Note {
    Subject at;             ///< a part, coil, step, check or adjustment
    std::string title;      ///< of it, "R14 4.7 kΩ"
    std::string erratum;    ///< what the paper has wrong; may be empty
    std::string otherwise;  ///< what was done otherwise, with its reason; may be empty
};

/// All of them, in the order of the kit.
std::vector<Note> notesOf(const Kit& kit, const Build& build);

/// What the paper has wrong there; empty when nothing is known.
std::string erratumAt(const Kit& kit, const Subject& at);
/// What was done otherwise there; empty when nothing was said.
std::string otherwiseAt(const Build& build, const Subject& at);

/// Both as sentences for a card: "The paper is wrong here: … Made otherwise: …". Empty when there are none.
std::string noteText(const Kit& kit, const Build& build, const Subject& at);

}  // namespace ombrek
