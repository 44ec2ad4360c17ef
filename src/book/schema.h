#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "book/records.h"
#include "book/rescued.h"

namespace ombrek {

inline constexpr int kApplicationId = 0x4f6d6272;  ///< "Ombr", written in the file's header
inline constexpr int kSchemaVersion = 8;

/// Make the tables and undo triggers in an empty database, in the caller's transaction.
///
/// Undo is the database's own work: a trigger on every table writes the statement that would take the change
/// back into `undo_step`, under the action in hand. Running those statements fires the triggers again, and
/// what they then write is the redo. (The technique is described in SQLite's own documentation.)
/// No action in hand (id 0): nothing is logged, as while a long import goes in piece by piece.
void makeSchema(SQLite::Database& db);

/// Make the undo triggers of every record; those that are there go first.
void remakeTriggers(SQLite::Database& db);

/// The columns of a record's table, besides the id, in order.
std::vector<std::string> columnsOf(const RecordLine& record);
/// Tables that are no records.
std::vector<std::string> plainTables();
/// The statements that make the indexes.
std::vector<std::string> indexTexts();

inline constexpr const char* kEvents[] = {"INSERT", "UPDATE", "DELETE"};
/// The statement that makes an undo trigger. @param whileInHand  as since version 4
std::string triggerText(const std::string& table, const std::string& event,
                        const std::vector<std::string>& columns, bool whileInHand = true);

/// Whether the table, as it stands in this file, has the column.
bool hasColumn(SQLite::Database& db, const std::string& table, const std::string& column);

/// The table or column that a book of this version lacks, as part of a sentence; empty when it has all.
std::string missingIn(SQLite::Database& db);

/// What a book of this version lacks or holds that no Ombrek writes, as a sentence; empty when it is sound.
std::string damageIn(SQLite::Database& db);

/// Copy every row that can be read from a damaged book into a fresh one, by its number where the file gives
/// errors. What is out of range is left out and said, or set back to the usual choice where a build would be
/// lost with it.
std::vector<RescuedRecord> copyReadable(SQLite::Database& from, SQLite::Database& into);

}  // namespace ombrek
