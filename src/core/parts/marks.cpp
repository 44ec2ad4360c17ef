#include "core/parts/marks.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <span>

#include "core/parts/bands.h"
#include "core/parts/colour_words.h"
#include "core/quantity/preferred.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using Readings = std::vector<MarkReading>;

// IEC 60062: symmetrical B … N, and for capacitors only Q, T, S, Z.
constexpr std::array<ToleranceLetter, 18> kTolerances{{{'E', 0.005, 0.005},
                                                       {'L', 0.01, 0.01},
                                                       {'P', 0.02, 0.02},
                                                       {'W', 0.05, 0.05},
                                                       {'B', 0.1, 0.1},
                                                       {'C', 0.25, 0.25},
                                                       {'D', 0.5, 0.5},
                                                       {'F', 1, 1},
                                                       {'G', 2, 2},
                                                       {'H', 3, 3},
                                                       {'J', 5, 5},
                                                       {'K', 10, 10},
                                                       {'M', 20, 20},
                                                       {'N', 30, 30},
                                                       {'Q', 10, 30},
                                                       {'T', 10, 50},
                                                       {'S', 20, 50},
                                                       {'Z', 20, 80}}};

// IEC 60062: below 10 pF these letters are picofarads, not per cent.
struct SmallTolerance {
    char letter;
    double farad;
};
constexpr std::array<SmallTolerance, 4> kSmallTolerances{
    {{'B', 0.1e-12}, {'C', 0.25e-12}, {'D', 0.5e-12}, {'F', 1e-12}}};

// Rated-voltage letters on capacitors: a decade digit and a letter (common practice).
struct VoltageLetter {
    char letter;
    double volts;  ///< with decade digit 0
};
constexpr std::array<VoltageLetter, 13> kVoltages{{{'A', 1.0},
                                                   {'B', 1.25},
                                                   {'C', 1.6},
                                                   {'D', 2.0},
                                                   {'E', 2.5},
                                                   {'F', 3.15},
                                                   {'V', 3.5},
                                                   {'G', 4.0},
                                                   {'W', 4.5},
                                                   {'H', 5.0},
                                                   {'J', 6.3},
                                                   {'K', 8.0},
                                                   {'Z', 9.0}}};

// Letters of the three-character code for 1 % chip resistors, with their power of ten on three figures.
struct Eia96Letter {
    char letter;
    int exponent;
};
constexpr std::array<Eia96Letter, 12> kEia96{{{'Z', -3},
                                              {'Y', -2},
                                              {'R', -2},
                                              {'X', -1},
                                              {'S', -1},
                                              {'A', 0},
                                              {'B', 1},
                                              {'H', 1},
                                              {'C', 2},
                                              {'D', 3},
                                              {'E', 4},
                                              {'F', 5}}};

// Letters that stand for the decimal mark, by kind (IEC 60062; on chokes common practice).
struct DecimalLetter {
    char letter;
    PartKind kind;
    Unit unit;
    int exponent;
};
constexpr std::array<DecimalLetter, 19> kDecimals{{{'R', PartKind::resistor, Unit::ohm, 0},
                                                   {'K', PartKind::resistor, Unit::ohm, 3},
                                                   {'k', PartKind::resistor, Unit::ohm, 3},
                                                   {'M', PartKind::resistor, Unit::ohm, 6},
                                                   {'G', PartKind::resistor, Unit::ohm, 9},
                                                   {'T', PartKind::resistor, Unit::ohm, 12},
                                                   {'p', PartKind::capacitor, Unit::farad, -12},
                                                   {'n', PartKind::capacitor, Unit::farad, -9},
                                                   {'u', PartKind::capacitor, Unit::farad, -6},
                                                   {'m', PartKind::capacitor, Unit::farad, -3},
                                                   {'F', PartKind::capacitor, Unit::farad, 0},
                                                   {'P', PartKind::capacitor, Unit::farad, -12},
                                                   {'N', PartKind::capacitor, Unit::farad, -9},
                                                   {'U', PartKind::capacitor, Unit::farad, -6},
                                                   {'R', PartKind::inductor, Unit::henry, -6},
                                                   {'n', PartKind::inductor, Unit::henry, -9},
                                                   {'N', PartKind::inductor, Unit::henry, -9},
                                                   {'u', PartKind::inductor, Unit::henry, -6},
                                                   {'m', PartKind::inductor, Unit::henry, -3}}};

