#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/quantity.h"
#include "lists/condition_words.h"

namespace ombrek {

// The words and numbers of a manual's table of voltages (voltage_table.h).

/// A number of a row with its unit, which is no pin's and no designator's.
struct Number {
    std::size_t begin = 0, end = 0;
    double value = 0;
    std::optional<Unit> unit;
    bool percent = false;
};

struct VoltageUnit {
    std::string_view text;
    Unit unit;
    double scale;
};
// Longest first; folded signs.
inline constexpr VoltageUnit kUnits[] = {{"milliamperes", Unit::ampere, 1e-3},
                                         {"milliampere", Unit::ampere, 1e-3},
                                         {"microvolts", Unit::volt, 1e-6},
                                         {"milliamps", Unit::ampere, 1e-3},
                                         {"millivolts", Unit::volt, 1e-3},
                                         {"milliwatts", Unit::watt, 1e-3},
                                         {"kilohertz", Unit::hertz, 1e3},
                                         {"megahertz", Unit::hertz, 1e6},
                                         {"kiloohms", Unit::ohm, 1e3},
                                         {"kilo-ohms", Unit::ohm, 1e3},
                                         {"kilo-ohm", Unit::ohm, 1e3},
                                         {"millivolt", Unit::volt, 1e-3},
                                         {"milliwatt", Unit::watt, 1e-3},
                                         {"milliamp", Unit::ampere, 1e-3},
                                         {"Milliampere", Unit::ampere, 1e-3},
                                         {"Kiloohm", Unit::ohm, 1e3},
                                         {"kiloohm", Unit::ohm, 1e3},
                                         {"kilohms", Unit::ohm, 1e3},
                                         {"kilohm", Unit::ohm, 1e3},
                                         {"megohms", Unit::ohm, 1e6},
                                         {"megaohms", Unit::ohm, 1e6},
                                         {"megaohm", Unit::ohm, 1e6},
                                         {"Megohm", Unit::ohm, 1e6},
                                         {"amperes", Unit::ampere, 1},
                                         {"ampere", Unit::ampere, 1},
                                         {"Ampere", Unit::ampere, 1},
                                         {"hertz", Unit::hertz, 1},
                                         {"voltios", Unit::volt, 1},
                                         {"ohmios", Unit::ohm, 1},
                                         {"kOhms", Unit::ohm, 1e3},
                                         {"KOhms", Unit::ohm, 1e3},
                                         {"MOhms", Unit::ohm, 1e6},
                                         {"Mohms", Unit::ohm, 1e6},
                                         {"kOhm", Unit::ohm, 1e3},
                                         {"KOhm", Unit::ohm, 1e3},
                                         {"Kohms", Unit::ohm, 1e3},
                                         {"Kohm", Unit::ohm, 1e3},
                                         {"MOhm", Unit::ohm, 1e6},
                                         {"Ohms", Unit::ohm, 1},
                                         {"Volts", Unit::volt, 1},
                                         {"watts", Unit::watt, 1},
                                         {"Watts", Unit::watt, 1},
                                         {"watt", Unit::watt, 1},
                                         {"Watt", Unit::watt, 1},
                                         {"amps", Unit::ampere, 1},
                                         {"amp", Unit::ampere, 1},
                                         {"volti", Unit::volt, 1},
                                         {"wat", Unit::watt, 1},
                                         {"megohm", Unit::ohm, 1e6},
                                         {"kohms", Unit::ohm, 1e3},
                                         {"kohm", Unit::ohm, 1e3},
                                         {"Mohm", Unit::ohm, 1e6},
                                         {"ohms", Unit::ohm, 1},
                                         {"ohm", Unit::ohm, 1},
                                         {"Ohm", Unit::ohm, 1},
                                         {"volts", Unit::volt, 1},
                                         {"Volt", Unit::volt, 1},
                                         {"volt", Unit::volt, 1},
                                         {"VDC", Unit::volt, 1},
                                         {"Vdc", Unit::volt, 1},
                                         {"VAC", Unit::volt, 1},
                                         {"mV", Unit::volt, 1e-3},
                                         {"uV", Unit::volt, 1e-6},
                                         {"kV", Unit::volt, 1e3},
                                         {"MHz", Unit::hertz, 1e6},
                                         {"kHz", Unit::hertz, 1e3},
                                         {"Hz", Unit::hertz, 1},
                                         {"mA", Unit::ampere, 1e-3},
                                         {"uA", Unit::ampere, 1e-6},
                                         {"mW", Unit::watt, 1e-3},
                                         {"W", Unit::watt, 1},
                                         {"V", Unit::volt, 1},
                                         {"A", Unit::ampere, 1},
                                         {"k", Unit::ohm, 1e3},
                                         {"M", Unit::ohm, 1e6},
                                         {"R", Unit::ohm, 1},
                                         {"v", Unit::volt, 1},
                                         {"ma", Unit::ampere, 1e-3}};

/// A word that a pin's number stands behind.
bool isPinWord(std::string_view low);

/// The numbers of a row that are no pin's, no designator's and no part of a name.
std::vector<Number> numbersOf(const std::string& text);

/// Without blanks and signs that are left over at its ends.
std::string tidy(std::string_view text);

/// "Test 3:", "4.", "b)" before what is to be measured, taken off.
std::string_view withoutNumbering(std::string_view body);

/// "… TP1 and ground. It should be over 1 k" as one sentence.
std::string oneSentence(std::string_view body);

}  // namespace ombrek
