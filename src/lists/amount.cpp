#include "lists/amount.h"

#include <algorithm>
#include <array>

#include "core/text/letters.h"

namespace ombrek {
namespace {

struct Suffix {
    Unit unit;
    std::string_view text;    ///< as written; lower case unless `exact`
    std::string_view prefix;  ///< as parseQuantity knows it
    bool unitSaid;
    bool exact = false;           ///< its case matters
    std::string_view doubt = {};  ///< what else it may be
};
constexpr std::string_view kMilliOrMega = "m may be milli or mega";
constexpr std::string_view kOldMicro = "MF is microfarad in older lists, millifarad by the rule";
// Exact ones first: they are asked before the case is folded.
constexpr std::array<Suffix, 74> kSuffixes{{{Unit::ohm, "m", "m", false, true, kMilliOrMega},
                                            {Unit::ohm, "M", "M", false, true},
                                            {Unit::ohm, "MR", "M", false, true},
                                            {Unit::ohm, "mR", "m", true, true},
                                            {Unit::ohm, "Mohm", "M", true, true},
                                            {Unit::ohm, "MOhm", "M", true, true},
                                            {Unit::ohm, "MOHM", "M", true, true},
                                            {Unit::ohm, "Mohms", "M", true, true},
                                            {Unit::ohm, "mohm", "m", true, true, kMilliOrMega},
                                            {Unit::farad, "MF", "u", true, true, kOldMicro},
                                            {Unit::farad, "Mf", "u", true, true, kOldMicro},
                                            {Unit::farad, "mF", "m", true, true, kOldMicro},
                                            {Unit::farad, "F", "", true, true},
                                            {Unit::ampere, "MA", "m", true, true},
                                            {Unit::watt, "MW", "m", true, true},
                                            {Unit::henry, "MH", "m", true, true},
                                            {Unit::ohm, "r", "", true},
                                            {Unit::ohm, "e", "", true},
                                            {Unit::ohm, "ohm", "", true},
                                            {Unit::ohm, "ohms", "", true},
                                            {Unit::ohm, "k", "k", false},
                                            {Unit::ohm, "kr", "k", true},
                                            {Unit::ohm, "kohm", "k", true},
                                            {Unit::ohm, "kohms", "k", true},
                                            {Unit::ohm, "meg", "M", true},
                                            {Unit::ohm, "megohm", "M", true},
                                            {Unit::ohm, "megohms", "M", true},
                                            {Unit::ohm, "g", "G", false},
                                            {Unit::ohm, "gohm", "G", true},
                                            {Unit::farad, "p", "p", false},
                                            {Unit::farad, "pf", "p", true},
                                            {Unit::farad, "pfd", "p", true},
                                            {Unit::farad, "mmf", "p", true},
                                            {Unit::farad, "mmfd", "p", true},
                                            {Unit::farad, "uuf", "p", true},
                                            {Unit::farad, "uufd", "p", true},
                                            {Unit::farad, "n", "n", false},
                                            {Unit::farad, "nf", "n", true},
                                            {Unit::farad, "nfd", "n", true},
                                            {Unit::farad, "u", "u", false},
                                            {Unit::farad, "uf", "u", true},
                                            {Unit::farad, "ufd", "u", true},
                                            {Unit::farad, "mfd", "u", true},
                                            {Unit::farad, "m", "m", false, false, "m may be milli or micro"},
                                            {Unit::henry, "h", "", true},
                                            {Unit::henry, "n", "n", false},
                                            {Unit::henry, "nh", "n", true},
                                            {Unit::henry, "u", "u", false},
                                            {Unit::henry, "uh", "u", true},
                                            {Unit::henry, "uhy", "u", true},
                                            {Unit::henry, "m", "m", false},
                                            {Unit::henry, "mh", "m", true},
                                            {Unit::hertz, "hz", "", true},
                                            {Unit::hertz, "khz", "k", true},
                                            {Unit::hertz, "kc", "k", true},
                                            {Unit::hertz, "mhz", "M", true},
                                            {Unit::hertz, "mc", "M", true},
                                            {Unit::hertz, "ghz", "G", true},
                                            {Unit::volt, "v", "", true},
                                            {Unit::volt, "vdc", "", true},
                                            {Unit::volt, "vac", "", true},
                                            {Unit::volt, "v=", "", true},
                                            {Unit::volt, "volt", "", true},
                                            {Unit::volt, "volts", "", true},
                                            {Unit::volt, "kv", "k", true},
                                            {Unit::volt, "mv", "m", true},
                                            {Unit::watt, "w", "", true},
                                            {Unit::watt, "watt", "", true},
                                            {Unit::watt, "watts", "", true},
                                            {Unit::watt, "mw", "m", true},
                                            {Unit::ampere, "a", "", true},
                                            {Unit::ampere, "ma", "m", true},
                                            {Unit::ampere, "ua", "u", true},
                                            {Unit::percent, "%", "", true}}};

/// "kilohms", "nanofarad" as "kohm", "nf"; anything else as it is. Small letters.
std::string unitLetters(std::string low) {
    struct Word {
        std::string_view word, letters;
    };
    static constexpr Word prefixes[] = {{"pico", "p"},   {"nano", "n"},  {"micro", "u"},
                                        {"mikro", "u"},  {"milli", "m"}, {"kilo", "k"},
                                        {"mega", "meg"}, {"kil", "k"},   {"meg", "meg"}};
    static constexpr Word units[] = {{"ohm", "ohm"}, {"ohms", "ohm"},  {"farad", "f"},  {"farads", "f"},
                                     {"henry", "h"}, {"henries", "h"}, {"henrys", "h"}, {"hertz", "hz"},
                                     {"volt", "v"},  {"volts", "v"},   {"watt", "w"},   {"watts", "w"},
                                     {"amp", "a"},   {"amps", "a"},    {"ampere", "a"}};
    for (const Word& prefix : prefixes) {
        if (!low.starts_with(prefix.word)) continue;
        for (const Word& unit : units) {
            if (low.substr(prefix.word.size()) != unit.word) continue;
            const bool hertz = unit.letters == "hz" && prefix.letters == "meg";
            return hertz ? "mhz" : std::string(prefix.letters) + std::string(unit.letters);
        }
    }
    for (const Word& unit : units) {
        if (low == unit.word) return std::string(unit.letters);
    }
    return low;
}

const Suffix* suffixOf(std::string_view text, Unit unit) {
    const std::string low = lowered(text), letters = unitLetters(low);
    if (letters != low) {
        for (const Suffix& s : kSuffixes) {
            if (s.unit == unit && !s.exact && s.text == letters) return &s;
        }
        if (letters == "f" && unit == Unit::farad) return suffixOf("F", unit);
    }
    for (const Suffix& s : kSuffixes) {
        if (s.unit == unit && (s.exact ? s.text == text : s.text == low)) return &s;
    }
    return nullptr;
}

/// The parts of a word: "4k7J" is 4, k, 7, J.
struct Parts {
    std::string whole, middle, fraction, tail;
};
std::optional<Parts> cut(std::string_view word) {
    Parts out;
    std::size_t i = 0;
    while (i < word.size() && (isDigit(word[i]) || word[i] == '.' || word[i] == ',')) out.whole += word[i++];
    while (i < word.size() && (isLetter(word[i]) || word[i] == '%' || word[i] == '='))
        out.middle += word[i++];
    while (i < word.size() && isDigit(word[i])) out.fraction += word[i++];
    while (i < word.size() && isLetter(word[i])) out.tail += word[i++];
    if (i < word.size() || (out.whole.empty() && out.fraction.empty())) return std::nullopt;
    if (!out.whole.empty() && !isDigit(out.whole.back())) {
        // "10." is 10; a comma at the end belongs to the sentence.
        out.whole.pop_back();
        if (out.whole.empty() || !isDigit(out.whole.back())) return std::nullopt;
    }
    return out;
}

std::optional<Amount> made(const std::string& number, std::string_view suffix, Unit unit) {
    const Suffix* known = suffix.empty() ? nullptr : suffixOf(suffix, unit);
    if (!suffix.empty() && known == nullptr) return std::nullopt;
    const auto value =
        parseQuantity(number + std::string(known ? known->prefix : "") + std::string(symbol(unit)), unit);
    if (!value) return std::nullopt;
    Amount out;
    out.value = value->value;
    out.said = known == nullptr  ? Amount::Said::number
               : known->unitSaid ? Amount::Said::unit
                                 : Amount::Said::prefix;
    if (known && !known->doubt.empty()) out.doubt = known->doubt;
    return out;
}

bool toleranceSign(char c) { return c == 'F' || c == 'G' || c == 'J' || c == 'K' || c == 'M'; }

/// "1/4W", "1/4 W": a fraction with a unit after it.
std::optional<Amount> fraction(std::string_view word, Unit unit, const Manner& manner) {
    const auto slash = word.find('/');
    if (slash == 0 || slash == std::string_view::npos) return std::nullopt;
    const auto above = readAmount(word.substr(0, slash), unit, manner);
    const auto below = readAmount(word.substr(slash + 1), unit, manner);
    if (!above || !below || above->said != Amount::Said::number || !(below->value > 0)) return std::nullopt;
    Amount out = *below;
    out.value = above->value / below->value;
    return out;
}

/// Three digits groups after a first group: "1,000", "12.345.678".
bool grouped(std::string_view number, char mark) {
    const auto first = number.find(mark);
    if (first == 0 || first == std::string_view::npos || first > 3 || number[0] == '0') return false;
    std::size_t at = first;
    while (at < number.size()) {
        if (number[at] != mark || at + 4 > number.size()) return false;
        for (std::size_t i = at + 1; i < at + 4; ++i) {
            if (!isDigit(number[i])) return false;
        }
        at += 4;
        if (at < number.size() && number[at] != mark) return number[at] == '.' || number[at] == ',';
    }
    return true;
}

}  // namespace

std::string foldSigns(std::string_view text) {
    struct Sign {
        std::string_view from, to;
    };
    // The shorter first: the last that fits is taken.
    static constexpr std::array<Sign, 34> signs{{{"\u041e\u043c", "ohm"},
                                                 {"\u043e\u043c", "ohm"},
                                                 {"\u043a\u041e\u043c", "kohm"},
                                                 {"\u043a\u043e\u043c", "kohm"},
                                                 {"\u041c\u041e\u043c", "Mohm"},
                                                 {"\u041c\u043e\u043c", "Mohm"},
                                                 {"\u043c\u043a\u0424", "uF"},
                                                 {"\u043d\u0424", "nF"},
                                                 {"\u043f\u0424", "pF"},
                                                 {"\u043c\u043a\u0413\u043d", "uH"},
                                                 {"\u043c\u0413\u043d", "mH"},
                                                 {"\u043d\u0413\u043d", "nH"},
                                                 {"\u0413\u0446", "Hz"},
                                                 {"\u043a\u0413\u0446", "kHz"},
                                                 {"\u041c\u0413\u0446", "MHz"},
                                                 {"\u0412\u0442", "W"},
                                                 {"\u043c\u043a\u0444", "uF"},
                                                 {"\u00b5", "u"},
                                                 {"\u03bc", "u"},
                                                 {"\u03a9", "ohm"},
                                                 {"\u2126", "ohm"},
                                                 {"\u00a0", " "},
                                                 {"\u202f", " "},
                                                 {"\u2009", " "},
                                                 {"\u2010", "-"},
                                                 {"\u2011", "-"},
                                                 {"\u2012", "-"},
                                                 {"\u2013", "-"},
                                                 {"\u2014", "-"},
                                                 {"\u2212", "-"},
                                                 {"\u00d7", "x"},
                                                 {"\u00bc", "1/4"},
                                                 {"\u00bd", "1/2"},
                                                 {"\u2026", "..."}}};
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        const Sign* hit = nullptr;
        if (static_cast<unsigned char>(text[i]) >= 0x80) {
            for (const Sign& s : signs) {
                if (text.substr(i).starts_with(s.from)) hit = &s;
            }
        }
        out += hit ? hit->to : text.substr(i, 1);
        i += hit ? hit->from.size() : 1;
    }
    return out;
}