struct DigitCode {
    PartKind kind;
    Unit unit;
    int exponent;  ///< of the code's own unit
    std::string_view inUnit;
};
constexpr std::array<DigitCode, 3> kDigitCodes{{{PartKind::capacitor, Unit::farad, -12, "pF"},
                                                {PartKind::inductor, Unit::henry, -6, "µH"},
                                                {PartKind::resistor, Unit::ohm, 0, "Ω"}}};

// Powers that a mark can reach; division keeps 22·10^-12 the double nearest to what is written.
constexpr std::array<double, 23> kPowers{1e0,  1e1,  1e2,  1e3,  1e4,  1e5,  1e6,  1e7,
                                         1e8,  1e9,  1e10, 1e11, 1e12, 1e13, 1e14, 1e15,
                                         1e16, 1e17, 1e18, 1e19, 1e20, 1e21, 1e22};
double scaled(int figures, int exponent) {
    return exponent >= 0 ? figures * kPowers[std::size_t(exponent)]
                         : figures / kPowers[std::size_t(-exponent)];
}

bool allDigits(std::string_view text) {
    return !text.empty() && std::all_of(text.begin(), text.end(), isDigit);
}
int number(std::string_view digits) {
    int out = 0;
    for (const char c : digits) out = out * 10 + (c - '0');
    return out;
}

/// What stands behind the value: a tolerance letter and a rated voltage.
struct Trailing {
    const ToleranceLetter* tolerance = nullptr;
    std::optional<double> volts;
    std::optional<double> percent{};  ///< written out
};

void keep(MarkReading reading, const Trailing& trailing, Readings& out) {
    if (trailing.volts && reading.kind != PartKind::capacitor) return;
    reading.volts = trailing.volts;
    if (trailing.percent) reading.tolerancePercent = trailing.percent;
    if (const ToleranceLetter* letter = trailing.tolerance) {
        const bool sided = letter->low != letter->high;
        if (sided && reading.kind != PartKind::capacitor) return;
        reading.tolerancePercent = letter->high;
        if (sided) reading.toleranceLow = letter->low;
        if (reading.kind == PartKind::capacitor && reading.value < 9.999e-12) {
            for (const SmallTolerance& small : kSmallTolerances) {
                if (small.letter != letter->letter) continue;
                reading.toleranceOwn = small.farad;
                reading.tolerancePercent = 100 * small.farad / reading.value;
            }
        }
    }
    out.push_back(reading);
}

/// "104", "8201", "22": figures and a count of zeros; 8 and 9 as the third of three mean ×0.01 and ×0.1.
void readDigitCode(std::string_view code, const Trailing& trailing, Readings& out) {
    if (!allDigits(code) || code.size() > 4) return;
    for (const DigitCode& use : kDigitCodes) {
        if (code.size() == 4 && use.kind != PartKind::resistor) continue;
        if (code.size() < 3 && use.kind != PartKind::capacitor) continue;
        const bool plain = code.size() < 3;
        MarkReading r;
        r.kind = use.kind;
        r.unit = use.unit;
        r.figures = number(plain ? code : code.substr(0, code.size() - 1));
        if (r.figures == 0) continue;
        r.exponent = plain ? 0 : code.back() - '0';
        if (code.size() == 3 && r.exponent >= 8 && use.kind != PartKind::resistor) r.exponent -= 10;
        r.code = plain ? MarkCode::plainPicofarad
                       : (code.size() == 3 ? MarkCode::threeDigit : MarkCode::fourDigit);
        r.value = scaled(r.figures, r.exponent + use.exponent);
        keep(r, trailing, out);
    }
}

