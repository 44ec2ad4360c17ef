#pragma once

#include <optional>
#include <vector>

#include "desk/pieces/lines.h"
#include "desk/tune/partners_view.h"
#include "judged/judged.h"
#include "judged/tune_before.h"
#include "station/tune/end_stop.h"
#include "station/tune/tune_order.h"

namespace ombrek {

/// What the Tune page shows, worked out from the book alone.
struct TuneView {
    const Adjustment* adjustment = nullptr;  ///< in hand; null: the kit names none
    const Adjustment* next = nullptr;        ///< the first that is not settled
    TuneState state;                         ///< of the one in hand
    const Adjustment* other = nullptr;       ///< its partner, which is to be turned next instead
    BeforeTuning before;                     ///< what must be done or said before it
    std::vector<TuneTurn> order;
    QString now, why;
    std::optional<Reading> last;  ///< that holds
    QString lastText;             ///< of the last that is no number: "louder", "range 2, 5 of 8"
    std::vector<Fact> facts;
    QString text, caution;
    std::vector<StateLine> lines;      ///< in the order of `order`
    std::vector<PartnerRow> partners;  ///< those that pull each other, itself among them; empty: none
    std::vector<EndStopWay> ways;      ///< out of an end stop

    bool settled() const { return state.state == VerdictState::pass; }
    /// It is answered by eyes or by marks, no number.
    bool seen() const { return adjustment && adjustment->kind == Adjustment::Kind::contrast; }
    bool marked() const { return adjustment && adjustment->scale.kind != ReadingScale::Kind::number; }
};

/// @param chosen    id of an adjustment; another: the first that is not settled, or the last
/// @param position  where the builder says the adjuster stands, 0 … 1; nothing: where it is wanted
/// @param drawers   of the builder, for a capacitor at an end stop
/// @param now       seconds since 1970, UTC
TuneView tuneView(const Judged& judged, const std::string& chosen, std::optional<double> position,
                  const std::vector<StockLine>& drawers, std::int64_t now);

}  // namespace ombrek
