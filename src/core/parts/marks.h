#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part_kind.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// How a mark was read.
enum class MarkCode { plainPicofarad, threeDigit, fourDigit, eia96, letter, bands, written };

/// One thing that a mark on a part may mean. A plain record, so that a million marks a second can be read;
/// `meaning` puts it in words.
struct MarkReading {
    PartKind kind = PartKind::other;
    double value = 0.0;  ///< SI
    Unit unit = Unit::none;
    std::optional<double> tolerancePercent;  ///< upper side; both sides when toleranceLow is not given
    std::optional<double> toleranceLow;      ///< lower side when it differs: 20 of −20/+80 [%]
    std::optional<double> toleranceOwn;      ///< a small capacitor's tolerance as marked [F]
    std::optional<double> volts;             ///< rated voltage
    std::optional<double> drift;             ///< a resistor's sixth band [ppm/K]
    MarkCode code = MarkCode::written;
    int figures = 0, exponent = 0;  ///< what the code said
    int bands = 0;
    bool otherEnd = false;  ///< bands read from the end given last
};

/// "three-digit code in pF: 10 × 10^4, ±10 % (K)".
std::string meaning(const MarkReading& reading);
/// "±10 %", "−20/+80 %", "±0.25 pF"; empty when the mark does not say.
std::string toleranceText(const MarkReading& reading);

/// Every reading of what is printed or painted on a part, likeliest first; empty if nothing fits.
///
/// Understands three- and four-digit codes, the three-character code of E96 values, letter-for-decimal marks
/// (4K7, 2n2, R47; on a choke R and n count in µH and nH), tolerance letters, voltage letters before or after
/// (1H104K, 104K 50V), values written out (10 µF 25 V), and colour bands by name from either end, as a
/// resistor and as a choke in µH. Example: readMark("104K")[0] is 100 nF ±10 %.
/// @param kind  only readings of this kind, when given
/// Source: IEC 60062; the three-digit code in pF, the rated-voltage letters and chokes in µH are common
/// practice.
std::vector<MarkReading> readMark(std::string_view text, std::optional<PartKind> kind = std::nullopt);

/// The 18 tolerance letters of IEC 60062 with their lower and upper side in per cent.
struct ToleranceLetter {
    char letter;
    double low, high;  ///< [%]
};
/// Of IEC 60062; null for a letter that is none.
const ToleranceLetter* toleranceLetter(char letter);

}  // namespace ombrek
