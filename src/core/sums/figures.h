#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/quantity.h"

namespace ombrek::sums {

/// What a number in a sum is of: the units of Quantity, and those that only sums know. Values are SI; turns,
/// wire gauge and ratios are plain numbers, charge is in ampere hours.
enum class Kind {
    number,
    ohm,
    farad,
    henry,
    volt,
    voltRms,
    voltPeak,
    voltPeakToPeak,
    ampere,
    watt,
    hertz,
    metre,
    second,
    celsius,
    fahrenheit,
    percent,
    decibel,
    dbm,
    dbuv,
    ppm,
    degree,
    ampereHour,
    gauge,
    turns,
    ratio,
    sUnit
};

/// The unit that a value of this kind is kept in; Unit::none for those that have none of ours.
Unit unitOf(Kind kind);
/// The value written out, to four figures: "1.588 µH", "31.6 V peak-to-peak", "AWG 24", "14 h 40 min".
std::string kindText(Kind kind, double value, int digits = 4);

/// One thing that a written number may be.
struct Meaning {
    Kind kind;
    double value;
};
/// A number as it was written and what it may be, the likeliest first: "10k" is ohms, then hertz.
struct Figure {
    std::string text;
    std::vector<Meaning> meanings;
};

/// A unit to answer in: "in Vpp", "to mm".
struct Wanted {
    Kind kind;
    double scale;      ///< SI of one of it
    std::string text;  ///< as written
};

/// A sum in pieces: numbers, signs of arithmetic and words in small letters, in the order in which they
/// stand.
struct Piece {
    enum class What { figure, sign, word } what;
    Figure figure;
    std::string text;
};
struct Sentence {
    std::vector<Piece> pieces;
    std::vector<Wanted> wanted;  ///< what "in" or "to" at its end names; empty: nothing
};

/// "5 W into 50 ohm in Vpp": two figures, the word "into", Vpp wanted.
Sentence readSentence(std::string_view text);

}  // namespace ombrek::sums
