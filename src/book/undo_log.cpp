#include "book/undo_log.h"

#include <algorithm>
#include <initializer_list>
#include <string>

namespace ombrek {
namespace {

std::int64_t numberOf(SQLite::Database& db, const char* sql,
                      std::initializer_list<std::int64_t> values = {}) {
    SQLite::Statement q(db, sql);
    int at = 0;
    for (const std::int64_t value : values) q.bind(++at, value);
    return q.executeStep() ? q.getColumn(0).getInt64() : 0;
}

/// The largest id among actions that are too old; 0 when none is.
/// A season back from the last action, not from a clock that may stand years ahead for one start.
std::int64_t tooOld(SQLite::Database& db, std::int64_t clock) {
    const std::int64_t now = std::min(clock, numberOf(db, "SELECT coalesce(max(at), 0) FROM action"));
    return numberOf(db, R"(
        SELECT coalesce(max(id), 0) FROM action WHERE undone=0 AND at < ?1 AND id <
            (SELECT coalesce(min(id), 0) FROM (SELECT id FROM action WHERE undone=0 ORDER BY id DESC LIMIT ?2)))",
                    {now - kUndoAge, kUndoActions});
}

/// The largest id among actions behind which too much is written; 0 when none is.
std::int64_t tooMuch(SQLite::Database& db) {
    if (numberOf(db, "SELECT coalesce(sum(length(sql)), 0) FROM undo_step") <= kUndoBytes) return 0;
    return numberOf(db, R"(
        SELECT coalesce(max(action), 0) FROM (
            SELECT action, sum(bytes) OVER (ORDER BY action DESC) - bytes AS later
            FROM (SELECT action, sum(length(sql)) AS bytes FROM undo_step GROUP BY action))
        WHERE later > ?1)",
                    {kUndoBytes});
}

/// Rows that nothing holds, and the beginnings of statements in the log that would hold them again.
struct Orphans {
    const char* table;
    const char* which;
    const char* spoken;  ///< as a condition on a statement of the log
};
constexpr Orphans kOrphans[] = {
    {"photo_data", "id NOT IN (SELECT data FROM photo WHERE data IS NOT NULL)",
     "sql LIKE 'INSERT INTO photo(%'"},
    {"kit_text", "id NOT IN (SELECT kit FROM build WHERE kit IS NOT NULL)",
     "sql LIKE 'UPDATE build %' OR sql LIKE 'INSERT INTO build(%'"},
    {"stock", "EXISTS (SELECT 1 FROM import_undone WHERE record='stock' AND stock.id BETWEEN first AND last)",
     "sql LIKE 'DELETE FROM import_undone %'"},
    {"contact",
     "EXISTS (SELECT 1 FROM import_undone WHERE record='contact' AND contact.id BETWEEN first AND last)",
     "sql LIKE 'DELETE FROM import_undone %'"},
    {"heard", "EXISTS (SELECT 1 FROM import_undone WHERE record='heard' AND heard.id BETWEEN first AND last)",
     "sql LIKE 'DELETE FROM import_undone %'"}};

void dropOrphans(SQLite::Database& db) {
    const bool hidden = numberOf(db, "SELECT EXISTS (SELECT 1 FROM import_undone)") != 0;
    for (const Orphans& o : kOrphans) {
        const std::string rows = std::string(" FROM ") + o.table + " WHERE " + o.which;
        const bool imported = std::string(o.spoken).find("import_undone") != std::string::npos;
        if (imported ? !hidden : numberOf(db, ("SELECT EXISTS (SELECT 1" + rows + ")").c_str()) == 0)
            continue;
        const std::string spoken =
            std::string("SELECT EXISTS (SELECT 1 FROM undo_step WHERE ") + o.spoken + ")";
        if (numberOf(db, spoken.c_str()) != 0) continue;
        db.exec("DELETE" + rows);
        if (imported) db.exec("DELETE FROM import_undone WHERE record='" + std::string(o.table) + "'");
    }
}

}  // namespace

void pruneUndoLog(SQLite::Database& db, std::int64_t now) {
    SQLite::Transaction transaction(db);
    db.exec("UPDATE action_in_hand SET id=0");  // nothing of this can be taken back
    // The oldest go, without a gap: what is kept can be taken back one after the other.
    if (const std::int64_t last = std::max(tooOld(db, now), tooMuch(db)); last > 0) {
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