/// "4K7", "R47", "2n2", "p33": the letter stands where the decimal mark would.
void readLetterMark(std::string_view text, const Trailing& trailing, Readings& out) {
    const auto at = std::size_t(std::find_if_not(text.begin(), text.end(), isDigit) - text.begin());
    if (at == text.size() || text.size() > 5 || text.size() < 2) return;
    const std::string_view after = text.substr(at + 1);
    if (!after.empty() && !allDigits(after)) return;
    int figures = number(text.substr(0, at));
    for (const char c : after) figures = figures * 10 + (c - '0');
    if (figures == 0) return;
    for (const DecimalLetter& letter : kDecimals) {
        if (letter.letter != text[at]) continue;
        if (letter.letter == 'F' && after.empty()) continue;  // "104F" is 1 %, not 104 farads
        MarkReading r;
        r.kind = letter.kind;
        r.unit = letter.unit;
        r.code = MarkCode::letter;
        r.figures = figures;
        r.exponent = letter.exponent - int(after.size());
        r.value = scaled(figures, r.exponent);
        keep(r, trailing, out);
    }
}

/// "68X": the 68th value of E96 and a power of ten, 1 %.
void readEia96(std::string_view code, Readings& out) {
    if (code.size() != 3 || !isDigit(code[0]) || !isDigit(code[1])) return;
    static const std::vector<int> e96 = decadeOf(Series::e96);
    const int place = number(code.substr(0, 2));
    if (place < 1 || place > 96) return;
    for (const Eia96Letter& letter : kEia96) {
        if (letter.letter != code[2]) continue;
        MarkReading r;
        r.kind = PartKind::resistor;
        r.unit = Unit::ohm;
        r.tolerancePercent = 1;
        r.code = MarkCode::eia96;
        r.figures = e96[std::size_t(place - 1)];
        r.exponent = letter.exponent;
        r.value = scaled(r.figures, r.exponent);
        out.push_back(r);
    }
}

/// "1H" → 50 V, "2A" → 100 V.
std::optional<double> voltageCode(std::string_view two) {
    if (two.size() != 2 || two[0] < '0' || two[0] > '4') return std::nullopt;
    for (const VoltageLetter& v : kVoltages) {
        if (v.letter == two[1]) return v.volts * kPowers[std::size_t(two[0] - '0')];
    }
    return std::nullopt;
}

/// "50V", "1kV", "6.3V" as a rated voltage.
std::optional<double> writtenVolts(std::string_view text) {
    if (text.size() < 2 || text.size() > 6 || (text.back() != 'V' && text.back() != 'v')) return std::nullopt;
    const auto volts = parseQuantity(text, Unit::volt);
    if (!volts || !(volts->value > 0) || volts->value > 1e5) return std::nullopt;
    return volts->value;
}

/// Letters met behind two plain figures; the rarer ones need a whole code before them.
bool usual(const ToleranceLetter& t) {
    return std::string_view("BCDFGJKMZ").find(t.letter) != std::string::npos;
}

/// "104K" is a 10 % capacitor before it is 104 kΩ, but "470K" is 470 kΩ first.
bool unlikely(const MarkReading& r) {
    return r.code == MarkCode::letter && r.figures >= 100 && r.exponent >= 3 &&
           !isPreferred(r.figures, Series::e24);
}

/// A code, and behind it perhaps a tolerance letter and a voltage: "104", "104K", "104K1H", "104K100".
void readCode(std::string_view code, const Trailing& known, Readings& out) {
    if (code.empty() || code.size() > 8) return;
    readDigitCode(code, known, out);
    readLetterMark(code, known, out);
    if (!known.tolerance && !known.volts && !known.percent) readEia96(code, out);
    if (known.tolerance || known.percent || code.size() < 3) return;
    // The first letter with a whole value before it may be the tolerance; what follows is the voltage.
    for (std::size_t at = 1; at < code.size(); ++at) {
        const ToleranceLetter* letter = toleranceLetter(code[at]);
        if (letter == nullptr || at < 2 || (at < 3 && !usual(*letter))) continue;
        const std::string_view rest = code.substr(at + 1);
        Trailing trailing{letter, known.volts, known.percent};
        if (!rest.empty()) {
            if (known.volts) continue;
            trailing.volts = voltageCode(rest);
            if (!trailing.volts && allDigits(rest) && rest.size() >= 2 && at >= 3)
                trailing.volts = number(rest);
            if (!trailing.volts || !(*trailing.volts > 0)) continue;
        }
        const std::string_view value = code.substr(0, at);
        readDigitCode(value, trailing, out);
        readLetterMark(value, trailing, out);
    }
}

