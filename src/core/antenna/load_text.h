#pragma once

#include <complex>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

/// "35-120j", "35 - j120", "35−j120 Ω", "1k2+300i", "50": resistance and reactance [Ω]. A pair is as good:
/// "35 -120".
Result<std::complex<double>> parseLoad(std::string_view text);

/// "35 − j120 Ω".
std::string loadText(std::complex<double> load);

}  // namespace ombrek
