#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// One of the figures that a power is reckoned from, and how well it is known.
struct BudgetInput {
    enum class Shape {
        normal,  ///< `spread` is a standard deviation
        limits,  ///< anywhere within ± `spread` with equal odds
        arcsine  ///< ± `spread` with the edges likeliest: a mismatch of unknown phase
    };
    std::string what;  ///< "voltage, peak to peak"
    double value = 0;
    double spread = 0;
    Shape shape = Shape::limits;
    std::string unit;
};

/// A line of the budget.
struct BudgetLine {
    BudgetInput input;
    double deviation = 0;  ///< standard uncertainty of the input [its unit]
    double watts = 0;      ///< what it does to the power [W], a standard uncertainty
};

/// A power with where its uncertainty comes from.
struct PowerBudget {
    double watts = 0;
    double deviation = 0;           ///< standard uncertainty u [W]; 2u holds 19 of 20
    std::vector<BudgetLine> lines;  ///< the largest first
    bool atLeast = false;           ///< the true power is this or more
};

/// The power of a formula of its inputs: a sensitivity by a small step of each, all summed as squares.
/// Source: JCGM 100:2008 (GUM), clause 5.1.2.
using PowerFormula = std::function<double(const std::vector<double>&)>;
PowerBudget budgetOf(const PowerFormula& formula, const std::vector<BudgetInput>& inputs);

/// Standard uncertainty of an input by its shape: spread, spread/√3, spread/√2 (JCGM 100:2008, 4.3).
double deviationOf(const BudgetInput& input);

/// A way of measuring power with its figures, all [SI] or as named. Each error is a limit ±.
struct PowerWay {
    std::string method;                              ///< an id of powerWays()
    double volts = 0, voltsError = NAN;              ///< peak to peak, or of a probe's output [V, % of it]
    double load = 50, loadError = 2;                 ///< [Ω, %]
    double probeError = 3;                           ///< of a scope's probe [%]
    double bandwidth = 0, frequency = 0;             ///< of the scope, and of the signal [Hz]; 0: not said
    double drop = 0.35, dropError = 0.1;             ///< of a diode [V]
    double watts = 0, wattsError = NAN;              ///< of a wattmeter [W, % of full scale]
    double fullScale = 0;                            ///< [W]; 0: the reading
    double correction = 1, correctionError = 0;      ///< by a calibration [factor, %]
    double dbm = NAN, dbmError = 1;                  ///< of an analyser or power meter [dBm, dB]
    double attenuation = 0, attenuationError = 0.5;  ///< before it [dB]
    double sourceLoss = 0, loadLoss = 0;             ///< return losses that meet there [dB]; 0: not said
    double amps = 0, ampsError = 5;                  ///< RF current into the load [A, %]
    double kilograms = 0, kelvins = 0, seconds = 0;  ///< water that the load warmed
    double heatError = 5;                            ///< of the warmth kept [%]
    double kelvinsError = 0.2;                       ///< of the rise [K]
};

/// The ways, by id: "peak-to-peak", "diode-probe", "wattmeter", "analyser", "current", "heat".
const std::vector<std::string>& powerWays();

/// Power by a way, with its budget. Peak to peak is corrected for a scope's own bandwidth as one pole, a
/// third of the correction being its doubt. Heat: P = m·c·ΔT/t, c of water 4186 J/(kg K).
/// @return a Problem when a figure is missing or cannot be
Result<PowerBudget> powerBy(const PowerWay& way);

/// Two ways of the same power as one.
struct Combined {
    double watts = 0, deviation = 0;
    double apart = 0;   ///< times the standard uncertainty of their difference
    bool agree = true;  ///< within two
};
/// Their mean by weight, and whether they differ by more than they may.
Combined combined(const PowerBudget& a, const PowerBudget& b);

}  // namespace ombrek
