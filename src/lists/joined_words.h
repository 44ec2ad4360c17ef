#pragma once

#include <string>
#include <string_view>

namespace ombrek {

/// What a list parts with a blank though it is one word: thousands ("1 000 µF"; in a cell of values also
/// "4 700 pF") and types as the registers print them ("BC 550 C", "TL 072", "1N 4148").
/// @param cell  the text is a cell of values: a number at its beginning counts nothing
std::string joinWords(std::string_view text, bool cell);

}  // namespace ombrek
