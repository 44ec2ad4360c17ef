#pragma once

#include <optional>
#include <vector>

#include "core/plan/schedule.h"
#include "desk/pieces/lines.h"
#include "judged/judged.h"
#include "station/board/sitting.h"

namespace ombrek {

/// What the page of this sitting shows, worked out from the book alone.
struct SittingView {
    QString now, why;
    QString back;  ///< where one was; empty before the first sitting
    struct Group {
        QString heading;
        std::vector<SittingAhead::Want> wants;
    };
    std::vector<Group> left, right;  ///< what the sitting will want
    bool ahead = false;              ///< something is left to do
    std::vector<Fact> pace;
};

/// @param minutes  that this sitting is to last
SittingView sittingView(const Judged& judged, double minutes);

/// By which evening the build is done, as odds. @param odds  nothing: still reckoned
struct OddsView {
    std::vector<Fact> facts;
    QString text;
};
inline constexpr int kSchedules = 10000;  ///< drawn by lot
/// The odds to be done by each evening, as text and columns.
OddsView oddsView(const std::vector<FreeTime>& evenings, const std::optional<FinishOdds>& odds,
                  const std::string& pattern);

/// "45", "90", "2h": minutes from 10 to 16 hours; nothing for all else.
std::optional<double> sittingMinutes(const QString& text);

}  // namespace ombrek
