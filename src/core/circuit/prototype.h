#pragma once

#include <vector>

namespace ombrek {

/// Normalised element values g1 … gn of a Chebyshev low-pass between equal resistances, 1 rad/s at the end of
/// the ripple.
/// @param order   odd, 1 to 15 @param ripple  in the pass-band [dB], positive
/// @throws std::domain_error outside
/// Source: Matthaei, Young & Jones 1964, the closed formula.
std::vector<double> chebyshev(int order, double ripple);

}  // namespace ombrek
