#pragma once

#include <vector>

#include "kit/instrument.h"

namespace ombrek {

/// Where an instrument may be, found by looking at this machine alone: serial ports and usbtmc devices. No
/// network is searched, and nothing is opened.
struct Found {
    Way way = Way::serial;
    std::string address;  ///< as Instrument::address; empty: it is to be typed
    std::string what;     ///< what the system says of it
};
/// What is plugged in that may be an instrument. Nothing is opened or asked.
std::vector<Found> lookAround();

}  // namespace ombrek
