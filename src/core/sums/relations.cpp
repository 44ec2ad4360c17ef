#include "core/sums/relations.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>
#include <sstream>

namespace ombrek::sums {
namespace {

constexpr double kMust = std::numeric_limits<double>::quiet_NaN();
constexpr double kPi = std::numbers::pi;
constexpr double kLight = 299792458.0;  ///< m/s, exact by definition (SI)
constexpr const char* kOhm = "Ohm's law";
constexpr const char* kSine = "power of a sine";
constexpr const char* kDefinition = "definition";
constexpr const char* kReactance = "definition of reactance";
constexpr const char* kThomson = "resonance of a lossless circuit (Thomson)";
constexpr const char* kSwr = "definition of the standing wave ratio";
constexpr const char* kAwg = "ASTM B258";

double volts(double watts, double ohms, double factor) { return std::sqrt(factor * watts * ohms); }
double wattsOf(double dbm) { return 1e-3 * std::pow(10, dbm / 10); }
double square(double x) { return x * x; }
double gamma(double swr) { return (swr - 1) / (swr + 1); }
double swrOf(double gamma) { return gamma < 1 ? (1 + gamma) / (1 - gamma) : NAN; }
double reflection(double db) { return std::pow(10, -db / 20); }
double larger(const double* x) { return std::max(x[0], x[1]); }
double smaller(const double* x) { return std::min(x[0], x[1]); }

std::vector<std::string> parted(std::string_view text, char at) {
    std::vector<std::string> out;
    std::istringstream in{std::string(text)};
    for (std::string part; std::getline(in, part, at);) {
        if (!part.empty()) out.push_back(part);
    }
    return out;
}

/// Words that say nothing of what is asked.
constexpr std::string_view kFiller =
    " of at on the a an for with and from is are what what's whats how much many into across to in by "
    "through between it "
    "have does do give gives need needs needed want i my its : , across over behind out if then per given "
    "has as makes "
    "make using takes value find get be will would than when running load drawn draws calculate vs versus ";

bool filler(const std::string& word) { return kFiller.find(" " + word + " ") != std::string_view::npos; }

struct Group {
    char must;  ///< 0: wanted, '?' or '!'
    std::vector<std::string> words;
};
std::vector<Group> groupsOf(const Relation& row) {
    std::vector<Group> out;
    for (std::string part : parted(row.words, ' ')) {
        const char must = part[0] == '?' || part[0] == '!' ? part[0] : '\0';
        out.push_back({must, parted(must != '\0' ? part.substr(1) : part, '|')});
    }
    return out;
}

bool holds(const std::vector<std::string>& words, const std::string& word) {
    return std::find(words.begin(), words.end(), word) != words.end();
}

bool wordsFit(const Relation& row, const Sentence& sentence) {
    const auto groups = groupsOf(row);
    std::vector<bool> met(groups.size());
    for (const Piece& piece : sentence.pieces) {
        if (piece.what != Piece::What::word) continue;
        bool known = false;
        for (std::size_t i = 0; i < groups.size(); ++i) {
            if (!holds(groups[i].words, piece.text)) continue;
            met[i] = known = true;
        }
        if (!known && !filler(piece.text)) return false;
    }
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const bool may = groups[i].must == '?' || (groups[i].must == '!' && !sentence.wanted.empty());
        if (!met[i] && !may) return false;
    }
    return true;
}

/// The figures laid to what the row takes, and how far they were strained; nothing: one is left or missing.
struct Laid {
    std::vector<double> values;
    std::vector<std::string> texts;
    int strain = 0;
};
std::optional<Laid> lay(const Relation& row, const Sentence& sentence) {
    Laid out;
    std::vector<bool> taken(row.given.size());
    for (const Given& given : row.given) {
        out.values.push_back(given.otherwise);
        out.texts.push_back(std::isnan(given.otherwise) ? "" : kindText(given.kind, given.otherwise));
    }
    for (const Piece& piece : sentence.pieces) {
        if (piece.what != Piece::What::figure) continue;
        bool used = false;
        for (std::size_t m = 0; m < piece.figure.meanings.size() && !used; ++m) {
            const Meaning& meaning = piece.figure.meanings[m];
            for (std::size_t i = 0; i < row.given.size() && !used; ++i) {
                if (taken[i] || row.given[i].kind != meaning.kind) continue;
                taken[i] = used = true;
                out.values[i] = meaning.value;
                out.texts[i] = kindText(meaning.kind, meaning.value, 6);
                out.strain += int(m);
            }
        }
        if (!used) return std::nullopt;
    }
    for (std::size_t i = 0; i < taken.size(); ++i) {
        if (!taken[i] && std::isnan(row.given[i].otherwise)) return std::nullopt;
    }
    return out;
}

/// The unit that is wanted of this result; null: another is. Nothing wanted: any will do.
const Wanted* wantedOf(const Relation& row, const Sentence& sentence, bool& fits) {
    fits = sentence.wanted.empty();
    for (const Wanted& wanted : sentence.wanted) {
        const bool volt = wanted.kind == Kind::volt && row.result == Kind::voltRms;
        if (wanted.kind != row.result && !volt) continue;
        fits = true;
        return &wanted;
    }
    return nullptr;
}

/// The result as its unit was asked for: "35.05 ft", else with a prefix of its own.
std::string resultText(const Relation& row, double value, const Wanted* wanted) {
    const bool odd = wanted != nullptr && wanted->scale != 1 && row.result == Kind::metre;
    if (!odd) return kindText(row.result, value);
    const double number = value / wanted->scale;
    const int whole = number == 0 ? 1 : int(std::floor(std::log10(std::fabs(number)))) + 1;
    return decimals(number, std::clamp(4 - whole, 0, 9)) + "\u202f" + wanted->text;
}

SumAnswer answered(const Relation& row, const Laid& laid, double value, const Wanted* wanted) {
    std::string put, meaning = row.meaning;
    for (std::size_t i = 0; i < row.given.size(); ++i) {
        put += (put.empty() ? "" : ", ") + std::string(row.given[i].letter) + " = " + laid.texts[i];
        const bool taken = !std::isnan(row.given[i].otherwise);
        if (taken && row.given[i].kind == Kind::ohm) meaning += " at " + laid.texts[i];
    }
    const std::string text = resultText(row, value, wanted);
    return {meaning, value, unitOf(row.result), text, {{{row.formula, put, text}}, row.source}};
}

}  // namespace

