#include "core/text/letters.h"

#include <algorithm>

namespace ombrek {

std::string uppered(std::string_view text) {
    std::string out(text);
    for (char& c : out) {
        if (c >= 'a' && c <= 'z') c = char(c - 'a' + 'A');
    }
    return out;
}

std::string lowered(std::string_view text) {
    std::string out(text);
    for (char& c : out) c = lowered(c);
    return out;
}

bool sameLetters(std::string_view a, std::string_view b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](char x, char y) { return lowered(x) == lowered(y); });
}

std::string_view trimmed(std::string_view text) {
    const auto blankFront = [&]() -> std::size_t {
        if (text.empty()) return 0;
        if (text.front() == ' ' || text.front() == '\t' || text.front() == '\n') return 1;
        if (text.starts_with("\u00a0")) return 2;
        return text.starts_with("\u202f") || text.starts_with("\u2009") ? 3 : 0;
    };
    const auto blankBack = [&]() -> std::size_t {
        if (text.empty()) return 0;
        if (text.back() == ' ' || text.back() == '\t' || text.back() == '\n') return 1;
        if (text.ends_with("\u00a0")) return 2;
        return text.ends_with("\u202f") || text.ends_with("\u2009") ? 3 : 0;
    };
    while (const std::size_t n = blankFront()) text.remove_prefix(n);
    while (const std::size_t n = blankBack()) text.remove_suffix(n);
    return text;
}

}  // namespace ombrek
