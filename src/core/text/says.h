#pragma once

#include <initializer_list>
#include <string_view>

namespace ombrek {

/// Whether one of these stands in a text as a word of its own, in any case: holdsWord("IF peak", {"if"}).
/// Each may be several words with a blank between.
bool holdsWord(std::string_view text, std::initializer_list<std::string_view> words);

/// Whether a word of a text begins with one of these, in any case: "transmit" in "when transmitting", "fuse"
/// in "2 fuses", but no "case" in "phase". With a star before it, it may stand inside a word, as in languages
/// that put words together: "*regler" in "Spannungsregler".
bool holdsStem(std::string_view text, std::initializer_list<std::string_view> stems);

}  // namespace ombrek
