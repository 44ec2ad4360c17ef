#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ombrek {

/// Which letters make a designator: in running text only the usual ones, so that a core or a transistor type
/// is not taken for one; where a designator must stand (its own column, the beginning of a row) any.
enum class Letters { usual, any };

/// One designator, "C12" or "R5A"; nothing if the word is none.
struct Designator {
    std::string prefix;
    int number = 0;
    std::string suffix;
    std::string text() const { return prefix + std::to_string(number) + suffix; }
};
/// "R12", "TR1"; nothing when the word is none.
std::optional<Designator> readDesignator(std::string_view word, Letters letters = Letters::usual);
/// The letters before the number: "R" of "R14".
std::string lettersOf(std::string_view designator);

/// A run of designators in a line of text: "C1, C2, C5-C8", "R1 R2 and R7", "R3..R6", "R4,5,6", "R7/8".
struct DesignatorRun {
    std::vector<std::string> refs;
    std::size_t begin = 0, end = 0;  ///< bytes of the text it takes
    bool goesOn = false;             ///< ends with a comma or a dash: the next line has more
    std::string doubt;               ///< a range that runs backwards or is very long; empty if none
};
/// How a run may be read: "R1,10" is R1 and R10, or R1 of 10 ohms.
struct RunRules {
    Letters letters = Letters::usual;
    bool shortNumbers = true;  ///< a plain number after a comma or a stroke is one more designator
};
/// All runs of a text, in order.
std::vector<DesignatorRun> designatorRuns(std::string_view text, RunRules rules = {});

/// The whole of a text as one run; nothing if anything else stands there.
std::optional<DesignatorRun> onlyDesignators(std::string_view text, RunRules rules = {});

}  // namespace ombrek
