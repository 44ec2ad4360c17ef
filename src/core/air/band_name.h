#pragma once

#include <string>
#include <string_view>

namespace ombrek {

/// The name of the amateur band about a frequency [Hz], "40m"; empty outside all of them. Wide enough for
/// every country: what may be used there is another matter. Source: ADIF 3.1, band enumeration (from memory).
std::string bandAt(double frequency);

/// About the middle of a band [Hz], by its name in any case; 0 for one that is not known.
double middleOfBand(std::string_view name);

}  // namespace ombrek