/// "10 µF 25 V", "100n 50V", "4.7 kΩ 5%".
void readWritten(std::string_view text, const Trailing& trailing, Readings& out) {
    static constexpr std::array<std::pair<PartKind, Unit>, 3> kinds{{{PartKind::capacitor, Unit::farad},
                                                                     {PartKind::resistor, Unit::ohm},
                                                                     {PartKind::inductor, Unit::henry}}};
    const auto value = parseQuantity(text);
    if (!value || !(value->value > 0)) return;
    for (const auto& [kind, unit] : kinds) {
        if (value->unit != unit) continue;
        MarkReading r;
        r.kind = kind;
        r.unit = unit;
        r.value = value->value;
        keep(r, trailing, out);
    }
}

/// A mark with what stands beside its code taken apart.
struct Cleaned {
    std::string code;
    std::optional<double> volts, percent;
    bool strange = false;  ///< a word that is neither: the mark is not understood
};

std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> out;
    std::string word;
    for (const char c : std::string(text) + ' ') {
        if (c != ' ' && c != '\t' && c != '\n' && c != '\r') {
            word += c;
        } else if (!word.empty()) {
            out.push_back(std::move(word));
            word.clear();
        }
    }
    return out;
}

bool isDecimal(std::string_view text) {
    return !text.empty() && text.find_first_not_of("0123456789.,") == std::string_view::npos &&
           isDigit(text[0]);
}

double decimal(std::string text) {
    std::replace(text.begin(), text.end(), ',', '.');
    const auto value = parseQuantity(text);
    return value ? value->value : NAN;
}

/// "5%", "±5%", "+/-5%".
std::optional<double> writtenPercent(std::string text) {
    for (const std::string_view sign : {"±", "+/-", "+-"}) {
        if (text.starts_with(sign)) text.erase(0, sign.size());
    }
    if (!text.ends_with('%') || !isDecimal(text.substr(0, text.size() - 1))) return std::nullopt;
    const double value = decimal(text.substr(0, text.size() - 1));
    return value > 0 && value <= 100 ? std::optional(value) : std::nullopt;
}

/// "1/4W", "0.25W", "1W": what a resistor bears says nothing of its value.
bool isWatts(std::string_view text) {
    if (text.size() < 2 || (text.back() != 'W' && text.back() != 'w')) return false;
    return text.substr(0, text.size() - 1).find_first_not_of("0123456789./,") == std::string_view::npos;
}

/// A unit or the letter of a tolerance behind a number of its own: "10 µF", "4.7 k", "104 K".
bool belongsBehind(std::string_view word) {
    if (word.size() == 1) return std::isalpha(static_cast<unsigned char>(word[0])) != 0;
    if (word.starts_with("µ") || word.starts_with("μ") || word.starts_with("Ω")) return true;
    if (std::string_view("pnumkMGPNU").find(word[0]) == std::string_view::npos)
        return word.starts_with("ohm") || word.starts_with("Ohm");
    const std::string_view rest = word.substr(1);
    return rest == "F" || rest == "f" || rest == "H" || rest == "h" || rest == "Ω" ||
           rest.starts_with("ohm") || rest.starts_with("Ohm");
}

