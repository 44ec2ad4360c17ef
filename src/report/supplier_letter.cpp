#include "report/supplier_letter.h"

#include "station/parts_in/one_cause.h"
#include "station/phrases.h"

namespace ombrek {
namespace {

/// How much of the bag was measured, and no more than was.
std::string howChecked(const Kit& kit, const Build& build) {
    int values = 0, read = 0;
    for (const Part& part : kit.parts) {
        if (!part.measurable()) continue;
        ++values;
        read += build.last(Subject::part(part.ref)) != nullptr;
    }
    if (read == 0) return "The parts were counted and looked at; none was measured.";
    const std::string counted = ", the meter's own error counted.";
    if (read == values) return "Every value was measured" + counted;
    return std::to_string(read) + " of " + std::to_string(values) + " values were measured" + counted +
           " The others were not.";
}

}  // namespace

std::vector<std::vector<std::string>> shoppingRows(const std::vector<ShoppingLine>& lines) {
    std::vector<std::vector<std::string>> rows{
        {"quantity", "kind", "value", "tolerance", "rating", "order code", "for"}};
    for (const ShoppingLine& l : lines) {
        rows.push_back({std::to_string(l.quantity), std::string(word(l.kind)), l.value, l.tolerance, l.rating,
                        l.code, listed(l.refs)});
    }
    return rows;
}

std::string supplierLetter(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    const BagStory& story = judged.story();
    std::string missing, wrong, over;
    for (const BagTrouble& t : toldOnce(story.troubles, oneCauses(kit, build))) {
        const auto remedy = build.remedies.find(t.ref);
        const bool settled = remedy != build.remedies.end() && remedy->second.how == Remedy::How::equivalent;
        if (settled) continue;
        if (t.what == BagTrouble::What::missing) {
            const Part& part = *kit.part(t.ref);
            missing += "  - " + t.ref + ", " + part.value +
                       (part.code.empty() ? "" : " (order code " + part.code + ")") + "\n";
        } else if (t.what == BagTrouble::What::over) {
            over += "  - " + t.head + ".\n";
        } else if (t.state == VerdictState::fail && t.what != BagTrouble::What::loose &&
                   t.what != BagTrouble::What::misplaced) {
            wrong += "  - " + t.head + ". " + t.sentence + "\n";
        } else if (t.what == BagTrouble::What::mismarked) {
            wrong += "  - " + t.head + ". " + t.sentence + "\n";
        }
    }
    if (missing.empty() && wrong.empty() && over.empty())
        return "The bag of " + kit.name + " is complete; there is nothing to write.\n";
    std::string out =
        "Hello,\n\nI am building " + kit.name + " and have checked the bag against the parts list";
    const BagCount& bag = judged.bag();
    out += ", " + std::to_string(bag.total) + " parts.\n";
    if (!missing.empty()) out += "\nThese were not in it:\n" + missing;
    if (!wrong.empty()) out += "\nThese are not what the list says:\n" + wrong;
    if (!over.empty()) out += "\nThese were over:\n" + over;
    out += "\n" + howChecked(kit, build) + " Could you send what is missing or wrong?\n\nThank you and 73\n";
    return out;
}

}  // namespace ombrek
