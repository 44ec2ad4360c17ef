#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/quantity.h"

namespace ombrek {

// The words and numbers of a manual's table of voltages (voltage_table.h).

struct Phrase {
    std::string_view text;  ///< lower case
    std::string_view means;
};
// Longest first.
inline constexpr Phrase kConditions[] = {{"power off", "power off"},
                                         {"without power", "power off"},
                                         {"no power", "power off"},
                                         {"unpowered", "power off"},
                                         {"ohne strom", "power off"},
                                         {"spannungslos", "power off"},
                                         {"stromlos", "power off"},
                                         {"ausgeschaltet", "power off"},
                                         {"switched off", "power off"},
                                         {"supply off", "power off"},
                                         {"apagado", "power off"},
                                         {"hors tension", "power off"},
                                         {"sin alimentaci\u00f3n", "power off"},
                                         {"ics out", "ICs out"},
                                         {"ics removed", "ICs out"},
                                         {"with no ics fitted", "ICs out"},
                                         {"no ics fitted", "ICs out"},
                                         {"ics not fitted", "ICs out"},
                                         {"no ics", "ICs out"},
                                         {"ohne ics", "ICs out"},
                                         {"without ics", "ICs out"},
                                         {"key down", "key down"},
                                         {"key-down", "key down"},
                                         {"keydown", "key down"},
                                         {"keyed", "key down"},
                                         {"key closed", "key down"},
                                         {"transmitting", "key down"},
                                         {"transmit", "key down"},
                                         {"taste gedr\u00fcckt", "key down"},
                                         {"senden", "key down"},
                                         {"\u00e9mission", "key down"},
                                         {"transmisi\u00f3n", "key down"},
                                         {"trasmissione", "key down"},
                                         {"key up", "key up"},
                                         {"key-up", "key up"},
                                         {"key open", "key up"},
                                         {"receiving", "receive"},
                                         {"receive", "receive"},
                                         {"empfang", "receive"},
                                         {"r\u00e9ception", "receive"},
                                         {"recepci\u00f3n", "receive"},
                                         {"ricezione", "receive"},
                                         {"standby", "standby"},
                                         {"idle", "standby"},
                                         {"tx", "key down"},
                                         {"rx", "receive"}};
inline constexpr std::string_view kAbout[] = {
    "approximately", "approx.", "approx", "around", "about", "circa",   "etwa", "environ", "env.",
    "aprox.",        "ca.",     "ca",     "\u2248", "~",     "roughly", "typ.", "typ"};
inline constexpr std::string_view kLess[] = {
    "less than",   "below",       "under", "up to",    "no more than", "at most", "max.", "max",
    "kleiner als", "weniger als", "unter", "moins de", "menos de",     "\u2264",  "<=",   "<"};
inline constexpr std::string_view kMore[] = {
    "more than", "greater than", "above",   "over",        "at least", "min.", "min", "gr\u00f6\u00dfer als",
    "mehr als",  "\u00fcber",    "plus de", "m\u00e1s de", "\u2265",   ">=",   ">"};
inline constexpr std::string_view kLessBehind[] = {
    "max",      "maximum", "maximal",      "or less",        "or below",
    "or lower", "at most", "oder weniger", "h\u00f6chstens", "ou moins"};
inline constexpr std::string_view kMoreBehind[] = {"min",        "minimum",   "minimal",  "or more",
                                                   "or above",   "or higher", "at least", "oder mehr",
                                                   "mindestens", "ou plus"};
inline constexpr std::string_view kTo[] = {"...", "..", "to", "bis", "-", "\u00e0", "and", "a"};

/// A number of a row with its unit, which is no pin's and no designator's.
struct Number {
    std::size_t begin = 0, end = 0;
    double value = 0;
    std::optional<Unit> unit;
    bool percent = false;
};

struct UnitWord {
    std::string_view text;
    Unit unit;
    double scale;
};
// Longest first; folded signs.
inline constexpr UnitWord kUnits[] = {
    {"megohm", Unit::ohm, 1e6}, {"kohms", Unit::ohm, 1e3},  {"kohm", Unit::ohm, 1e3},
    {"Mohm", Unit::ohm, 1e6},   {"ohms", Unit::ohm, 1},     {"ohm", Unit::ohm, 1},
    {"Ohm", Unit::ohm, 1},      {"volts", Unit::volt, 1},   {"Volt", Unit::volt, 1},
    {"volt", Unit::volt, 1},    {"VDC", Unit::volt, 1},     {"Vdc", Unit::volt, 1},
    {"VAC", Unit::volt, 1},     {"mV", Unit::volt, 1e-3},   {"uV", Unit::volt, 1e-6},
    {"kV", Unit::volt, 1e3},    {"MHz", Unit::hertz, 1e6},  {"kHz", Unit::hertz, 1e3},
    {"Hz", Unit::hertz, 1},     {"mA", Unit::ampere, 1e-3}, {"uA", Unit::ampere, 1e-6},
    {"mW", Unit::watt, 1e-3},   {"W", Unit::watt, 1},       {"V", Unit::volt, 1},
    {"A", Unit::ampere, 1},     {"k", Unit::ohm, 1e3},      {"M", Unit::ohm, 1e6},
    {"R", Unit::ohm, 1},        {"v", Unit::volt, 1},       {"ma", Unit::ampere, 1e-3}};

/// A word that a pin's number stands behind.
bool isPinWord(std::string_view low);

/// The numbers of a row that are no pin's, no designator's and no part of a name.
std::vector<Number> numbersOf(const std::string& text);

/// Without blanks and signs that are left over at its ends.
std::string tidy(std::string_view text);

/// What the rig is to be doing, as a text says it: "key down". Empty when it does not.
std::string conditionIn(std::string_view text);

/// "Test 3:", "4.", "b)" before what is to be measured, taken off.
std::string_view withoutNumbering(std::string_view body);

/// "… TP1 and ground. It should be over 1 k" as one sentence.
std::string oneSentence(std::string_view body);

}  // namespace ombrek