Cleaned cleaned(std::string_view text) {
    Cleaned out;
    auto words = wordsOf(text);
    // "25 V", "5 %", "1/4 W": a number and its unit are one.
    for (std::size_t i = 0; i + 1 < words.size(); ++i) {
        const std::string& unit = words[i + 1];
        const bool number = words[i].find_first_not_of("0123456789./,±+-") == std::string::npos;
        if (!number || (unit != "V" && unit != "v" && unit != "%" && unit != "W" && unit != "w")) continue;
        words[i] += unit;
        words.erase(words.begin() + std::ptrdiff_t(i) + 1);
    }
    for (std::string word : words) {
        const auto volts = out.code.empty() ? std::nullopt : writtenVolts(word);
        if (isWatts(word) && !out.code.empty()) continue;
        if (const auto percent = writtenPercent(word); percent && !out.code.empty()) {
            out.percent = percent;
        } else if (volts) {
            out.volts = volts;
        } else if (out.code.empty()) {
            // "47µ/25", "100n/50V": behind the stroke its voltage; "1/2" is a fraction and no mark.
            if (const auto stroke = word.find('/'); stroke != std::string::npos) {
                const std::string behind = word.substr(stroke + 1);
                out.volts = isDecimal(behind) ? std::optional(decimal(behind)) : writtenVolts(behind);
                if (const auto percent = writtenPercent(behind)) out.percent = percent;
                const bool fraction = isDecimal(word.substr(0, stroke)) && word.substr(0, stroke).size() < 3;
                out.strange = fraction || (!out.volts && !out.percent && !isWatts(behind));
                word.erase(stroke);
            }
            for (std::size_t k = 0; k < word.size();) {
                if (word.compare(k, 2, "µ") == 0 || word.compare(k, 2, "μ") == 0) {
                    out.code.push_back('u');
                    k += 2;
                } else {
                    out.code.push_back(word[k++]);
                }
            }
        } else if (belongsBehind(word)) {
            if (word.starts_with("µ") || word.starts_with("μ")) word = "u" + word.substr(2);
            out.code += word;
        } else {
            out.strange = true;
        }
    }
    return out;
}

/// "100nF", "10UH", "22pF": with its unit written, which no tolerance letter is.
bool hasUnit(std::string_view code) {
    if (code.size() < 3) return false;
    const char unit = code.back(), prefix = code[code.size() - 2];
    return (unit == 'F' || unit == 'H') &&
           std::string_view("pnumPNU").find(prefix) != std::string_view::npos &&
           code.substr(0, code.size() - 2).find_first_not_of("0123456789.,") == std::string_view::npos;
}

/// Words of letters, other alphabets' among them, in English where they are colours of nine languages.
std::vector<std::string> colourWords(std::string_view text) {
    std::vector<std::string> out(1);
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if (std::isalpha(byte) != 0 || byte >= 0x80) {
            out.back().push_back(byte < 0x80 ? static_cast<char>(std::tolower(byte)) : c);
        } else if (!out.back().empty()) {
            out.emplace_back();
        }
    }
    if (out.back().empty()) out.pop_back();
    for (std::string& word : out) word = bandColourOf(word);
    return out;
}

bool mayBeColours(std::string_view text) {
    if (std::any_of(text.begin(), text.end(), isDigit)) return false;
    return text.size() >= 8;  // three of the shortest colour words
}

/// ".1", ".047K": a capacitor in microfarads (common practice; nobody prints ohms so).
void readPointMark(std::string_view code, Trailing known, Readings& out) {
    if (code.size() < 2 || code.size() > 6 || (code[0] != '.' && code[0] != ',')) return;
    if (const ToleranceLetter* letter = toleranceLetter(code.back()); letter != nullptr && !known.tolerance) {
        known.tolerance = letter;
        code.remove_suffix(1);
    }
    if (!allDigits(code.substr(1))) return;
    MarkReading r;
    r.kind = PartKind::capacitor;
    r.unit = Unit::farad;
    r.value = parseQuantity(std::string(code) + "u").value_or(Quantity{}).value;

    if (r.value > 0) keep(r, known, out);
}

