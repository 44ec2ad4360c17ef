#pragma once

#include <QString>
#include <QStringList>

namespace ombrek::person {

/// What Ombrek remembers of the person at the desk, in QSettings, the same for every book: colours, text
/// size, units, the last folders, what was open last. A settings file full of rubbish gives the usual values.

/// What the person chose, whatever book is open; `usual` when never.
QString get(const QString& key, const QString& usual = {});
/// Kept for every book.
void set(const QString& key, const QString& value);

/// A list with the newest first, at most kRecent long, without those that are gone.
inline constexpr int kRecent = 6;
QStringList recent(const QString& key);
void remember(const QString& key, const QString& file);

/// Places of instruments that the person at this desk has said yes to, as text of the caller's making.
bool trusts(const QString& place);
void trust(const QString& place);

/// Where files of this purpose were last; the home folder at first. @param purpose  "kit", "list", "sheet"
QString folder(const QString& purpose);
void useFolder(const QString& purpose, const QString& file);

}  // namespace ombrek::person
