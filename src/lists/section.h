#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/parts/part_kind.h"

namespace ombrek {

/// A heading that holds for the rows below: "Resistors, 1/4 W, 5 %", "Kondensatoren (pF)", "Not fitted".
struct Section {
    PartKind kind = PartKind::other;
    double tolerance = 0, watts = 0, volts = 0;  ///< 0: not said
    bool fitted = true;
    bool hardware = false;  ///< what follows has no designators
    std::string prefix;     ///< of bare numbers, "pF"; empty: not said
};

/// A heading in a text without designators; nothing if it is none.
std::optional<Section> readSection(std::string_view text);

/// Whether a row that names nothing that is known heads others all the same: a few words in capitals or
/// before a colon, and no number. What held for the rows above holds no more.
bool isHeading(std::string_view text);

/// Whether a first row that names no part is the title of what follows: some words, no amount and no count.
bool isTitle(std::string_view text);

/// A row without a designator: "4 M3 x 6 screws", "60 cm coax", "Knob, 6 mm shaft: 2".
struct Hardware {
    std::size_t line = 0;
    std::string text;  ///< as it stood
    std::string what;
    double count = 1;
    std::string unit;  ///< "pcs", or a unit of length or mass as the list has it: "cm", "m", "g"
    bool countSaid = true;
};

/// @param expected  a heading said that hardware follows, or a table has it in its columns: a count may be
/// missing
std::optional<Hardware> readHardware(std::string_view text, bool expected);

}  // namespace ombrek
