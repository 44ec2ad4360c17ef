#include "core/parts/marks.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

#include "core/quantity/preferred.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, 10> kKindWords{
    "resistor", "capacitor", "inductor", "diode", "transistor", "ic", "crystal", "coil", "trimmer", "other"};

// IEC 60062: digit, multiplier exponent and tolerance of each colour; -99 and a negative tolerance mean
// "none".
struct Colour {
    std::string_view name;
    int digit;
    int exponent;
    double tolerance;
};
constexpr int kNoDigit = -99;
constexpr std::array<Colour, 13> kColours{{{"black", 0, 0, -1},
                                           {"brown", 1, 1, 1},
                                           {"red", 2, 2, 2},
                                           {"orange", 3, 3, 0.05},
                                           {"yellow", 4, 4, 0.02},
                                           {"green", 5, 5, 0.5},
                                           {"blue", 6, 6, 0.25},
                                           {"violet", 7, 7, 0.1},
                                           {"grey", 8, 8, 0.05},
                                           {"white", 9, 9, -1},
                                           {"gold", kNoDigit, -1, 5},
                                           {"silver", kNoDigit, -2, 10},
                                           {"pink", kNoDigit, -3, -1}}};

const Colour* colourNamed(std::string_view name) {
    if (name == "gray") name = "grey";
    if (name == "purple") name = "violet";
    const auto hit =
        std::find_if(kColours.begin(), kColours.end(), [&](const Colour& c) { return c.name == name; });
    return hit == kColours.end() ? nullptr : &*hit;
}

struct Letter {
    char letter;
    double percent;
};
constexpr std::array<Letter, 9> kToleranceLetters{
    {{'B', 0.1}, {'C', 0.25}, {'D', 0.5}, {'F', 1}, {'G', 2}, {'J', 5}, {'K', 10}, {'M', 20}, {'Z', 80}}};

std::optional<double> toleranceLetter(char letter) {
    for (const Letter& row : kToleranceLetters) {
        if (row.letter == letter) return row.percent;
    }
    return std::nullopt;
}

double powerOfTen(int exponent) { return std::pow(10.0, exponent); }

/// 0.1 % of rounding noise is taken out so that 22·10^-12 prints and compares as typed.
double scaledDigits(int digits, int exponent) {
    return exponent >= 0 ? digits * powerOfTen(exponent) : digits / powerOfTen(-exponent);
}

std::optional<MarkReading> bandsOneWay(const std::vector<const Colour*>& bands) {
    const std::size_t figures = bands.size() >= 5 ? 3 : 2;
    int digits = 0;
    for (std::size_t i = 0; i < figures; ++i) {
        if (bands[i]->digit == kNoDigit) return std::nullopt;
        digits = digits * 10 + bands[i]->digit;
    }
    if (bands[0]->digit == 0) return std::nullopt;
    double tolerance = 20.0;
    if (bands.size() > figures + 1) {
        tolerance = bands[figures + 1]->tolerance;
        if (tolerance < 0) return std::nullopt;
    }
    const double value = scaledDigits(digits, bands[figures]->exponent);
    return MarkReading{PartKind::resistor, value, Unit::ohm, tolerance,
                       std::to_string(bands.size()) + " colour bands: " + std::to_string(digits) +
                           " and × 10^" + std::to_string(bands[figures]->exponent)};
}

std::vector<std::string> words(std::string_view text) {
    std::vector<std::string> out(1);
    for (const char c : text) {
        if (std::isalpha(static_cast<unsigned char>(c))) {
            out.back().push_back(static_cast<char>(std::tolower(static_cast<unsigned char>(c))));
        } else if (!out.back().empty()) {
            out.emplace_back();
        }
    }
    if (out.back().empty()) out.pop_back();
    return out;
}

bool allDigits(std::string_view text) {
    return !text.empty() &&
           std::all_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}

struct CodeUse {
    PartKind kind;
    Unit unit;
    int exponent;  ///< of the code's own unit: pF, µH, Ω
    std::string_view inUnit;
};
constexpr std::array<CodeUse, 3> kThreeDigitUses{{{PartKind::capacitor, Unit::farad, -12, "pF"},
                                                  {PartKind::inductor, Unit::henry, -6, "µH"},
                                                  {PartKind::resistor, Unit::ohm, 0, "Ω"}}};

/// "104", "8201", "22": figures and a count of zeros; 8 and 9 as the third of three mean ×0.01 and ×0.1.
void readDigitCode(std::string_view code, std::optional<double> tolerance, std::vector<MarkReading>& out) {
    if (!allDigits(code) || code.size() > 4 || code.empty()) return;
    const int last = code.back() - '0';
    for (const CodeUse& use : kThreeDigitUses) {
        if (code.size() == 4 && use.kind != PartKind::resistor) continue;
        if (code.size() < 3 && use.kind != PartKind::capacitor) continue;
        const int figures = std::stoi(std::string(code.size() < 3 ? code : code.substr(0, code.size() - 1)));
        int zeros = code.size() < 3 ? 0 : last;
        if (code.size() == 3 && last >= 8 && use.kind == PartKind::capacitor) zeros = last - 10;
        if (figures == 0) continue;
        std::string meaning = code.size() < 3
                                  ? "two figures, plainly in pF"
                                  : (code.size() == 3 ? "three-digit code in " : "four-digit code in ") +
                                        std::string(use.inUnit) + ": " + std::to_string(figures) + " × 10^" +
                                        std::to_string(zeros);
        out.push_back({use.kind, scaledDigits(figures, zeros + use.exponent), use.unit, tolerance, meaning});
    }
}

