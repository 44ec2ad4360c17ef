#include "book/schema.h"

#include <algorithm>
#include <optional>
#include <string>
#include <vector>

#include "book/trust.h"

namespace ombrek {
namespace {

std::string joined(const std::vector<std::string>& items, const std::string& between) {
    std::string out;
    for (const auto& item : items) out += (out.empty() ? "" : between) + item;
    return out;
}

void makeTriggers(SQLite::Database& db, const RecordLine& record) {
    for (const char* event : kEvents) db.exec(triggerText(record.name, event, columnsOf(record)));
}

/// A table that is no record: nothing in it is undone.
struct PlainTable {
    const char *name, *columns;
};
constexpr PlainTable kPlainTables[] = {
    {"action", "id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT, undone INTEGER, at INTEGER"},
    {"action_in_hand", "id INTEGER"},
    {"undo_step", "id INTEGER PRIMARY KEY, action INTEGER, sql TEXT"},
    {"sitting", "id INTEGER PRIMARY KEY, build INTEGER, start INTEGER, end INTEGER"},
    {"kit_text", "id INTEGER PRIMARY KEY, text TEXT"},
    {"photo_data", "id INTEGER PRIMARY KEY, jpeg BLOB"},
    {"pending_import", "id INTEGER PRIMARY KEY, first INTEGER, last INTEGER, record"}};

constexpr const char* kIndexes[] = {
    "CREATE INDEX undo_step_action ON undo_step(action)", "CREATE INDEX action_undone ON action(undone)",
    "CREATE INDEX reading_build ON reading(build)", "CREATE INDEX contact_at ON contact(at)"};

/// As a condition: a word that no Ombrek writes. @pre the column has words
std::string outside(const ColumnLine& column) {
    std::string words;
    for (const std::string& word : *column.words) words += (words.empty() ? "'" : ",'") + word + "'";
    return column.name + " IS NULL OR " + column.name + " NOT IN (" + words + ")";
}

template <class Use>
void eachChoice(Use use) {
    for (const RecordLine& record : record::all()) {
        for (const ColumnLine& column : record.columns) {
            if (column.words != nullptr) use(record, column);
        }
    }
}

/// As a condition: a row of a build that is not there.
constexpr const char* kOfNoBuild = "build IS NULL OR build NOT IN (SELECT id FROM build)";

bool holds(SQLite::Database& db, const RecordLine& record, const std::string& condition) {
    SQLite::Statement query(db, "SELECT EXISTS (SELECT 1 FROM " + record.name + " WHERE " + condition + ")");
    return query.executeStep() && query.getColumn(0).getInt() > 0;
}

}  // namespace

std::vector<std::string> columnsOf(const RecordLine& record) {
    std::vector<std::string> out;
    if (record.ofBuild) out.push_back("build");
    for (const ColumnLine& c : record.columns) out.push_back(c.name);
    return out;
}

std::string triggerText(const std::string& table, const std::string& event,
                        const std::vector<std::string>& columns, bool whileInHand) {
    std::vector<std::string> restored, sets;
    for (const auto& column : columns) {
        restored.push_back("quote(old." + column + ")");
        sets.push_back("'" + column + "='||quote(old." + column + ")");
    }
    const std::string inverse =
        event == "INSERT" ? "'DELETE FROM " + table + " WHERE id='||new.id"
        : event == "UPDATE"
            ? "'UPDATE " + table + " SET '||" + joined(sets, "||','||") + "||' WHERE id='||old.id"
            : "'INSERT INTO " + table + "(id," + joined(columns, ",") + ") VALUES('||old.id||','||" +
                  joined(restored, "||','||") + "||')'";
    return "CREATE TRIGGER " + table + "_" + event + " AFTER " + event + " ON " + table +
           (whileInHand ? " WHEN (SELECT id FROM action_in_hand) > 0" : "") +
           " BEGIN INSERT INTO undo_step(action, sql) VALUES ((SELECT id FROM action_in_hand), " + inverse +
           "); END";
}

std::vector<std::string> plainTables() {
    std::vector<std::string> out;
    for (const PlainTable& plain : kPlainTables) out.emplace_back(plain.name);
    return out;
}

std::vector<std::string> indexTexts() { return {std::begin(kIndexes), std::end(kIndexes)}; }

void makeSchema(SQLite::Database& db) {
    for (const auto& [name, columns] : kPlainTables)
        db.exec("CREATE TABLE " + std::string(name) + "(" + columns + ")");
    db.exec("INSERT INTO action_in_hand VALUES(0)");
    for (const RecordLine& record : record::all()) {
        const std::string unique = record.unique.empty() ? "" : ", UNIQUE(" + record.unique + ")";
        db.exec("CREATE TABLE " + record.name + "(id INTEGER PRIMARY KEY, " +
                joined(columnsOf(record), ", ") + unique + ")");
        makeTriggers(db, record);
    }
    for (const char* index : kIndexes) db.exec(index);
    db.exec("PRAGMA application_id=" + std::to_string(kApplicationId));
    db.exec("PRAGMA user_version=" + std::to_string(kSchemaVersion));
}

void remakeTriggers(SQLite::Database& db) {
    for (const RecordLine& record : record::all()) {
        for (const char* event : kEvents) db.exec("DROP TRIGGER IF EXISTS " + record.name + "_" + event);
        makeTriggers(db, record);
    }
}

bool hasColumn(SQLite::Database& db, const std::string& table, const std::string& column) {
    SQLite::Statement query(db, "SELECT count(*) FROM pragma_table_info(?) WHERE name=?");
    query.bind(1, table);
    query.bind(2, column);
    return query.executeStep() && query.getColumn(0).getInt() > 0;
}

std::string missingIn(SQLite::Database& db) {
    const auto missing = [](const std::string& table) { return "its table \"" + table + "\" is missing"; };
    for (const PlainTable& plain : kPlainTables) {
        if (!db.tableExists(plain.name)) return missing(plain.name);
    }
    for (const RecordLine& record : record::all()) {
        if (!db.tableExists(record.name)) return missing(record.name);
        for (const std::string& column : columnsOf(record)) {
            if (!hasColumn(db, record.name, column))
                return "its table \"" + record.name + "\" lacks \"" + column + "\"";
        }
    }
    return "";
}

std::string damageIn(SQLite::Database& db) {
    std::string out = missingIn(db);
    if (!out.empty()) return out;
    eachChoice([&](const RecordLine& record, const ColumnLine& column) {
        if (out.empty() && holds(db, record, outside(column)))
            out = "a row of \"" + record.name + "\" has a \"" + column.name + "\" that no Ombrek writes";
    });
    for (const RecordLine& record : record::all()) {
        if (out.empty() && record.ofBuild && holds(db, record, kOfNoBuild))
            out = "a row of \"" + record.name + "\" is of a build that is not there";
    }
    return out;
}

namespace {

/// The value of a row's column, into a statement.
void bindAs(SQLite::Statement& insert, int at, const SQLite::Column& value) {
    if (value.isNull()) {
        insert.bind(at);
    } else if (value.isInteger()) {
        insert.bind(at, value.getInt64());
    } else if (value.isFloat()) {
        insert.bind(at, value.getDouble());
    } else if (value.isBlob()) {
        insert.bind(at, value.getBlob(), value.getBytes());
    } else {
        insert.bind(at, value.getString());
    }
}

/// Takes a table's rows over, from the first on, and by their numbers where the file gives an error.
class TableCopy {
 public:
    TableCopy(SQLite::Database& from, SQLite::Database& into, const std::string& table,
              const std::vector<std::string>& columns)
        : from_(from), table_(table) {
        there_ = {"id"};
        for (const std::string& column : columns) {
            if (hasColumn(from, table, column)) there_.push_back(column);
        }
        std::string marks;
        for (std::size_t i = 0; i < there_.size(); ++i) marks += i ? ",?" : "?";
        insert_.emplace(
            into, "INSERT OR IGNORE INTO " + table + "(" + joined(there_, ",") + ") VALUES(" + marks + ")");
    }

