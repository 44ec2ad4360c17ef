#include "practice/practice_instruments.h"

#include <array>
#include <cctype>
#include <charconv>
#include <cmath>

#include "core/proof/power.h"
#include "instruments/scpi.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

struct Measurement {
    const char* header;
    InstrumentRole role;
    Unit unit;
    int figures;  ///< of the display
};
constexpr std::array<Measurement, 9> kMeasurements{{
    {"MEASure:VOLTage?", InstrumentRole::multimeter, Unit::volt, 4},
    {"MEASure:VOLTage:DC?", InstrumentRole::multimeter, Unit::volt, 4},
    {"MEASure:CURRent?", InstrumentRole::multimeter, Unit::ampere, 4},
    {"MEASure:RESistance?", InstrumentRole::multimeter, Unit::ohm, 4},
    {"MEASure:CAPacitance?", InstrumentRole::lcMeter, Unit::farad, 4},
    {"MEASure:INDuctance?", InstrumentRole::lcMeter, Unit::henry, 4},
    {"MEASure:FREQuency?", InstrumentRole::counter, Unit::hertz, 8},
    {"MEASure:POWer?", InstrumentRole::powerMeter, Unit::dbm, 5},
    {"MEASure:POWer:HARMonic?", InstrumentRole::powerMeter, Unit::decibel, 3},
}};

std::string number(double value, int figures) {
    if (std::isinf(value)) return "9.9E37";  // overload
    if (!std::isfinite(value)) return "9.91E37";
    // As SCPI prints it whatever the locale: +9.846E+03.
    char buffer[60];
    const auto [end, error] =
        std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::scientific, figures - 1);
    std::string out(buffer, error == std::errc{} ? end : buffer);
    for (char& c : out) c = char(std::toupper(static_cast<unsigned char>(c)));
    return out.starts_with('-') ? out : "+" + out;
}

/// A plain finite number; nothing for anything else.
std::optional<double> plainWord(const std::string& word) {
    std::string_view digits = word;
    if (digits.starts_with('+')) digits.remove_prefix(1);
    double value = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    const bool whole = !digits.empty() && error == std::errc{} && end == digits.data() + digits.size();
    return whole && std::isfinite(value) ? std::optional(value) : std::nullopt;
}

/// The unit a subject is measured in, so that a voltmeter on a resistor finds nothing.
bool fits(const PracticeTruth& truth, const Subject& subject, Unit unit) {
    if (subject.is(Subject::Kind::part) || subject.is(Subject::Kind::loose))
        return truth.unitOfPart(subject) == unit;
    if (subject.is(Subject::Kind::harmonic)) return unit == Unit::decibel;
    const Unit own = unitOf(truth.kit(), subject);
    return own != Unit::none && (own == Unit::watt ? Unit::dbm : own) == unit;
}

}  // namespace

std::string practiceMark(const std::string& kitText) {
    std::uint64_t hash = 1469598103934665603ULL;  // FNV-1a
    for (const unsigned char c : kitText) hash = (hash ^ c) * 1099511628211ULL;
    char buffer[20];
    const auto [end, error] = std::to_chars(buffer, buffer + sizeof buffer, hash, 36);
    return error == std::errc{} ? std::string(buffer, end) : "0";
}

std::string PracticeInstruments::measured(Unit unit, const std::string& argument) {
    const Subject subject =
        unit == Unit::decibel && !argument.empty()
            ? Subject{Subject::Kind::harmonic, argument, subject_.band, Subject::Condition::any}
            : subject_;
    if (unit == Unit::farad && subject.is(Subject::Kind::openClips)) return number(kPracticeStray, 4);
    if (!fits(truth_, subject, unit)) return number(NAN, 1);
    double value = truth_.at(subject);
    if (unit == Unit::farad) value += kPracticeStray;
    if (unit == Unit::dbm && std::isfinite(value))
        value = value > 1e-12 ? dbmFromWatts(value) - attenuation_ : -90.0;
    for (const Measurement& m : kMeasurements) {
        if (m.unit == unit) return number(value, m.figures);
    }
    return number(NAN, 1);
}

std::optional<std::string> PracticeInstruments::answer(InstrumentRole role, const std::string& line) {
    const auto words = scpiWords(line);
    if (words.empty()) return std::nullopt;
    const std::string& header = words[0];
    if (headerMatches("*IDN?", header))
        return "Ombrek,practice " + std::string(word(role)) + "," + (kitMark_.empty() ? "0" : kitMark_) +
               ",2";
    if (headerMatches("*OPC?", header)) return "1";
    if (headerMatches("*RST", header) || headerMatches("*CLS", header)) {
        error_ = "0,\"No error\"";
        return std::nullopt;
    }
    if (headerMatches("SYSTem:ERRor?", header)) {
        const std::string error = error_;
        error_ = "0,\"No error\"";
        return error;
    }
    if (headerMatches("SIMulation:PROBe", header) && words.size() >= 2) {
        subject_ = readSubject(words[1]);
        if (words.size() >= 3) {
            if (const auto setting = plainWord(words[2])) truth_.at(subject_, *setting);
        }
        return std::nullopt;
    }
    if (headerMatches("SIMulation:LOOK?", header) && words.size() == 3) {
        const auto before = plainWord(words[2]);
        return "\"" + truth_.shown(readSubject(words[1]), before.value_or(NAN)) + "\"";
    }
    if (headerMatches("SIMulation:ON", header) && words.size() == 2) {
        if (const auto seconds = plainWord(words[1])) truth_.onFor(*seconds);
        return std::nullopt;
    }
    if (headerMatches("SIMulation:LOOK?", header) && words.size() == 2)
        return "\"" + truth_.mark(readSubject(words[1])) + "\"";
    if (headerMatches("SIMulation:BEND", header) && words.size() == 3) {
        if (const auto percent = plainWord(words[2])) truth_.bend(words[1], *percent);
        return std::nullopt;
    }
    if (headerMatches("SIMulation:MEND", header) && words.size() == 2) {
        truth_.mend(words[1]);
        return std::nullopt;
    }
    if (headerMatches("SIMulation:BENT", header) && words.size() == 3) {
        if (const auto factor = plainWord(words[2])) truth_.setBent(words[1], *factor);
        return std::nullopt;
    }
    if (headerMatches("SIMulation:ATTenuation", header) && words.size() == 2) {
        const auto decibel = plainWord(words[1]);
        if (decibel && *decibel >= 0 && *decibel <= 200) attenuation_ = *decibel;
        return std::nullopt;
    }
    if (headerMatches("SIMulation:RESet", header)) {
        truth_.reset();
        return std::nullopt;
    }
    for (const Measurement& m : kMeasurements) {
        if (m.role == role && headerMatches(m.header, header)) {
            return measured(m.unit, words.size() > 1 ? words[1] : "");
        }
    }
    error_ = "-113,\"Undefined header\"";
    return header.ends_with('?') ? std::optional<std::string>(number(NAN, 1)) : std::nullopt;
}

}  // namespace ombrek
