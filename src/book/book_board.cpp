#include "book/inside.h"

namespace ombrek {
Result<void> Book::keepAside(const std::string& what, int count) {
    return act("count of " + what, [&] { inside_->put(record::kept, {what, count}); });
}

Result<void> Book::lookedAt(const std::string& ref, Look how) {
    return act("look at " + ref, [&] { inside_->put(record::looked, {ref, int(how), inside_->clock()}); });
}

Result<void> Book::found(const std::string& ref, Finding::What what, Look how) {
    return act("finding at " + ref, [&] {
        inside_->put(record::looked, {ref, int(how), inside_->clock()});
        inside_->put(record::finding, {0, ref, what, inside_->clock(), 0});
    });
}

Result<void> Book::closeFinding(std::int64_t id) {
    return act("closing of a finding",
               [&] { inside_->run("UPDATE finding SET closed=? WHERE id=?", inside_->clock(), id); });
}

Result<void> Book::keepPhoto(const std::string& step, bool after, const std::string& jpeg) {
    return act("photograph of " + step, [&] {
        // The picture's bytes lie apart, where the log does not write them down twice over as text.
        SQLite::Statement insert(*inside_->db, "INSERT INTO photo_data(jpeg) VALUES(?)");
        insert.bind(1, jpeg.data(), int(jpeg.size()));
        insert.exec();
        const std::int64_t data = inside_->db->getLastInsertRowid();
        inside_->put(record::photo, {{0, step, after, inside_->clock()}, data});
    });
}

Result<void> Book::removePhoto(std::int64_t id) {
    return act("removal of a photograph", [&] { inside_->run("DELETE FROM photo WHERE id=?", id); });
}

std::string Book::photo(std::int64_t id) const {
    return inside_->read(std::string(), [&]() -> std::string {
        SQLite::Statement query(
            *inside_->db,
            "SELECT photo_data.jpeg FROM photo JOIN photo_data ON photo_data.id=photo.data WHERE photo.id=?");
        query.bind(1, id);
        if (!query.executeStep()) return {};
        const auto column = query.getColumn(0);
        return {static_cast<const char*>(column.getBlob()), std::size_t(column.getBytes())};
    });
}

Result<void> Book::countAway(const Sitting& pause) {
    return act("counting of a pause", [&] {
        inside_->run("INSERT INTO away(build, start, end) VALUES(?,?,?) ON CONFLICT DO NOTHING",
                     inside_->chosen(), pause.start, pause.end);
    });
}

Result<void> Book::changeKit(const std::string& kitText, const std::string& name,
                             const std::vector<Subject>& replaced, const std::vector<std::string>& lookAgain,
                             const std::string& paper) {
    return act(name, [&] {
        if (!paper.empty()) inside_->put(record::paper, {paper, ""});
        const std::int64_t kit = inside_->keepKitText(kitText);
        inside_->changeBuild([&](auto& build) { build.kit = kit; });
        for (const Subject& subject : replaced) {
            inside_->changed(subject, name);
            if (subject.is(Subject::Kind::part)) inside_->clearPlace(subject.id);
            if (!subject.is(Subject::Kind::coil)) continue;
            for (const char* table : {"winding", "coil_check"})
                inside_->run("DELETE FROM " + std::string(table) + " WHERE build=? AND name LIKE ?",
                             inside_->chosen(), subject.id + "/%");
        }
        for (const std::string& ref : lookAgain) inside_->clearPlace(ref);
    });
}

}  // namespace ombrek
