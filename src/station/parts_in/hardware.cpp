#include "station/parts_in/hardware.h"

#include <algorithm>
#include <cctype>
#include <cmath>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr double kMillimetre = 1e-3, kInch = 25.4e-3;
constexpr double kNear = 0.2e-3;  ///< [m]
constexpr double kShare = 0.04;

std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> out;
    std::string word;
    for (std::size_t i = 0; i <= text.size(); ++i) {
        const char c = i < text.size() ? text[i] : ' ';
        if (c == ' ' || c == '(' || c == ')' || c == ';' || c == ':') {
            while (!word.empty() && (word.back() == ',' || word.back() == '.')) word.pop_back();
            if (!word.empty()) out.push_back(word);
            word.clear();
        } else {
            word += lowered(c);
        }
    }
    return out;
}

/// A plain number or a fraction; 0 for none.
double numberOf(const std::string& word) {
    const auto slash = word.find('/');
    if (slash != std::string::npos) {
        const double over = numberOf(word.substr(slash + 1));
        return over > 0 ? numberOf(word.substr(0, slash)) / over : 0;
    }
    if (word.empty() || word.find_first_not_of("0123456789.,") != std::string::npos) return 0;
    const auto value = parseQuantity(word);
    return value && value->value > 0 ? value->value : 0;
}

/// "mm", "in" as a length; 0 for none.
double lengthUnit(const std::string& word) {
    if (word == "mm") return kMillimetre;
    if (word == "in" || word == "inch" || word == "\"") return kInch;
    return 0;
}

/// "6mm" apart; a word without a unit comes back alone.
std::pair<std::string, std::string> split(const std::string& word) {
    const auto end = word.find_first_not_of("0123456789.,/");
    if (end == 0 || end == std::string::npos) return {word, ""};
    return {word.substr(0, end), word.substr(end)};
}

std::string singular(std::string word) {
    if (word.size() > 3 && word.back() == 's') word.pop_back();
    return word;
}

}  // namespace

std::vector<double> sizesIn(std::string_view text) {
    std::vector<double> out;
    std::vector<std::string> words;
    // "M3x6" is "M3 x 6".
    for (const std::string& word : wordsOf(text)) {
        const auto x = word.find('x');
        const bool joined = x != std::string::npos && x > 0 && x + 1 < word.size() &&
                            std::isdigit(static_cast<unsigned char>(word[x - 1])) &&
                            std::isdigit(static_cast<unsigned char>(word[x + 1]));
        if (joined) {
            words.insert(words.end(), {word.substr(0, x), "x", word.substr(x + 1)});
        } else {
            words.push_back(word);
        }
    }
    bool metric = false;  // behind an M the lengths are millimetres
    for (std::size_t i = 0; i < words.size(); ++i) {
        const std::string next = i + 1 < words.size() ? words[i + 1] : "";
        if (words[i].size() > 1 && words[i][0] == 'm' && numberOf(words[i].substr(1)) > 0) {
            out.push_back(numberOf(words[i].substr(1)) * kMillimetre);
            metric = true;
            continue;
        }
        const auto [number, unit] = split(words[i]);
        const double value = numberOf(number);
        if (!(value > 0)) continue;
        const double length = unit.empty() ? lengthUnit(next) : lengthUnit(unit);
        const bool behindX = i > 0 && words[i - 1] == "x" && metric;
        if (length > 0) {
            out.push_back(value * length);
        } else if (behindX && unit.empty()) {
            out.push_back(value * kMillimetre);
        }
    }
    return out;
}

std::vector<OfSize> hardwareOfSize(const Kit& kit, double metres) {
    std::vector<OfSize> out;
    if (!(metres > 0) || !std::isfinite(metres)) return out;
    for (const Part& part : kit.parts) {
        if (part.kind != PartKind::other || part.nominal > 0) continue;
        for (const double size : sizesIn(part.value)) {
            if (std::fabs(size - metres) <= std::max(kNear, kShare * size)) out.push_back({&part, size});
        }
    }
    std::stable_sort(out.begin(), out.end(), [&](const OfSize& a, const OfSize& b) {
        return std::fabs(a.size - metres) < std::fabs(b.size - metres);
    });
    return out;
}

bool namesThing(std::string_view text, const Part& thing) {
    const auto said = wordsOf(text);
    const auto stands = [&](const std::string& word) {
        return std::any_of(said.begin(), said.end(),
                           [&](const std::string& s) { return singular(s) == singular(word); });
    };
    bool any = false;
    for (const std::string& word : wordsOf(thing.value)) {
        const bool letters = word.size() > 2 && std::all_of(word.begin(), word.end(), [](unsigned char c) {
                                 return std::isalpha(c) || c > 127;
                             });
        if (!letters || word == "\u00d7") continue;
        any = true;
        if (!stands(word)) return false;
    }
    return any;
}

}  // namespace ombrek
