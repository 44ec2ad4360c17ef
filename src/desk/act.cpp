#include "desk/act.h"

#include "desk/act_tips.h"

namespace ombrek::act {
namespace {

QString sentence(QString words) {
    if (!words.isEmpty()) words[0] = words[0].toUpper();
    return words;
}

}  // namespace

void describe(QAction& act) {
    QStringList lines{tip(act), QStringLiteral("Key: %1").arg(act.property(kKey).toString())};
    if (const QString why = act.property(kWhyNot).toString(); !why.isEmpty())
        lines << QStringLiteral("Not now: %1").arg(why);
    act.setToolTip(lines.join(QChar('\n')));
    act.setStatusTip(lines.first());
}

QAction* make(QObject* owner, const QString& id, const QString& shown, const QList<QKeySequence>& keys,
              const QString& does, bool common) {
    auto* out = new QAction(owner);
    out->setObjectName(id);
    out->setProperty(kKey, shown);
    out->setProperty(kCommon, common);
    out->setShortcuts(keys);
    out->setAutoRepeat(false);
    reword(*out, does);
    return out;
}

void reword(QAction& act, const QString& does) {
    if (act.iconText() == does && !act.toolTip().isEmpty()) return;
    act.setText(sentence(does));
    act.setIconText(does);
    describe(act);
}

void setAble(QAction& act, const QString& whyNot) {
    if (act.isEnabled() == whyNot.isEmpty() && act.property(kWhyNot).toString() == whyNot) return;
    act.setProperty(kWhyNot, whyNot);
    act.setEnabled(whyNot.isEmpty());
    describe(act);
}

QString tip(const QAction& act) {
    const QString known = actTip(act.parent()->objectName(), act.objectName());
    return known.isEmpty() ? act.text() + QChar('.') : known;
}

}  // namespace ombrek::act
