#include "core/sums/sums.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/coil/winding.h"
#include "core/parts/marks.h"
#include "core/proof/frequency.h"
#include "core/proof/power.h"
#include "core/sums/proof_sums.h"

namespace ombrek {
namespace {

using Answers = std::vector<SumAnswer>;

std::string trimmed(std::string_view text) {
    while (!text.empty() && std::isspace(static_cast<unsigned char>(text.front()))) text.remove_prefix(1);
    while (!text.empty() && std::isspace(static_cast<unsigned char>(text.back()))) text.remove_suffix(1);
    return std::string(text);
}

std::string upper(std::string text) {
    for (char& c : text) c = static_cast<char>(std::toupper(static_cast<unsigned char>(c)));
    return text;
}

/// "a WORD b" split at the first word; nothing if the word is not there between blanks.
std::optional<std::pair<std::string, std::string>> splitAt(const std::string& text, const std::string& word) {
    const auto at = text.find(" " + word + " ");
    if (at == std::string::npos) return std::nullopt;
    return std::pair{trimmed(text.substr(0, at)), trimmed(text.substr(at + word.size() + 2))};
}

Working simpleWorking(std::string formula, std::string put, std::string result, std::string source) {
    return Working{{{std::move(formula), std::move(put), std::move(result)}}, std::move(source)};
}

SumAnswer powerAnswer(double watts) {
    const double dbm = dbmFromWatts(watts);
    return {"power in dBm", dbm, Unit::dbm, formatQuantity(dbm, Unit::dbm, 4),
            simpleWorking("10·log10(P/1 mW)", formatQuantity(watts, Unit::watt, 4),
                          formatQuantity(dbm, Unit::dbm, 4), "definition of dBm")};
}

SumAnswer dbmAnswer(double dbm) {
    const double watts = wattsFromDbm(dbm);
    return {"level in watts", watts, Unit::watt, formatQuantity(watts, Unit::watt, 4),
            simpleWorking("1 mW × 10^(dBm/10)", formatQuantity(dbm, Unit::dbm, 4),
                          formatQuantity(watts, Unit::watt, 4), "definition of dBm")};
}

SumAnswer peakToPeakOf(double watts) {
    const double vpp = std::sqrt(8 * 50.0 * watts);
    return {"peak-to-peak across 50 Ω", vpp, Unit::volt, formatQuantity(vpp, Unit::volt, 4) + " peak-to-peak",
            simpleWorking("Vpp = √(8·R·P)", "√(8 × 50 Ω × " + formatQuantity(watts, Unit::watt, 4) + ")",
                          formatQuantity(vpp, Unit::volt, 4), "power of a sine")};
}

Answers conversion(const std::string& text) {
    const auto parts = splitAt(text, "in");
    if (!parts) return {};
    const auto from = parseQuantity(parts->first);
    const std::string to = upper(parts->second);
    if (!from) return {};
    if (from->unit == Unit::watt && from->value > 0) {
        if (to == "DBM") return {powerAnswer(from->value)};
        if (to == "VPP") return {peakToPeakOf(from->value)};
    }
    if (from->unit == Unit::dbm && std::fabs(from->value) < 300) {
        if (to == "W") return {dbmAnswer(from->value)};
        if (to == "VPP") return {peakToPeakOf(wattsFromDbm(from->value))};
    }
    return {};
}

Answers peakToPeak(const std::string& text) {
    if (!upper(text).ends_with("VPP")) return {};
    const auto volts = parseQuantity(text.substr(0, text.size() - 3), Unit::volt);
    if (!volts || volts->value <= 0) return {};
    const Power power = powerFromPeakToPeak(volts->value, 0.0, 50.0);
    const std::string dbm = formatQuantity(dbmFromWatts(power.watts), Unit::dbm, 4);
    return {{"sine of " + formatQuantity(volts->value, Unit::volt, 4) + " peak-to-peak across 50 Ω",
             power.watts, Unit::watt, formatQuantity(power.watts, Unit::watt, 3) + ", " + dbm,
             power.working}};
}

const MagneticCore* coreNamed(const std::string& name, const std::vector<MagneticCore>& cores) {
    const auto hit = std::find_if(cores.begin(), cores.end(),
                                  [&](const MagneticCore& c) { return upper(c.designation) == upper(name); });
    return hit == cores.end() ? nullptr : &*hit;
}

SumAnswer coilOf(const MagneticCore& core, int turns) {
    const double value = inductance(core, turns);
    return {std::to_string(turns) + " turns on " + core.designation, value, Unit::henry,
            formatQuantity(value, Unit::henry, 3), inductanceWorking(core, turns)};
}

Answers turnsWanted(const MagneticCore& core, const std::string& wantedText) {
    const auto wanted = parseQuantity(wantedText, Unit::henry);
    if (!wanted || wanted->value <= 0) return {};
    const double exact = std::sqrt(wanted->value / core.al);
    if (exact > 10000) return {};
    const int turns = turnsFor(core, wanted->value);
    Working working = simpleWorking("N = √(L/AL)",
                                    "√(" + formatQuantity(wanted->value, Unit::henry, 4) + " / " +
                                        formatQuantity(core.al, Unit::henry, 4) + ")",
                                    formatQuantity(exact, Unit::none, 4), "");
    const Working back = inductanceWorking(core, turns);
    working.lines.insert(working.lines.end(), back.lines.begin(), back.lines.end());
    working.source = back.source;
    return {{"turns on " + core.designation + " for " + formatQuantity(wanted->value, Unit::henry, 4),
             double(turns), Unit::none,
             std::to_string(turns) + (turns == 1 ? " turn, " : " turns, ") +
                 formatQuantity(inductance(core, turns), Unit::henry, 3),
             working}};
}

/// "T50-2 18t", "T37-6 for 1.2u", "T37-6 1.2u".
Answers coil(const std::string& text, const std::vector<MagneticCore>& cores) {
    const auto blank = text.find(' ');
    if (blank == std::string::npos) return {};
    const MagneticCore* core = coreNamed(text.substr(0, blank), cores);
    if (core == nullptr) return {};
    std::string rest = trimmed(text.substr(blank));
    if (rest.starts_with("for ")) return turnsWanted(*core, trimmed(rest.substr(4)));
    int turns = 0;
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), turns);
    const std::string unit = trimmed(std::string_view(end, std::size_t(rest.data() + rest.size() - end)));
    if (error == std::errc{} && (unit == "t" || unit == "T" || unit == "turns" || unit == "turn")) {
        if (turns < 1 || turns > 10000) return {};
        return {coilOf(*core, turns)};
    }
    return turnsWanted(*core, rest);
}

