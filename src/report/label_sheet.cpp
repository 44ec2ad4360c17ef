#include "report/label_sheet.h"

#include <array>
#include <map>
#include <set>

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

std::string kindTitle(PartKind kind) {
    static constexpr std::array<const char*, kPartKinds> titles{
        "Resistors", "Capacitors", "Chokes",       "Diodes",   "Transistors",
        "ICs",       "Crystals",   "Cores, coils", "Trimmers", "Other"};
    return titles[static_cast<std::size_t>(kind)];
}

/// Put a part on the label of its like in the same group, or on a new one.
void add(std::vector<PartLabel>& labels, const Part& part, const std::string& group) {
    std::string value = part.value;
    if (part.nominal > 0) value += " ±" + personNumber(part.tolerance) + "\u202f%";
    for (PartLabel& label : labels) {
        if (label.group == group && label.value == value && label.mark == part.mark) {
            label.refs.push_back(part.ref);
            return;
        }
    }
    labels.push_back({group, {part.ref}, value, part.mark, part.kind});
}

}  // namespace

std::string_view labelsName(BagWay way) {
    static constexpr std::array<std::string_view, 3> names{"tray map", "bag labels", "picking list"};
    static_assert(names.size() == enumerators<BagWay>());
    return names[static_cast<std::size_t>(way)];
}

LabelSheet labelSheet(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    LabelSheet out{build.way, kit.name + ", " + std::string(labelsName(build.way)), {}};
    if (build.way == BagWay::byKind) {
        for (const Part* part : judged.partsInOrder()) add(out.labels, *part, kindTitle(part->kind));
        return out;
    }
    std::set<std::string> placed;
    for (const std::size_t i : judged.order()) {
        const Step& step = kit.steps[i];
        const bool wanted = build.way == BagWay::byPlan || !build.done(step.id);
        for (const std::string& ref : step.fits) {
            const Part* part = kit.part(ref);
            if (placed.insert(ref).second && wanted && part != nullptr) add(out.labels, *part, step.title);
        }
    }
    for (const Part& part : kit.parts) {
        if (!placed.contains(part.ref)) add(out.labels, part, "In no step");
    }
    return out;
}

}  // namespace ombrek
