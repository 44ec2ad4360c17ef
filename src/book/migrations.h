#pragma once

#include <SQLiteCpp/SQLiteCpp.h>

namespace ombrek {

/// Bring a book of an older version up to this one, in one transaction: a step for each version, none of
/// which is ever changed. All that was done is kept; where a step changes the shape of what is there, what
/// was done before it cannot be taken back any more.
/// @param damage  what to do when it then holds what no Ombrek writes; a rescue takes what is sound
/// @throws SQLite::Exception, with the book as it was, when it cannot be written or damage is refused
enum class Damage { refused, taken };
void migrate(SQLite::Database& db, Damage damage = Damage::refused);

}  // namespace ombrek
