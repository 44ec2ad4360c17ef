#include <cmath>

#include "book/inside.h"

// What is done at the first station: marks, loose parts, decisions.

namespace ombrek {

Result<void> Book::chooseWay(BagWay way) {
    return act("choice of way", [&] { inside_->changeBuild([&](auto& build) { build.way = way; }); });
}

Result<void> Book::chooseDepth(BagDepth depth) {
    return act("choice of depth", [&] { inside_->changeBuild([&](auto& build) { build.depth = depth; }); });
}

namespace {

/// "R1", or "R1 and 4 more".
std::string named(const std::vector<std::string>& refs) {
    return refs.size() == 1 ? refs.front()
                            : refs.front() + " and " + std::to_string(refs.size() - 1) + " more";
}

}  // namespace

Result<void> Book::markParts(const std::vector<std::string>& refs, PartMark mark) {
    if (refs.empty()) return {};
    return act("mark of " + named(refs), [&] {
        for (const std::string& ref : refs) inside_->put(record::part, {ref, mark});
    });
}

Result<void> Book::readMark(const std::string& ref, const std::string& printed, bool agrees) {
    return act("mark of " + ref, [&] {
        inside_->put(record::printed, {ref, printed});
        if (agrees) inside_->put(record::part, {ref, PartMark::seen});
    });
}

Result<void> Book::keepLoose(const LoosePart& part) {
    return act("loose part", [&] {
        if (part.id == 0) {
            inside_->put(record::loose, part);
        } else {
            record::loose.change(*inside_->db, part.id, part);
        }
    });
}

Result<void> Book::dropLoose(std::int64_t id) {
    return act("putting a loose part aside", [&] { inside_->run("DELETE FROM loose_part WHERE id=?", id); });
}

Result<void> Book::settleLoose(std::int64_t id, const std::string& ref, Unit unit) {
    return act("finding " + ref, [&] {
        const auto part = record::loose.row(*inside_->db, id);
        if (!part) return;
        const std::string& printed = part->printed;
        if (std::isfinite(part->value)) {
            inside_->addReading(
                {0, Subject::part(ref), part->value, unit, part->uncertainty, {}, "found", inside_->clock()});
        } else {
            inside_->put(record::part, {ref, PartMark::seen});
        }
        if (!printed.empty()) inside_->put(record::printed, {ref, printed});
        inside_->run("DELETE FROM loose_part WHERE id=?", id);
    });
}

Result<void> Book::movePart(const std::string& from, const std::string& to, PartKind kind) {
    return act("move of a part from " + from + " to " + to, [&] {
        auto moved = inside_->lastReading(Subject::part(from));
        const std::string printed = inside_->printedOn(from);
        if (inside_->lastReading(Subject::part(to))) inside_->layOver(to, kind);
        for (const std::string& ref : {from, to}) {
            inside_->changed(Subject::part(ref), "moved");
            inside_->clearPlace(ref);
        }
        if (moved) {
            moved->subject = Subject::part(to);
            inside_->addReading(*moved);
        }
        if (!printed.empty()) inside_->put(record::printed, {to, printed});
    });
}

Result<void> Book::decideAll(const std::vector<std::string>& refs, const Remedy& remedy) {
    if (refs.empty()) return {};
    return act("decision on " + named(refs), [&] {
        for (const std::string& ref : refs) inside_->put(record::remedy, {ref, remedy});
    });
}

Result<void> Book::undecideAll(const std::vector<std::string>& refs) {
    if (refs.empty()) return {};
    return act("decision on " + named(refs), [&] {
        const std::int64_t build = inside_->chosen();
        for (const std::string& ref : refs) {
            inside_->run("DELETE FROM remedy WHERE build=? AND ref=?", build, ref);
            inside_->run("DELETE FROM promise WHERE build=? AND ref=?", build, ref);
        }
    });
}

}  // namespace ombrek
