#include "core/meter/display_words.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

#include "core/text/letters.h"

namespace ombrek {
namespace {

char capital(char c) { return char(std::toupper(static_cast<unsigned char>(c))); }

std::string capitals(std::string_view text) {
    std::string out;
    for (const char c : text) out += capital(c);
    return out;
}

struct UnitName {
    std::string_view name;  ///< as it stands
    Unit unit;
    bool anyCase = false;  ///< its prefix is plain in any case
    bool ac = false, dc = false;
};
constexpr std::array<UnitName, 24> kUnitNames{{{"Ω", Unit::ohm},
                                               {"\u2126", Unit::ohm},
                                               {"OHMS", Unit::ohm, true},
                                               {"OHM", Unit::ohm, true},
                                               {"HZ", Unit::hertz, true},
                                               {"VDC", Unit::volt, false, false, true},
                                               {"VAC", Unit::volt, false, true, false},
                                               {"Vdc", Unit::volt, false, false, true},
                                               {"Vac", Unit::volt, false, true, false},
                                               {"ADC", Unit::ampere, false, false, true},
                                               {"AAC", Unit::ampere, false, true, false},
                                               {"Adc", Unit::ampere, false, false, true},
                                               {"Aac", Unit::ampere, false, true, false},
                                               {"dBm", Unit::dbm},
                                               {"DBM", Unit::dbm},
                                               {"dB", Unit::decibel},
                                               {"DB", Unit::decibel},
                                               {"V", Unit::volt},
                                               {"A", Unit::ampere},
                                               {"F", Unit::farad},
                                               {"H", Unit::henry},
                                               {"W", Unit::watt},
                                               {"%", Unit::percent},
                                               {"°C", Unit::celsius}}};

/// What a prefix is worth; 0: it is none, or may be two.
double prefixOf(std::string_view prefix, const UnitName& name) {
    if (prefix.empty()) return 1;
    if (prefix == "µ" || prefix == "\u03bc" || prefix == "\xb5") return 1e-6;  // the last as Latin-1 has it
    if (prefix.size() != 1) return 0;
    const bool whole = name.unit == Unit::ohm || name.unit == Unit::hertz;
    switch (prefix.front()) {
        case 'p':
        case 'P':
            return 1e-12;
        case 'n':
        case 'N':
            return 1e-9;
        case 'u':
        case 'U':
            return 1e-6;
        case 'm':
            return name.unit == Unit::hertz ? 1e6 : 1e-3;
        case 'k':
        case 'K':
            return 1e3;
        case 'M':  // of all else it is as likely milli
            return whole ? 1e6 : 0;
        case 'G':
            return whole ? 1e9 : 0;
        default:
            return 0;
    }
}

struct FlagWord {
    std::string_view word;
    bool Sample::*flag;
};
constexpr std::array<FlagWord, 17> kFlags{{{"AC", &Sample::ac},
                                           {"RMS", &Sample::ac},
                                           {"TRMS", &Sample::ac},
                                           {"DC", &Sample::dc},
                                           {"HOLD", &Sample::held},
                                           {"HLD", &Sample::held},
                                           {"MAX", &Sample::held},
                                           {"MIN", &Sample::held},
                                           {"REL", &Sample::held},
                                           {"PEAK", &Sample::held},
                                           {"LOBAT", &Sample::lowBattery},
                                           {"LOWBAT", &Sample::lowBattery},
                                           {"BAT", &Sample::lowBattery},
                                           {"BATT", &Sample::lowBattery},
                                           {"DIODE", &Sample::diode},
                                           {"DIO", &Sample::diode},
                                           {"DI", &Sample::diode}}};

}  // namespace

std::optional<UnitWord> readUnitWord(std::string_view word) {
    for (const UnitName& name : kUnitNames) {
        if (word.size() < name.name.size()) continue;
        const std::string_view tail = word.substr(word.size() - name.name.size());
        const bool same = name.anyCase ? capitals(tail) == name.name : tail == name.name;
        if (!same) continue;
        const std::string_view prefix = word.substr(0, word.size() - tail.size());
        const bool bare = name.unit == Unit::decibel || name.unit == Unit::dbm ||
                          name.unit == Unit::percent || name.unit == Unit::celsius;
        const double factor = bare ? (prefix.empty() ? 1 : 0) : prefixOf(prefix, name);
        if (factor > 0) return UnitWord{name.unit, factor, name.ac, name.dc};
    }
    return std::nullopt;
}

bool isOverloadWord(std::string_view word) {
    std::string plain;
    for (const char c : word) {
        if (c != '.' && c != ' ') plain += capital(c);
    }
    while (!plain.empty() && (plain.front() == '-' || plain.front() == '+' || plain.front() == '>'))
        plain.erase(plain.begin());
    static constexpr std::array<std::string_view, 8> words{"OL",  "0L",       "OVER",      "OVLD",
                                                           "OFL", "OVERLOAD", "OVERRANGE", "OVRNG"};
    return std::find(words.begin(), words.end(), plain) != words.end();
}

bool isBlankWord(std::string_view word) {
    const auto dashes = std::count(word.begin(), word.end(), '-');
    return dashes >= 2 && word.find_first_not_of("-.") == std::string_view::npos;
}

bool takeFlagWord(std::string_view word, Sample& sample) {
    const std::string plain = capitals(word);
    for (const FlagWord& f : kFlags) {
        if (f.word != plain) continue;
        sample.*f.flag = true;
        return true;
    }
    // What is switched to is told by the unit.
    static constexpr std::array<std::string_view, 12> told{"AUTO", "MANU", "RANGE", "OH",  "CA",   "FR",
                                                           "CAP",  "RES",  "FREQ",  "IND", "VOLT", "CURR"};
    return std::find(told.begin(), told.end(), plain) != told.end();
}

std::optional<ShownNumber> readShownNumber(std::string_view word, bool comma) {
    std::string text(word);
    if (comma) std::replace(text.begin(), text.end(), ',', '.');
    std::string_view rest = text;
    const bool minus = rest.starts_with('-');
    if (minus || rest.starts_with('+')) rest.remove_prefix(1);
    if (rest.empty() ||
        !(isDigit(rest.front()) || (rest.front() == '.' && rest.size() > 1 && isDigit(rest[1]))))
        return std::nullopt;
    double value = 0;
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), value);
    if (error != std::errc{} || end != rest.data() + rest.size() || !std::isfinite(value))
        return std::nullopt;
    const auto exponent = std::min(rest.find_first_of("eE"), rest.size());
    const auto point = rest.substr(0, exponent).find('.');
    const double places = point == std::string_view::npos ? 0 : double(exponent - point - 1);
    int power = 0;
    if (exponent < rest.size()) {
        const char* from = rest.data() + exponent + 1;
        if (*from == '+') ++from;
        std::from_chars(from, rest.data() + rest.size(), power);
    }
    ShownNumber out;
    out.value = value == 0 ? 0 : minus ? -value : value;
    out.count = std::pow(10.0, power - places);
    return out;
}

