#pragma once

#include <string>
#include <string_view>

namespace ombrek {

/// '0' to '9', whatever the locale.
constexpr bool isDigit(char c) { return c >= '0' && c <= '9'; }

/// A letter of English, whatever the locale.
constexpr bool isLetter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }

/// A letter of English, or a byte of any letter beyond it in UTF-8: "ü", "Ω".
constexpr bool isWordLetter(char c) { return isLetter(c) || static_cast<unsigned char>(c) >= 0x80; }

/// A to Z as small letters; all else stays.
constexpr char lowered(char c) { return c >= 'A' && c <= 'Z' ? char(c - 'A' + 'a') : c; }
std::string lowered(std::string_view text);
/// a to z as capitals; all else stays.
std::string uppered(std::string_view text);
/// Whether two texts differ in nothing but capitals, A to Z.
bool sameLetters(std::string_view a, std::string_view b);
/// Without blanks (also no-break ones) and line ends at both ends.
std::string_view trimmed(std::string_view text);

}  // namespace ombrek
