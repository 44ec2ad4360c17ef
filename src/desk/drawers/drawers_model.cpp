#include "desk/drawers/drawers_model.h"

#include <cmath>

#include "desk/session.h"

namespace ombrek {

DrawerLineView drawerLineView(const StockLine& line, const std::vector<Promise>& promises) {
    const int promised = line.count - freeFor(line, promises, 0);
    return {QStringLiteral("Drawer %1").arg(qs(line.drawer)), qs(describe(line)),
            promised > 0 ? QStringLiteral("%1 of them promised to a kit.").arg(promised) : QString(),
            line.count};
}

StateLine drawerRow(const StockLine& line, const std::vector<Promise>& promises, bool current) {
    const int free = freeFor(line, promises, 0);
    const QString promised =
        free < line.count ? QStringLiteral(", %1 promised").arg(line.count - free) : QString();
    return {free > 0 ? VerdictState::pass : VerdictState::notDone, qs(describe(line)),
            QStringLiteral("%1 in %2").arg(line.count).arg(qs(line.drawer)) + promised, current, false};
}

DrawersView drawersView(std::size_t fit, std::size_t all) {
    DrawersView v;
    v.now = all == 0 ? QStringLiteral("Begin your drawers: A, then B3 22n 5% 100V film x4.")
                     : QStringLiteral("Find a part: type a value, a range or a word.");
    v.why = QStringLiteral("F types; Esc or Enter comes back to the keys.");
    v.found = all == 0 ? QStringLiteral("No drawer has anything yet: A adds a line, I takes in a CSV.")
                       : QStringLiteral("%L1 of %L2 lines").arg(fit).arg(all);
    return v;
}

std::vector<StockLine> sparesOf(const Judged& judged, std::vector<std::int64_t>& ids) {
    std::vector<StockLine> out;
    for (const BagTrouble& t : judged.story().troubles) {
        if (t.what != BagTrouble::What::over) continue;
        for (const LoosePart& part : judged.build().loose) {
            if (part.id != t.loose) continue;
            const auto marked = markedValues(part.printed, part.kind);
            const double value = !marked.empty()             ? marked.front()
                                 : std::isfinite(part.value) ? part.value
                                                             : 0;
            // A transistor or an IC is described by what is printed on it.
            const std::string what = value > 0 || part.printed.empty() ? "" : part.printed + ", ";
            ids.push_back(part.id);
            out.push_back({0, "spares", part.kind, value, unitOf(part.kind), 0, 0, 0,
                           what + "from " + judged.kit().name, 1});
        }
    }
    return out;
}

}  // namespace ombrek
