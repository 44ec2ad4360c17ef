#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/quantity/quantity.h"

namespace ombrek {

/// How a list writes its numbers, decided once for a file: in "4,700 pF" the comma may be either.
struct Manner {
    enum class Comma { decimal, thousands, unknown };
    Comma comma = Comma::unknown;
    bool pointThousands = false;  ///< "4.700 pF" beside "4,7 kΩ"
};

/// The manner of a text, from its numbers together: "0,1" and "4,7k" speak for a decimal comma, "0.1" and
/// "4.7k" beside "1,000" for thousands.
Manner mannerOf(std::string_view text);

/// "1,000" as "1000" or "1.000", whichever the manner says; with a point as the decimal mark in any case.
/// @param open  set when the manner does not say and three digits follow a comma
std::string plainDigits(std::string_view number, const Manner& manner, bool* open = nullptr);

/// A number with what stands close to it: "100nF", "4k7", "330E", "1Meg", "0.1", "1/4W".
struct Amount {
    double value = 0;  ///< SI
    enum class Said { number, prefix, unit } said = Said::number;
    char toleranceLetter = 0;  ///< "4k7J"; 0: none
    std::string doubt;         ///< why it may be another; empty: sure
};

/// A word read as an amount of a unit; nothing when it cannot be one. Lists write in capitals ("0.1UF",
/// "740MA"), with old units (MFD, MMFD, Meg) and with a letter for the mark (IEC 60062), E for R among them.
std::optional<Amount> readAmount(std::string_view word, Unit unit, const Manner& manner = {});

/// Micro and ohm signs, no-break blanks and dashes as plain letters: "10 µΩ" → "10 uohm".
std::string foldSigns(std::string_view text);

}  // namespace ombrek
