#include "core/sums/figures.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>

#include "core/text/enumerators.h"
#include "core/text/letters.h"

namespace ombrek::sums {
namespace {

/// Said in more than one word, or with signs that are none of arithmetic: one word.
struct Phrase {
    std::string_view said, word;
};
constexpr Phrase kPhrases[] = {
    {"peak to peak", "pp"},
    {"peak-to-peak", "pp"},
    {"p-p", "pp"},
    {"per cent", "%"},
    {"return loss", "returnloss"},
    {"standing wave ratio", "swr"},
    {"time constant", "tau"},
    {"velocity factor", "vf"},
    {"in series with", "series"},
    {"in parallel with", "parallel"},
    {"in series", "series"},
    {"in parallel", "parallel"},
    {"divided by", "\u00f7"},
    {"multiplied by", "\u00d7"},
    {"1/2 wave", "half"},
    {"1/4 wave", "quarter"},
    {"half-wave", "half"},
    {"quarter-wave", "quarter"},
    {"half wave", "half"},
    {"quarter wave", "quarter"},
    {"\u03bb/2", "half"},
    {"\u03bb/4", "quarter"},
    {"lambda/2", "half"},
    {"lambda/4", "quarter"},
    {"5/8 wave", "fiveeighths"},
    {"cut-off", "corner"},
    {"cut off", "corner"},
    {"wave length", "wavelength"},
    {"->", "in"},
    {"\u2192", "in"},
    {"turn ratio", "turns ratio"},
    {"degrees c", "\u00b0C"},
    {"degrees f", "\u00b0F"},
    {"deg c", "\u00b0C"},
    {"deg f", "\u00b0F"},
    {"comes back", "reflected"},
    {"come back", "reflected"},
    {"wire gauge", "awg"},
    {"a.w.g.", "awg"},
    {"amp hours", "Ah"},
    {"amp-hours", "Ah"},
    {"ampere hours", "Ah"},
    {"db\u00b5v", "dBuV"},
    {"db\u03bcv", "dBuV"},
    {"parts per million", "ppm"},
};

std::string joined(std::string_view typed) {
    std::string out(typed), small = lowered(typed);
    for (const Phrase& phrase : kPhrases) {
        for (std::size_t at = small.find(phrase.said); at != std::string::npos;
             at = small.find(phrase.said, at + 1)) {
            const bool begins = at == 0 || std::isalnum(static_cast<unsigned char>(small[at - 1])) == 0 ||
                                std::isalpha(static_cast<unsigned char>(phrase.said[0])) == 0;
            const std::size_t end = at + phrase.said.size();
            if (!begins || (end < small.size() && std::isalnum(static_cast<unsigned char>(small[end])) != 0))
                continue;
            const std::string word = " " + std::string(phrase.word) + " ";
            out.replace(at, phrase.said.size(), word);
            small.replace(at, phrase.said.size(), word);
        }
    }
    return out;
}

struct UnitWord {
    std::string_view word;  ///< small letters
    Kind kind;
    double scale = 1;
    bool prefixed = true;  ///< may follow a prefix
};
constexpr UnitWord kUnitWords[] = {
    {"ohm", Kind::ohm},
    {"\u03c9", Kind::ohm},
    {"\u2126", Kind::ohm},
    {"\u03a9", Kind::ohm},
    {"farad", Kind::farad},
    {"f", Kind::farad},
    {"henry", Kind::henry},
    {"henrie", Kind::henry},
    {"h", Kind::henry},
    {"volt", Kind::volt},
    {"v", Kind::volt},
    {"vpp", Kind::voltPeakToPeak},
    {"vp-p", Kind::voltPeakToPeak},
    {"vp", Kind::voltPeak},
    {"vpk", Kind::voltPeak},
    {"vpeak", Kind::voltPeak},
    {"vrms", Kind::voltRms},
    {"veff", Kind::voltRms},
    {"ampere", Kind::ampere},
    {"amp", Kind::ampere},
    {"a", Kind::ampere},
    {"watt", Kind::watt},
    {"w", Kind::watt},
    {"hertz", Kind::hertz},
    {"hz", Kind::hertz},
    {"metre", Kind::metre},
    {"meter", Kind::metre},
    {"m", Kind::metre},
    {"second", Kind::second},
    {"sec", Kind::second},
    {"s", Kind::second},
    {"ah", Kind::ampereHour},
    {"dbm", Kind::dbm, 1, false},
    {"db", Kind::decibel, 1, false},
    {"dbuv", Kind::dbuv, 1, false},
    {"ppm", Kind::ppm, 1, false},
    {"%", Kind::percent, 1, false},
    {"percent", Kind::percent, 1, false},
    {"turn", Kind::turns, 1, false},
    {"t", Kind::turns, 1, false},
    {"awg", Kind::gauge, 1, false},
    {"gauge", Kind::gauge, 1, false},
    {"ft", Kind::metre, 0.3048, false},
    {"feet", Kind::metre, 0.3048, false},
    {"foot", Kind::metre, 0.3048, false},
    {"in", Kind::metre, 0.0254, false},
    {"inch", Kind::metre, 0.0254, false},
    {"inche", Kind::metre, 0.0254, false},
    {"hour", Kind::second, 3600, false},
    {"hr", Kind::second, 3600, false},
    {"minute", Kind::second, 60, false},
    {"min", Kind::second, 60, false},
    {"\u00b0c", Kind::celsius, 1, false},
    {"celsius", Kind::celsius, 1, false},
    {"c", Kind::celsius, 1, false},
    {"\u00b0f", Kind::fahrenheit, 1, false},
    {"fahrenheit", Kind::fahrenheit, 1, false},
    {"swr", Kind::ratio, 1, false},
    {"ratio", Kind::ratio, 1, false},
    {"times", Kind::ratio, 1, false},
    {"factor", Kind::ratio, 1, false},
    {"rms", Kind::voltRms, 1, false},
    {"pp", Kind::voltPeakToPeak, 1, false},
    {"peak", Kind::voltPeak, 1, false},
};
struct PrefixWord {
    std::string_view word;
    double scale;
};
constexpr PrefixWord kPrefixWords[] = {{"pico", 1e-12}, {"nano", 1e-9}, {"micro", 1e-6}, {"milli", 1e-3},
                                       {"centi", 1e-2}, {"kilo", 1e3},  {"mega", 1e6},   {"giga", 1e9}};
constexpr PrefixWord kPrefixLetters[] = {{"p", 1e-12},     {"n", 1e-9}, {"u", 1e-6}, {"\u00b5", 1e-6},
                                         {"\u03bc", 1e-6}, {"m", 1e-3}, {"c", 1e-2}, {"k", 1e3},
                                         {"K", 1e3},       {"M", 1e6},  {"G", 1e9}};

const UnitWord* unitWord(std::string_view word) {
    const auto at = [](std::string_view wanted) {
        return std::find_if(std::begin(kUnitWords), std::end(kUnitWords),
                            [&](const UnitWord& u) { return u.word == wanted; });
    };
    auto hit = at(word);
    if (hit == std::end(kUnitWords) && word.size() > 2 && word.ends_with('s'))
        hit = at(word.substr(0, word.size() - 1));
    return hit == std::end(kUnitWords) ? nullptr : hit;
}

/// What a unit's word may mean: one thing, or two for "F".
std::vector<Wanted> unitsNamed(std::string_view text) {
    const std::string small = lowered(text);
    if (const UnitWord* whole = unitWord(small)) {
        std::vector<Wanted> out{{whole->kind, whole->scale, std::string(text)}};
        if (small == "f") out.push_back({Kind::fahrenheit, 1, std::string(text)});
        if (small == "c") out.push_back({Kind::farad, 1, std::string(text)});
        if (small == "h") out.push_back({Kind::second, 3600, std::string(text)});
        return out;
    }
    for (const PrefixWord& prefix : kPrefixWords) {
        if (!small.starts_with(prefix.word)) continue;
        if (const UnitWord* unit = unitWord(std::string_view(small).substr(prefix.word.size()));
            unit && unit->prefixed)
            return {{unit->kind, unit->scale * prefix.scale, std::string(text)}};
    }
    if (small == "kilohm" || small == "kilohms") return {{Kind::ohm, 1e3, std::string(text)}};
    if (small == "megohm" || small == "megohms") return {{Kind::ohm, 1e6, std::string(text)}};
    for (const PrefixWord& prefix : kPrefixLetters) {
        if (!text.starts_with(prefix.word)) continue;
        const UnitWord* unit = unitWord(std::string_view(small).substr(prefix.word.size()));
        if (unit == nullptr || !unit->prefixed || (prefix.word == "c" && unit->kind != Kind::metre)) continue;
        // Nobody writes of thousandths of a hertz.
        const double scale = unit->kind == Kind::hertz && prefix.word == "m" ? 1e6 : prefix.scale;
        return {{unit->kind, scale, std::string(text)}};
    }
    return {};
}

Kind kindOf(Unit unit) {
    constexpr Kind kKinds[] = {Kind::number,  Kind::ohm,    Kind::farad,   Kind::henry,
                               Kind::volt,    Kind::ampere, Kind::watt,    Kind::hertz,
                               Kind::metre,   Kind::second, Kind::celsius, Kind::percent,
                               Kind::decibel, Kind::dbm,    Kind::ppm,     Kind::degree};
    static_assert(std::size(kKinds) == enumerators<Unit>());
    return kKinds[std::size_t(unit)];
}

/// A number with a prefix letter alone may be of several units: "330p", "10k", "7.03M", "20m".
std::vector<Meaning> bareMeanings(std::string_view text, double value) {
    const auto letter = text.find_first_of("pnumkKMR\xC2\xCE");
    if (letter == std::string_view::npos) return {{Kind::number, value}, {Kind::ohm, value}};
    switch (text[letter]) {
        case 'p':
            return {{Kind::farad, value}};
        case 'n':
            return {{Kind::farad, value}, {Kind::henry, value}};
        case 'k':
        case 'K':
            return {{Kind::ohm, value}, {Kind::hertz, value}};
        case 'M':
            return {{Kind::hertz, value}, {Kind::ohm, value}};
        case 'R':
            return {{Kind::ohm, value}};
        case 'm':
            return {{Kind::metre, value * 1000},
                    {Kind::henry, value},
                    {Kind::volt, value},
                    {Kind::ampere, value}};
        default:
            return {{Kind::henry, value}, {Kind::farad, value}};
    }
}

std::optional<Figure> figureOf(const std::string& word) {
    const bool digit =
        std::any_of(word.begin(), word.end(), [](unsigned char c) { return std::isdigit(c) != 0; });
    if (!digit) return std::nullopt;
    if (const auto q = parseQuantity(word)) {
        if (q->unit == Unit::none) return Figure{word, bareMeanings(word, q->value)};
        Figure out{word, {{kindOf(q->unit), q->value}}};
        const bool farads = q->unit == Unit::farad && q->value >= 1;
        if (farads) out.meanings.push_back({Kind::fahrenheit, q->value});
        return out;
    }
    if (const auto colon = word.find(':'); colon != std::string::npos) {
        const auto a = parseQuantity(word.substr(0, colon)), b = parseQuantity(word.substr(colon + 1));
        if (!a || !b || a->unit != Unit::none || b->unit != Unit::none || !(a->value > 0) || !(b->value > 0))
            return std::nullopt;
        return Figure{word, {{Kind::ratio, std::max(a->value, b->value) / std::min(a->value, b->value)}}};
    }
    if (word[0] == '#') {
        if (const auto q = parseQuantity(word.substr(1)); q && q->unit == Unit::none)
            return Figure{word, {{Kind::gauge, q->value}}};
        return std::nullopt;
    }
    if (word.size() == 2 && (word[0] == 'S' || word[0] == 's'))
        return Figure{word, {{Kind::sUnit, double(word[1] - '0')}}};
    if (const auto stroke = word.find('/'); stroke != std::string::npos) {  // "1/3"
        const auto a = parseQuantity(word.substr(0, stroke)), b = parseQuantity(word.substr(stroke + 1));
        if (!a || !b || a->unit != Unit::none || b->unit != Unit::none || !(b->value > 0))
            return std::nullopt;
        return Figure{word, {{Kind::number, a->value / b->value}}};
    }
    const auto last = word.find_last_of("0123456789");
    const auto number = parseQuantity(word.substr(0, last + 1));
    const auto units = unitsNamed(word.substr(last + 1));
    if (!number || number->unit != Unit::none || units.empty()) return std::nullopt;
    Figure out{word, {}};
    for (const Wanted& unit : units) out.meanings.push_back({unit.kind, number->value * unit.scale});
    return out;
}

bool bare(const Figure& figure) { return figure.meanings[0].kind == Kind::number; }

/// Cut at blanks; signs of arithmetic between blanks or brackets are pieces of their own.
std::vector<std::string> cut(std::string_view text) {
    static constexpr std::string_view kSigns[] = {"||",     "//",     "+",      "\u2212", "\u2013", "*",
                                                  "\u00d7", "\u00b7", "\u00f7", "(",      ")"};
    std::vector<std::string> out(1);
    const auto next = [&] {
        if (!out.back().empty()) out.emplace_back();
    };
    for (std::size_t i = 0; i < text.size();) {
        const std::string_view rest = text.substr(i);
        const auto sign = std::find_if(std::begin(kSigns), std::end(kSigns),
                                       [&](std::string_view s) { return rest.starts_with(s); });
        const bool leading = (rest[0] == '+') && out.back().empty() && i + 1 < text.size() &&
                             std::isdigit(static_cast<unsigned char>(text[i + 1])) != 0 && out.size() == 1;
        if (sign != std::end(kSigns) && !leading) {
            next();
            out.back() = *sign == "\u2212" || *sign == "\u2013"   ? "-"
                         : *sign == "\u00d7" || *sign == "\u00b7" ? "*"
                                                                  : std::string(*sign);
            next();
            i += sign->size();
        } else if (rest[0] == '/' && !out.back().empty() &&
                   std::isdigit(static_cast<unsigned char>(out.back().back())) == 0) {
            next();
            out.back() = "/";
            next();
            ++i;
        } else if (std::isspace(static_cast<unsigned char>(rest[0])) != 0 || rest[0] == '=' ||
                   rest[0] == '?' || rest[0] == ';') {
            next();
            ++i;
        } else {
            out.back() += text[i++];
        }
    }
    if (out.back().empty()) out.pop_back();
    for (std::string& word : out) {
        while (word.size() > 1 &&
               (word.back() == ',' || word.back() == '.' || word.back() == '!' || word.back() == ':'))
            word.pop_back();
    }
    return out;
}

bool isSign(const std::string& word) {
    static constexpr std::string_view kSigns[] = {"||",     "//", "+", "-", "*", "/",
                                                  "\u00f7", "(",  ")", "x", "X"};
    return std::find(std::begin(kSigns), std::end(kSigns), word) != std::end(kSigns);
}

/// "2 V rms", "30 V pp": which volts they are.
void qualify(Figure& figure, const std::string& word) {
    const Kind kind = word == "rms" || word == "eff" ? Kind::voltRms
                      : word == "pp"                 ? Kind::voltPeakToPeak
                                                     : Kind::voltPeak;
    figure.meanings[0].kind = kind;
}
bool qualifies(const Figure& figure, const std::string& word) {
    return figure.meanings[0].kind == Kind::volt &&
           (word == "rms" || word == "eff" || word == "pp" || word == "peak" || word == "pk");
}

}  // namespace

Unit unitOf(Kind kind) {
    switch (kind) {
        case Kind::ohm:
            return Unit::ohm;
        case Kind::farad:
            return Unit::farad;
        case Kind::henry:
            return Unit::henry;
        case Kind::volt:
        case Kind::voltRms:
        case Kind::voltPeak:
        case Kind::voltPeakToPeak:
            return Unit::volt;
        case Kind::ampere:
            return Unit::ampere;
        case Kind::watt:
            return Unit::watt;
        case Kind::hertz:
            return Unit::hertz;
        case Kind::metre:
            return Unit::metre;
        case Kind::second:
            return Unit::second;
        case Kind::celsius:
            return Unit::celsius;
        case Kind::percent:
            return Unit::percent;
        case Kind::decibel:
            return Unit::decibel;
        case Kind::dbm:
            return Unit::dbm;
        case Kind::ppm:
            return Unit::ppm;
        case Kind::degree:
            return Unit::degree;
        case Kind::number:
        case Kind::fahrenheit:
        case Kind::dbuv:
        case Kind::ampereHour:
        case Kind::gauge:
        case Kind::turns:
        case Kind::ratio:
        case Kind::sUnit:
            break;
    }
    return Unit::none;
}

std::string kindText(Kind kind, double value, int digits) {
    const std::string plain = formatQuantity(value, unitOf(kind), digits);
    switch (kind) {
        case Kind::voltRms:
            return plain + " rms";
        case Kind::voltPeak:
            return plain + " peak";
        case Kind::voltPeakToPeak:
            return plain + " peak-to-peak";
        case Kind::fahrenheit:
            return decimals(value, 1) + "\u202f\u00b0F";
        case Kind::dbuv:
            return decimals(value, 1) + "\u202fdB\u00b5V";
        case Kind::ampereHour:
            return formatQuantity(value, Unit::none, digits) + "\u202fAh";
        case Kind::gauge:
            return "AWG " + decimals(value, 1);
        case Kind::turns:
            return plain + (value == 1 ? " turn" : " turns");
        case Kind::ratio:
            return formatQuantity(value, Unit::none, digits) + " : 1";
        case Kind::sUnit:
            return "S" + decimals(value, 0);
        case Kind::number:
            return formatQuantity(value, Unit::none, digits);
        case Kind::second:
            if (value < 600) return plain;
            return value < 3600 ? decimals(value / 60, 0) + " min"
                                : decimals(std::floor(value / 3600), 0) + " h " +
                                      decimals(std::floor(std::fmod(value, 3600) / 60), 0) + " min";
        case Kind::ohm:
        case Kind::farad:
        case Kind::henry:
        case Kind::volt:
        case Kind::ampere:
        case Kind::watt:
        case Kind::hertz:
        case Kind::metre:
        case Kind::celsius:
        case Kind::percent:
        case Kind::decibel:
        case Kind::dbm:
        case Kind::ppm:
        case Kind::degree:
            break;
    }
    return plain;
}

Sentence readSentence(std::string_view text) {
    Sentence out;
    std::vector<std::string> words = cut(joined(text));
    if (words.size() >= 3) {
        const std::string before = lowered(words[words.size() - 2]);
        const bool asks = before == "in" || before == "to" || before == "as" || before == "als";
        if (asks) out.wanted = unitsNamed(words.back());
        if (!out.wanted.empty()) words.resize(words.size() - 2);
    }
    // "dBm of 2.5 watts": a unit of two letters and more; "L of" and "turns for" are asked otherwise.
    if (out.wanted.empty() && words.size() >= 3 && words[0].size() > 1 &&
        (lowered(words[1]) == "of" || lowered(words[1]) == "for")) {
        const auto named = unitsNamed(words[0]);
        const bool level = !named.empty() && named[0].kind != Kind::turns && named[0].kind != Kind::ratio;
        if (level && unitWord(lowered(words[0])) != nullptr && named[0].kind != Kind::metre) {
            out.wanted = named;
            words.erase(words.begin(), words.begin() + 2);
        }
    }
    for (std::size_t i = 0; i < words.size(); ++i) {
        const std::string small = lowered(words[i]);
        if (isSign(words[i])) {
            out.pieces.push_back({Piece::What::sign, {}, small == "x" ? "*" : words[i]});
            continue;
        }
        if (const auto figure = figureOf(words[i])) {
            out.pieces.push_back({Piece::What::figure, *figure, words[i]});
            continue;
        }
        Figure* before = out.pieces.empty() || out.pieces.back().what != Piece::What::figure
                             ? nullptr
                             : &out.pieces.back().figure;
        if (before != nullptr && qualifies(*before, small)) {
            qualify(*before, small);
            continue;
        }
        const auto units = before != nullptr && bare(*before) ? unitsNamed(words[i]) : std::vector<Wanted>();
        const bool word =
            small == "in" || small == "to" || small == "times" || small == "ratio" || small == "swr";
        if (!units.empty() &&
            (!word || (small == "in" && i + 1 < words.size() && lowered(words[i + 1]) == "in"))) {
            const double number = before->meanings[0].value;
            before->text += " " + words[i];
            before->meanings.clear();
            for (const Wanted& unit : units) before->meanings.push_back({unit.kind, number * unit.scale});
            continue;
        }
        if (small == "awg" && i + 1 < words.size()) {
            if (const auto next = figureOf(words[i + 1]); next && bare(*next)) {
                out.pieces.push_back({Piece::What::figure,
                                      {"AWG " + words[i + 1], {{Kind::gauge, next->meanings[0].value}}},
                                      words[i]});
                ++i;
                continue;
            }
        }
        out.pieces.push_back({Piece::What::word, {}, small});
    }
    return out;
}

}  // namespace ombrek::sums
