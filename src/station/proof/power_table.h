#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/proof/power.h"
#include "core/quantity/verdict.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// A power on one band at one supply.
struct PowerCell {
    std::optional<Reading> reading;       ///< the last that holds
    Power power;                          ///< of it, or of two ways together
    double supply = NAN;                  ///< that it was read with [V]
    double promised = 0;                  ///< at that supply, as its square [W]
    double current = NAN;                 ///< [A]
    double efficiency = NAN, heat = NAN;  ///< 0 … 1, [W]
    VerdictState state = VerdictState::notDone;
    std::string sentence;  ///< "3.1 W ± 0.2 W; 4 W promised here"
    std::string ways;      ///< how two ways of it agree; empty: there is one
};

/// Every band at every supply.
struct PowerTable {
    std::vector<std::string> bands;
    std::vector<double> supplies;                             ///< [V], rising; the rated one among them
    std::vector<std::vector<PowerCell>> cells;                ///< by band, then supply
    std::size_t rated = 0;                                    ///< column of the rated supply
    std::optional<std::pair<std::size_t, std::size_t>> next;  ///< band and supply that tell most now

    const PowerCell& at(std::size_t band, std::size_t supply) const { return cells[band][supply]; }
};

/// How hard the rig was driven, 0 … 1, among what went with a reading.
inline constexpr std::string_view kDrive = "drive";

/// Readings in the cell whose supply lies nearest, within 6 %. At the rated supply a cell is judged by the
/// promise; at another one the promise is taken as its square (common practice), and what lies outside is a
/// doubt. Every band at the rated supply comes first, then the best band at the others.
/// @param drive  only readings at this drive; NaN: those without one
PowerTable powerTable(const Kit& kit, const Build& build, double drive = NAN);

/// The supplies that are asked: 9, 12, 13.8, 15 V and the rated one in place of what lies within 3 % of it;
/// none above the rated one unless it was read there.
std::vector<double> suppliesOf(const Kit& kit);

/// What a wattmeter reads of powers that were also read by another way, at the same band and supply.
struct MeterCorrection {
    double reads = 0;   ///< [W]
    double factor = 1;  ///< to be multiplied with
    double error = 0;   ///< of the factor, U = 2u
    std::string by;     ///< the other way
};
/// By what a wattmeter reads wrong, of powers that were read both ways.
std::vector<MeterCorrection> wattmeterCorrections(const Kit& kit, const Build& build);
/// The factor at a reading, between the two about it; 1 where there are none.
double correctionAt(const std::vector<MeterCorrection>& corrections, double reads);

}  // namespace ombrek
