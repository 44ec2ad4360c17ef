#include "judged/tune_next.h"

#include "station/tune/tune_order.h"
#include "station/tune/tune_rounds.h"

namespace ombrek {
namespace {

/// Of those that pull each other the one in work: its turn is ended before another's begins, or none of them
/// would ever come to its end.
const Adjustment* inWork(const Judged& judged, const Adjustment& a) {
    const Adjustment* out = &a;
    std::int64_t newest = -1;
    for (const Adjustment* partner : partnersOf(judged.kit(), a)) {
        const Reading* last = judged.build().last(Subject::adjustment(partner->id));
        if (last == nullptr || last->id < newest) continue;
        newest = last->id;
        out = partner;
    }
    return judged.tune(*out).state == VerdictState::pass ? &a : out;
}

}  // namespace

const Adjustment* nextAdjustment(const Judged& judged) {
    const Adjustment* waits = nullptr;  // for a better meter
    for (const TuneTurn& turn : tuningOrder(judged.kit(), judged.build())) {
        const TuneState& state = judged.tune(*turn.adjustment);
        if (state.state == VerdictState::pass) continue;
        if (!state.meterEnds) return inWork(judged, *turn.adjustment);
        if (waits == nullptr) waits = turn.adjustment;
    }
    return waits;
}

}  // namespace ombrek