    void run(RescuedRecord& out) {
        std::int64_t last = 0;
        try {
            SQLite::Statement query(from_,
                                    "SELECT " + joined(there_, ",") + " FROM " + table_ + " ORDER BY id");
            while (query.executeStep()) {
                last = query.getColumn(0).getInt64();
                out.saved += keep(query);
            }
        } catch (const SQLite::Exception&) {
            behind(last, out);
        }
    }

 private:
    bool keep(SQLite::Statement& row) {
        for (int i = 0; i < int(there_.size()); ++i) bindAs(*insert_, i + 1, row.getColumn(i));
        insert_->exec();
        insert_->reset();
        return true;
    }

    /// What stands behind the place of the error, a row at a time.
    void behind(std::int64_t last, RescuedRecord& out) {
        constexpr std::int64_t kMost = 200000;
        for (std::int64_t id = last + 1; id <= std::min(highest(last), last + kMost); ++id) {
            try {
                SQLite::Statement query(from_,
                                        "SELECT " + joined(there_, ",") + " FROM " + table_ + " WHERE id=?");
                query.bind(1, id);
                if (query.executeStep()) out.saved += keep(query);
            } catch (const SQLite::Exception&) {
                ++out.unread;
            }
        }
    }

    /// The highest number in the table, by its last page; where that cannot be read, a bound.
    std::int64_t highest(std::int64_t last) {
        if (highest_ >= 0) return highest_;
        try {
            SQLite::Statement query(from_, "SELECT max(id) FROM " + table_);
            highest_ = query.executeStep() ? query.getColumn(0).getInt64() : last;
        } catch (const SQLite::Exception&) {
            constexpr std::int64_t kBeyond = 5000;
            highest_ = last + kBeyond;
        }
        return highest_;
    }

