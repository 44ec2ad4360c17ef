#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/quantity.h"
#include "core/quantity/working.h"

namespace ombrek {

/// One thing a typed sum may mean.
struct SumAnswer {
    std::string meaning;  ///< "capacitor marked 104"
    double value = 0.0;   ///< SI
    Unit unit = Unit::none;
    std::string text;  ///< "100 nF"
    Working working;
};

/// Answer what a builder types: values, marks and short sums, likeliest meaning first.
///
/// Understood: a mark or bands ("104", "4k7", "brown black red gold"), a value ("0,99 k", "34.8 dBm"), a
/// conversion
/// ("5 W in dBm", "36 dBm in W"), a voltage across 50 Ω ("31 Vpp"), a coil ("T50-2 18t", "T37-6 for 1.2u"), a
/// comparison of two frequencies or values ("10.0021M vs 10M"), pads, lines and heat (proof_sums.h).
/// @param cores  the core table
/// @return at least one answer, or a Problem that gives examples
Result<std::vector<SumAnswer>> answerSum(std::string_view text, const std::vector<MagneticCore>& cores);

}  // namespace ombrek
