#pragma once

#include <string_view>

namespace ombrek {

/// The English colour of a band by its word in nine languages or by its usual short form ("brn", "or"), in small
/// letters; the word itself when it is none of them. For the bands of a part only: "or" is a word of prose too.
std::string_view bandColourOf(std::string_view word);

}  // namespace ombrek
