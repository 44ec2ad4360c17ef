#pragma once

#include <string>
#include <utility>
#include <vector>

namespace ombrek {

/// What the words around a number make of it.
struct LimitSaid {
    enum class Sense { none, less, more, range, about, load } sense = Sense::none;
    /// Where the words stand that say so, without the numbers.
    std::vector<std::pair<std::size_t, std::size_t>> words;
    bool negated = false;  ///< a "not" stands in the text that no phrase covers
    bool unread = false;   ///< the file of phrases is not there: nothing can be said
};

/// Read the words about one number of a text, by data/words/limits.txt: "must not exceed 4 V" is less, "nicht
/// unter 4 V" more. The longest phrase is taken, so a negation goes before what it negates.
/// @param numbers  begin and end of every number with its unit, in order
/// @param which    the one that is asked for; a range is of the one before it and of it
LimitSaid limitSaid(const std::string& text, const std::vector<std::pair<std::size_t, std::size_t>>& numbers,
                    std::size_t which);

}  // namespace ombrek
