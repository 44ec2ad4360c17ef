#pragma once

namespace ombrek {

/// '0' to '9', whatever the locale.
constexpr bool isDigit(char c) { return c >= '0' && c <= '9'; }

/// A letter of English, whatever the locale.
constexpr bool isLetter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }

/// A letter of English, or a byte of any letter beyond it in UTF-8: "ü", "Ω".
constexpr bool isWordLetter(char c) { return isLetter(c) || static_cast<unsigned char>(c) >= 0x80; }

}  // namespace ombrek
