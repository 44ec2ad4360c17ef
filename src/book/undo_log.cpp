#include "book/undo_log.h"

#include <string>

namespace ombrek {
namespace {

/// The largest id among actions that are to be forgotten; 0 when none is. The oldest go, without a gap: what
/// is kept can be taken back one after the other.
std::int64_t oldest(SQLite::Database& db, std::int64_t now) {
    SQLite::Statement q(db, R"(
        SELECT max(
            (SELECT coalesce(max(id), 0) FROM action WHERE undone=0 AND at < ?1 AND id <=
                (SELECT coalesce(min(id), 0) - 1 FROM (SELECT id FROM action WHERE undone=0 ORDER BY id DESC LIMIT ?2))),
            (SELECT coalesce(max(action), 0) FROM (
                SELECT action, sum(bytes) OVER (ORDER BY action DESC) - bytes AS later
                FROM (SELECT action, sum(length(sql)) AS bytes FROM undo_step GROUP BY action))
             WHERE later > ?3)))");
    q.bind(1, now - kUndoAge);
    q.bind(2, kUndoActions);
    q.bind(3, kUndoBytes);
    return q.executeStep() ? q.getColumn(0).getInt64() : 0;
}

/// Whether a statement of the log begins so.
bool logSpeaksOf(SQLite::Database& db, const std::string& beginning) {
    SQLite::Statement q(db, "SELECT EXISTS (SELECT 1 FROM undo_step WHERE sql LIKE ?)");
    q.bind(1, beginning + "%");
    return q.executeStep() && q.getColumn(0).getInt() != 0;
}

void dropOrphans(SQLite::Database& db) {
    if (!logSpeaksOf(db, "INSERT INTO photo("))
        db.exec("DELETE FROM photo_data WHERE id NOT IN (SELECT data FROM photo WHERE data IS NOT NULL)");
    if (!logSpeaksOf(db, "UPDATE build ") && !logSpeaksOf(db, "INSERT INTO build("))
        db.exec("DELETE FROM kit_text WHERE id NOT IN (SELECT kit FROM build WHERE kit IS NOT NULL)");
    if (!logSpeaksOf(db, "DELETE FROM import_undone ")) {
        db.exec(
            "DELETE FROM stock WHERE EXISTS (SELECT 1 FROM import_undone WHERE stock.id BETWEEN first AND "
            "last)");
        db.exec("DELETE FROM import_undone");
    }
}

}  // namespace

void pruneUndoLog(SQLite::Database& db, std::int64_t now) {
    SQLite::Transaction transaction(db);
    db.exec("UPDATE action_in_hand SET id=0");  // nothing of this can be taken back
    if (const std::int64_t last = oldest(db, now); last > 0) {
        for (const char* sql : {"DELETE FROM undo_step WHERE action<=?", "DELETE FROM action WHERE id<=?"}) {
            SQLite::Statement q(db, sql);
            q.bind(1, last);
            q.exec();
        }
    }
    dropOrphans(db);
    transaction.commit();
}

}  // namespace ombrek
