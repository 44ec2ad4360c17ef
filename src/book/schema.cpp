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
        {"reading",
         {"build", "subject", "value", "unit", "uncertainty", "setting", "method", "at", "beyond"},
         ""},
        {"part", {"build", "ref", "mark"}, "build, ref"},
        {"winding", {"build", "name", "turns", "done"}, "build, name"},
        {"step", {"build", "step", "knowingly", "at", "reason"}, "build, step"},
        {"remark", {"build", "step", "text"}, "build, step"},
        {"gate", {"build", "gate", "reason", "at", "basis"}, "build, gate"},
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
        // jpeg: of books before version 4; now the picture lies in photo_data, which is not logged.
        {"photo", {"build", "step", "after", "at", "jpeg", "data"}, ""},
        {"list_shape", {"key", "shape"}, "key"},
        {"epoch", {"build", "subject", "after"}, "build, subject"},
        {"practice", {"build", "subject", "value"}, "build, subject"},
        {"list_draft", {"name", "origin", "source"}, ""},
        {"list_edit", {"line", "how", "text"}, "line"},
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
           " WHEN (SELECT id FROM action_in_hand) > 0 BEGIN INSERT INTO undo_step(action, sql) VALUES "
           "((SELECT id FROM action_in_hand), " +
           inverse + "); END";
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

void dropTriggers(SQLite::Database& db, const Table& table) {
    for (const char* event : {"INSERT", "UPDATE", "DELETE"})
        db.exec("DROP TRIGGER IF EXISTS " + std::string(table.name) + "_" + event);
}

/// Tables that are no records: nothing in them is undone.
void makePlainTables(SQLite::Database& db) {
    db.exec("CREATE TABLE IF NOT EXISTS photo_data(id INTEGER PRIMARY KEY, jpeg BLOB)");
    db.exec("CREATE TABLE IF NOT EXISTS pending_import(id INTEGER PRIMARY KEY, first INTEGER, last INTEGER)");
}

/// Columns that hold one of a few choices, as numbers from 0.
struct Choice {
    const char *table, *column;
    int most;
};
constexpr Choice kChoices[] = {{"build", "build_order", 4}, {"build", "rule", 1},    {"build", "way", 2},
                               {"build", "depth", 2},       {"reading", "unit", 15}, {"part", "mark", 2},
                               {"loose_part", "kind", 9},   {"remedy", "how", 3},    {"stock", "kind", 9},
                               {"stock", "unit", 15},       {"meter", "unit", 15},   {"finding", "what", 5},
                               {"looked", "how", 1}};

std::string outside(const Choice& c) {
    return "typeof(" + std::string(c.column) + ")<>'integer' OR " + c.column + " NOT BETWEEN 0 AND " +
           std::to_string(c.most);
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
    makePlainTables(db);
    db.exec("CREATE INDEX reading_build ON reading(build)");
    db.exec("PRAGMA application_id=" + std::to_string(kApplicationId));
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
}

namespace {

bool hasColumn(SQLite::Database& db, const std::string& table, const std::string& column) {
    SQLite::Statement query(db, "SELECT count(*) FROM pragma_table_info(?) WHERE name=?");
    query.bind(1, table);
    query.bind(2, column);
    return query.executeStep() && query.getColumn(0).getInt() > 0;
}

}  // namespace

std::string damageIn(SQLite::Database& db) {
    for (const char* plain :
         {"action", "action_in_hand", "undo_step", "sitting", "photo_data", "pending_import"}) {
        if (!db.tableExists(plain)) return "its table \"" + std::string(plain) + "\" is missing";
    }
    for (const Table& table : recordTables()) {
        if (!db.tableExists(table.name)) return "its table \"" + std::string(table.name) + "\" is missing";
        for (const std::string& column : table.columns) {
            if (!hasColumn(db, table.name, column))
                return "its table \"" + std::string(table.name) + "\" lacks \"" + column + "\"";
        }
    }
    for (const Choice& choice : kChoices) {
        SQLite::Statement query(
            db, "SELECT count(*) FROM " + std::string(choice.table) + " WHERE " + outside(choice));
        if (query.executeStep() && query.getColumn(0).getInt() > 0)
            return "a row of \"" + std::string(choice.table) + "\" has a \"" + choice.column +
                   "\" that no Ombrek writes";
    }
    return "";
}

