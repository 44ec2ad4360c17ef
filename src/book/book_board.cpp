#include "book/inside.h"

namespace ombrek {
namespace {

constexpr const char* kLookedAt =
    "INSERT INTO looked(build, ref, how, at) VALUES(?,?,?,?) "
    "ON CONFLICT(build, ref, how) DO UPDATE SET at=excluded.at";

}  // namespace

Result<void> Book::keepAside(const std::string& what, int count) {
    return act("count of " + what, [&] {
        inside_->run(
            "INSERT INTO kept(build, what, count) VALUES(?,?,?) "
            "ON CONFLICT(build, what) DO UPDATE SET count=excluded.count",
            inside_->chosen(), what, count);
    });
}

Result<void> Book::lookedAt(const std::string& ref, Look how) {
    return act("look at " + ref, [&] {
        inside_->run(kLookedAt, inside_->chosen(), ref, static_cast<int>(how), inside_->clock());
    });
}

Result<void> Book::found(const std::string& ref, Finding::What what, Look how) {
    return act("finding at " + ref, [&] {
        inside_->run(kLookedAt, inside_->chosen(), ref, static_cast<int>(how), inside_->clock());
        inside_->run("INSERT INTO finding(build, ref, what, found, closed) VALUES(?,?,?,?,0)",
                     inside_->chosen(), ref, static_cast<int>(what), inside_->clock());
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
        inside_->run("INSERT INTO photo(build, step, after, at, jpeg, data) VALUES(?,?,?,?,NULL,?)",
                     inside_->chosen(), step, after ? 1 : 0, inside_->clock(), data);
    });
}

Result<void> Book::removePhoto(std::int64_t id) {
    return act("removal of a photograph", [&] { inside_->run("DELETE FROM photo WHERE id=?", id); });
}

std::string Book::photo(std::int64_t id) const {
    return inside_->read(std::string(), [&]() -> std::string {
        SQLite::Statement query(
            *inside_->db,
            "SELECT coalesce(photo.jpeg, photo_data.jpeg) FROM photo LEFT JOIN photo_data ON "
            "photo_data.id=photo.data WHERE photo.id=?");
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

Result<void> Book::changeKit(const std::string& kitText, const std::string& name) {
    return act(name,
               [&] { inside_->run("UPDATE build SET kit_text=? WHERE id=?", kitText, inside_->chosen()); });
}

}  // namespace ombrek
