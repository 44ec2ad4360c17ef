#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/coil/wire.h"

namespace ombrek {

/// What is known of a ring core of unknown type; what is 0 or empty was not looked at.
struct CoreClues {
    double outerDiameter = 0, innerDiameter = 0, height = 0;  ///< by calliper [m]
    double callipers = 0.15e-3;                               ///< error of the calliper, one sigma [m]
    std::string paint;                                        ///< "yellow", "grey"; "none" for a bare ferrite
    double inductance = 0;                                    ///< of the trial turns [H]
    double error = 0;                                         ///< U of the meter [H]
    int trialTurns = 10;
};

struct CoreGuess {
    const MagneticCore* core = nullptr;
    double odds = 0;  ///< 0 … 1
};

/// The likely cores, likeliest first, with odds that add up to 1 over the table.
///
/// Sizes and inductance are weighed by their normal errors; the core's own AL tolerance is taken as a limit
/// of three sigma; a wrong paint counts for one in fifty (common practice), since paint chips and batches
/// differ.
/// @param cores  the table; must outlive the answer
std::vector<CoreGuess> whichCore(const CoreClues& clues, const std::vector<MagneticCore>& cores);

/// What a core has to carry beside the inductance.
struct CoreDuty {
    double othersPerTurn = 0;  ///< turns of all other windings for one of the main
    double volts = 0;          ///< across the main winding at full power, r.m.s.; 0: small signals
    bool tuned = true;         ///< its Q matters; a wide-band transformer's does not
};

/// Another core that gives the wanted inductance, and what gets worse with it.
struct OtherCore {
    const MagneticCore* core = nullptr;
    int turns = 0;
    double inductance = 0;  ///< with these whole turns [H]
    double offPercent = 0;  ///< from the one wanted
    double fill = 0;        ///< turns over those that fit in one layer
    double copperQ = 0;     ///< at the frequency, of the copper alone; a ferrite's own loss leaves less
    std::string worse;      ///< what gets worse against the kit's own core; empty: nothing
};

/// Cores at hand that give an inductance with a wire, those that do it best first: within tolerance, in one
/// layer, highest copper Q.
/// @param atHand  must outlive the answer
/// @param own  the kit's core, for comparison @throws std::domain_error unless inductance and frequency > 0
std::vector<OtherCore> otherCores(const MagneticCore& own, double inductance, const Wire& wire,
                                  double frequency, const std::vector<MagneticCore>& atHand,
                                  const CoreDuty& duty = {});

}  // namespace ombrek
