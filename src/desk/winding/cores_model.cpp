#include "desk/winding/cores_model.h"

#include <algorithm>
#include <cmath>

#include "desk/session.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

StateLine rowOf(const OtherCore& o, bool current) {
    const VerdictState state = o.worse.empty() ? VerdictState::pass
                               : o.fill > 1    ? VerdictState::fail
                                               : VerdictState::doubtful;
    return {state, qs(o.core->designation) + QStringLiteral(", %1 turns").arg(o.turns),
            qs(formatQuantity(o.inductance, Unit::henry, 3)) +
                (o.core->ferrite() ? QStringLiteral(", ferrite")
                                   : QStringLiteral(", copper Q %1").arg(std::lround(o.copperQ))),
            current, false};
}

StateLine rowOf(const CoreGuess& guess, bool current) {
    const MagneticCore& core = *guess.core;
    return {guess.odds > 0.5 ? VerdictState::pass : VerdictState::doubtful,
            qs(core.designation) + QStringLiteral(", ") + qs(core.paint.empty() ? core.material : core.paint),
            qs(decimals(guess.odds * 100, 1)) + QStringLiteral("\u202f%"), current, false};
}

}  // namespace

CoresView otherCoresView(const Kit& kit, const Coil& coil, const std::vector<MagneticCore>& atHand,
                         const std::vector<MagneticCore>& table, std::size_t at) {
    CoresView v;
    const bool own = !atHand.empty();
    const double frequency =
        coil.tune ? std::sqrt(coil.tune->low * coil.tune->high) : std::max(kit.ratings.frequency, 1e6);
    const auto others =
        otherCores(coil.core, coil.target, coil.wire, frequency, own ? atHand : table, dutyOf(kit, coil));
    v.now = QStringLiteral("Another core for %1, %2.").arg(qs(coil.ref), qs(coil.core.designation));
    v.why = own ? QStringLiteral("From your drawers, those that cost least first.")
                : QStringLiteral("From the whole table: your drawers hold no ring core that is named.");
    v.at = std::min(at, others.empty() ? 0 : others.size() - 1);
    for (std::size_t i = 0; i < others.size(); ++i) v.lines.push_back(rowOf(others[i], i == v.at));
    if (others.empty()) {
        v.title = QStringLiteral("No other core");
        v.number = QStringLiteral("nothing at hand");
        return v;
    }
    const OtherCore& here = others[v.at];
    v.title = qs(here.core->designation);
    v.number = QString::number(here.turns);
    v.unit = QStringLiteral("turns");
    v.text = here.worse.empty() ? QStringLiteral("Nothing that is reckoned here gets worse.")
                                : QStringLiteral("What gets worse: %1.").arg(qs(here.worse));
    return v;
}

CoresView whichCoreView(const CoreClues& clues, const QString& typed, const std::vector<MagneticCore>& table,
                        std::size_t at) {
    constexpr std::size_t kShown = 12;
    CoresView v;
    auto guesses = whichCore(clues, table);
    guesses.resize(std::min(guesses.size(), kShown));
    if (guesses.empty()) return noRingView();
    v.at = std::min(at, guesses.size() - 1);
    for (std::size_t i = 0; i < guesses.size(); ++i) v.lines.push_back(rowOf(guesses[i], i == v.at));
    v.now = guesses.front().odds > 0.9
                ? QStringLiteral("It is a %1.").arg(qs(guesses.front().core->designation))
                : QStringLiteral("It is one of these; measure ten turns on it to be surer.");
    v.why = QStringLiteral("By %1. G types it again.").arg(typed);
    v.title = qs(guesses[v.at].core->designation);
    v.number = qs(decimals(guesses[v.at].odds * 100, 0));
    v.unit = QStringLiteral("%");
    v.text = QStringLiteral("AL %1 for each turn squared.")
                 .arg(qs(formatQuantity(guesses[v.at].core->al, Unit::henry, 3)));
    return v;
}

CoresView noRingView() {
    CoresView v;
    v.now = QStringLiteral("Which core is this? G asks for what you see of it.");
    v.why = QStringLiteral("This coil is on no ring from the table.");
    v.number = QStringLiteral("no ring");
    return v;
}

}  // namespace ombrek
