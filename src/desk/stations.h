#pragma once

#include <QString>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// One bead on the wire: a station's name, its state in words, how far it is wound, and whether its gates
/// stand open.
struct StationLine {
    QString name, state;
    double wound = 0;  ///< 0 to 1
    bool earned = false;
    bool operator==(const StationLine&) const = default;
};

/// The seven stations of a build, in order.
std::vector<StationLine> stationLines(const Judged& judged);

/// "At the bench 1 h 12 today" and "about 5 h 40 left".
struct SittingLine {
    QString today, left;
};
/// How long this sitting lasts already. @param now  seconds since 1970, UTC
SittingLine sittingLine(const Judged& judged, std::int64_t now);

/// Minutes as a builder says them: "1 h 12", "40 min".
QString hoursAndMinutes(double minutes);

}  // namespace ombrek