namespace {

bool separates(char c, bool comma) {
    return std::isspace(static_cast<unsigned char>(c)) || c == ';' || c == '=' || c == ':' ||
           (c == ',' && !comma);
}

/// How many of the characters at the front are a number.
std::size_t numberLength(std::string_view text, bool comma) {
    std::size_t i = 0;
    if (i < text.size() && (text[i] == '+' || text[i] == '-')) ++i;
    const std::size_t from = i;
    bool any = false, mark = false;
    while (i < text.size() &&
           (isDigit(text[i]) || (!mark && (text[i] == '.' || (comma && text[i] == ','))))) {
        any = any || isDigit(text[i]);
        mark = mark || !isDigit(text[i]);
        ++i;
    }
    if (!any || i == from) return 0;
    if (i < text.size() && (text[i] == 'e' || text[i] == 'E')) {
        std::size_t j = i + 1;
        if (j < text.size() && (text[j] == '+' || text[j] == '-')) ++j;
        const std::size_t digits = j;
        while (j < text.size() && isDigit(text[j])) ++j;
        if (j > digits) i = j;
    }
    return i;
}

}  // namespace

std::vector<std::string> displayWords(std::string_view line, bool comma) {
    std::vector<std::string> out;
    std::string sign;
    while (!line.empty()) {
        if (separates(line.front(), comma)) {
            line.remove_prefix(1);
            continue;
        }
        std::size_t end = 0;
        while (end < line.size() && !separates(line[end], comma)) ++end;
        std::string_view word = line.substr(0, end);
        line.remove_prefix(end);
        if (word == "+" || word == "-") {
            sign = word;
            continue;
        }
        // "101.3pF" is a number and its unit; "0L" and "2N3" are words.
        const std::size_t number = isOverloadWord(word) ? 0 : numberLength(word, comma);
        if (number > 0 && (number == word.size() || readUnitWord(word.substr(number)))) {
            const bool bare = isDigit(word.front()) || word.front() == '.';
            out.push_back((bare ? sign : std::string()) + std::string(word.substr(0, number)));
            if (number < word.size()) out.emplace_back(word.substr(number));
        } else {
            out.push_back(sign + std::string(word));
        }
        sign.clear();
    }
    return out;
}

}  // namespace ombrek
