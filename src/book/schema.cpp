#include "book/schema.h"

#include <array>
#include <string>
#include <vector>

namespace ombrek {
namespace {

struct Table {
    const char* name;
    std::vector<std::string> columns;  ///< besides id
    const char* unique;                ///< columns that identify a row; empty if only the id does
};

const std::vector<Table>& recordTables() {
    static const std::vector<Table> tables{
        {"build", {"kit_name", "kit_text", "build_order", "rule", "profile", "started", "way", "depth"}, ""},
        {"chosen", {"build"}, ""},
        {"reading", {"build", "subject", "value", "unit", "uncertainty", "setting", "method", "at"}, ""},
        {"part", {"build", "ref", "mark"}, "build, ref"},
        {"winding", {"build", "name", "turns", "done"}, "build, name"},
        {"step", {"build", "step", "knowingly", "at"}, "build, step"},
        {"remark", {"build", "step", "text"}, "build, step"},
        {"gate", {"build", "gate", "reason", "at"}, "build, gate"},
        {"printed", {"build", "ref", "text"}, "build, ref"},
        {"coil_check", {"build", "name", "how"}, "build, name"},
        {"preference", {"key", "value"}, "key"},
        {"loose_part", {"build", "kind", "printed", "value", "uncertainty"}, ""},
        {"remedy", {"build", "ref", "how", "note"}, "build, ref"},
        {"stock", {"drawer", "kind", "value", "unit", "tolerance", "volts", "watts", "what", "count"}, ""},
        {"promise", {"stock", "build", "ref", "count"}, ""},
        {"meter",
         {"name", "unit", "low", "high", "percent", "digits", "counts", "floor", "zero", "calibrated"},
         "unit, low"},
        {"away", {"build", "start", "end"}, "build, start"},
        {"kept", {"build", "what", "count"}, "build, what"},
        {"finding", {"build", "ref", "what", "found", "closed"}, ""},
        {"looked", {"build", "ref", "how", "at"}, "build, ref, how"},
        {"photo", {"build", "step", "after", "at", "jpeg"}, ""},
        {"list_shape", {"key", "shape"}, "key"},
    };
    return tables;
}

std::string joined(const std::vector<std::string>& items, const std::string& between) {
    std::string out;
    for (const auto& item : items) out += (out.empty() ? "" : between) + item;
    return out;
}

std::string trigger(const Table& table, const std::string& event, const std::string& inverse) {
    return "CREATE TRIGGER " + std::string(table.name) + "_" + event + " AFTER " + event + " ON " +
           table.name +
           " BEGIN INSERT INTO undo_step(action, sql) VALUES ((SELECT id FROM action_in_hand), " + inverse +
           "); END";
}

void makeTriggers(SQLite::Database& db, const Table& table) {
    const std::string name = table.name;
    std::vector<std::string> restored, sets;
    for (const auto& column : table.columns) {
        restored.push_back("quote(old." + column + ")");
        sets.push_back("'" + column + "='||quote(old." + column + ")");
    }
    db.exec(trigger(table, "INSERT", "'DELETE FROM " + name + " WHERE id='||new.id"));
    db.exec(trigger(table, "UPDATE",
                    "'UPDATE " + name + " SET '||" + joined(sets, "||','||") + "||' WHERE id='||old.id"));
    db.exec(trigger(table, "DELETE",
                    "'INSERT INTO " + name + "(id," + joined(table.columns, ",") +
                        ") VALUES('||old.id||','||" + joined(restored, "||','||") + "||')'"));
}

void makeRecordTable(SQLite::Database& db, const Table& table) {
    const std::string unique = *table.unique ? ", UNIQUE(" + std::string(table.unique) + ")" : "";
    db.exec("CREATE TABLE " + std::string(table.name) + "(id INTEGER PRIMARY KEY, " +
            joined(table.columns, ", ") + unique + ")");
    makeTriggers(db, table);
}

}  // namespace

void makeSchema(SQLite::Database& db) {
    db.exec("CREATE TABLE action(id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT, undone INTEGER)");
    db.exec("CREATE TABLE action_in_hand(id INTEGER)");
    db.exec("INSERT INTO action_in_hand VALUES(0)");
    db.exec("CREATE TABLE undo_step(id INTEGER PRIMARY KEY, action INTEGER, sql TEXT)");
    db.exec("CREATE INDEX undo_step_action ON undo_step(action)");
    db.exec("CREATE TABLE sitting(id INTEGER PRIMARY KEY, build INTEGER, start INTEGER, end INTEGER)");
    for (const Table& table : recordTables()) makeRecordTable(db, table);
    db.exec("CREATE INDEX reading_build ON reading(build)");
    db.exec("PRAGMA application_id=" + std::to_string(kApplicationId));
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
}

void migrate(SQLite::Database& db) {
    const int version = db.execAndGet("PRAGMA user_version").getInt();
    if (version >= kSchemaVersion) return;
    SQLite::Transaction transaction(db);
    if (version < 2) {  // adds the way and depth of Parts in
        db.exec("ALTER TABLE build ADD COLUMN way DEFAULT 0");
        db.exec("ALTER TABLE build ADD COLUMN depth DEFAULT 0");
        for (const char* event : {"INSERT", "UPDATE", "DELETE"})
            db.exec("DROP TRIGGER build_" + std::string(event));
        makeTriggers(db, recordTables().front());
    }
    for (const Table& table : recordTables()) {  // every version adds tables
        if (!db.tableExists(table.name)) makeRecordTable(db, table);
    }
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
    transaction.commit();
}

}  // namespace ombrek
