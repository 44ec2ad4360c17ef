#pragma once

#include <optional>
#include <vector>

#include "desk/pieces/lines.h"
#include "station/judged.h"
#include "station/key_down.h"

namespace ombrek {

/// What the Tune page shows, worked out from the book alone.
struct TuneView {
    const Adjustment* adjustment = nullptr;  ///< in hand; null: the kit names none
    const Adjustment* next = nullptr;        ///< the first that is not settled
    TuneState state;                         ///< of the one in hand
    const Adjustment* other = nullptr;       ///< its partner, which is to be turned next instead
    LoadAsk load;                            ///< what must be done before the key goes down for it
    QString now, why;
    std::optional<Reading> last;  ///< that holds
    std::vector<Fact> facts;
    QString text, caution;
    std::vector<StateLine> lines;

    bool settled() const { return state.state == VerdictState::pass; }
};

/// @param chosen    id of an adjustment; another: the first that is not settled, or the last
/// @param position  where the builder says the adjuster stands, 0 … 1; nothing: where it is wanted
/// @param now       seconds since 1970, UTC
TuneView tuneView(const Judged& judged, const std::string& chosen, std::optional<double> position,
                  std::int64_t now);

/// "57.3 %" of the travel.
QString travelText(double position);

}  // namespace ombrek
