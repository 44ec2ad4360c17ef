#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/coil/core.h"
#include "core/coil/wire.h"
#include "core/quantity/problem.h"
#include "core/quantity/verdict.h"
#include "kit/kit.h"

namespace ombrek {

/// A coil that is only thought of: on a core, or on air.
struct CoilIdea {
    MagneticCore core;
    double airRadius = 0, airLength = 0;  ///< to the middle of the wire, of the winding [m]; 0: it has a core
    Wire wire;
    std::string wireText;
    int turns = 1;
    double target = 0;     ///< [H]; 0: none
    double tolerance = 0;  ///< of the target [%]
    double frequency = 0;  ///< [Hz]
    double power = 0;      ///< [W]; 0: not asked
    double ohms = 50;      ///< that the power is in, across the whole winding

    bool air() const { return airRadius > 0; }
};

/// A coil of a kit as it is planned, at the kit's power and its own frequency.
CoilIdea ideaOf(const Kit& kit, const Coil& coil);

/// Changes to an idea as one types them, in any order: "T50-6 26 28AWG 2.7u 7M 3W 50ohm",
/// "AL4.9n 12.7x7.7x4.8" (a ring of one's own), "air 8mm 12mm" (diameter over the former, length). A plain
/// number is the turns; an inductance also sets the turns, unless they are given.
/// @return the changed idea, or a sentence on the word that is not understood
Result<CoilIdea> changedIdea(CoilIdea idea, std::string_view text, const std::vector<MagneticCore>& cores);

/// The inductance of an idea with a number of turns [H].
double inductanceOf(const CoilIdea& idea, int turns);

/// Everything that can be said of it before the wire is cut.
struct CoilFigures {
    double inductance = 0, low = 0, high = 0;  ///< over the core's tolerance [H]
    int turnsWanted = 0;                       ///< nearest to the target; 0: no target
    struct Line {
        std::string name, value;
        std::optional<VerdictState> state;
    };
    std::vector<Line> lines;
    std::string sentence;  ///< what to mind, or that nothing is
};
/// Inductance, wire, Q, resonance and flux of a coil that is thought of.
CoilFigures figuresOf(const CoilIdea& idea);

}  // namespace ombrek
