#include "kit/parts_in.h"

#include <cmath>

#include "core/quantity/preferred.h"

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

}  // namespace

Limits partLimits(const Part& part) { return limitsAround(part.nominal, part.tolerance); }

Verdict partVerdict(const Part& part, const Build& build) {
    const Reading* reading = build.last("part:" + part.ref);
    const auto mark = build.parts.find(part.ref);
    if (mark != build.parts.end() && mark->second == PartMark::missing) {
        Verdict out;
        out.state = VerdictState::fail;
        out.sentence = "Not found in the bag.";
        return out;
    }
    if (reading != nullptr && part.measurable()) {
        Verdict out = judge(reading->value, partLimits(part), reading->uncertainty, build.rule, part.unit);
        if (out.state == VerdictState::fail) out.sentence += looksLike(part, reading->value);
        return out;
    }
    Verdict out;
    if (mark == build.parts.end()) return out;
    out.state = VerdictState::pass;
    out.sentence =
        mark->second == PartMark::trusted ? "Taken on trust, not measured." : "Seen and identified.";
    return out;
}

BagCount countBag(const Kit& kit, const Build& build) {
    BagCount out;
    for (const Part& part : kit.parts) {
        ++out.total;
        const auto mark = build.parts.find(part.ref);
        const bool missing = mark != build.parts.end() && mark->second == PartMark::missing;
        switch (partVerdict(part, build).state) {
            case VerdictState::pass:
                ++out.in;
                break;
            case VerdictState::fail:
                ++(missing ? out.missing : out.wrong);
                break;
            case VerdictState::notDone:
                ++out.waiting;
                break;
            default:
                ++out.doubtful;
                break;
        }
    }
    return out;
}

const Part* nextPart(const Kit& kit, const Build& build) {
    for (const Part& part : kit.parts) {
        if (partVerdict(part, build).state == VerdictState::notDone) return &part;
    }
    return nullptr;
}

}  // namespace ombrek
