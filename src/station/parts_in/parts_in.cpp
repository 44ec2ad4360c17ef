#include "station/parts_in/parts_in.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

#include "core/quantity/preferred.h"
#include "core/text/enumerators.h"

namespace ombrek {
namespace {

/// "It looks like 33 nF." when the reading is near another E6 or E12 value.
std::string looksLike(const Part& part, double reading) {
    if (!(reading > 0) || !std::isfinite(reading)) return "";
    for (const Series series : {Series::e6, Series::e12}) {
        const double value = nearestPreferred(reading, series);
        const bool another = std::fabs(value / part.nominal - 1) > 0.01;
        if (another && std::fabs(reading / value - 1) * 100 <= std::max(part.tolerance, 5.0)) {
            return " It looks like " + formatQuantity(value, part.unit, 3) + ".";
        }
    }
    return "";
}

Verdict said(VerdictState state, std::string sentence) {
    Verdict out;
    out.state = state;
    out.sentence = std::move(sentence);
    return out;
}

bool sameValue(double a, double b) { return std::fabs(a / b - 1) < 1e-3; }

bool setsFrequency(const Kit& kit, const std::string& ref) {
    const bool filter =
        std::any_of(kit.lowPass.begin(), kit.lowPass.end(), [&](const auto& e) { return e.ref == ref; });
    return filter || std::any_of(kit.coils.begin(), kit.coils.end(), [&](const Coil& coil) {
               return coil.tune && std::find(coil.tune->fixed.begin(), coil.tune->fixed.end(), ref) !=
                                       coil.tune->fixed.end();
           });
}

/// Letters in lower case, blanks left out: how marks are compared.
std::string bare(std::string_view text) {
    std::string out;
    for (const char c : text) {
        if (c != ' ') out.push_back(static_cast<char>(std::tolower(static_cast<unsigned char>(c))));
    }
    return out;
}

}  // namespace

Limits partLimits(const Part& part) { return limitsAround(part.nominal, part.tolerance); }

bool markLies(const Part& part, const Build& build) {
    const auto printed = build.printed.find(part.ref);
    return printed != build.printed.end() && part.measurable() && !markAgrees(part, printed->second);
}

Verdict partVerdict(const Part& part, const Build& build) {
    const Reading* reading = build.last(Subject::part(part.ref));
    const auto mark = build.parts.find(part.ref);
    const bool marked = mark != build.parts.end();
    const auto remedy = build.remedies.find(part.ref);
    if (remedy != build.remedies.end() && remedy->second.how == Remedy::How::equivalent)
        return said(VerdictState::pass, "Another type, accepted by you: " + remedy->second.note);
    if (marked && mark->second == PartMark::missing) return said(VerdictState::fail, "Not found in the bag.");
    if (reading != nullptr && part.measurable()) {
        Verdict out = judgeReading(*reading, partLimits(part), build.rule, part.unit);
        if (out.state == VerdictState::fail) out.sentence += looksLike(part, reading->value);
        return out;
    }
    if (!marked || markLies(part, build)) return {};
    return said(VerdictState::pass,
                mark->second == PartMark::trusted ? "Taken on trust, not measured." : "Seen and identified.");
}

std::string_view word(BagWay way) {
    static constexpr std::array<std::string_view, 3> names{"sorted by kind", "labelled by the plan",
                                                           "each just before fitting"};
    static_assert(names.size() == enumerators<BagWay>());
    return names[static_cast<std::size_t>(way)];
}

std::string_view word(BagDepth depth) {
    static constexpr std::array<std::string_view, 3> names{"measure all", "measure the doubtful",
                                                           "trust the bag"};
    static_assert(names.size() == enumerators<BagDepth>());
    return names[static_cast<std::size_t>(depth)];
}

std::vector<const Part*> likeParts(const Kit& kit, const Part& part) {
    std::vector<const Part*> out;
    for (const Part& other : kit.parts) {
        if (other.kind == part.kind && other.value == part.value && other.tolerance == part.tolerance)
            out.push_back(&other);
    }
    return out;
}

std::string worthMeasuring(const Kit& kit, const Part& part) {
    if (!part.measurable()) return "";
    if (part.mark.empty()) return "no mark is known for it";
    for (const MarkReading& reading : readMark(part.mark, part.kind)) {
        if (sameValue(reading.value, part.nominal)) continue;
        for (const Part& other : kit.parts) {
            if (other.kind == part.kind && other.nominal > 0 && sameValue(other.nominal, reading.value))
                return "its mark can also be read as " + other.value + ", which this kit has too";
        }
    }
    if (part.tolerance <= 2) return "±" + personNumber(part.tolerance) + "\u202f% is more than a mark proves";
    if (setsFrequency(kit, part.ref)) return "it sets a frequency";
    return "";
}

bool markAgrees(const Part& part, std::string_view printed) {
    if (!part.measurable()) {
        const std::string seen = bare(printed);
        return !seen.empty() && (seen == bare(part.mark) || seen == bare(part.value));
    }
    const auto readings = readMark(printed, part.kind);
    return std::any_of(readings.begin(), readings.end(),
                       [&](const MarkReading& r) { return sameValue(r.value, part.nominal); });
}

}  // namespace ombrek
