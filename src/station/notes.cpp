#include "station/notes.h"

#include "station/subjects.h"

namespace ombrek {
namespace {

std::string ended(const std::string& text) {
    return text.empty() || text.ends_with('.') || text.ends_with('?') ? text : text + ".";
}

}  // namespace

std::string erratumAt(const Kit& kit, const Subject& at) {
    const auto of = [](const auto* record) { return record == nullptr ? "" : record->erratum; };
    switch (at.kind) {
        case Subject::Kind::part:
            return of(kit.part(at.id));
        case Subject::Kind::coil:
            return of(kit.coil(at.id));
        case Subject::Kind::step:
            return of(kit.step(at.id));
        case Subject::Kind::check:
            return of(kit.check(at.id));
        case Subject::Kind::adjustment:
            return of(kit.adjustment(at.id));
        default:
            return "";
    }
}

std::string otherwiseAt(const Build& build, const Subject& at) {
    const auto hit = build.remarks.find(at.text());
    return hit == build.remarks.end() ? "" : hit->second;
}

std::vector<Note> notesOf(const Kit& kit, const Build& build) {
    std::vector<Note> out;
    const auto add = [&](const Subject& at) {
        Note note{at, titleOf(kit, at), erratumAt(kit, at), otherwiseAt(build, at)};
        if (!note.erratum.empty() || !note.otherwise.empty()) out.push_back(std::move(note));
    };
    for (const Part& part : kit.parts) add(Subject::part(part.ref));
    for (const Coil& coil : kit.coils) add(Subject::coil(coil.ref));
    for (const Step& step : kit.steps) add({Subject::Kind::step, step.id, "", Subject::Condition::any});
    for (const Check& check : kit.checks) add(Subject::check(check.id));
    for (const Adjustment& a : kit.adjustments) add(Subject::adjustment(a.id));
    return out;
}

std::string noteText(const Kit& kit, const Build& build, const Subject& at) {
    const std::string erratum = erratumAt(kit, at), otherwise = otherwiseAt(build, at);
    std::string out;
    if (!erratum.empty()) out = "The paper is wrong here: " + ended(erratum);
    if (!otherwise.empty()) out += (out.empty() ? "" : " ") + ("Made otherwise: " + ended(otherwise));
    return out;
}

}  // namespace ombrek
