#include <cmath>

#include "book/inside.h"

// What is done at the first station: marks, loose parts, decisions.

namespace ombrek {

Result<void> Book::chooseWay(BagWay way) {
    return act("choice of way", [&] {
        inside_->run("UPDATE build SET way=? WHERE id=?", static_cast<int>(way), inside_->chosen());
    });
}

Result<void> Book::chooseDepth(BagDepth depth) {
    return act("choice of depth", [&] {
        inside_->run("UPDATE build SET depth=? WHERE id=?", static_cast<int>(depth), inside_->chosen());
    });
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
        for (const std::string& ref : refs) inside_->setMark(ref, mark);
    });
}

Result<void> Book::readMark(const std::string& ref, const std::string& printed, bool agrees) {
    return act("mark of " + ref, [&] {
        inside_->setPrinted(ref, printed);
        if (agrees) inside_->setMark(ref, PartMark::seen);
    });
}

Result<void> Book::keepLoose(const LoosePart& part) {
    return act("loose part", [&] {
        const int kind = static_cast<int>(part.kind);
        if (part.id == 0) {
            inside_->run("INSERT INTO loose_part(build, kind, printed, value, uncertainty) VALUES(?,?,?,?,?)",
                         inside_->chosen(), kind, part.printed, part.value, part.uncertainty);
        } else {
            inside_->run("UPDATE loose_part SET kind=?, printed=?, value=?, uncertainty=? WHERE id=?", kind,
                         part.printed, part.value, part.uncertainty, part.id);
        }
    });
}

Result<void> Book::dropLoose(std::int64_t id) {
    return act("putting a loose part aside", [&] { inside_->run("DELETE FROM loose_part WHERE id=?", id); });
}

Result<void> Book::settleLoose(std::int64_t id, const std::string& ref, Unit unit) {
    return act("finding " + ref, [&] {
        SQLite::Statement query(*inside_->db,
                                "SELECT printed, value, uncertainty FROM loose_part WHERE id=?");
        query.bind(1, id);
        if (!query.executeStep()) return;
        const std::string printed = query.getColumn(0).getString();
        if (!query.getColumn(1).isNull()) {
            inside_->addReading({0, Subject::part(ref), query.getColumn(1).getDouble(), unit,
                                 query.getColumn(2).getDouble(), 0, "found", 0});
        } else {
            inside_->setMark(ref, PartMark::seen);
        }
        if (!printed.empty()) inside_->setPrinted(ref, printed);
        inside_->run("DELETE FROM loose_part WHERE id=?", id);
    });
}

Result<void> Book::movePart(const std::string& from, const std::string& to, PartKind kind) {
    return act("move of a part from " + from + " to " + to, [&] {
        const std::int64_t build = inside_->chosen();
        inside_->run(
            "INSERT INTO loose_part(build, kind, printed, value, uncertainty) "
            "SELECT build, ?, coalesce((SELECT text FROM printed WHERE build=reading.build AND ref=?), ''), "
            "value, uncertainty FROM reading WHERE build=? AND subject=? ORDER BY id DESC LIMIT 1",
            static_cast<int>(kind), to, build, Subject::part(to).text());
        inside_->run("UPDATE reading SET subject=? WHERE build=? AND subject=?", "replaced:" + to, build,
                     Subject::part(to).text());
        for (const std::string& ref : {from, to})
            inside_->run("DELETE FROM part WHERE build=? AND ref=?", build, ref);
        inside_->run("DELETE FROM printed WHERE build=? AND ref=?", build, to);
        inside_->run("UPDATE reading SET subject=? WHERE build=? AND subject=?", Subject::part(to).text(),
                     build, Subject::part(from).text());
        inside_->run("UPDATE printed SET ref=? WHERE build=? AND ref=?", to, build, from);
    });
}

Result<void> Book::decideAll(const std::vector<std::string>& refs, const Remedy& remedy) {
    if (refs.empty()) return {};
    return act("decision on " + named(refs), [&] {
        for (const std::string& ref : refs) inside_->setRemedy(ref, remedy);
    });
}

Result<void> Book::undecide(const std::string& ref) {
    return act("decision on " + ref, [&] {
        const std::int64_t build = inside_->chosen();
        inside_->run("DELETE FROM remedy WHERE build=? AND ref=?", build, ref);
        inside_->run("DELETE FROM promise WHERE build=? AND ref=?", build, ref);
    });
}

}  // namespace ombrek
