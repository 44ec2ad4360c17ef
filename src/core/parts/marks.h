#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/quantity.h"

namespace ombrek {

enum class PartKind { resistor, capacitor, inductor, diode, transistor, ic, crystal, coil, trimmer, other };

/// The kind's word as used in kit files and on screen: "resistor", "ic", …
std::string_view word(PartKind kind);
std::optional<PartKind> partKind(std::string_view word);

/// One thing that a mark on a part may mean.
struct MarkReading {
    PartKind kind = PartKind::other;
    double value = 0.0;  ///< SI
    Unit unit = Unit::none;
    std::optional<double> tolerancePercent;
    std::string meaning;  ///< "three-digit code in pF: 10 and 4 zeros"
};

/// Every reading of what is printed or painted on a part, likeliest first; empty if nothing fits.
///
/// Understands three- and four-digit codes, letter-for-decimal marks (4K7, 2n2, R47), a trailing tolerance
/// letter, and colour bands by name ("yellow violet red gold"), from either end.
/// @param kind  only readings of this kind, when given
/// Source: IEC 60062; the three-digit capacitor code in pF is common practice.
std::vector<MarkReading> readMark(std::string_view text, std::optional<PartKind> kind = std::nullopt);

/// Readings of three to six colour bands in the order given and, if it is valid, from the other end.
/// A reading whose value is a preferred one (IEC 60063, E24 or E96) comes first.
std::vector<MarkReading> readBands(const std::vector<std::string>& colours);

/// The colour words of a resistor's bands for a value, for "look for yellow violet red gold"; empty if the
/// value has more than two figures or is out of range.
std::vector<std::string> bandsFor(double ohms, double tolerancePercent);

}  // namespace ombrek
