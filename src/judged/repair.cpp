#include "judged/repair.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/earned.h"
#include "core/quantity/shown.h"
#include "judged/evidence.h"
#include "judged/judged.h"
#include "station/proof/power_method.h"
#include "station/rests_on.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

std::string shown(const Reading& r) {
    if (r.unit == Unit::none || r.beyond || !std::isfinite(r.value))
        return r.unit == Unit::none ? "" : shownText({r.value, r.beyond}, r.unit);
    return earnedValue(r.value, r.uncertainty, r.unit);
}

std::string changeOf(const Reading& before, const Reading& after) {
    if (before.unit != after.unit || before.unit == Unit::none) return "";
    if (!std::isfinite(before.value) || !std::isfinite(after.value)) return "";
    const double by = after.value - before.value;
    const double u = std::hypot(before.uncertainty, after.uncertainty);
    if (std::abs(by) <= u) return "as before";
    return (by > 0 ? "+" : "−") + earnedValue(std::abs(by), u, before.unit);
}

/// The last reading taken before a time. Where several fall into its second, the one before the change
/// counts.
const Reading* lastBefore(const Build& build, const Subject& subject, const Repair& repair) {
    std::int64_t after = -1;
    for (const Change& c : build.changes) {
        if (c.subject.id == repair.ref && c.at == repair.at) after = std::max(after, c.after);
    }
    const Reading* out = nullptr;
    for (const Reading& r : build.readings) {
        if (r.subject == subject && (after >= 0 ? r.id <= after : r.at < repair.at)) out = &r;
    }
    return out;
}

/// It does not pass, and the builder has said on Sign-off why that is lived with.
bool accepted(const Judged& judged, const Subject& subject) {
    for (const Gate& gate : judged.readiness().gates) {
        for (const Evidence& e : gate.evidence) {
            if (e.accepted && e.subject == subject.text()) return true;
        }
    }
    return false;
}

/// A power in watts, whatever way it was read; all else as it is.
Reading asRead(const Judged& judged, const Reading& reading) {
    Reading out = reading;
    if (!reading.subject.is(Subject::Kind::power) || reading.beyond || !std::isfinite(reading.value))
        return out;
    const Power power = powerOf(reading, judged.kit().ratings.ohms);
    out.value = power.watts;
    out.uncertainty = power.uncertainty;
    out.unit = Unit::watt;
    return out;
}

AgainLine lineOf(const Judged& judged, const Repair& repair, const Subject& subject) {
    AgainLine out{subject, titleOf(judged.kit(), subject), stationOf(subject.kind), "", "", "", {}, false};
    const Reading* before = lastBefore(judged.build(), subject, repair);
    const auto after = lastStanding(judged.kit(), judged.build(), subject);
    const bool since = after && (before == nullptr || after->id > before->id) && after->at >= repair.at;
    if (before != nullptr) out.before = shown(asRead(judged, *before));
    if (!since) return out;
    out.after = shown(asRead(judged, *after));
    if (before != nullptr) out.change = changeOf(asRead(judged, *before), asRead(judged, *after));
    const Evidence now = evidenceOf(subject, judged);
    // What nothing is promised of is shown by being read.
    const bool promised = !subject.is(Subject::Kind::current);
    out.state = promised ? now.state : VerdictState::pass;
    out.shown = out.state == VerdictState::pass || accepted(judged, subject);
    return out;
}

}  // namespace

std::size_t RepairState::open() const {
    return std::size_t(
        std::count_if(again.begin(), again.end(), [](const AgainLine& l) { return !l.shown; }));
}

std::vector<RepairState> repairStates(const Judged& judged) {
    const Build& build = judged.build();
    std::vector<RepairState> out;
    for (const Repair& repair : build.repairs) {
        RepairState state;
        state.repair = &repair;
        for (const Sighting& s : build.sightings) {
            if (s.repair == repair.id && repair.id != 0) state.sightings.push_back(&s);
        }
        if (!repair.open()) {
            auto again = readSubjects(repair.again);
            if (again.empty()) again = shownAgain(judged.kit(), repair.ref);
            for (const Subject& s : again) {
                if (exists(judged.kit(), s)) state.again.push_back(lineOf(judged, repair, s));
            }
        }
        out.push_back(std::move(state));
    }
    for (std::size_t i = 0; i < out.size(); ++i) {
        for (std::size_t later = i + 1; later < out.size(); ++later) {
            if (out[later].repair->open()) continue;
            const auto asked = [&](const AgainLine& line) {
                const auto& all = out[later].again;
                return line.shown || std::any_of(all.begin(), all.end(), [&](const AgainLine& l) {
                           return l.subject == line.subject;
                       });
            };
            out[i].takenOver |= !out[i].again.empty() &&
                                std::all_of(out[i].again.begin(), out[i].again.end(), asked) &&
                                out[i].open() > 0;
        }
    }
    std::reverse(out.begin(), out.end());
    return out;
}

std::string photoStep(const Repair& repair) { return "repair:" + std::to_string(repair.id); }

const Repair* repairOf(const Build& build, const PhotoLine& photo) {
    const auto hit = std::find_if(build.repairs.begin(), build.repairs.end(),
                                  [&](const Repair& r) { return photoStep(r) == photo.step; });
    return hit == build.repairs.end() ? nullptr : &*hit;
}

std::string keptSubjects(const std::vector<Subject>& subjects) {
    std::string out;
    for (const Subject& s : subjects) out += (out.empty() ? "" : ";") + s.text();
    return out;
}

std::vector<Subject> readSubjects(const std::string& kept) {
    std::vector<Subject> out;
    for (std::size_t at = 0; at < kept.size();) {
        const std::size_t end = std::min(kept.find(';', at), kept.size());
        if (end > at) out.push_back(readSubject(std::string_view(kept).substr(at, end - at)));
        at = end + 1;
    }
    return out;
}

Station stationOf(Subject::Kind kind) {
    switch (kind) {
        case Subject::Kind::part:
        case Subject::Kind::loose:
            return Station::partsIn;
        case Subject::Kind::coil:
            return Station::winding;
        case Subject::Kind::step:
            return Station::board;
        case Subject::Kind::check:
            return Station::firstLight;
        case Subject::Kind::adjustment:
            return Station::tune;
        case Subject::Kind::supply:
        case Subject::Kind::power:
        case Subject::Kind::current:
        case Subject::Kind::frequency:
        case Subject::Kind::harmonic:
            return Station::proof;
        default:
            return Station::none;
    }
}

}  // namespace ombrek
