#pragma once

#include <QString>
#include <vector>

#include "desk/air/azimuthal_map.h"
#include "desk/pieces/lines.h"
#include "desk/session.h"
#include "look/plot.h"

namespace ombrek {

/// What the Log page shows, worked out from the log and what is typed into its filter.
struct LogView {
    QString now, why, found;
    std::vector<std::size_t> rows;  ///< of the log that fit, newest first
    std::vector<AzimuthalMap::Dot> dots;
};
/// @param words  each begins a word of a line @param inHand  place in the log
LogView logView(const StationLog& log, const QString& words, std::int64_t build, std::size_t inHand);

/// A contact as a line of the list, and as facts on a card.
StateLine logLine(const Contact& contact, std::int64_t build, bool current);
/// @param own  made with the rig in hand
std::vector<Fact> contactFacts(const Contact& contact, const QString& ownLocator, bool own);

/// What a new contact begins with: the time, the band and mode of the last with this rig, else of the kit,
/// and the power that was proved there.
Contact beginContact(const StationLog& log, const Judged* judged, std::int64_t now);

/// Signal against distance of what other receivers reported; no series where nothing was.
PlotData heardPlot(const StationLog& log, std::int64_t build, const QString& ownLocator);

/// Reports of other receivers in a few figures: how many, how far, how strong.
QString heardSentence(const StationLog& log, std::int64_t build, const QString& ownLocator, double watts);

}  // namespace ombrek
