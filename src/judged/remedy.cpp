#include "judged/remedy.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/parts/bands.h"
#include "station/parts_in/parts_in.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

std::string percent(double odds) { return personNumber(std::round(odds * 100)) + "\u202f%"; }

bool namesRef(const Explanation& e, const std::string& ref) {
    return std::find(e.refs.begin(), e.refs.end(), ref) != e.refs.end();
}

/// Two values that a tired eye may take for each other: the same figures a decade apart, or figures swapped
/// as when bands are read from the wrong end.
bool looksAlike(const Part& a, const Part& b) {
    if (a.kind != b.kind || !a.measurable() || !b.measurable() || a.value == b.value) return false;
    const double decades = std::log10(a.nominal / b.nominal);
    if (std::fabs(decades - std::round(decades)) < 1e-3 && std::fabs(decades) <= 2.01) return true;
    const auto readings = readMark(b.mark, b.kind);
    return std::any_of(readings.begin(), readings.end(),
                       [&](const MarkReading& r) { return std::fabs(r.value / a.nominal - 1) < 1e-3; });
}

bool measured(const Part& part, const Build& build) { return build.last(Subject::part(part.ref)) != nullptr; }

}  // namespace

std::vector<LookPlace> lookAgain(const Judged& judged, const std::string& ref) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    std::vector<LookPlace> out;
    const Part* part = kit.part(ref);
    if (part == nullptr) return out;
    const BagStory& story = judged.story();
    for (std::size_t i = 0; i < story.looseCould.size(); ++i) {
        for (const Explanation& e : story.looseCould[i]) {
            if (namesRef(e, ref))
                out.push_back(
                    {"among the parts you could not name", "one of them is it, " + percent(e.odds)});
        }
    }
    for (const BagTrouble& t : story.troubles) {
        if (t.what == BagTrouble::What::misplaced && t.belongsTo == ref)
            out.push_back({"in the place of " + t.ref, t.sentence});
    }
    for (const Part& other : kit.parts) {
        if (other.ref == ref || !looksAlike(*part, other) || measured(other, build)) continue;
        if (judged.part(other).state != VerdictState::pass) continue;
        out.push_back(
            {"in the place of " + other.ref, other.value + " looks nearly alike, and it was not measured"});
        if (out.size() >= 6) break;
    }
    std::set<std::string> openBags;
    for (const Part& other : kit.parts) {
        if (!other.bag.empty() && judged.part(other).state == VerdictState::notDone)
            openBags.insert(other.bag);
    }
    for (const std::string& bag : openBags)
        out.push_back({"in bag " + bag, "it has not been gone through yet"});
    const std::string own = part->bag.empty() ? "every bag" : "bag " + part->bag;
    out.push_back(
        {"in the corners of " + own, "turn it inside out; small parts cling to it (common practice)"});
    if (part->kind == PartKind::ic || part->kind == PartKind::transistor)
        out.push_back({"in the dark foam or tube of the other semiconductors", "two often sit pin in pin"});
    if (part->kind == PartKind::resistor || part->kind == PartKind::capacitor ||
        part->kind == PartKind::diode)
        out.push_back({"under the tape of the paper strips", "a strip of three may hold four"});
    out.push_back({"in the box, its flaps and the floor", "most missing parts are found the next day"});
    return out;
}

std::vector<Substitute> fromDrawers(const Part& part, const std::vector<StockLine>& stock,
                                    const std::vector<Promise>& promises, std::int64_t build,
                                    std::size_t most) {
    if (!part.measurable()) return {};
    return substitutes({part.kind, part.nominal, part.tolerance, part.volts, part.watts},
                       freeStock(stock, promises, build, part.ref), most);
}

std::string describe(const Substitute& substitute, const std::vector<StockLine>& stock, bool withDrawer) {
    std::string out;
    for (const std::size_t i : substitute.parts) {
        const StockLine& line = stock[i];
        out += (out.empty() ? "" : " and ") + formatQuantity(line.value, line.unit, 4);
        if (substitute.parts.size() == 1 && line.tolerance > 0)
            out += " ±" + personNumber(line.tolerance) + "\u202f%";
    }
    if (substitute.how != Substitute::How::single) out += " in " + std::string(word(substitute.how));
    if (!withDrawer) return out;
    std::set<std::string> drawers;
    for (const std::size_t i : substitute.parts) {
        if (!stock[i].drawer.empty()) drawers.insert(stock[i].drawer);
    }
    return out + (drawers.empty() ? "" : ", drawer " + listed({drawers.begin(), drawers.end()}));
}

std::vector<ShoppingLine> shoppingList(const Judged& judged) {
    const Build& build = judged.build();
    std::vector<ShoppingLine> out;
    std::map<std::string, std::size_t> seen;
    for (const Part& part : judged.kit().parts) {
        if (judged.part(part).state != VerdictState::fail) continue;
        const auto remedy = build.remedies.find(part.ref);
        if (remedy != build.remedies.end() && remedy->second.how == Remedy::How::drawer) continue;
        const std::string key = std::string(word(part.kind)) + "|" + part.value + "|" +
                                plainNumber(part.tolerance) + "|" + plainNumber(part.volts);
        const auto [at, fresh] = seen.try_emplace(key, out.size());
        if (fresh) {
            ShoppingLine line{{}, 0, part.kind, part.value, "", "", part.code};
            if (part.nominal > 0) line.tolerance = "±" + plainNumber(part.tolerance) + " %";
            if (part.volts > 0) line.rating = formatQuantity(part.volts, Unit::volt, 3);
            if (part.watts > 0)
                line.rating += (line.rating.empty() ? "" : ", ") + formatQuantity(part.watts, Unit::watt, 3);
            out.push_back(std::move(line));
        }
        out[at->second].refs.push_back(part.ref);
        ++out[at->second].quantity;
    }
    return out;
}

}  // namespace ombrek
