#pragma once

#include <string>
#include <vector>

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

// Words that several stations say of parts in the same way.

/// What cannot be told, and why.
Verdict toldNot(std::string sentence);

/// "R14, R15, R20 and 4 more"; all of them when no most is said.
std::string listed(const std::vector<std::string>& refs, std::size_t most = std::size_t(-1));

/// What a mark read from a part says beside what the list wants: "104K is 100 nF ±10 %, as the list wants."
std::string markSentence(const Part& part, const std::string& printed);

/// "from drawer B3", "on the shopping list"; empty for a line without a decision.
std::string remedyText(const Build& build, const std::string& ref);

/// "three" of "one of three 4.7 kΩ"; larger counts in figures.
std::string countWord(std::size_t count);

/// "4.7 kΩ ±5 %"; only the words of a part that is not measured.
std::string valueText(const Part& part);

}  // namespace ombrek
