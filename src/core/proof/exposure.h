#pragma once

#include <string>

#include "core/quantity/problem.h"

namespace ombrek {

/// How near people may come to an antenna, by its power, gain and duty.
struct Exposure {
    double metres = 0;     ///< where the average density falls to the limit
    double limit = 0;      ///< [W/m²]
    std::string sentence;  ///< with the words that it is an estimate
};

/// S = P·G·duty/(4πR²), four times that where the ground mirrors it; limit for people who do not know of it:
/// 1000 W/m² up to 1.34 MHz, 180/f² mW/cm² (f in MHz) to 30 MHz, 0.2 mW/cm² to 300 MHz.
/// @param watts  PEP at the antenna @param gain  over isotropic [dB] @param duty  0 … 1, mode and listening
/// Source: 47 CFR 1.1310 (from memory), OET Bulletin 65 (formula and ground reflection; from memory)
Result<Exposure> exposureOf(double watts, double gain, double duty, double frequency);

}  // namespace ombrek
