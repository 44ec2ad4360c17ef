#include "judged/not_measured.h"

#include <algorithm>
#include <cmath>

#include "judged/on_air.h"
#include "station/phrases.h"
#include "station/proof/power_table.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

constexpr std::size_t kNamed = 8;

void add(std::vector<std::string>& out, const std::vector<std::string>& names, const char* sentence) {
    if (!names.empty()) out.push_back(listed(names, kNamed) + sentence);
}

void addOfParts(const Judged& judged, std::vector<std::string>& out) {
    std::vector<std::string> trusted, unread, coils;
    for (const Part& part : judged.kit().parts) {
        if (!part.measurable() || judged.build().last(Subject::part(part.ref)) != nullptr) continue;
        const auto mark = judged.build().parts.find(part.ref);
        const bool trust = mark != judged.build().parts.end() && mark->second == PartMark::trusted;
        (trust ? trusted : unread).push_back(part.ref);
    }
    for (const Coil& coil : judged.kit().coils) {
        if (coil.target > 0 && judged.build().last(Subject::coil(coil.ref)) == nullptr)
            coils.push_back(coil.ref);
    }
    add(out, trusted, ": taken on trust, not measured.");
    add(out, unread, ": value not measured.");
    add(out, coils, ": inductance not measured.");
}

/// Whether anything of this kind was read on a band and holds.
bool reads(const Judged& judged, const Subject& subject) {
    return lastStanding(judged.kit(), judged.build(), subject).has_value();
}

void addOfProof(const Judged& judged, std::vector<std::string>& out) {
    const Ratings& rated = judged.kit().ratings;
    if (!rated.transmits()) {
        if (rated.mayTransmit()) out.emplace_back("Power, frequency and harmonics: the kit promises none.");
        return;
    }
    std::vector<std::string> power, frequency, harmonics;
    for (const std::string& band : rated.bandNames()) {
        const std::string name = band.empty() ? "the band" : band;
        if (!reads(judged, Subject::power(band))) power.push_back(name);
        if (!reads(judged, Subject::frequency(band))) frequency.push_back(name);
        bool all = true;
        for (int order = 2; order <= rated.harmonics; ++order)
            all &= reads(judged, Subject::harmonic(order, band));
        if (!all) harmonics.push_back(name);
    }
    add(out, power, ": power not measured.");
    add(out, frequency, ": frequency not measured.");
    add(out, harmonics, ": not every harmonic measured.");
    out.push_back(
        "Harmonics above number " + std::to_string(rated.harmonics) +
        ", other products of mixing unless a plot of the spectrum stands below, and key clicks: not "
        "measured.");
    const PowerTable table = powerTable(judged.kit(), judged.build());
    std::size_t supplies = 0;
    for (std::size_t s = 0; s < table.supplies.size(); ++s) {
        supplies += std::any_of(table.cells.begin(), table.cells.end(),
                                [&](const auto& row) { return row[s].reading.has_value(); });
    }
    if (supplies <= 1) out.emplace_back("Power at other supply voltages: not measured.");
    out.emplace_back("Drift over temperature and over hours: not measured.");
}

}  // namespace

std::vector<std::string> notMeasured(const Judged& judged) {
    std::vector<std::string> out;
    addOfParts(judged, out);
    std::vector<std::string> checks, adjustments;
    for (const Check& check : judged.kit().checks) {
        if (judged.check(check).state == VerdictState::notDone) checks.push_back(check.title);
    }
    for (const Adjustment& a : judged.kit().adjustments) {
        if (judged.tune(a).readings.empty() && judged.tune(a).state != VerdictState::pass)
            adjustments.push_back(a.title);
    }
    add(out, checks, ": not checked.");
    add(out, adjustments, ": not adjusted.");
    addOfProof(judged, out);
    const std::size_t compared = comparisonsOf(judged.build()).size();
    out.push_back(compared == 0 ? "Sensitivity: not measured, nor compared with another receiver."
                                : "Sensitivity: not measured, only compared with another receiver, " +
                                      std::to_string(compared) + " times.");
    return out;
}

}  // namespace ombrek
