#pragma once

#include <string>
#include <vector>

#include "core/proof/readiness.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

class Judged;

/// One thing that a repair made doubtful: as it was read before, and since.
struct AgainLine {
    Subject subject;
    std::string title;
    Station station = Station::none;
    std::string before, after;                   ///< "2.1 W"; empty: it was not read
    std::string change;                          ///< "+0.9 W"; empty where they cannot be held together
    VerdictState state = VerdictState::notDone;  ///< now
    bool shown = false;  ///< read since, and in order or passed knowingly as it reads now
};

/// A repair with what must be shown again.
struct RepairState {
    const Repair* repair = nullptr;
    std::vector<AgainLine> again;
    std::vector<const Sighting*> sightings;
    bool takenOver = false;  ///< a later repair asks for all of it anew
    /// How many of them are not shown again.
    std::size_t open() const;
    /// Mended, and all that it made doubtful is shown again, or asked for by a later one.
    bool closed() const { return repair != nullptr && !repair->open() && (takenOver || open() == 0); }
};

/// All of them, newest first. Of books before, what rests on the part is asked for.
std::vector<RepairState> repairStates(const Judged& judged);

/// What a photograph of a repair has in place of a step, "repair:5".
std::string photoStep(const Repair& repair);
/// The repair a photograph is of; null when it is of a step.
const Repair* repairOf(const Build& build, const PhotoLine& photo);

/// Subjects as a repair keeps them, "adjust:bias;proof:power".
std::string keptSubjects(const std::vector<Subject>& subjects);
std::vector<Subject> readSubjects(const std::string& kept);

/// The station where a subject is read.
Station stationOf(Subject::Kind kind);

}  // namespace ombrek