    SQLite::Database& from_;
    std::string table_;
    std::vector<std::string> there_;
    std::optional<SQLite::Statement> insert_;
    std::int64_t highest_ = -1;
};

RescuedRecord copyTable(SQLite::Database& from, SQLite::Database& into, const std::string& table,
                        const std::vector<std::string>& columns) {
    RescuedRecord out{table, 0, 0, {}, ""};
    try {
        if (!from.tableExists(table)) {
            out.why = "the file has no such table any more";
        } else if (!isPlainTable(from, table)) {
            out.why = "it is no table of a book";
        } else {
            TableCopy(from, into, table, columns).run(out);
        }
    } catch (const SQLite::Exception&) {
        out.why = "nothing of it can be read";
    }
    if (out.unread > 0) out.why = "the file gives errors there";
    return out;
}

/// A row as text, so that nothing of it is lost with it.
std::string rowText(const SQLite::Statement& row) {
    std::string out;
    for (int i = 0; i < row.getColumnCount(); ++i) {
        const auto value = row.getColumn(i);
        out += (out.empty() ? "" : ", ") + std::string(row.getColumnName(i)) + "=" +
               (value.isNull()   ? "-"
                : value.isBlob() ? "(bytes)"
                                 : value.getString().substr(0, 200));
    }
    return out;
}

/// Rows that no Ombrek writes go, and are told. @param condition  which  @param why  as a sentence goes on
void leaveOut(SQLite::Database& into, const RecordLine& record, const std::string& condition,
              const std::string& why, RescuedRecord& out) {
    SQLite::Statement query(into, "SELECT * FROM " + record.name + " WHERE " + condition);
    const std::size_t before = out.leftOut.size();
    while (query.executeStep()) out.leftOut.push_back(rowText(query));
    const std::size_t rows = out.leftOut.size() - before;
    if (rows == 0) return;
    out.saved -= std::min(out.saved, rows);
    out.why = why;
    into.exec("DELETE FROM " + record.name + " WHERE " + condition);
}

}  // namespace

std::vector<RescuedRecord> copyReadable(SQLite::Database& from, SQLite::Database& into) {
    std::vector<RescuedRecord> out;
    for (const RecordLine& record : record::all())
        out.push_back(copyTable(from, into, record.name, columnsOf(record)));
    out.push_back(copyTable(from, into, "sitting", {"build", "start", "end"}));
    out.push_back(copyTable(from, into, "kit_text", {"text"}));
    out.push_back(copyTable(from, into, "photo_data", {"jpeg"}));
    const auto tellOf = [&](const RecordLine& record) {
        return std::find_if(out.begin(), out.end(),
                            [&](const RescuedRecord& r) { return r.name == record.name; });
    };
    eachChoice([&](const RecordLine& record, const ColumnLine& column) {
        const auto told = tellOf(record);
        if (record.name == record::build.line().name) {
            into.exec("UPDATE build SET " + column.name + "='" + column.words->front() + "' WHERE " +
                      outside(column));
        } else if (told != out.end()) {
            leaveOut(into, record, outside(column), "\"" + column.name + "\" says what no Ombrek writes",
                     *told);
        }
    });
    for (const RecordLine& record : record::all()) {
        const auto told = tellOf(record);
        if (record.ofBuild && told != out.end())
            leaveOut(into, record, kOfNoBuild, "the build that it is of is not there", *told);
    }
    into.exec("UPDATE build SET kit_name=coalesce(kit_name, '')");
    into.exec("DELETE FROM chosen WHERE build NOT IN (SELECT id FROM build)");
    into.exec(
        "INSERT OR IGNORE INTO chosen(id, build) SELECT 1, max(id) FROM build HAVING max(id) IS NOT NULL");
    return out;
}

}  // namespace ombrek
