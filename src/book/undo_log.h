#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdint>

namespace ombrek {

/// How far back one may take back: a hundred actions whatever their age, and a season's; never more than so
/// many bytes of statements beyond the last action.
inline constexpr int kUndoActions = 100;
inline constexpr std::int64_t kUndoAge = std::int64_t(90) * 86400;  ///< [s]
inline constexpr std::int64_t kUndoBytes = 16'000'000;

/// Forget the oldest actions beyond that, and the kit texts, pictures and imported rows that nothing speaks
/// of any more. In a transaction of its own. @param now  seconds since 1970, UTC
void pruneUndoLog(SQLite::Database& db, std::int64_t now);

}  // namespace ombrek
