#include "lists/phrase_file.h"

#include <sstream>

#include "core/text/letters.h"
#include "formats/files.h"
#include "lists/kind_evidence.h"

namespace ombrek {
namespace {

constexpr std::uintmax_t kLargest = 1000000;

bool inWord(char c) {
    return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '#' ||
           static_cast<unsigned char>(c) >= 0x80;
}

/// A sign of more than one byte or letter that stands alone; its length, or 0.
std::size_t signAt(const std::string& text, std::size_t at) {
    const char first = text[at];
    if (isLetter(first) || isDigit(first) || first == ' ') return 0;
    static constexpr std::string_view signs[] = {
        "\u2264", "\u2265", "\u2248", "<=", ">=", "...", "..", "\u2026"};
    for (const std::string_view sign : signs) {
        if (sign[0] == first && text.compare(at, sign.size(), sign) == 0) return sign.size();
    }
    return std::string_view("<>~,;-+'").find(text[at]) != std::string_view::npos ? 1 : 0;
}

}  // namespace

std::vector<PhraseRow> readPhrases(const std::string& name) {
    std::vector<PhraseRow> out;
    std::istringstream in(readFile(dataFolder() / "words" / name, kLargest).value_or(""));
    for (std::string line; std::getline(in, line);) {
        const auto first = line.find('\t'), second = line.find('\t', first + 1);
        if (line.starts_with("# ") || second == std::string::npos) continue;
        out.push_back(
            {line.substr(0, first), line.substr(first + 1, second - first - 1), line.substr(second + 1)});
    }
    return out;
}

std::vector<Word> wordsIn(const std::string& text) {
    std::string low = lowerText(text);
    // The typographer's apostrophe is three bytes; kept in place so that places stay.
    for (std::size_t at = low.find("\u2019"); at != std::string::npos; at = low.find("\u2019", at))
        low.replace(at, 3, "'  ");
    std::vector<Word> out;
    for (std::size_t i = 0; i < low.size();) {
        if (const std::size_t sign = signAt(low, i); sign > 0) {
            out.push_back({low.substr(i, sign), i, i + sign});
            i += sign;
        } else if (inWord(low[i])) {
            std::size_t end = i;
            while (end < low.size() && signAt(low, end) == 0 && inWord(low[end])) {
                ++end;
                if (end + 1 < low.size() && low[end] == '-' && inWord(low[end + 1]) && low[end - 1] != '#' &&
                    low[end + 1] != '#')
                    ++end;
            }
            out.push_back({low.substr(i, end - i), i, end});
            i = end;
        } else {
            ++i;
        }
        const std::size_t n = out.size();
        if (n >= 3 && out[n - 1].text == "t" && out[n - 2].text == "'" && out[n - 3].text.ends_with('n')) {
            const Word negation{"not", out[n - 2].begin - 1, out[n - 1].end};
            out.resize(n - 2);
            out.back() = {out.back().text.substr(0, out.back().text.size() - 1), out.back().begin,
                          negation.begin};
            out.push_back(negation);
        } else if (n >= 1 && out[n - 1].text == "cannot") {
            out[n - 1] = {"not", out[n - 1].begin, out[n - 1].end};
        }
    }
    return out;
}

}  // namespace ombrek