const std::vector<Relation>& relations() {
    using K = Kind;
    const Given P{"P", K::watt, kMust}, L{"level", K::dbm, kMust}, R50{"R", K::ohm, 50},
        R{"R", K::ohm, kMust};
    const Given U{"U", K::volt, kMust}, I{"I", K::ampere, kMust}, f{"f", K::hertz, kMust};
    const Given C{"C", K::farad, kMust}, H{"L", K::henry, kMust}, s{"SWR", K::ratio, kMust},
        n{"s", K::number, kMust};
    const Given db{"a", K::decibel, kMust}, N{"N", K::turns, kMust};
    static const std::vector<Relation> kRows{
        // Level, power and volts.
        {"level of a power",
         "?level|power",
         {P},
         K::dbm,
         "10·log10(P/1 mW)",
         [](const double* x) { return x[0] > 0 ? 10 * std::log10(x[0] / 1e-3) : NAN; },
         "definition of dBm",
         "5 W in dBm = 36.99 dBm"},
        {"power of a level",
         "?level|power",
         {L},
         K::watt,
         "1 mW · 10^(dBm/10)",
         [](const double* x) { return wattsOf(x[0]); },
         "definition of dBm",
         "37 dBm in W = 5.012 W"},
        {"peak-to-peak of a power",
         "?volts|voltage|peak|power",
         {P, R50},
         K::voltPeakToPeak,
         "√(8·R·P)",
         [](const double* x) { return volts(x[0], x[1], 8); },
         kSine,
         "5 W in Vpp = 44.72 V peak-to-peak"},
        {"rms of a power",
         "?volts|voltage|rms|power",
         {P, R50},
         K::voltRms,
         "√(R·P)",
         [](const double* x) { return volts(x[0], x[1], 1); },
         kSine,
         "5 W in V = 15.81 V rms"},
        {"peak of a power",
         "!peak ?volts|voltage",
         {P, R50},
         K::voltPeak,
         "√(2·R·P)",
         [](const double* x) { return volts(x[0], x[1], 2); },
         kSine,
         "5 W in Vp = 22.36 V peak"},
        {"peak-to-peak of a level",
         "?volts|voltage",
         {L, R50},
         K::voltPeakToPeak,
         "√(8·R·P)",
         [](const double* x) { return volts(wattsOf(x[0]), x[1], 8); },
         kSine,
         "7 dBm in Vpp = 1.416 V peak-to-peak"},
        {"rms of a level",
         "?volts|voltage|rms",
         {L, R50},
         K::voltRms,
         "√(R·P)",
         [](const double* x) { return volts(wattsOf(x[0]), x[1], 1); },
         kSine,
         "-73 dBm in uV = 50.06 µV rms"},
        {"power of a sine",
         "?power",
         {{"Upp", K::voltPeakToPeak, kMust}, R50},
         K::watt,
         "Upp²/(8·R)",
         [](const double* x) { return x[0] > 0 ? square(x[0]) / (8 * x[1]) : NAN; },
         kSine,
         "31 Vpp = 2.402 W"},
        {"level of a sine",
         "?level",
         {{"Upp", K::voltPeakToPeak, kMust}, R50},
         K::dbm,
         "10·log10(Upp²/(8·R·1 mW))",
         [](const double* x) { return 10 * std::log10(square(x[0]) / (8e-3 * x[1])); },
         kSine,
         "31 Vpp in dBm = 33.81 dBm"},
        {"power of a sine",
         "?power",
         {{"Up", K::voltPeak, kMust}, R50},
         K::watt,
         "Up²/(2·R)",
         [](const double* x) { return x[0] > 0 ? square(x[0]) / (2 * x[1]) : NAN; },
         kSine,
         "14 Vp in W = 1.96 W"},
        {"level of a sine",
         "!level",
         {{"Up", K::voltPeak, kMust}, R50},
         K::dbm,
         "10·log10(Up²/(2·R·1 mW))",
         [](const double* x) { return 10 * std::log10(square(x[0]) / (2e-3 * x[1])); },
         kSine,
         "10 Vp in dBm = 30 dBm"},
        {"power",
         "?power",
         {{"U", K::voltRms, kMust}, R50},
         K::watt,
         "U²/R",
         [](const double* x) { return x[0] > 0 ? square(x[0]) / x[1] : NAN; },
         kSine,
         "10 Vrms into 50 ohm = 2 W"},
        {"level",
         "!level",
         {{"U", K::voltRms, kMust}, R50},
         K::dbm,
         "10·log10(U²/(R·1 mW))",
         [](const double* x) { return 10 * std::log10(square(x[0]) / (1e-3 * x[1])); },
         kSine,
         "1 Vrms in dBm = 13.01 dBm"},
        {"level of a voltage, rms",
         "!level",
         {U, R50},
         K::dbm,
         "10·log10(U²/(R·1 mW))",
         [](const double* x) { return 10 * std::log10(square(x[0]) / (1e-3 * x[1])); },
         kSine,
         "50 uV in dBm = -73.01 dBm"},
        {"level",
         "",
         {{"x", K::dbuv, kMust}, R50},
         K::dbm,
         "dBµV − 120 − 10·log10(R) + 30",
         [](const double* x) { return x[0] - 90 - 10 * std::log10(x[1]); },
         kDefinition,
         "40 dBuV = -66.99 dBm"},
        {"level of an S unit below 30 MHz",
         "",
         {{"S", K::sUnit, kMust}},
         K::dbm,
         "−73 − 6·(9 − S)",
         [](const double* x) { return x[0] >= 1 ? -73 - 6 * (9 - x[0]) : NAN; },
         "IARU Region 1 recommendation R.1",
         "S7 = -85 dBm"},
        {"rms of a sine",
         "!rms",
         {{"Upp", K::voltPeakToPeak, kMust}},
         K::voltRms,
         "Upp/(2·√2)",
         [](const double* x) { return x[0] / std::sqrt(8.0); },
         kDefinition,
         "10 Vpp in Vrms = 3.536 V rms"},
        {"rms of a sine",
         "!rms",
         {{"Up", K::voltPeak, kMust}},
         K::voltRms,
         "Up/√2",
         [](const double* x) { return x[0] / std::sqrt(2.0); },
         kDefinition,
         "10 Vp in Vrms = 7.071 V rms"},
        {"peak-to-peak of a sine",
         "!pp",
         {{"U", K::voltRms, kMust}},
         K::voltPeakToPeak,
         "2·√2·U",
         [](const double* x) { return x[0] * std::sqrt(8.0); },
         kDefinition,
         "1 Vrms in Vpp = 2.828 V peak-to-peak"},
        {"power less a loss",
         "minus|loss|down|pad|attenuation|less",
         {P, db},
         K::watt,
         "P·10^(−a/10)",
         [](const double* x) { return x[0] * std::pow(10, -x[1] / 10); },
         kDefinition,
         "5 W less 3 dB = 2.506 W"},
        {"power with a gain",
         "plus|gain|up",
         {P, db},
         K::watt,
         "P·10^(a/10)",
         [](const double* x) { return x[0] * std::pow(10, x[1] / 10); },
         kDefinition,
         "1 mW gain 20 dB = 100 mW"},
        {"level less a loss",
         "minus|loss|down|pad|attenuation|less",
         {L, db},
         K::dbm,
         "level − a",
         [](const double* x) { return x[0] - x[1]; },
         kDefinition,
         "37 dBm less 30 dB = 7 dBm"},
        {"level with a gain",
         "plus|gain|up",
         {L, db},
         K::dbm,
         "level + a",
         [](const double* x) { return x[0] + x[1]; },
         kDefinition,
         "-10 dBm gain 15 dB = 5 dBm"},
        // Ohm and power.
        {"current",
         "?current|amps|flows",
         {U, R},
         K::ampere,
         "U/R",
         [](const double* x) { return x[0] / x[1]; },
         kOhm,
         "12 V across 470 ohm = 25.53 mA"},
        {"power",
         "?power|dissipation|dissipated|heat|dissipates|watts|resistor",
         {U, R},
         K::watt,
         "U²/R",
         [](const double* x) { return square(x[0]) / x[1]; },
         kOhm,
         "power 12 V 470 ohm = 306.4 mW"},
        {"volts",
         "?voltage|volts|drop",
         {I, R},
         K::volt,
         "I·R",
         [](const double* x) { return x[0] * x[1]; },
         kOhm,
         "20 mA through 330 ohm = 6.6 V"},
        {"power",
         "?power|dissipation|dissipated|heat|watts|resistor",
         {I, R},
         K::watt,
         "I²·R",
         [](const double* x) { return square(x[0]) * x[1]; },
         kOhm,
         "power 0.1 A in 47 ohm = 470 mW"},
        {"power",
         "?power|dissipation|input|watts",
         {U, I},
         K::watt,
         "U·I",
         [](const double* x) { return x[0] * x[1]; },
         kOhm,
         "13.8 V 0.5 A = 6.9 W"},
        {"resistance",
         "?resistance|resistor|ohms|drop",
         {U, I},
         K::ohm,
         "U/I",
         [](const double* x) { return x[0] / x[1]; },
         kOhm,
         "5 V at 20 mA in ohm = 250 Ω"},
        {"current",
         "?current|amps|draw",
         {P, U},
         K::ampere,
         "P/U",
         [](const double* x) { return x[0] / x[1]; },
         kOhm,
         "5 W at 13.8 V = 362.3 mA"},
        {"resistance",
         "!resistance|resistor|load|ohms",
         {P, U},
         K::ohm,
         "U²/P",
         [](const double* x) { return square(x[1]) / x[0]; },
         kOhm,
         "load for 5 W at 13.8 V in ohm = 38.09 Ω"},
        {"volts",
         "!voltage|volts",
         {P, I},
         K::volt,
         "P/I",
         [](const double* x) { return x[0] / x[1]; },
         kOhm,
         "10 W 2 A in V = 5 V"},
        {"current",
         "!current|amps",
         {P, R},
         K::ampere,
         "√(P/R)",
         [](const double* x) { return std::sqrt(x[0] / x[1]); },
         kOhm,
         "current of 5 W in 50 ohm = 316.2 mA"},
        {"load line resistance of a final",
         "final|collector|drain",
         {P, U},
         K::ohm,
         "U²/(2·P)",
         [](const double* x) { return square(x[1]) / (2 * x[0]); },
         "common practice",
         "final 5 W 12 V = 14.4 Ω"},
        {"volts at the tap",
         "?divider|divide|tap|teiler",
         {U, {"R1", K::ohm, kMust}, {"R2", K::ohm, kMust}},
         K::volt,
         "U·R2/(R1 + R2)",
         [](const double* x) { return x[0] * x[2] / (x[1] + x[2]); },
         kOhm,
         "divider 10k 3k3 from 12 V = 2.977 V"},
        {"series resistor",
         "led ?resistor|series|resistance|dropper ?red|green|blue|yellow|white|amber|orange",
         {{"U", K::volt, kMust}, {"Uled", K::volt, kMust}, I},
         K::ohm,
         "(U − Uled)/I",
         [](const double* x) { return (larger(x) - smaller(x)) / x[2]; },
         kOhm,
         "LED 12 V 2 V 5 mA = 2 kΩ"},
        {"dropping resistor",
         "drop|dropper|dropping ?resistor|series",
         {{"U", K::volt, kMust}, {"wanted", K::volt, kMust}, I},
         K::ohm,
         "(U − wanted)/I",
         [](const double* x) { return (larger(x) - smaller(x)) / x[2]; },
         kOhm,
         "drop 13.8 V to 9 V at 20 mA = 240 Ω"},
        {"heat in the dropping resistor",
         "drop|dropper|dropping ?resistor|series",
         {{"U", K::volt, kMust}, {"wanted", K::volt, kMust}, I},
         K::watt,
         "(U − wanted)·I",
         [](const double* x) { return (larger(x) - smaller(x)) * x[2]; },
         kOhm,
         "drop 13.8 V to 9 V at 20 mA in W = 96 mW"},
        {"efficiency",
         "?efficiency",
         {P, U, I},
         K::percent,
         "P/(U·I)",
         [](const double* x) { return 100 * x[0] / (x[1] * x[2]); },
         kDefinition,
         "efficiency 5 W 13.8 V 0.75 A = 48.31 %"},
        {"efficiency",
         "efficiency",
         {{"Pout", K::watt, kMust}, {"Pin", K::watt, kMust}},
         K::percent,
         "Pout/Pin",
         [](const double* x) { return 100 * smaller(x) / larger(x); },
         kDefinition,
         "efficiency 5 W of 10 W = 50 %"},
        // Reactance and resonance.
        {"reactance",
         "?reactance|xc|impedance",
         {C, f},
         K::ohm,
         "1/(2π·f·C)",
         [](const double* x) { return 1 / (2 * kPi * x[0] * x[1]); },
         kReactance,
         "100 pF at 7 MHz = 227.4 Ω"},
        {"reactance",
         "?reactance|xl|impedance",
         {H, f},
         K::ohm,
         "2π·f·L",
         [](const double* x) { return 2 * kPi * x[0] * x[1]; },
         kReactance,
         "10 uH at 3.5 MHz = 219.9 Ω"},
        {"resonance",
         "?resonance|resonant|resonates|resonate|frequency|tuned|tank|resonanz",
         {H, C},
         K::hertz,
         "1/(2π·√(L·C))",
         [](const double* x) { return 1 / (2 * kPi * std::sqrt(x[0] * x[1])); },
         kThomson,
         "1.2 uH with 330 pF = 7.998 MHz"},
        {"capacitor for resonance",
         "?c|capacitor|capacitance|cap|resonance|resonate|resonates|resonant|tune|tunes",
         {H, f},
         K::farad,
         "1/((2π·f)²·L)",
         [](const double* x) { return 1 / (square(2 * kPi * x[1]) * x[0]); },
         kThomson,
         "C for 4.7 uH at 7.03 MHz = 109.1 pF"},
        {"coil for resonance",
         "?l|coil|inductor|inductance|resonance|resonate|resonates|resonant|tune|tunes",
         {C, f},
         K::henry,
         "1/((2π·f)²·C)",
         [](const double* x) { return 1 / (square(2 * kPi * x[1]) * x[0]); },
         kThomson,
         "L for 100 pF at 10.1 MHz = 2.483 µH"},
        {"capacitance of a reactance",
         "!c|capacitor|capacitance|cap ?reactance",
         {{"X", K::ohm, kMust}, f},
         K::farad,
         "1/(2π·f·X)",
         [](const double* x) { return 1 / (2 * kPi * x[0] * x[1]); },
         kReactance,
         "capacitor of 50 ohm at 7 MHz = 454.7 pF"},
        {"inductance of a reactance",
         "!l|coil|inductor|inductance ?reactance",
         {{"X", K::ohm, kMust}, f},
         K::henry,
         "X/(2π·f)",
         [](const double* x) { return x[0] / (2 * kPi * x[1]); },
         kReactance,
         "inductance for 250 ohm at 7 MHz = 5.684 µH"},
        {"Q of a coil",
         "q|quality",
         {H, R, f},
         K::number,
         "2π·f·L/R",
         [](const double* x) { return 2 * kPi * x[2] * x[0] / x[1]; },
         kDefinition,
         "Q 1 uH 1 ohm 10 MHz = 62.83"},
        {"bandwidth",
         "q|quality ?bandwidth",
         {{"Q", K::number, kMust}, f},
         K::hertz,
         "f/Q",
         [](const double* x) { return x[1] / x[0]; },
         kDefinition,
         "Q 50 at 7 MHz = 140 kHz"},
        {"loaded Q",
         "!bandwidth|wide ?q|quality",
         {f, {"B", K::hertz, kMust}},
         K::number,
         "f/B",
         [](const double* x) { return larger(x) / smaller(x); },
         kDefinition,
         "bandwidth 140 kHz at 7 MHz = 50"},
        {"time constant",
         "rc|tau",
         {R, C},
         K::second,
         "R·C",
         [](const double* x) { return x[0] * x[1]; },
         kDefinition,
         "RC 10k 100n = 1 ms"},
        {"corner frequency",
         "corner|cutoff|highpass|lowpass ?frequency|rc",
         {R, C},
         K::hertz,
         "1/(2π·R·C)",
         [](const double* x) { return 1 / (2 * kPi * x[0] * x[1]); },
         kDefinition,
         "corner frequency of 10k and 100n = 159.2 Hz"},
        // Frequency and wavelength.
        {"wavelength",
         "!wavelength|wave|full|lambda|λ ?vf",
         {f, {"k", K::number, 1}},
         K::metre,
         "k·c/f",
         [](const double* x) { return x[1] <= 1 ? x[1] * kLight / x[0] : NAN; },
         "speed of light",
         "7.03 MHz in m = 42.64 m"},
        {"half a wave",
         "half ?wavelength|wave|dipole|vf",
         {f, {"k", K::number, 1}},
         K::metre,
         "k·c/(2·f)",
         [](const double* x) { return x[1] <= 1 ? x[1] * kLight / (2 * x[0]) : NAN; },
         "speed of light",
         "half wave 10.116 MHz = 14.82 m"},
        {"a quarter wave",
         "quarter ?wavelength|wave|vertical|radial|stub|vf",
         {f, {"k", K::number, 1}},
         K::metre,
         "k·c/(4·f)",
         [](const double* x) { return x[1] <= 1 ? x[1] * kLight / (4 * x[0]) : NAN; },
         "speed of light",
         "quarter wave at 14.06 MHz = 5.331 m"},
        {"five eighths of a wave",
         "fiveeighths ?wavelength|wave|vf",
         {f, {"k", K::number, 1}},
         K::metre,
         "k·5·c/(8·f)",
         [](const double* x) { return x[1] <= 1 ? x[1] * 5 * kLight / (8 * x[0]) : NAN; },
         "speed of light",
         "5/8 wave 28 MHz = 6.692 m"},
        {"frequency of a wavelength",
         "!frequency ?wavelength|wave",
         {{"λ", K::metre, kMust}},
         K::hertz,
         "c/λ",
         [](const double* x) { return kLight / x[0]; },
         "speed of light",
         "40 m in MHz = 7.495 MHz"},
        {"period",
         "!period",
         {f},
         K::second,
         "1/f",
         [](const double* x) { return 1 / x[0]; },
         kDefinition,
         "period of 1 kHz = 1 ms"},
        {"frequency of a period",
         "!frequency",
         {{"T", K::second, kMust}},
         K::hertz,
         "1/T",
         [](const double* x) { return 1 / x[0]; },
         kDefinition,
         "frequency of 1 ms = 1 kHz"},
        {"deviation",
         "!ppm ?off|error",
         {{"d", K::hertz, kMust}, f},
         K::ppm,
         "10⁶·d/f",
         [](const double* x) { return 1e6 * smaller(x) / larger(x); },
         kDefinition,
         "20 Hz at 10 MHz in ppm = 2 ppm"},
        {"so much of a frequency",
         "?off|error",
         {{"p", K::ppm, kMust}, f},
         K::hertz,
         "p·f/10⁶",
         [](const double* x) { return x[0] * x[1] / 1e6; },
         kDefinition,
         "10 ppm of 7.03 MHz = 70.3 Hz"},
        {"image, oscillator above",
         "image ?frequency|if",
         {f, {"IF", K::hertz, kMust}},
         K::hertz,
         "f + 2·IF",
         [](const double* x) { return x[0] + 2 * x[1]; },
         kDefinition,
         "image 7.03 MHz IF 4.915 MHz = 16.86 MHz"},
        {"image, oscillator below",
         "image ?frequency|if",
         {f, {"IF", K::hertz, kMust}},
         K::hertz,
         "f − 2·IF",
         [](const double* x) { return std::fabs(x[0] - 2 * x[1]); },
         kDefinition,
         "image 14.06 MHz IF 4.915 MHz = 4.23 MHz"},
        // Match.
        {"return loss",
         "?swr|vswr ?returnloss|rl|loss",
         {s},
         K::decibel,
         "−20·log10((SWR − 1)/(SWR + 1))",
         [](const double* x) { return x[0] > 1 ? -20 * std::log10(gamma(x[0])) : NAN; },
         kSwr,
         "2:1 SWR in dB = 9.542 dB"},
        {"return loss",
         "swr|vswr ?returnloss|rl|loss",
         {{"SWR", K::number, kMust}},
         K::decibel,
         "−20·log10((SWR − 1)/(SWR + 1))",
         [](const double* x) { return x[0] > 1 ? -20 * std::log10(gamma(x[0])) : NAN; },
         kSwr,
         "SWR 1.5 = 13.98 dB"},
        {"power that comes back",
         "swr|vswr ?reflected|back|power",
         {{"SWR", K::number, kMust}},
         K::percent,
         "|Γ|²",
         [](const double* x) { return x[0] >= 1 ? 100 * square(gamma(x[0])) : NAN; },
         kSwr,
         "SWR 2 in % = 11.11 %"},
        {"standing wave ratio",
         "returnloss|rl ?swr|vswr",
         {db},
         K::ratio,
         "(1 + Γ)/(1 − Γ)",
         [](const double* x) { return swrOf(reflection(std::fabs(x[0]))); },
         kSwr,
         "return loss 20 dB = 1.222 : 1"},
        {"power that comes back",
         "returnloss|rl ?reflected|back|power",
         {db},
         K::percent,
         "10^(−a/10)",
         [](const double* x) { return 100 * std::pow(10, -std::fabs(x[0]) / 10); },
         kSwr,
         "return loss 10 dB in % = 10 %"},
        {"standing wave ratio",
         "reflected|back|reverse|reflection|refl|ref ?forward|fwd|swr|vswr|power",
         {{"Pf", K::watt, kMust}, {"Pr", K::watt, kMust}},
         K::ratio,
         "(1 + √(Pr/Pf))/(1 − √(Pr/Pf))",
         [](const double* x) { return swrOf(std::sqrt(smaller(x) / larger(x))); },
         kSwr,
         "5 W forward 0.2 W reflected = 1.5 : 1"},
        {"power that comes back",
         "swr|vswr ?reflected|back|power",
         {P, {"SWR", K::number, kMust}},
         K::watt,
         "P·|Γ|²",
         [](const double* x) { return x[1] >= 1 ? x[0] * square(gamma(x[1])) : NAN; },
         kSwr,
         "5 W at SWR 2 = 555.6 mW"},
        {"standing wave ratio of a resistance",
         "swr|vswr",
         {R, {"Z0", K::ohm, 50}},
         K::ratio,
         "R/Z0 or Z0/R",
         [](const double* x) { return larger(x) / smaller(x); },
         kSwr,
         "SWR of 75 ohm = 1.5 : 1"},
        {"turns ratio",
         "ratio|transformer|match|balun|unun ?turns|impedance",
         {R, {"Z", K::ohm, kMust}},
         K::ratio,
         "√(Z/R)",
         [](const double* x) { return std::sqrt(larger(x) / smaller(x)); },
         "ideal transformer",
         "turns ratio 450 ohm to 50 ohm = 3 : 1"},
        {"impedance behind a transformer, up",
         "?ratio|transformer|turns|balun|unun",
         {{"n", K::ratio, kMust}, R},
         K::ohm,
         "n²·R",
         [](const double* x) { return square(x[0]) * x[1]; },
         "ideal transformer",
         "turns ratio 3:1 from 50 ohm = 450 Ω"},
        {"impedance behind a transformer, down",
         "?ratio|transformer|turns|balun|unun",
         {{"n", K::ratio, kMust}, R},
         K::ohm,
         "R/n²",
         [](const double* x) { return x[1] / square(x[0]); },
         "ideal transformer",
         "turns ratio 3:1 from 450 ohm = 50 Ω"},
        {"turns ratio of an impedance ratio",
         "impedance ?ratio|transformer|turns|balun|unun",
         {{"n", K::ratio, kMust}},
         K::ratio,
         "√n",
         [](const double* x) { return std::sqrt(x[0]); },
         "ideal transformer",
         "impedance ratio 9:1 = 3 : 1"},
        // Ratios.
        {"power ratio",
         "!ratio|factor|times ?power",
         {db},
         K::ratio,
         "10^(a/10)",
         [](const double* x) { return std::pow(10, x[0] / 10); },
         kDefinition,
         "3 dB as a ratio = 1.995 : 1"},
        {"voltage ratio",
         "!ratio|factor|times ?voltage",
         {db},
         K::ratio,
         "10^(a/20)",
         [](const double* x) { return std::pow(10, x[0] / 20); },
         kDefinition,
         "voltage ratio of 6 dB = 1.995 : 1"},
        {"of a ratio of powers",
         "!factor|ratio|times|power",
         {n},
         K::decibel,
         "10·log10(s)",
         [](const double* x) { return x[0] > 0 ? 10 * std::log10(x[0]) : NAN; },
         kDefinition,
         "factor 4 in dB = 6.021 dB"},
        {"of a ratio of voltages",
         "!factor|ratio|times|voltage",
         {n},
         K::decibel,
         "20·log10(s)",
         [](const double* x) { return x[0] > 0 ? 20 * std::log10(x[0]) : NAN; },
         kDefinition,
         "voltage factor 4 in dB = 12.04 dB"},
        {"ratio of powers",
         "!ratio|loss|db ?power",
         {{"P1", K::watt, kMust}, {"P2", K::watt, kMust}},
         K::decibel,
         "10·log10(P1/P2)",
         [](const double* x) { return x[0] > 0 && x[1] > 0 ? 10 * std::log10(x[0] / x[1]) : NAN; },
         kDefinition,
         "0.5 W of 5 W in dB = -10 dB"},
        {"ratio of voltages",
         "!ratio|loss|db ?voltage",
         {{"U1", K::volt, kMust}, {"U2", K::volt, kMust}},
         K::decibel,
         "20·log10(U1/U2)",
         [](const double* x) { return x[0] > 0 && x[1] > 0 ? 20 * std::log10(x[0] / x[1]) : NAN; },
         kDefinition,
         "0.5 V of 5 V in dB = -20 dB"},
        {"gain",
         "gain ?power",
         {{"Pin", K::watt, kMust}, {"Pout", K::watt, kMust}},
         K::decibel,
         "10·log10(Pout/Pin)",
         [](const double* x) { return x[0] > 0 && x[1] > 0 ? 10 * std::log10(x[1] / x[0]) : NAN; },
         kDefinition,
         "gain from 10 mW to 1 W = 20 dB"},
        {"gain",
         "gain ?voltage",
         {{"Uin", K::volt, kMust}, {"Uout", K::volt, kMust}},
         K::decibel,
         "20·log10(Uout/Uin)",
         [](const double* x) { return x[0] > 0 && x[1] > 0 ? 20 * std::log10(x[1] / x[0]) : NAN; },
         kDefinition,
         "gain from 10 mV to 1 V = 40 dB"},
        {"difference of levels",
         "?difference|between|gain|loss",
         {{"L1", K::dbm, kMust}, {"L2", K::dbm, kMust}},
         K::decibel,
         "L1 − L2",
         [](const double* x) { return x[0] - x[1]; },
         kDefinition,
         "37 dBm to 7 dBm = 30 dB"},
        // Wire, coils, batteries, temperature.
        {"diameter",
         "?diameter|wire|dia|thick",
         {{"g", K::gauge, kMust}},
         K::metre,
         "0.127 mm · 92^((36 − g)/39)",
         [](const double* x) { return 0.127e-3 * std::pow(92, (36 - x[0]) / 39); },
         kAwg,
         "AWG 26 in mm = 0.4049 mm"},
        {"wire gauge",
         "!awg|gauge ?wire",
         {{"d", K::metre, kMust}},
         K::gauge,
         "36 − 39·log92(d/0.127 mm)",
         [](const double* x) { return x[0] > 0 ? 36 - 39 * std::log(x[0] / 0.127e-3) / std::log(92) : NAN; },
         kAwg,
         "0.5 mm in AWG = AWG 24.2"},
        {"inductance by AL",
         "al",
         {{"AL", K::henry, kMust}, N},
         K::henry,
         "AL·N²",
         [](const double* x) { return x[0] * square(x[1]); },
         "IEC 60205",
         "AL 4.9 nH 18 turns = 1.588 µH"},
        {"turns by AL",
         "al ?turns|for",
         {{"AL", K::henry, kMust}, {"L", K::henry, kMust}},
         K::turns,
         "√(L/AL)",
         [](const double* x) { return std::sqrt(larger(x) / smaller(x)); },
         "IEC 60205",
         "AL 4 nH for 1.6 uH = 20 turns"},
        {"battery",
         "?battery|lasts|last|hours|time|accu|long",
         {{"Q", K::ampereHour, kMust}, I},
         K::second,
         "Q/I",
         [](const double* x) { return x[1] > 0 ? 3600 * x[0] / x[1] : NAN; },
         kDefinition,
         "2.2 Ah at 150 mA = 14 h 40 min"},
        {"temperature",
         "",
         {{"T", K::fahrenheit, kMust}},
         K::celsius,
         "(T − 32)·5/9",
         [](const double* x) { return (x[0] - 32) * 5 / 9; },
         kDefinition,
         "72 F in C = 22.22 °C"},
        {"temperature",
         "!fahrenheit",
         {{"T", K::celsius, kMust}},
         K::fahrenheit,
         "T·9/5 + 32",
         [](const double* x) { return x[0] * 9 / 5 + 32; },
         kDefinition,
         "60 °C in F = 140.0 °F"},
        // A value in another unit of its kind.
        {"length",
         "!length",
         {{"l", K::metre, kMust}},
         K::metre,
         "the same",
         [](const double* x) { return x[0]; },
         "inch of 25.4 mm, exact",
         "10 ft in m = 3.048 m"},
    };
    return kRows;
}

