#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// How a mode loads a final: the share of time, or of full power, that it is on (common practice).
struct Duty {
    const char* name;
    double share;
};
/// Morse 0.45, voice 0.2, digital 1.
const std::vector<Duty>& duties();

/// What a final turns into heat, and how warm it gets.
struct HeatQuestion {
    double volts = 0, amps = 0, watts = 0;  ///< supply and current with the key down, and what leaves
    double finals = 1;                      ///< that share it
    double junctionToCase = 0;              ///< of one [K/W]; 0: not said
    double sink = 0;                        ///< case to air, of one [K/W]; 0: not said
    double ambient = 25;                    ///< [°C]
    double most = 150;                      ///< of a junction [°C]
    double restAmps = 0;                    ///< of the rest of the rig, no heat of the finals [A]
};
struct HeatEstimate {
    double dissipated = 0;  ///< [W], key down
    double efficiency = 0;  ///< 0 … 1
    struct At {
        std::string mode;
        double caseDegrees = 0, junctionDegrees = 0;  ///< [°C]; NaN: a thermal resistance is not said
    };
    std::vector<At> modes;
};
/// @return a Problem where more leaves than goes in, or a figure is none
/// Source: T = Ta + P·Rθ, any text on semiconductors.
Result<HeatEstimate> heatOf(const HeatQuestion& question);

/// How long the key may be down until a limit, from two temperatures read while it is down: the body warms as
/// T = Ta + rise·(1 − e^(−t/τ)). @param seconds, degrees  of two readings after key down, rising
/// @return time to `limit` [s]; infinite: it is never reached
Result<double> keyDownTo(double ambient, double seconds1, double degrees1, double seconds2, double degrees2,
                         double limit);

/// What a piece of copper or aluminium added as a fin gives: thermal resistance of a plate in still air,
/// standing, both sides [K/W]. 1/(h·2A) with h = 10 W/(m²K) (common practice). @param area  of one side [m²]
double plateResistance(double area);
/// Two ways for the heat side by side [K/W].
double withFin(double sink, double fin);

}  // namespace ombrek