Answers comparison(const std::string& text) {
    const auto parts = splitAt(text, "vs");
    if (!parts) return {};
    const auto read = parseQuantity(parts->first), reference = parseQuantity(parts->second);
    if (!read || !reference || reference->value <= 0) return {};
    const bool units = read->unit != Unit::none && reference->unit != Unit::none;
    if (units && read->unit != reference->unit) return {};
    const Unit unit = read->unit != Unit::none ? read->unit : reference->unit;
    const double ppm = partsPerMillion(read->value, reference->value);
    const std::string difference = formatQuantity(read->value - reference->value, unit, 4);
    const bool small = std::fabs(ppm) < 20000;
    return {{"deviation", small ? ppm : ppm / 1e4, small ? Unit::ppm : Unit::percent,
             (small ? formatQuantity(ppm, Unit::ppm, 4) : formatQuantity(ppm / 1e4, Unit::percent, 3)) +
                 ", " + difference,
             deviationWorking(read->value, reference->value, unit)}};
}

Answers marks(const std::string& text) {
    Answers out;
    for (const MarkReading& m : readMark(text)) {
        const std::string tolerance = toleranceText(m).empty() ? std::string() : " " + toleranceText(m);
        out.push_back({std::string(word(m.kind)) + " marked " + text, m.value, m.unit,
                       formatQuantity(m.value, m.unit, 4) + tolerance,
                       simpleWorking(meaning(m), "", formatQuantity(m.value, m.unit, 4),
                                     "IEC 60062, common practice")});
    }
    return out;
}

Answers plainValue(const std::string& text) {
    const auto value = parseQuantity(text);
    if (!value) return {};
    if (value->unit == Unit::watt && value->value > 0)
        return {powerAnswer(value->value), peakToPeakOf(value->value)};
    if (value->unit == Unit::dbm && std::fabs(value->value) < 300) {
        return {dbmAnswer(value->value), peakToPeakOf(wattsFromDbm(value->value))};
    }
    return {{"value", value->value, value->unit, formatQuantity(value->value, value->unit, 6),
             simpleWorking(text, "", personNumber(value->value), "")}};
}

}  // namespace

Result<std::vector<SumAnswer>> answerSum(std::string_view typed, const std::vector<MagneticCore>& cores) {
    const std::string text = trimmed(typed.substr(0, 200));
    Answers out;
    const auto add = [&](Answers more) { out.insert(out.end(), more.begin(), more.end()); };
    add(coil(text, cores));
    if (out.empty()) add(comparison(text));
    if (out.empty()) add(conversion(text));
    if (out.empty()) add(peakToPeak(text));
    if (out.empty()) add(proofSums(text));
    if (out.empty()) {
        add(marks(text));
        const bool alreadyRead = !out.empty() && text.find_first_of("RKkMpnuµ") != std::string::npos;
        if (!alreadyRead) add(plainValue(text));
    }
    if (out.empty()) {
        return problem(
            "", text.empty()
                    ? "Type what is on the part, or a sum: 104, T50-6 18t, 5 W in dBm."
                    : "\"" + text.substr(0, 40) +
                          "\" is not understood. Try 104, 4k7, T50-6 for 2.9u, 31 Vpp, 10.0021M vs 10M.");
    }
    return out;
}

}  // namespace ombrek
