#pragma once

#include <span>
#include <vector>

namespace ombrek {

/// Preferred-number series of IEC 60063; the number is the count of values in a decade.
enum class Series { e3 = 3, e6 = 6, e12 = 12, e24 = 24, e48 = 48, e96 = 96, e192 = 192 };

/// The values of one decade, as 100 … 999 (E3 to E24 are multiples of ten).
std::vector<int> decadeOf(Series series);

/// The preferred value nearest to `value` by ratio.
/// @param value  positive, any unit
/// @throws std::domain_error if value is not positive and finite
double nearestPreferred(double value, Series series);

/// Whether `value` is a member of the series, to one part in 10^4.
bool isPreferred(double value, Series series);

}  // namespace ombrek
