#include "formats/accuracy_text.h"

#include <cmath>

#include "core/text/letters.h"

namespace ombrek {
namespace {

/// An error of a level is a ratio: ±0.2 dB of so many dBm.
Unit floorUnit(const MeterLine& line) { return line.unit == Unit::dbm ? Unit::decibel : line.unit; }

/// "2", "2 digits", "2 digits of 20000", "2d".
bool readDigits(std::string_view text, MeterLine& line) {
    const auto end = text.find_first_not_of("0123456789");
    if (end == 0) return false;
    const std::string_view rest =
        end == std::string_view::npos ? std::string_view() : trimmed(text.substr(end));
    const auto digits = parseQuantity(text.substr(0, end));
    if (!digits || digits->value > 1000) return false;
    if (rest.empty() || rest == "d" || rest == "dgt" || rest == "digit" || rest == "digits" ||
        rest == "counts") {
        line.digits = digits->value;
        return true;
    }
    const auto of = rest.find(" of ");
    const std::string_view word = rest.substr(0, of);
    if (of == std::string_view::npos || (word != "digits" && word != "digit")) return false;
    const auto counts = parseQuantity(trimmed(rest.substr(of + 4)));
    if (!counts || counts->value < 100 || counts->value > 1e9) return false;
    line.digits = digits->value;
    line.counts = counts->value;
    return true;
}

}  // namespace

std::string accuracyText(const MeterLine& line) {
    std::string out;
    const auto add = [&](const std::string& text) { out += (out.empty() ? "" : " + ") + text; };
    constexpr double kPpm = 1e-4;  // [%]
    if (line.percent >= 100 * kPpm) {
        add(personNumber(line.percent) + "\u202f%");
    } else if (line.percent > 0) {
        add(formatQuantity(line.percent / kPpm, Unit::ppm, 3));
    }
    if (line.digits > 0) add(personNumber(line.digits) + " digits of " + personNumber(line.counts));
    if (line.floor > 0) add(formatQuantity(line.floor, floorUnit(line), 3));
    return out.empty() ? "perfect" : out;
}

Result<void> readAccuracy(std::string_view text, MeterLine& line) {
    MeterLine out = line;
    out.percent = out.digits = out.floor = 0;
    std::size_t from = 0;
    while (from <= text.size()) {
        const auto plus = std::min(text.find('+', from), text.size());
        const std::string_view term = trimmed(text.substr(from, plus - from));
        from = plus + 1;
        const auto percent = term.ends_with('%') ? parseQuantity(term, Unit::percent) : parseQuantity("");
        const auto value = parseQuantity(term, floorUnit(line));
        const bool number = term.find_first_not_of("0123456789., ") == std::string_view::npos;
        const auto ppm = term.ends_with("ppm") ? parseQuantity(term, Unit::ppm) : parseQuantity("");
        if (ppm && ppm->value >= 0 && ppm->value < 1e6) {
            out.percent = ppm->value / 1e4;
        } else if (percent && percent->value >= 0 && percent->value <= 100) {
            out.percent = percent->value;
        } else if (!readDigits(term, out)) {
            const auto named = parseQuantity(term);
            if (!value || number || !named || named->unit == Unit::none || !(value->value >= 0) ||
                value->unit != floorUnit(line))
                return problem("accuracy",
                               "\"" + std::string(term.substr(0, 40)) +
                                   "\" is no part of an accuracy; write it as \"0.8 % + 2 digits\" "
                                   "or \"1 % + " +
                                   formatQuantity(0.5, floorUnit(line), 2) + "\".");
            out.floor = value->value;
        }
    }
    line = out;
    return {};
}

std::string accuracyDoubt(const MeterLine& line) {
    constexpr double kLeastPercent = 1e-7, kMostPercent = 50;  // a thousandth of a ppm; half of what it shows
    constexpr double kLeastFloor = 1e-18, kMostFloor = 1e6;
    if (line.percent < kLeastPercent && !(line.digits > 0) && line.floor < kLeastFloor)
        return "A meter that is never off? Its data sheet says how far.";
    if (line.percent > kMostPercent || line.floor > kMostFloor || line.digits > 1e4)
        return accuracyText(line) + "? Nothing could be told with such a meter.";
    return "";
}

}  // namespace ombrek
