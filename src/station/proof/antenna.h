#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/antenna/coupler.h"
#include "core/quantity/problem.h"
#include "kit/kit.h"

namespace ombrek {

/// A coupler as a builder writes it: "T, coil 0.1u..25u, rig 10p..240p, antenna 10p..240p, 100 V, Q 150". L
/// and pi likewise; an L has no part at the antenna.
Result<Coupler> parseCoupler(std::string_view text);

/// A load with its name: "35-120j", "wire 20.3" (metres, against ground), "dipole 72", each with where it is
/// meant to work before it, if only there: "40m: 35-120j", "7.03M: wire 20.3".
struct AntennaLoad {
    std::string name;
    std::string band;           ///< empty: on every band
    double frequency = 0;       ///< [Hz]; 0: that of the band
    std::complex<double> ohms;  ///< of a wire: reckoned anew for each frequency
    double wire = 0;            ///< its length [m]; 0: it is none
};
/// "25 - j40", "50", "SWR 3". A sentence when it is none.
Result<AntennaLoad> parseAntennaLoad(std::string_view text);
/// Loads one after the other, with commas or semicolons between.
Result<std::vector<AntennaLoad>> parseAntennaLoads(std::string_view text);

/// What a coupler does with a load on a band.
struct AntennaRow {
    std::string load, band;
    double frequency = 0;
    std::complex<double> ohms;
    double swr = 1;  ///< without the coupler
    CouplerMatch match;
};
/// Every load on every band that it is meant for. @param watts  0: as the kit promises
std::vector<AntennaRow> antennaRows(const Kit& kit, const Coupler& coupler,
                                    const std::vector<AntennaLoad>& loads, double watts);

/// Share of the power that a standing wave ratio sends back, and what that costs [dB].
double reflectedShare(double swr);

}  // namespace ombrek
