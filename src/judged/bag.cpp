#include "judged/bag.h"

#include <algorithm>
#include <tuple>
#include <unordered_map>

namespace ombrek {
namespace {

bool isOpen(const Part& part, const Judged& judged) {
    return judged.part(part).state == VerdictState::notDone;
}

/// Where each designator comes in the plan; those in no step come last.
std::unordered_map<std::string_view, std::size_t> placesInPlan(const Judged& judged) {
    std::unordered_map<std::string_view, std::size_t> out;
    std::size_t place = 0;
    for (const std::size_t i : judged.order()) {
        for (const std::string& ref : judged.kit().steps[i].fits) out.try_emplace(ref, place++);
    }
    return out;
}

/// The next step on the board that fits parts, or null.
const Step* stepAtHand(const Judged& judged) {
    for (const std::size_t i : judged.order()) {
        const Step& step = judged.kit().steps[i];
        if (!judged.build().done(step.id) && !step.fits.empty()) return &step;
    }
    return nullptr;
}

}  // namespace

BagCount countBag(const Judged& judged) {
    BagCount out;
    const auto& marks = judged.build().parts;
    for (const Part& part : judged.kit().parts) {
        ++out.total;
        const auto mark = marks.find(part.ref);
        const bool missing = mark != marks.end() && mark->second == PartMark::missing;
        switch (judged.part(part).state) {
            case VerdictState::pass:
                ++out.in;
                break;
            case VerdictState::fail:
                ++(missing ? out.missing : out.wrong);
                break;
            case VerdictState::notDone:
                ++out.waiting;
                break;
            default:
                ++out.doubtful;
                break;
        }
    }
    return out;
}

std::vector<const Part*> partsInOrder(const Judged& judged) {
    std::vector<const Part*> out;
    for (const Part& part : judged.kit().parts) out.push_back(&part);
    const auto sortBy = [&](const auto& key) {
        std::stable_sort(out.begin(), out.end(), [&](auto a, auto b) { return key(a) < key(b); });
    };
    if (judged.build().way == BagWay::byKind) {
        sortBy([](const Part* p) { return std::tie(p->kind, p->nominal, p->value); });
    } else {
        const auto places = placesInPlan(judged);
        sortBy([&](const Part* p) {
            const auto hit = places.find(p->ref);
            return hit == places.end() ? places.size() : hit->second;
        });
    }
    return out;
}

const Part* nextPart(const Judged& judged) {
    if (judged.build().way == BagWay::beforeFitting) {
        if (const Step* step = stepAtHand(judged)) {
            for (const std::string& ref : step->fits) {
                const Part* part = judged.kit().part(ref);
                if (part != nullptr && isOpen(*part, judged)) return part;
            }
            return nullptr;
        }
    }
    for (const Part* part : judged.partsInOrder()) {
        if (isOpen(*part, judged)) return part;
    }
    return nullptr;
}

PartAsk askFor(const Judged& judged, const Part& part) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    PartAsk out{PartAsk::How::look, {part.ref}, ""};
    if (markLies(part, build)) {
        out.how = PartAsk::How::measure;
        out.reason = "it is marked " + build.printed.at(part.ref);
    } else if (build.depth == BagDepth::trustBag) {
        out.how = PartAsk::How::count;
        out.refs.clear();
        for (const Part* like : likeParts(kit, part)) {
            if (like == &part || isOpen(*like, judged)) out.refs.push_back(like->ref);
        }
    } else if (part.measurable()) {
        if (build.depth == BagDepth::measureDoubtful) out.reason = worthMeasuring(kit, part);
        if (build.depth == BagDepth::measureAll || !out.reason.empty()) out.how = PartAsk::How::measure;
    }
    return out;
}

const BagCount& Judged::bag() const {
    return bag_.of([&] { return countBag(*this); });
}

const std::vector<const Part*>& Judged::partsInOrder() const {
    return partsInOrder_.of([&] { return ombrek::partsInOrder(*this); });
}

}  // namespace ombrek
