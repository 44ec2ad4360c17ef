#pragma once

#include <string>
#include <string_view>

#include "core/quantity/problem.h"

namespace ombrek {

/// The units a builder reads, writes or measures in. Values are always SI: farad, not picofarad.
enum class Unit {
    none,
    ohm,
    farad,
    henry,
    volt,
    ampere,
    watt,
    hertz,
    metre,
    second,
    celsius,
    percent,
    decibel,
    dbm,
    ppm,
    degree
};

/// The symbol as printed: "Ω", "F", "Hz", … ; empty for Unit::none.
std::string_view symbol(Unit unit);
/// The unit's name in the plural, for sentences: "ohms", "farads", …
std::string_view plural(Unit unit);

struct Quantity {
    double value = 0.0;  ///< SI
    Unit unit = Unit::none;
};

/// Read a quantity as people write it: "4k7", "2n2", "0.1u", "0,99 k", "21.06 MHz", "R47", "1e3", "5 W".
///
/// Comma and point are both decimal marks; a prefix letter may stand for the mark (IEC 60062). "M" is mega,
/// "m" is milli.
/// @param expected  unit taken when the text names none; a different unit in the text is a Problem
/// @return the SI value, always finite, or a sentence that says what could not be read
Result<Quantity> parseQuantity(std::string_view text, Unit expected = Unit::none);

enum class Zeros { drop, keep };

/// Write a quantity with an engineering prefix and a thin space: 4700 Ω → "4.7 kΩ".
///
/// Units that take no prefix (dB, %, °C, …) are written plainly.
/// @param digits  significant figures, 1 to 12
/// @param zeros   drop trailing zeros (a nominal value) or keep them (a reading: they are information)
std::string formatQuantity(double value, Unit unit, int digits = 3, Zeros zeros = Zeros::drop);

/// The number and the prefixed unit apart, for a readout that sets them in two sizes.
struct SplitText {
    std::string number;
    std::string unit;
};
/// A number and its unit with prefix apart: "4.70", "kΩ".
SplitText splitQuantity(double value, Unit unit, int digits = 3, Zeros zeros = Zeros::keep);

/// The plain number for files and machines, always with a point: shortest text that reads back to the same
/// double.
std::string plainNumber(double value);

/// The same for a person: with the person's decimal mark.
std::string personNumber(double value);

/// A number with so many decimals, for a person: 12.50 → "12.5" is written "12.50" with two.
/// @param plus  write the sign of a positive number too
std::string decimals(double value, int places, bool plus = false);

/// The mark between whole and fraction in everything that a person reads: every function above but
/// plainNumber. A point until a program says otherwise, once, at its start, before anything is written; what
/// machines read never asks. Both marks are read everywhere.
void writeDecimalsWith(char mark);
char decimalMark();

}  // namespace ombrek