void readPrinted(std::string_view text, Readings& out) {
    Cleaned mark = cleaned(text);
    if (mark.strange || mark.code.empty() || mark.code.size() > 16) return;
    Trailing trailing;
    trailing.volts = mark.volts;
    trailing.percent = mark.percent;
    if (hasUnit(mark.code)) {
        char& prefix = mark.code[mark.code.size() - 2];
        prefix = char(std::tolower(static_cast<unsigned char>(prefix)));
        return readWritten(mark.code, trailing, out);
    }
    readPointMark(mark.code, trailing, out);
    readCode(mark.code, trailing, out);
    std::stable_partition(out.begin(), out.end(), [](const MarkReading& r) { return !unlikely(r); });
    if (mark.code.size() > 4 && !trailing.volts) {  // "1H104K": the voltage first
        if (const auto volts = voltageCode(std::string_view(mark.code).substr(0, 2))) {
            trailing.volts = volts;
            readCode(std::string_view(mark.code).substr(2), trailing, out);
        }
    }
    if (out.empty()) {
        trailing.volts = mark.volts;
        readWritten(mark.code, trailing, out);
    }
}

}  // namespace

const ToleranceLetter* toleranceLetter(char letter) {
    const auto hit = std::find_if(kTolerances.begin(), kTolerances.end(),
                                  [&](const ToleranceLetter& t) { return t.letter == letter; });
    return hit == kTolerances.end() ? nullptr : &*hit;
}

std::vector<MarkReading> readMark(std::string_view text, std::optional<PartKind> kind) {
    Readings out;
    if (text.size() > 80) return out;
    out.reserve(6);
    if (mayBeColours(text)) {
        const auto names = colourWords(text);
        out = readBands(names);
        const auto chokes = readBands(names, PartKind::inductor);
        out.insert(out.end(), chokes.begin(), chokes.end());
    }
    if (out.empty()) readPrinted(text, out);
    if (kind) std::erase_if(out, [&](const MarkReading& r) { return r.kind != *kind; });
    return out;
}

std::string toleranceText(const MarkReading& r) {
    if (r.toleranceOwn) return "±" + formatQuantity(*r.toleranceOwn, r.unit, 2);
    if (!r.tolerancePercent) return "";
    if (r.toleranceLow)
        return "−" + personNumber(*r.toleranceLow) + "/+" + personNumber(*r.tolerancePercent) + "\u202f%";
    return "±" + personNumber(*r.tolerancePercent) + "\u202f%";
}

std::string meaning(const MarkReading& r) {
    const auto powerOfTen = [&] { return std::to_string(r.figures) + " × 10^" + std::to_string(r.exponent); };
    const auto own = std::find_if(kDigitCodes.begin(), kDigitCodes.end(),
                                  [&](const DigitCode& code) { return code.kind == r.kind; });
    const std::string inUnit = own == kDigitCodes.end() ? "" : std::string(own->inUnit);
    std::string out;
    switch (r.code) {
        case MarkCode::plainPicofarad:
            out = "two figures, plainly in pF";
            break;
        case MarkCode::threeDigit:
            out = "three-digit code in " + inUnit + ": " + powerOfTen();
            break;
        case MarkCode::fourDigit:
            out = "four-digit code in " + inUnit + ": " + powerOfTen();
            break;
        case MarkCode::eia96:
            out = "three-character code of E96: " + powerOfTen();
            break;
        case MarkCode::letter:
            out = "letter for the decimal mark";
            break;
        case MarkCode::bands:
            out = std::to_string(r.bands) + " colour bands in " + inUnit + ": " + powerOfTen();
            if (r.otherEnd) out += ", read from the other end";
            break;
        case MarkCode::written:
            out = "written out";
            break;
    }
    if (const std::string tolerance = toleranceText(r); !tolerance.empty()) out += ", " + tolerance;
    if (r.volts) out += ", " + formatQuantity(*r.volts, Unit::volt, 3);
    if (r.drift) out += ", " + personNumber(*r.drift) + " ppm/K";
    return out;
}

}  // namespace ombrek
