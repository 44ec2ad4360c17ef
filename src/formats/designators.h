#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/parts/part_kind.h"

namespace ombrek {

/// One designator, "C12" or "R5A"; nothing if the word is none. Only the usual prefixes count, so that a core
/// or a transistor type is not taken for one.
struct Designator {
    std::string prefix;
    int number = 0;
    std::string suffix;
    std::string text() const { return prefix + std::to_string(number) + suffix; }
};
std::optional<Designator> readDesignator(std::string_view word);

/// What a designator's letters usually stand for; L and T are coils.
PartKind kindOf(const Designator& designator);

/// A run of designators in a line of text: "C1, C2, C5-C8", "R1 R2 and R7", "R3..R6".
struct DesignatorRun {
    std::vector<std::string> refs;
    std::size_t begin = 0, end = 0;  ///< bytes of the text it takes
    bool goesOn = false;             ///< ends with a comma or a dash: the next line has more
    std::string doubt;               ///< a range that runs backwards or is very long; empty if none
};
/// All runs of a text, in order.
std::vector<DesignatorRun> designatorRuns(std::string_view text);

/// The whole of a text as one run; nothing if anything else stands there.
std::optional<DesignatorRun> onlyDesignators(std::string_view text);

}  // namespace ombrek
