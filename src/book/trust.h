#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <memory>
#include <string>

namespace ombrek {

/// A book is a file that people pass on: what stands in it is data, never a program. See
/// docs/decisions/0032-what-is-trusted.md.

/// Open any book: nothing in its schema may call a function that acts, and its schema can be written by
/// statements of our own alone. @param how  SQLite::OPEN_…  @param wait  for another writer [ms]
std::unique_ptr<SQLite::Database> openBook(const std::string& name, int how, int wait = 2000);

/// A trigger, view, index or table that no Ombrek of the book's version makes, as part of a sentence; empty
/// when there is none. Reads only.
std::string foreignIn(SQLite::Database& db);

/// Whether a table holds rows and nothing that reckons: no virtual one, no column made by an expression.
bool isPlainTable(SQLite::Database& db, const std::string& table);

/// A name as it may stand in a statement, whatever is in it.
std::string quoted(const std::string& name);

/// While this lives, statements of the undo log may insert, update and delete rows of records, and our own
/// triggers may write to the undo log; anything else fails.
class UndoOnly {
 public:
    explicit UndoOnly(SQLite::Database& db);
    ~UndoOnly();
    UndoOnly(const UndoOnly&) = delete;
    UndoOnly& operator=(const UndoOnly&) = delete;

 private:
    SQLite::Database& db_;
};

}  // namespace ombrek
