#pragma once

#include <optional>

#include <map>

#include "core/coil/lay.h"
#include "core/coil/reach.h"
#include "core/coil/tank.h"
#include "core/coil/transformer.h"
#include "core/coil/trim.h"
#include "core/coil/twisted_bundle.h"
#include "core/coil/which_core.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// The winding of a coil that is being wound now: the first not done, or nothing.
std::optional<std::size_t> windingInHand(const Coil& coil, const Build& build);
bool wound(const Coil& coil, const Build& build);

/// The windings that go on in the same passes as one of them: all that are twisted with it, or it alone. As
/// indices, the first of them first; it leads, and one pass counts for all.
std::vector<std::size_t> woundTogether(const Coil& coil, std::size_t winding);
/// The names of those.
std::vector<std::string> namesTogether(const Coil& coil, std::size_t winding);

/// Turns on the core of the first (resonant) winding: counted, or the kit's figure before counting.
int mainTurns(const Coil& coil, const Build& build);

/// All windings' turns over those that fit in one layer, 0 to 1 and beyond; 0 for a core that is not a ring.
double coreFill(const Coil& coil);

/// Advice from the measured inductance; nothing before it is measured.
std::optional<TrimAdvice> coilAdvice(const Coil& coil, const Build& build);

/// Whether the trimmer reaches the band: with the measured inductance, else the kit's target. Nothing if the
/// coil is not tuned.
std::optional<TrimmerCover> coilCover(const Kit& kit, const Coil& coil, const Build& build);

/// Whether the builder keeps the coil with what it was measured to be last; another reading asks anew.
bool keptAsItIs(const Coil& coil, const Build& build);

/// Where a coil stands between the reel and the board.
enum class CoilStage { cut, wind, full, over, measure, advice, strip, untwist, continuity, isolation, ready };
CoilStage coilStage(const Coil& coil, const Build& build);

/// The winding whose continuity is to be proved next; nothing when all are.
std::optional<std::size_t> windingToProve(const Coil& coil, const Build& build);

/// What is known of a coil's twisted wires from the answers kept so far ("y" and "n"); at its end when all
/// are told apart or nothing is twisted.
TwistedBundle twistedOf(const Coil& coil, const Build& build);

/// The chance that the trimmer reaches its band: over the core's tolerance before the coil is measured, over
/// the meter's error after. Nothing if the coil is not tuned.
std::optional<ReachChance> coilReach(const Kit& kit, const Coil& coil, const Build& build);

/// What another core for a coil has to carry: its other windings, and the kit's power where the coil is one
/// of the transmitter's (in its low-pass, tuned for power, or a transformer between impedances).
CoreDuty dutyOf(const Kit& kit, const Coil& coil);

/// A transformer's impedance and lowest frequency, where the kit states them.
std::optional<TransformerCheck> coilTransformer(const Coil& coil);

/// Wire to cut for one winding of a coil [m]: with its tails, and a loop of two more for each tap.
double lengthToCut(const Coil& coil, const Winding& winding);

/// How the windings lie on the ring: towards the holes that the kit gives, seen from the parts side.
/// Empty for a core that is no ring.
std::vector<LaidWinding> layOf(const Kit& kit, const Coil& coil);

/// What is wrong with that lay, as a sentence; empty when the tails reach their holes.
std::string layTrouble(const Kit& kit, const Coil& coil);

/// One piece of wire to cut for a kit.
struct CutLine {
    std::string coil, winding, wire, core;
    int turns = 0;
    double length = 0;  ///< to cut [m]
};
struct CutList {
    std::vector<CutLine> lines;
    std::map<std::string, double> totals;  ///< by wire [m]
};
/// The lengths of every wire to be cut, by gauge [m].
CutList cutList(const Kit& kit);

/// Why a coil is not to be glued or its tails cut yet; empty when it may be: its trimmer is not settled, or
/// it has none and is measured right.
std::string mayStillChange(const Kit& kit, const Coil& coil, const Build& build);

/// Measured inductance against the target, with the meter's error; not done until wound and measured.
Verdict coilVerdict(const Coil& coil, const Build& build);

/// The coil to go on with: one that is begun, else the first to wind or to measure; null when there is none.
const Coil* nextCoil(const Kit& kit, const Build& build);

/// How the windings of a coil are told apart by a meter, when their tails have come loose from their marks:
/// by resistance where a hand multimeter can (a tenth of an ohm between any two, and a fifth: common
/// practice), else by inductance, which goes with the square of the turns. Empty for one winding, or windings
/// that are alike.
std::string toldApart(const Coil& coil);

}  // namespace ombrek
