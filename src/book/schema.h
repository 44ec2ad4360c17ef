#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdint>

namespace ombrek {

inline constexpr int kApplicationId = 0x4f6d6272;  ///< "Ombr", written in the file's header
inline constexpr int kSchemaVersion = 3;

/// Make the tables and undo triggers in an empty database, in the caller's transaction.
///
/// Undo is the database's own work: a trigger on every table writes the statement that would take the change
/// back into `undo_step`, under the action in hand. Running those statements fires the triggers again, and
/// what they then write is the redo. (The technique is described in SQLite's own documentation.)
void makeSchema(SQLite::Database& db);

/// Bring a book of an older version up to this one, in one transaction; what was done and what can be undone
/// is kept.
void migrate(SQLite::Database& db);

}  // namespace ombrek
