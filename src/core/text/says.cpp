#include "core/text/says.h"

#include <algorithm>

#include "core/text/letters.h"

namespace ombrek {
namespace {

/// Bytes beyond English are none: a bullet, a dash or a quote may stand before a word, and what is met once
/// too often is a caution more.
bool inWord(char c) { return isLetter(c) || isDigit(c); }

/// Whether `word` stands somewhere in `low`, at the beginning of a word, at its end.
bool stands(std::string_view low, std::string_view word, bool begins, bool ends) {
    for (std::size_t at = low.find(word); at != std::string_view::npos; at = low.find(word, at + 1)) {
        const std::size_t after = at + word.size();
        if (begins && at > 0 && inWord(low[at - 1]) && inWord(word.front())) continue;
        if (ends && after < low.size() && inWord(low[after]) && inWord(word.back())) continue;
        return true;
    }
    return false;
}

}  // namespace

bool holdsWord(std::string_view text, std::initializer_list<std::string_view> words) {
    const std::string low = lowered(text);
    return std::any_of(words.begin(), words.end(),
                       [&](std::string_view word) { return stands(low, word, true, true); });
}

bool holdsStem(std::string_view text, std::initializer_list<std::string_view> stems) {
    const std::string low = lowered(text);
    return std::any_of(stems.begin(), stems.end(), [&](std::string_view stem) {
        const bool inside = stem.starts_with('*');
        return stands(low, stem.substr(inside), !inside, false);
    });
}

}  // namespace ombrek