std::string plainDigits(std::string_view number, const Manner& manner, bool* open) {
    std::string out;
    const bool both =
        number.find(',') != std::string_view::npos && number.find('.') != std::string_view::npos;
    const char last =
        number.find_last_of(".,") == std::string_view::npos ? '.' : number[number.find_last_of(".,")];
    const auto thousands = [&](char mark) {
        if (both) return mark != last;
        if (!grouped(number, mark)) return false;
        if (std::count(number.begin(), number.end(), mark) > 1) return true;
        if (mark == '.') return manner.pointThousands;
        if (manner.comma != Manner::Comma::thousands && open != nullptr) *open = true;
        return manner.comma != Manner::Comma::decimal;
    };
    const bool dropComma = thousands(','), dropPoint = thousands('.');
    for (const char c : number) {
        if ((c == ',' && dropComma) || (c == '.' && dropPoint)) continue;
        out += c == ',' ? '.' : c;
    }
    return out;
}

Manner mannerOf(std::string_view text) {
    int commas = 0, points = 0, grouping = 0, pointGroups = 0;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const bool starts = isDigit(text[i]) && (i == 0 || (!isDigit(text[i - 1]) && text[i - 1] != '.' &&
                                                            text[i - 1] != ',' && !isLetter(text[i - 1])));
        if (!starts) continue;
        std::size_t end = i;
        while (end < text.size() && (isDigit(text[end]) || text[end] == '.' || text[end] == ',')) ++end;
        std::string_view number = text.substr(i, end - i);
        while (!number.empty() && !isDigit(number.back())) number.remove_suffix(1);
        const auto comma = number.find(','), point = number.find('.');
        // "R4,5,6" and "1,2,3" are lists; a decimal comma stands once, before a unit or a prefix letter.
        const bool once = std::count(number.begin(), number.end(), ',') == 1;
        std::size_t next = i + number.size();
        while (next < text.size() && text[next] == ' ') ++next;
        const bool named = next < text.size() && (isLetter(text[next]) || text[next] == '%' ||
                                                  static_cast<unsigned char>(text[next]) >= 0x80);
        if (grouped(number, ',') && point == std::string_view::npos) {
            ++grouping;
        } else if (once && named && comma + 1 < number.size()) {
            ++commas;
        }
        if (grouped(number, '.')) {
            ++pointGroups;
        } else if (point != std::string_view::npos && point > 0 && comma == std::string_view::npos) {
            ++points;
        }
        i = end;
    }
    Manner out;
    if (commas > 0 && commas >= points) {
        out.comma = Manner::Comma::decimal;
    } else if (points > 0 || grouping > 1) {
        out.comma = Manner::Comma::thousands;
    }
    out.pointThousands = out.comma == Manner::Comma::decimal && points == 0 && pointGroups > 0;
    return out;
}

