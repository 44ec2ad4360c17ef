#include "core/quantity/quantity.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/text/enumerators.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

struct UnitRow {
    Unit unit;
    std::string_view symbol;
    std::string_view plural;
    bool prefixed;
};

constexpr std::array<UnitRow, 16> kUnits{{
    {Unit::none, "", "a plain number", true},
    {Unit::ohm, "Ω", "ohms", true},
    {Unit::farad, "F", "farads", true},
    {Unit::henry, "H", "henries", true},
    {Unit::volt, "V", "volts", true},
    {Unit::ampere, "A", "amperes", true},
    {Unit::watt, "W", "watts", true},
    {Unit::hertz, "Hz", "hertz", true},
    {Unit::metre, "m", "metres", true},
    {Unit::second, "s", "seconds", true},
    {Unit::celsius, "°C", "degrees Celsius", false},
    {Unit::percent, "%", "per cent", false},
    {Unit::decibel, "dB", "decibels", false},
    {Unit::dbm, "dBm", "dBm", false},
    {Unit::ppm, "ppm", "parts per million", false},
    {Unit::degree, "°", "degrees", false},
}};

static_assert(kUnits.size() == enumerators<Unit>());
const UnitRow& row(Unit unit) { return kUnits[static_cast<std::size_t>(unit)]; }

struct Spelling {
    std::string_view text;
    Unit unit;
};
/// Longest first, so that "dBm" is not read as "dB" and a stray "m".
constexpr std::array<Spelling, 26> kSpellings{{
    {"ohms", Unit::ohm},   {"ohm", Unit::ohm},    {"Ohm", Unit::ohm},   {"OHM", Unit::ohm},
    {"Ω", Unit::ohm},      {"\u2126", Unit::ohm}, {"dBm", Unit::dbm},   {"dbm", Unit::dbm},
    {"dB", Unit::decibel}, {"db", Unit::decibel}, {"ppm", Unit::ppm},   {"°C", Unit::celsius},
    {"°", Unit::degree},   {"deg", Unit::degree}, {"%", Unit::percent}, {"Hz", Unit::hertz},
    {"hz", Unit::hertz},   {"HZ", Unit::hertz},   {"F", Unit::farad},   {"H", Unit::henry},
    {"V", Unit::volt},     {"A", Unit::ampere},   {"W", Unit::watt},    {"m", Unit::metre},
    {"s", Unit::second},   {"R", Unit::ohm},
}};

struct Prefix {
    std::string_view text;
    int exponent;
};
constexpr std::array<Prefix, 12> kPrefixes{{{"p", -12},
                                            {"n", -9},
                                            {"u", -6},
                                            {"µ", -6},
                                            {"μ", -6},
                                            {"m", -3},
                                            {"k", 3},
                                            {"K", 3},
                                            {"M", 6},
                                            {"G", 9},
                                            {"R", 0},
                                            {"f", -15}}};

/// What people write between digits and unit: thin, narrow, figure and no-break spaces.
constexpr std::array<std::string_view, 5> kSpaces{"\u2009", "\u202f", "\u2007", "\u00a0", "\u200a"};

char personsMark = '.';  // see writeDecimalsWith

/// Whether a blank parts thousands, "14 060", and not two numbers, "104 50V": three figures follow.
bool partsThousands(std::string_view text, std::size_t blank, bool behindFigures) {
    std::size_t at = blank;
    while (at < text.size() && (text[at] == ' ' || text[at] == '\t')) ++at;
    std::size_t figures = 0;
    while (at + figures < text.size() && isDigit(text[at + figures])) ++figures;
    return figures == 0 || (figures == 3 && behindFigures);
}

std::string stripped(std::string_view text) {
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        const auto rest = text.substr(i);
        const auto space = std::find_if(kSpaces.begin(), kSpaces.end(),
                                        [&](std::string_view each) { return rest.starts_with(each); });
        if (space != kSpaces.end()) {
            i += space->size();
        } else if (text[i] == ' ' || text[i] == '\t' || text[i] == '\r' || text[i] == '\n') {
            // Two numbers stay two: nothing is read then.
            const bool number = std::any_of(out.begin(), out.end(), isDigit);
            if (number && !partsThousands(text, i, isDigit(out.back()))) out.push_back(' ');
            ++i;
        } else {
            out.push_back(text[i++]);
        }
    }
    return out;
}

const Prefix* prefixAt(std::string_view text) {
    const auto hit = std::find_if(kPrefixes.begin(), kPrefixes.end(),
                                  [&](const Prefix& p) { return text.starts_with(p.text); });
    return hit == kPrefixes.end() ? nullptr : &*hit;
}

