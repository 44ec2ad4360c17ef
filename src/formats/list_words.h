#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part_kind.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// The words of a line of a parts list while they are being taken one by one. Example:
///
///     Words words("0.1 uF 50V 5% 6x disc");
///     takeUnit(words, Unit::volt, 0.5, 1e5);            // 50
///     takeValue(words, PartKind::capacitor).nominal;    // 100e-9
///     takeQuantity(words, 6);                           // 6
///     words.rest();                                     // "5% disc"
struct Words {
    std::vector<std::string> words;
    std::vector<char> taken;
    explicit Words(std::string_view text);
    void take(std::size_t i) { taken[i] = 1; }
    /// What nobody has taken.
    std::string rest() const;
};

/// Words between blanks, also unbreakable and narrow ones.
std::vector<std::string> splitWords(std::string_view text);
/// A word without the commas, brackets and stops around it.
std::string bare(std::string word);

/// "50V", "50 V", "63VDC"; "1/4W", "0.25 W"; "5%", "±5 %": the number, and its words taken.
std::optional<double> takeUnit(Words& w, Unit unit, double least, double most);
/// "(marked 104)", "mark: 104", "code 104", or a run of colour words; its words taken. Empty: none.
std::string takeMark(Words& w);

/// A value found among words.
struct ValueWords {
    double nominal = 0;     ///< SI; 0: none was found
    std::string text;       ///< as it stands in the line
    bool bare = false;      ///< no unit and no prefix stood with it
    std::size_t count = 0;  ///< values found
};
/// The value among the words, one with a unit or a prefix before a bare number.
ValueWords takeValue(Words& w, PartKind kind);
/// A bare number as the value: ohms for a resistor, a mark for the others.
ValueWords takeBareValue(Words& w, PartKind kind);

/// "6", "6x", "6 pcs": 0 when it is no quantity.
int readQuantity(std::string_view text);
/// "6x", "x6", "6 pcs" anywhere; else a bare number that can be one: the one that agrees with the number of
/// designators first, then the last, then the first. 0: none.
int takeQuantity(Words& w, std::size_t refs);

}  // namespace ombrek