/// "4K7", "R47", "2n2", "p33": the letter stands where the decimal mark would.
void readLetterMark(const std::string& text, std::optional<double> tolerance, std::vector<MarkReading>& out) {
    const auto letter =
        std::find_if(text.begin(), text.end(), [](char c) { return std::isalpha((unsigned char)c); });
    if (letter == text.end()) return;
    const std::string letters = "RKkMpnu";
    if (letters.find(*letter) == std::string::npos) return;
    const std::string digits =
        text.substr(0, std::size_t(letter - text.begin())) + std::string(letter + 1, text.end());
    if (!allDigits(digits) || digits.size() > 4) return;
    const auto quantity = parseQuantity(*letter == 'R' && letter + 1 == text.end() ? digits : text);
    if (!quantity || quantity->value <= 0) return;
    const bool ohms = std::string("RKkM").find(*letter) != std::string::npos;
    if (ohms) {
        out.push_back(
            {PartKind::resistor, quantity->value, Unit::ohm, tolerance, "letter for the decimal mark"});
    } else {
        out.push_back(
            {PartKind::capacitor, quantity->value, Unit::farad, tolerance, "letter for the decimal mark"});
    }
}

bool e24Like(const MarkReading& reading) {
    return isPreferred(reading.value, Series::e24) || isPreferred(reading.value, Series::e96);
}

}  // namespace

std::string_view word(PartKind kind) { return kKindWords[static_cast<std::size_t>(kind)]; }

std::optional<PartKind> partKind(std::string_view word) {
    const auto hit = std::find(kKindWords.begin(), kKindWords.end(), word);
    if (hit == kKindWords.end()) return std::nullopt;
    return static_cast<PartKind>(hit - kKindWords.begin());
}

std::vector<MarkReading> readBands(const std::vector<std::string>& colours) {
    std::vector<MarkReading> out;
    if (colours.size() < 3 || colours.size() > 6) return out;
    std::vector<const Colour*> bands;
    for (const std::string& name : colours) {
        const Colour* colour = colourNamed(name);
        if (colour == nullptr) return out;
        bands.push_back(colour);
    }
    if (const auto forward = bandsOneWay(bands)) out.push_back(*forward);
    std::reverse(bands.begin(), bands.end());
    if (auto backward = bandsOneWay(bands)) {
        backward->meaning += ", read from the other end";
        if (out.empty() || std::fabs(backward->value / out[0].value - 1) > 1e-9) out.push_back(*backward);
    }
    std::stable_partition(out.begin(), out.end(), e24Like);
    return out;
}

std::vector<MarkReading> readMark(std::string_view text, std::optional<PartKind> kind) {
    std::vector<MarkReading> out;
    const auto names = words(text);
    if (!names.empty() && colourNamed(names[0]) != nullptr) {
        out = readBands(names);
    } else {
        std::string code;
        for (const char c : text) {
            if (!std::isspace(static_cast<unsigned char>(c))) code.push_back(c);
        }
        if (code.empty() || code.size() > 8) return out;
        readDigitCode(code, std::nullopt, out);
        readLetterMark(code, std::nullopt, out);
        const auto tolerance = toleranceLetter(code.back());
        if (tolerance && code.size() > 2) {
            code.pop_back();
            readDigitCode(code, tolerance, out);
            if (code.find_first_of("RKkMpnu") != std::string::npos) readLetterMark(code, tolerance, out);
        }
    }
    if (kind) std::erase_if(out, [&](const MarkReading& r) { return r.kind != *kind; });
    return out;
}

std::vector<std::string> bandsFor(double ohms, double tolerancePercent) {
    if (!(ohms >= 0.1) || ohms >= 1e10) return {};
    int exponent = static_cast<int>(std::floor(std::log10(ohms) + 1e-9)) - 1;
    const int digits = static_cast<int>(std::lround(ohms / powerOfTen(exponent)));
    if (std::fabs(scaledDigits(digits, exponent) / ohms - 1) > 1e-6) return {};
    std::vector<std::string> out{std::string(kColours[std::size_t(digits / 10)].name),
                                 std::string(kColours[std::size_t(digits % 10)].name)};
    for (const Colour& colour : kColours) {
        if (colour.exponent == exponent) out.emplace_back(colour.name);
    }
    for (const Colour& colour : kColours) {
        if (colour.tolerance == tolerancePercent) {
            out.emplace_back(colour.name);
            break;
        }
    }
    return out;
}

}  // namespace ombrek
