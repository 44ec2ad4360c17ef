#include "desk/list/delivery_model.h"

#include <algorithm>
#include <map>

#include "desk/session.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

VerdictState stateOf(Delivery delivery) {
    switch (delivery) {
        case Delivery::complete:
            return VerdictState::pass;
        case Delivery::shortShipped:
        case Delivery::backOrdered:
            return VerdictState::fail;
        case Delivery::notOnList:
            return VerdictState::notDone;
        default:
            return VerdictState::doubtful;
    }
}

std::vector<DeliveryLine> linesOf(const Kit& kit, const std::vector<PackingLine>& packing) {
    auto out = packing.empty() ? std::vector<DeliveryLine>() : reconcile(orderOf(kit), packing);
    const auto rank = [](Delivery d) {
        return d == Delivery::complete ? 2 : d == Delivery::notOnList ? 1 : 0;
    };
    std::stable_sort(out.begin(), out.end(), [&](const DeliveryLine& a, const DeliveryLine& b) {
        return rank(a.state) < rank(b.state);
    });
    return out;
}

std::vector<std::string> notComeOf(const Judged& judged, const std::vector<DeliveryLine>& lines) {
    std::vector<std::string> out;
    for (const DeliveryLine& line : lines) {
        if (line.state != Delivery::shortShipped && line.state != Delivery::backOrdered) continue;
        int missing = line.wanted - line.shipped;
        for (auto ref = line.refs.rbegin(); ref != line.refs.rend() && missing > 0; ++ref, --missing) {
            const Part* part = judged.kit().part(*ref);
            if (part != nullptr && judged.part(*part).state == VerdictState::notDone) out.push_back(*ref);
        }
    }
    return out;
}

void say(DeliveryView& v) {
    if (v.lines.empty()) {
        v.now = QStringLiteral("Set the packing list against the order.");
        v.why = QStringLiteral("O opens the distributor's table (CSV); Ctrl+V pastes it.");
        v.title = QStringLiteral("What it needs");
        v.text = QStringLiteral(
            "A heading with what was ordered, shipped or back-ordered, and an order code or a description. "
            "Lines meet by code, else by value.");
        return;
    }
    v.title = QStringLiteral("In all");
    v.now = v.notCome.empty()
                ? QStringLiteral("What came is set against the list.")
                : QStringLiteral("%1 parts did not come: Enter marks them.").arg(v.notCome.size());
    v.why = v.notCome.empty() ? QStringLiteral("Esc goes back to the bag.") : qs(listed(v.notCome, 8));
}

}  // namespace

DeliveryView deliveryView(const Judged& judged, const std::vector<PackingLine>& packing, std::size_t row) {
    DeliveryView v;
    v.lines = linesOf(judged.kit(), packing);
    v.row = std::min(row, v.lines.empty() ? 0 : v.lines.size() - 1);
    v.notCome = notComeOf(judged, v.lines);
    say(v);
    std::map<Delivery, int> counts;
    for (std::size_t i = 0; i < v.lines.size(); ++i) {
        const DeliveryLine& l = v.lines[i];
        ++counts[l.state];
        const QString who = l.refs.empty() ? QString() : qs(listed(l.refs, 3)) + QStringLiteral(": ");
        v.rows.push_back({stateOf(l.state), who + qs(l.what), qs(word(l.state)), i == v.row, false});
    }
    for (const auto& [state, count] : counts)
        v.counts.push_back({qs(word(state)), QString::number(count), stateOf(state), true});
    return v;
}

}  // namespace ombrek
