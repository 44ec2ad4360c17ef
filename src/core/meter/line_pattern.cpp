#include "core/meter/line_pattern.h"

#include <algorithm>
#include <cmath>

#include "core/meter/display_words.h"

namespace ombrek {
namespace {

constexpr std::string_view kNumber = "#", kUnit = "@", kAny = "*";

/// A word that differs from line to line: what begins as a number, a unit, what the display says of itself.
bool varies(const std::string& word, bool comma) {
    Sample ignored;
    const bool number =
        word.find_first_of("0123456789") != std::string::npos && word.find_first_of("0123456789+-.") == 0;
    return number || readShownNumber(word, comma) || isOverloadWord(word) || isBlankWord(word) ||
           readUnitWord(word) || takeFlagWord(word, ignored);
}

/// Flags come and go: they are taken out before the words are held against the pattern.
std::vector<std::string> withoutFlags(const std::vector<std::string>& words, Sample& flags) {
    std::vector<std::string> out;
    for (const std::string& word : words) {
        if (!takeFlagWord(word, flags)) out.push_back(word);
    }
    return out;
}

std::string asShown(std::string_view line) {
    std::string out;
    for (const char c : line.substr(0, 40)) out += c >= ' ' && c < 127 ? c : '.';
    return "\"" + out + "\"";
}

}  // namespace

std::string LinePattern::text() const {
    std::string out = comma ? "," : "";
    for (const std::string& word : words) out += (out.empty() ? "" : " ") + word;
    return unit.empty() ? out : out + " | " + unit;
}

std::optional<LinePattern> readLinePattern(std::string_view text) {
    LinePattern out;
    bool unit = false;
    while (!text.empty()) {
        const auto end = std::min(text.find(' '), text.size());
        const std::string word(text.substr(0, end));
        text.remove_prefix(std::min(end + 1, text.size()));
        if (word.empty()) continue;
        if (word == "," && out.words.empty()) {
            out.comma = true;
        } else if (word == "|") {
            unit = true;
        } else if (unit) {
            out.unit = word;
        } else {
            out.words.push_back(word);
        }
    }
    const auto count = [&](std::string_view word) {
        return std::count(out.words.begin(), out.words.end(), word);
    };
    const bool said = count(kUnit) == 1, given = readUnitWord(out.unit).has_value();
    if (count(kNumber) != 1 || said == given || count(kUnit) > 1) return std::nullopt;
    return out;
}

std::optional<LinePattern> learnPattern(std::string_view line, std::size_t number,
                                        std::optional<std::size_t> unit, const std::string& fixed,
                                        bool comma) {
    const auto words = displayWords(line, comma);
    if (number >= words.size() || (unit && (*unit >= words.size() || *unit == number))) return std::nullopt;
    const bool shows = readShownNumber(words[number], comma) || isOverloadWord(words[number]);
    if (!shows || (unit ? !readUnitWord(words[*unit]) : !readUnitWord(fixed))) return std::nullopt;
    LinePattern out;
    out.comma = comma;
    if (!unit) out.unit = fixed;
    for (std::size_t i = 0; i < words.size(); ++i) {
        Sample flags;
        const bool chosen = i == number || (unit && i == *unit);
        if (!chosen && takeFlagWord(words[i], flags)) continue;
        out.words.emplace_back(i == number               ? std::string(kNumber)
                               : unit && i == *unit      ? std::string(kUnit)
                               : varies(words[i], comma) ? std::string(kAny)
                                                         : words[i]);
    }
    return out;
}

Sample readLine(const LinePattern& pattern, std::string_view line) {
    if (pattern.words.empty())
        return noSample("nobody has shown yet where the number stands in its lines.", true);
    Sample out;
    const auto words = withoutFlags(displayWords(line, pattern.comma), out);
    const auto other = [&] {
        return noSample("it said " + asShown(line) + ", which is not like the line that was shown.");
    };
    const auto unitAt = std::find(pattern.words.begin(), pattern.words.end(), kUnit);
    // An overload and dashes are often printed without the unit.
    const bool short_ = unitAt != pattern.words.end() && words.size() + 1 == pattern.words.size();
    if (words.size() != pattern.words.size() && !short_) return other();
    std::string number, unit = pattern.unit;
    std::size_t at = 0;
    for (const std::string& expected : pattern.words) {
        if (short_ && expected == kUnit) continue;
        const std::string& word = words[at++];
        if (expected == kNumber) {
            number = word;
        } else if (expected == kUnit) {
            unit = word;
        } else if (expected != kAny && expected != word) {
            return other();
        }
    }
    const auto read = readUnitWord(unit);
    if (read) {
        out.unit = read->unit;
        out.ac = out.ac || read->ac;
        out.dc = out.dc || read->dc;
    }
    if (isBlankWord(number)) {
        out.kind = Sample::Kind::blank;
    } else if (isOverloadWord(number)) {
        out.kind = Sample::Kind::overload;
        out.value = number.front() == '-' ? -INFINITY : INFINITY;
    } else if (const auto shown = readShownNumber(number, pattern.comma); shown && read) {
        out.kind = Sample::Kind::reading;
        out.value = shown->value * read->factor;
        out.count = shown->count * read->factor;
    } else {
        return other();
    }
    return out;
}

std::optional<std::size_t> guessNumber(const std::vector<std::string>& words, bool comma) {
    for (std::size_t i = 0; i + 1 < words.size(); ++i) {
        if (readShownNumber(words[i], comma) && readUnitWord(words[i + 1])) return i;
    }
    return std::nullopt;
}

}  // namespace ombrek
