#pragma once

#include <QAction>
#include <QList>

namespace ombrek {

/// What is done by one key, one click on a cap, one entry of a menu, or from Find: a QAction whose objectName
/// is the act's id. Its text is the menu's ("Take it"), its iconText the cap's ("take it"), and its tooltip
/// says what it does and, when it cannot be done now, why.
namespace act {

/// Properties: the key as a person reads it, whether it stands on the row at the foot of its page (the
/// others stand under "?"), and why it cannot be done now.
inline constexpr const char *kKey = "key", *kCommon = "common", *kWhyNot = "why not";

/// An act of `owner` with its keys. @param shown  the key as a cap shows it @param does  what it does, in
/// a word or two
QAction* make(QObject* owner, const QString& id, const QString& shown, const QList<QKeySequence>& keys,
              const QString& does, bool common);

/// Its tooltip again, when the owner has been named: tips are looked up by the owner's objectName.
void describe(QAction& act);

/// It says something else now: "take back: reading of R4".
void reword(QAction& act, const QString& does);

/// @param whyNot  a sentence; empty: it can be done now
void setAble(QAction& act, const QString& whyNot);

/// What it does, in a sentence; from act_tips.cpp, or its words.
QString tip(const QAction& act);

}  // namespace act
}  // namespace ombrek
