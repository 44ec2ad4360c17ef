#include "desk/pieces/spoken.h"

#include <QStringList>

#include "look/verdict_mark.h"

namespace ombrek {

QString spokenNumber(int number) {
    static const QStringList small =
        QStringLiteral(
            "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen "
            "sixteen seventeen eighteen nineteen")
            .split(QChar(' '));
    static const QStringList tens =
        QStringLiteral("x ten twenty thirty forty fifty sixty seventy eighty ninety").split(QChar(' '));
    if (number < 0 || number > 999) return QString::number(number);
    if (number < 20) return small[number];
    if (number < 100)
        return number % 10 == 0 ? tens[number / 10] : tens[number / 10] + QChar('-') + small[number % 10];
    const QString hundred = small[number / 100] + QStringLiteral(" hundred");
    return number % 100 == 0 ? hundred : hundred + QStringLiteral(" and ") + spokenNumber(number % 100);
}

QString spokenVerdict(const Judged& judged, const Subject& subject) {
    const Kit& kit = judged.kit();
    const auto said = [](const std::string& what, VerdictState state) {
        return QString::fromStdString(what) + QStringLiteral(", ") + wordOf(state);
    };
    if (subject.is(Subject::Kind::part)) {
        if (const Part* part = kit.part(subject.id)) return said(part->ref, judged.part(*part).state);
    } else if (subject.is(Subject::Kind::coil)) {
        if (const Coil* coil = kit.coil(subject.id)) return said(coil->ref, judged.coil(*coil).state);
    } else if (subject.is(Subject::Kind::check)) {
        if (const Check* check = kit.check(subject.id)) return said(check->title, judged.check(*check).state);
    }
    return {};
}

}  // namespace ombrek