std::optional<Unit> unitSpelled(std::string_view text) {
    const auto hit =
        std::find_if(kSpellings.begin(), kSpellings.end(), [&](const Spelling& s) { return s.text == text; });
    if (hit == kSpellings.end()) return std::nullopt;
    return hit->unit;
}

struct Tail {
    int exponent = 0;
    std::optional<Unit> unit;
};

/// What follows the digits: nothing, a prefix, a unit, or a prefix and a unit.
std::optional<Tail> readTail(std::string_view text, Unit expected) {
    if (text.empty()) return Tail{};
    const bool metresMeant = text == "m" && expected == Unit::metre;
    if (text != "m" || metresMeant) {
        if (const auto unit = unitSpelled(text)) return Tail{0, unit};
    }
    const Prefix* prefix = prefixAt(text);
    if (prefix == nullptr || prefix->text == "R") return std::nullopt;
    const auto rest = text.substr(prefix->text.size());
    if (rest.empty()) return Tail{prefix->exponent, std::nullopt};
    if (const auto unit = unitSpelled(rest)) return Tail{prefix->exponent, unit};
    return std::nullopt;
}

/// Digits with at most one decimal mark, which may be a prefix letter ("4k7"), and an optional exponent.
struct Digits {
    std::string number;  ///< with a point
    const Prefix* infix = nullptr;
    std::size_t length = 0;  ///< bytes of text used
};

std::optional<Digits> readDigits(std::string_view text) {
    Digits out;
    std::size_t i = 0;
    if (i < text.size() && (text[i] == '-' || text[i] == '+')) {
        if (text[i] == '-') out.number.push_back('-');
        ++i;
    }
    bool mark = false, any = false;
    while (i < text.size()) {
        if (isDigit(text[i])) {
            out.number.push_back(text[i++]);
            any = true;
            continue;
        }
        if ((text[i] == '.' || text[i] == ',') && mark) return std::nullopt;
        const Prefix* prefix = prefixAt(text.substr(i));
        const bool point = text[i] == '.' || text[i] == ',';
        const std::size_t width = point ? 1 : (prefix ? prefix->text.size() : 0);
        const bool digitFollows = width && i + width < text.size() && isDigit(text[i + width]);
        if (!mark && (point || (prefix && digitFollows))) {
            if (!any) out.number.push_back('0');
            out.number.push_back('.');
            if (!point) out.infix = prefix;
            mark = true;
            i += width;
            continue;
        }
        break;
    }
    const bool exponent = any && !out.infix && i + 1 < text.size() && (text[i] == 'e' || text[i] == 'E') &&
                          (isDigit(text[i + 1]) || ((text[i + 1] == '-' || text[i + 1] == '+') &&
                                                    i + 2 < text.size() && isDigit(text[i + 2])));
    if (exponent) {
        out.number.push_back('e');
        ++i;
        if (text[i] == '+') ++i;
        if (text[i] == '-') out.number.push_back(text[i++]);
        while (i < text.size() && isDigit(text[i])) out.number.push_back(text[i++]);
    }
    if (!any) return std::nullopt;
    out.length = i;
    return out;
}

/// value·10^exponent read as decimal text, so that "0.1u" is the double nearest to 1e-7.
std::optional<double> scaled(const std::string& number, int exponent) {
    const auto e = number.find('e');
    int power = exponent;
    if (e != std::string::npos) {
        int own = 0;
        const auto [end, error] = std::from_chars(number.data() + e + 1, number.data() + number.size(), own);
        if (error != std::errc{} || own > 400 || own < -400) return std::nullopt;
        power += own;
    }
    const std::string text = number.substr(0, e) + "e" + std::to_string(power);
    double value = 0.0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc{} || end != text.data() + text.size() || !std::isfinite(value))
        return std::nullopt;
    return value;
}

tl::unexpected<Problem> unreadable(std::string_view text, Unit expected) {
    const std::string shown(text.substr(0, 40));
    const std::string want = expected == Unit::none ? "a value such as 4k7, 100n or 21.06 MHz"
                                                    : "a value in " + std::string(plural(expected));
    return problem("", "\"" + shown + "\" is not " + want + ".");
}

}  // namespace

std::string_view symbol(Unit unit) { return row(unit).symbol; }
std::string_view plural(Unit unit) { return row(unit).plural; }

