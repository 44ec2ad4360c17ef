#pragma once

#include <optional>
#include <string>
#include <vector>

#include "formats/table_csv.h"
#include "kit/kit.h"

namespace ombrek {

/// One electrical check as a manual prints it.
struct PastedCheck {
    std::size_t line = 0;
    std::string text;       ///< as it stood
    std::string at;         ///< where to touch, "IC3 pin 8"
    std::string to;         ///< the other probe; "ground" where the paper names none
    std::string condition;  ///< "power off", "receive", "key down", …; empty: not said
    std::string quantity;   ///< voltage, current, resistance, frequency, power, diode, seen
    Unit unit = Unit::volt;
    std::optional<double> low, high, nominal;  ///< SI
    std::string rule;                          ///< how limits were made of a bare number; empty: as printed
    std::string from;                          ///< how it is fed, "U1"; empty: not said
    std::string seen;                          ///< what must be seen or heard, for `seen`
    std::vector<std::string> doubts;

    bool measured() const { return quantity != "seen"; }
};

struct VoltageTable {
    std::vector<PastedCheck> checks;
    std::vector<RefusedLine> refused;
};

/// A table of voltages as a manual prints it, pasted: "IC3 pin 8 … 5.0 V", "U2-1 to U2-7 5.78", columns for
/// receive and key down, a heading above pins ("IC3" and then "1  0", "8  5.0"), transistors with E, B, C;
/// "<50 mA", "ca. 5 V", "4.8 to 5.2 V", "5 V ±5 %", "no beep", "open", "0.6 to 0.8 V below it". A bare number
/// gets limits by a rule, which is said: ±10 % of a voltage or a resistance and at least 0.1 V, twice that
/// for "about", ±25 % of a current (common practice: printed voltages are of one sample).
VoltageTable readVoltageTable(const std::string& bytes);

/// The checks as a kit holds them, with ids that `taken` does not have. What is seen or heard is a yes or no.
std::vector<Check> checksOf(const VoltageTable& table, const std::vector<Check>& taken);

}  // namespace ombrek
