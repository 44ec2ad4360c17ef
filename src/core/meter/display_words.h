#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/meter/sample.h"

namespace ombrek {

/// A unit with its prefix, as meters print them: "kΩ", "kohm", "uF", "MHz", "VDC".
struct UnitWord {
    Unit unit = Unit::none;
    double factor = 1;  ///< SI of one
    bool ac = false, dc = false;
};

/// Read a unit. In capitals alone "MV", "MA", "MF" and "MH" may be milli or mega and are none: a guess is a
/// factor of a thousand million. "MOHM" and "MHZ" are mega, "KHZ" kilo (common practice).
std::optional<UnitWord> readUnitWord(std::string_view word);

/// "OL", "0L", "O.L", "-OL", "OVER", "OVLD", "+OVER", "9.9E37" and their like.
bool isOverloadWord(std::string_view word);
/// Dashes, and nothing but them: "----", "--.--".
bool isBlankWord(std::string_view word);

/// What a word beside the number says of it: "AC", "DC", "HOLD", "LOBAT", "DIODE", …, put into `sample`.
/// @return whether it was such a word
bool takeFlagWord(std::string_view word, Sample& sample);

/// A number as displays print it: sign, digits, one decimal point, an exponent; no blanks, no groups.
struct ShownNumber {
    double value = 0;  ///< no negative zero
    double count = 0;  ///< worth of its last digit
};
/// A number as a display shows it, with its last digit's worth; nothing when it is none. @param comma  a
/// comma is the decimal mark
std::optional<ShownNumber> readShownNumber(std::string_view word, bool comma = false);

/// A line's words: cut at blanks, commas (where they are no decimal marks), semicolons, "=" and ":"; a number
/// and the letters after it are two. "Cx=101.3pF,Q=3" → Cx 101.3 pF Q 3. A sign that stands apart goes with
/// its number.
std::vector<std::string> displayWords(std::string_view line, bool comma = false);

}  // namespace ombrek