Result<Quantity> parseQuantity(std::string_view text, Unit expected) {
    if (text.size() > 64) return unreadable(text, expected);
    const std::string body = stripped(text);
    const auto digits = readDigits(body);
    if (!digits) return unreadable(text, expected);
    const auto rest = std::string_view(body).substr(digits->length);
    const auto tail = readTail(rest, expected);
    if (!tail) return unreadable(text, expected);
    if (digits->infix && tail->exponent != 0) return unreadable(text, expected);

    int exponent = tail->exponent;
    Unit unit = tail->unit.value_or(expected);
    if (digits->infix) {
        exponent = digits->infix->exponent;
        if (digits->infix->text == "R" && !tail->unit) unit = Unit::ohm;
    }
    const bool named = tail->unit || (digits->infix && digits->infix->text == "R");
    if (named && expected != Unit::none && unit != expected) {
        return problem("", "\"" + std::string(text) + "\" is in " + std::string(plural(unit)) + "; wanted " +
                               std::string(plural(expected)) + ".");
    }
    const auto value = scaled(digits->number, exponent);
    if (!value) return unreadable(text, expected);
    return Quantity{*value, unit};
}

namespace {

/// Digits with a point whatever the locale says.
std::string withDecimals(double value, int places) {
    char buffer[400];  // the largest double has 309 digits before the point
    const auto [end, error] =
        std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::fixed, places);
    return error == std::errc{} ? std::string(buffer, end) : std::string("nan");
}

std::string forPerson(std::string number) {
    std::replace(number.begin(), number.end(), '.', personsMark);
    return number;
}

std::string withoutMinusZero(std::string number) {
    if (number.starts_with('-') && number.find_first_not_of("-0.") == std::string::npos) number.erase(0, 1);
    return number;
}

std::string fixedDigits(double value, int digits, Zeros zeros) {
    const int whole = value == 0.0 ? 1 : static_cast<int>(std::floor(std::log10(std::fabs(value)))) + 1;
    std::string out = withDecimals(value, std::clamp(digits - whole, 0, 15));
    if (zeros == Zeros::drop && out.find('.') != std::string::npos) {
        out.erase(out.find_last_not_of('0') + 1);
        if (out.back() == '.') out.pop_back();
    }
    return forPerson(withoutMinusZero(std::move(out)));
}

double roundedTo(double value, int digits) {
    if (value == 0.0) return 0.0;
    char buffer[64];
    const auto [end, error] =
        std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::scientific, digits - 1);
    double out = value;
    if (error == std::errc{}) std::from_chars(buffer, end, out);
    return out;
}

}  // namespace

SplitText splitQuantity(double value, Unit unit, int digits, Zeros zeros) {
    digits = std::clamp(digits, 1, 12);
    if (!std::isfinite(value)) return {"–", std::string(symbol(unit))};
    value = roundedTo(value, digits);
    if (!row(unit).prefixed || value == 0.0)
        return {fixedDigits(value, digits, zeros), std::string(symbol(unit))};

    // Femto is read but not written: the trade says 0.5 pF.
    static constexpr std::array<std::string_view, 8> letters{"p", "n", "µ", "m", "", "k", "M", "G"};
    // The tiny term keeps 1000.0 (log10 a hair under 3) in the kilo range.
    int step = static_cast<int>(std::floor(std::log10(std::fabs(value)) / 3.0 + 1e-12));
    step = std::clamp(step, -4, 3);
    const double mantissa = roundedTo(value / std::pow(10.0, 3 * step), digits);
    return {fixedDigits(mantissa, digits, zeros),
            std::string(letters[static_cast<std::size_t>(step + 4)]) + std::string(symbol(unit))};
}

std::string formatQuantity(double value, Unit unit, int digits, Zeros zeros) {
    const SplitText text = splitQuantity(value, unit, digits, zeros);
    if (text.unit.empty()) return text.number;
    if (unit == Unit::none || unit == Unit::degree) return text.number + text.unit;
    return text.number + "\u202f" + text.unit;
}

std::string plainNumber(double value) {
    char buffer[40];
    const auto [end, error] = std::to_chars(buffer, buffer + sizeof buffer, value);
    return error == std::errc{} ? std::string(buffer, end) : std::string("nan");
}

std::string personNumber(double value) { return forPerson(plainNumber(value)); }

std::string decimals(double value, int places, bool plus) {
    if (!std::isfinite(value)) return "–";
    std::string out = withoutMinusZero(withDecimals(value, places));
    if (plus && !out.starts_with('-')) out.insert(0, "+");
    return forPerson(std::move(out));
}

void writeDecimalsWith(char with) { personsMark = with; }
char decimalMark() { return personsMark; }

}  // namespace ombrek