std::optional<Amount> readAmount(std::string_view word, Unit unit, const Manner& manner) {
    // Most words are no amount: they begin with a letter that no digit follows.
    if (word.empty() || word.size() > 24 || (isLetter(word[0]) && (word.size() < 2 || !isDigit(word[1]))))
        return std::nullopt;
    const bool plain =
        std::all_of(word.begin(), word.end(), [](char c) { return static_cast<unsigned char>(c) < 0x80; });
    const std::string folded = plain ? std::string() : foldSigns(word);
    std::string_view text = plain ? word : std::string_view(folded);
    for (const std::string_view sign : {"±", "+/-", "+-", "~"}) {
        if (text.starts_with(sign)) text.remove_prefix(sign.size());
    }
    if (text.find('/') != std::string_view::npos) return fraction(text, unit, manner);
    const auto parts = cut(text);
    if (!parts) return std::nullopt;
    bool open = false;
    const std::string whole = plainDigits(parts->whole, manner, &open);
    std::optional<Amount> out;
    char tolerance = 0;
    if (parts->fraction.empty()) {
        out = made(whole, parts->middle, unit);
        // "100nK", "4k7J": a tolerance letter at the end.
        if (!out && parts->middle.size() > 1 && toleranceSign(parts->middle.back())) {
            tolerance = parts->middle.back();
            out = made(whole, std::string_view(parts->middle).substr(0, parts->middle.size() - 1), unit);
        }
    } else {
        // A letter for the mark: one letter, or a prefix with its unit ("2uF2").
        if (parts->middle.empty() || whole.find('.') != std::string::npos) return std::nullopt;
        if (whole.empty() && parts->middle.size() > 1) return std::nullopt;
        const std::string number = (whole.empty() ? "0" : whole) + "." + parts->fraction;
        out = made(number, parts->middle + parts->tail, unit);
        if (!out) out = made(number, parts->middle, unit);
        if (out && parts->tail.size() == 1 && toleranceSign(parts->tail[0])) {
            tolerance = parts->tail[0];
        } else if (out && !parts->tail.empty() && !suffixOf(parts->middle + parts->tail, unit)) {
            return std::nullopt;
        }
        if (out && lowered(parts->middle) == "e" && whole.size() == 1)
            out->doubt = "E may stand for the decimal mark or for a power of ten";
    }
    if (!out) return std::nullopt;
    out->toleranceLetter = tolerance;
    if (open && out->doubt.empty()) out->doubt = "the comma may set off thousands or decimals";
    return out;
}

}  // namespace ombrek
