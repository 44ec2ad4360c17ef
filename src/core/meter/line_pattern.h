#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/meter/sample.h"

namespace ombrek {

/// How the number is found in the lines that a device prints: by an example in which a builder showed it.
///
/// Written as words: "#" is the number, "@" its unit, "*" a word that may be any, all else must stand there.
/// "Cx # @ Q *" reads "Cx= 101.3 pF Q=3". A unit that the line does not say is behind a "|": "* # | pF".
/// A "," in front takes a comma for the decimal mark.
struct LinePattern {
    std::vector<std::string> words;
    std::string unit{};  ///< of a line that says none
    bool comma = false;

    /// As it is written in a command set.
    std::string text() const;
};

/// @return nothing for a text that is no pattern
std::optional<LinePattern> readLinePattern(std::string_view text);

/// The pattern of a line in which the builder shows number and unit, by their places among its words.
/// Words with letters before the number stay what they are: "C" is no "L". Numbers, and whatever tells of the
/// display, may be any.
/// @param unit  place of the unit; nothing: the line says none, and `fixed` is it
std::optional<LinePattern> learnPattern(std::string_view line, std::size_t number,
                                        std::optional<std::size_t> unit, const std::string& fixed,
                                        bool comma = false);

/// What a line says by a pattern. A line that is not of its shape gives none, with why.
Sample readLine(const LinePattern& pattern, std::string_view line);

/// The place of the first number that has a unit behind it, among a line's words; the guess that is shown to
/// the builder.
std::optional<std::size_t> guessNumber(const std::vector<std::string>& words, bool comma = false);

}  // namespace ombrek
