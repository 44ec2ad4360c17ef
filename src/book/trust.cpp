#include "book/trust.h"

#include <sqlite3.h>

#include <algorithm>
#include <cctype>
#include <set>
#include <string_view>
#include <vector>

#include "book/records.h"
#include "book/schema.h"

namespace ombrek {
namespace {

const std::set<std::string>& recordTables() {
    static const std::set<std::string> all = [] {
        std::set<std::string> out;
        for (const RecordLine& record : record::all()) out.insert(record.name);
        return out;
    }();
    return all;
}

bool knownTable(const std::string& name) {
    static const std::set<std::string> plain = [] {
        const auto all = plainTables();
        return std::set<std::string>(all.begin(), all.end());
    }();
    return recordTables().contains(name) || plain.contains(name) || name == "sqlite_sequence";
}

/// The columns that a trigger writes down, by its own words "quote(old.NAME)", in order.
std::vector<std::string> spokenColumns(const std::string& text) {
    constexpr std::string_view kOpen = "quote(old.";
    std::vector<std::string> out;
    for (std::size_t at = text.find(kOpen); at != std::string::npos; at = text.find(kOpen, at + 1)) {
        const std::size_t from = at + kOpen.size(), to = text.find(')', from);
        if (to == std::string::npos) break;
        std::string column = text.substr(from, to - from);
        const bool name = !column.empty() && std::all_of(column.begin(), column.end(), [](unsigned char c) {
            return std::islower(c) || std::isdigit(c) || c == '_';
        });
        if (name) out.push_back(std::move(column));
    }
    return out;
}

/// Whether it is the undo trigger of its table and event, over the columns that the book's version has.
bool ownTrigger(const std::string& name, const std::string& table, const std::string& text, bool current) {
    const auto record = std::find_if(record::all().begin(), record::all().end(),
                                     [&](const RecordLine& line) { return line.name == table; });
    if (record == record::all().end()) return false;
    const auto event = std::find_if(std::begin(kEvents), std::end(kEvents),
                                    [&](const char* e) { return name == table + "_" + e; });
    if (event == std::end(kEvents)) return false;
    if (current) return text == triggerText(table, *event, columnsOf(*record));
    const auto columns = spokenColumns(text);
    return text == triggerText(table, *event, columns) || text == triggerText(table, *event, columns, false);
}

bool ownIndex(const std::string& name, const std::string& text) {
    if (text.empty()) return name.starts_with("sqlite_autoindex_");
    const auto all = indexTexts();
    return std::find(all.begin(), all.end(), text) != all.end();
}

int allowed(void*, int what, const char* a, const char*, const char*, const char* trigger) {
    const bool record = a != nullptr && recordTables().contains(a);
    const bool log = a != nullptr && std::string_view(a) == "undo_step";
    const bool hand = a != nullptr && std::string_view(a) == "action_in_hand";
    switch (what) {
        case SQLITE_INSERT:
            return record || (trigger != nullptr && log) ? SQLITE_OK : SQLITE_DENY;
        case SQLITE_UPDATE:
        case SQLITE_DELETE:
            return record ? SQLITE_OK : SQLITE_DENY;
        case SQLITE_READ:
            return record || (trigger != nullptr && (log || hand)) ? SQLITE_OK : SQLITE_DENY;
        case SQLITE_SELECT:
        case SQLITE_FUNCTION:
            // Our triggers look at the action in hand and quote what was there.
            return trigger != nullptr ? SQLITE_OK : SQLITE_DENY;
        default:
            return SQLITE_DENY;
    }
}

}  // namespace

std::unique_ptr<SQLite::Database> openBook(const std::string& name, int how, int wait) {
    auto out = std::make_unique<SQLite::Database>(name, how, wait);
    sqlite3_db_config(out->getHandle(), SQLITE_DBCONFIG_DEFENSIVE, 1, nullptr);
    sqlite3_db_config(out->getHandle(), SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0, nullptr);
    sqlite3_limit(out->getHandle(), SQLITE_LIMIT_ATTACHED, 0);
    return out;
}

std::string quoted(const std::string& name) {
    std::string out = "\"";
    for (const char c : name) out += c == '"' ? "\"\"" : std::string(1, c);
    return out + '"';
}

bool isPlainTable(SQLite::Database& db, const std::string& table) {
    SQLite::Statement q(db, "SELECT type FROM pragma_table_list WHERE schema='main' AND name=?");
    q.bind(1, table);
    if (!q.executeStep() || q.getColumn(0).getString() != "table") return false;
    SQLite::Statement hidden(db, "SELECT count(*) FROM pragma_table_xinfo(?) WHERE hidden<>0");
    hidden.bind(1, table);
    return hidden.executeStep() && hidden.getColumn(0).getInt() == 0;
}

std::string foreignIn(SQLite::Database& db) {
    const bool current = db.execAndGet("PRAGMA user_version").getInt() == kSchemaVersion;
    SQLite::Statement q(db, "SELECT type, name, tbl_name, coalesce(sql, '') FROM sqlite_master");
    while (q.executeStep()) {
        const std::string type = q.getColumn(0).getString(), name = q.getColumn(1).getString(),
                          table = q.getColumn(2).getString(), text = q.getColumn(3).getString();
        const bool own = type == "table"     ? knownTable(name) && isPlainTable(db, name)
                         : type == "index"   ? knownTable(table) && ownIndex(name, text)
                         : type == "trigger" ? ownTrigger(name, table, text, current)
                                             : false;
        if (!own) return "it holds a " + type + " \"" + name.substr(0, 40) + "\" that is not Ombrek's";
    }
    return "";
}

UndoOnly::UndoOnly(SQLite::Database& db) : db_(db) {
    sqlite3_set_authorizer(db.getHandle(), allowed, nullptr);
}
UndoOnly::~UndoOnly() { sqlite3_set_authorizer(db_.getHandle(), nullptr, nullptr); }

}  // namespace ombrek