std::vector<SumAnswer> answerByRelation(const Sentence& sentence, bool strained) {
    struct Found {
        int strain;
        SumAnswer answer;
    };
    std::vector<Found> found;
    int least = 1000;  // where the plainest reading does not hold, none that is strained is put in its place
    const bool signs = std::any_of(sentence.pieces.begin(), sentence.pieces.end(),
                                   [](const Piece& piece) { return piece.what == Piece::What::sign; });
    if (signs) return {};
    for (const Relation& row : relations()) {
        bool fits = false;
        const Wanted* wanted = wantedOf(row, sentence, fits);
        if (!fits || !wordsFit(row, sentence)) continue;
        const auto laid = lay(row, sentence);
        if (!laid || (laid->strain > 0 && !strained)) continue;
        const double value = row.of(laid->values.data());
        least = std::min(least, laid->strain);
        if (!std::isfinite(value)) continue;
        found.push_back({laid->strain, answered(row, *laid, value, wanted)});
    }
    std::vector<SumAnswer> out;
    for (Found& each : found) {
        if (each.strain == least) out.push_back(std::move(each.answer));
    }
    return out;
}

std::string wordUnknown(const Sentence& sentence) {
    for (const Piece& piece : sentence.pieces) {
        if (piece.what != Piece::What::word || filler(piece.text)) continue;
        const auto& rows = relations();
        const bool known = std::any_of(rows.begin(), rows.end(), [&](const Relation& row) {
            const auto groups = groupsOf(row);
            return std::any_of(groups.begin(), groups.end(),
                               [&](const Group& g) { return holds(g.words, piece.text); });
        });
        if (!known) return piece.text;
    }
    return {};
}

}  // namespace ombrek::sums
