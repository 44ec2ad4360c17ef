#pragma once

#include <cmath>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A crystal of a batch as it was measured.
struct MeasuredCrystal {
    std::string id;
    double frequency = 0;  ///< [Hz]
};

/// Crystals that go together into a ladder filter.
struct CrystalSet {
    std::vector<std::size_t> at;  ///< of the batch, by rising frequency
    double spread = 0;            ///< from the lowest to the highest [Hz]
};

/// As many sets of `size` as there are, the one of least spread over the whole batch first, each next of what
/// is left: in a row of rising frequencies the best set is always of neighbours. @param size  from 1
std::vector<CrystalSet> crystalSets(const std::vector<MeasuredCrystal>& batch, std::size_t size);

/// The same number of sets with the least sum of their spreads, the closest first.
std::vector<CrystalSet> crystalSetsTogether(const std::vector<MeasuredCrystal>& batch, std::size_t size);

/// The series branch of a crystal: what a filter's design asks for.
struct Motional {
    double capacitance = NAN, inductance = NAN;  ///< [F], [H]
    double series = NAN;                         ///< frequency without a load [Hz]
};

/// From the frequencies with two load capacitances, an infinite one for none at all, by
/// f = f_s·(1 + C_m/(2(C_0 + C_L))), C_0 of the holder. Source: IEC 60444-5 in its first order; the two loads
/// are common practice. @return a Problem when the loads are one, or the larger load reads higher
Result<Motional> motionalByTwoLoads(double frequency1, double load1, double frequency2, double load2,
                                    double holder);

/// Resistance of the series branch from what a crystal loses between two equal resistances [Ω, dB];
/// A = 20·log10((2R + R_s)/(2R)). @return NaN for a loss that is none
double lossResistance(double between, double lossDb);
/// Resistance from a null's depth with the crystal to ground between two equal resistances [Ω, dB];
/// A = 20·log10((R + 2R_s)/(2R_s)).
double nullResistance(double between, double depthDb);
/// Q of the series branch.
double crystalQ(const Motional& m, double resistance);

/// How far a load pulls it up from its series frequency [Hz]: f·C_m/(2(C_0 + C_L)).
double pulledBy(const Motional& m, double load, double holder);

/// A salvaged crystal: whether it starts, and how near its mark it is.
enum class CrystalState { go, far, dead };
/// @param ppm  how far off its mark it may be
CrystalState judgeCrystal(bool starts, double frequency, double marked, double ppm);

/// Where a carrier stands against a filter's passband, for a sideband rig: usually where the filter's side is
/// down by 20 dB (common practice). @return how far below the passband's edge the carrier is [Hz]; negative
/// within it
double carrierOutside(double carrier, double low, double high);

}  // namespace ombrek