namespace {

/// One table's readable rows. @return how many
std::size_t copyTable(SQLite::Database& from, SQLite::Database& into, const std::string& table,
                      const std::vector<std::string>& columns) {
    if (!from.tableExists(table)) return 0;
    std::vector<std::string> there{"id"};
    for (const std::string& column : columns) {
        if (hasColumn(from, table, column)) there.push_back(column);
    }
    std::string marks;
    for (std::size_t i = 0; i < there.size(); ++i) marks += i ? ",?" : "?";
    SQLite::Statement insert(
        into, "INSERT OR IGNORE INTO " + table + "(" + joined(there, ",") + ") VALUES(" + marks + ")");
    std::size_t out = 0;
    try {
        SQLite::Statement query(from, "SELECT " + joined(there, ",") + " FROM " + table);
        while (query.executeStep()) {
            for (int i = 0; i < int(there.size()); ++i) {
                const auto value = query.getColumn(i);
                if (value.isNull()) {
                    insert.bind(i + 1);
                } else if (value.isInteger()) {
                    insert.bind(i + 1, value.getInt64());
                } else if (value.isFloat()) {
                    insert.bind(i + 1, value.getDouble());
                } else if (value.isBlob()) {
                    insert.bind(i + 1, value.getBlob(), value.getBytes());
                } else {
                    insert.bind(i + 1, value.getString());
                }
            }
            insert.exec();
            insert.reset();
            ++out;
        }
    } catch (const SQLite::Exception&) {
        // The rest of this table cannot be read; what came before is kept.
    }
    return out;
}

}  // namespace

std::size_t copyReadable(SQLite::Database& from, SQLite::Database& into) {
    std::size_t out = 0;
    for (const Table& table : recordTables()) out += copyTable(from, into, table.name, table.columns);
    out += copyTable(from, into, "sitting", {"build", "start", "end"});
    out += copyTable(from, into, "photo_data", {"jpeg"});
    for (const Choice& choice : kChoices) {
        const bool build = std::string(choice.table) == "build";
        into.exec(build ? "UPDATE build SET " + std::string(choice.column) + "=0 WHERE " + outside(choice)
                        : "DELETE FROM " + std::string(choice.table) + " WHERE " + outside(choice));
    }
    into.exec("UPDATE build SET kit_name=coalesce(kit_name, ''), kit_text=coalesce(kit_text, '')");
    into.exec("DELETE FROM chosen WHERE build NOT IN (SELECT id FROM build)");
    into.exec(
        "INSERT OR IGNORE INTO chosen(id, build) SELECT 1, max(id) FROM build HAVING max(id) IS NOT NULL");
    return out;
}

void migrate(SQLite::Database& db) {
    const int version = db.execAndGet("PRAGMA user_version").getInt();
    if (version >= kSchemaVersion) return;
    SQLite::Transaction transaction(db);
    if (version < 2) {  // adds the way and depth of Parts in
        db.exec("ALTER TABLE build ADD COLUMN way DEFAULT 0");
        db.exec("ALTER TABLE build ADD COLUMN depth DEFAULT 0");
    }
    for (const Table& table : recordTables()) {  // every version adds tables
        if (!db.tableExists(table.name)) makeRecordTable(db, table);
    }
    if (version < 4) {  // overload, reasons, the evidence of the day, pictures outside the log
        const auto add = [&](const char* table, const char* column, const char* usual) {
            if (!hasColumn(db, table, column))
                db.exec("ALTER TABLE " + std::string(table) + " ADD COLUMN " + column + " DEFAULT " + usual);
        };
        add("reading", "beyond", "0");
        add("step", "reason", "''");
        add("gate", "basis", "''");
        add("photo", "data", "NULL");
        for (const Table& table : recordTables()) {
            dropTriggers(db, table);
            makeTriggers(db, table);
        }
        makePlainTables(db);
    }
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
    transaction.commit();
}

}  // namespace ombrek
