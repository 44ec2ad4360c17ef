#pragma once

#include <string>
#include <vector>

#include "core/quantity/preferred.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// A resistor of a design: what it should be, what is to be had, and how much of the power it turns to heat.
struct PadResistor {
    std::string where;  ///< "to ground at the rig", "through"
    double exact = 0;   ///< [Ω]
    double fitted = 0;  ///< nearest of the series [Ω]
    double watts = 0;   ///< at the power asked for [W]
};

/// A network of resistors as it will be with preferred values.
struct PadDesign {
    std::vector<PadResistor> resistors;
    double attenuation = 0;  ///< with what is fitted [dB]
    double returnLoss = 0;   ///< at its input, the output ended [dB]
};

enum class PadShape { pi, t };

/// A pad of so many decibels between equal resistances. @param watts  into it
/// Source: resistive attenuator design equations, any radio handbook.
Result<PadDesign> designPad(PadShape shape, double decibels, double ohms, double watts, Series series);

/// A tap on a line: a resistor from it to what measures, which ends in `ohms`: so many decibels below the
/// line, and what it takes from it. @return attenuation to the tap; return loss of the line with it
Result<PadDesign> designTap(double decibels, double ohms, double watts, Series series);

/// A resistive bridge for return loss: three arms of the line's resistance. Its output with the test port
/// open or shorted is a quarter of the source voltage: what it is with the load is the return loss.
Result<PadDesign> designBridge(double ohms, double watts, Series series);

/// What null a bridge shows: its output against that of an open port as return loss [dB] and standing wave
/// ratio. @param open, now  volts read @return infinite where nothing is left
struct BridgeNull {
    double returnLoss = 0, swr = 1;
    bool atLeast = false;  ///< an indicator that shows nothing any more
};
/// @param least  below which the indicator shows nothing (an LED 0.3 V, common practice) [V]
Result<BridgeNull> bridgeNull(double open, double now, double least = 0);

}  // namespace ombrek
