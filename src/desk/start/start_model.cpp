#include "desk/start/start_model.h"

#include <QDate>
#include <QFileInfo>
#include <QLocale>
#include <algorithm>

#include "desk/session.h"

namespace ombrek {

StartEntry startEntry(const Kit& kit, const QString& file) {
    return {QStringLiteral("%1, %2").arg(qs(kit.name), qs(kit.summary)),
            QStringLiteral("%1 parts, %2 coils, %3 steps")
                .arg(kit.parts.size())
                .arg(kit.coils.size())
                .arg(kit.steps.size()),
            file,
            0,
            QString(),
            ""};
}

std::vector<StartEntry> recentEntries(const QStringList& kits, const QStringList& books,
                                      const QString& thisBook, const std::vector<StartEntry>& shipped) {
    std::vector<StartEntry> out;
    for (const QString& kit : kits) {
        const bool known = std::any_of(shipped.begin(), shipped.end(), [&](const StartEntry& e) {
            return QFileInfo(e.kitFile) == QFileInfo(kit);
        });
        if (!known)
            out.push_back(
                {QFileInfo(kit).fileName(), QStringLiteral("a kit you opened"), kit, 0, QString(), ""});
    }
    for (const QString& book : books) {
        if (QFileInfo(book) != QFileInfo(thisBook))
            out.push_back(
                {QFileInfo(book).fileName(), QStringLiteral("another book"), QString(), 0, book, ""});
    }
    return out;
}

std::vector<StartEntry> copyEntries(const std::vector<std::string>& days) {
    std::vector<StartEntry> out;
    for (const std::string& day : days) {
        const QDate date = QDate::fromString(qs(day), Qt::ISODate);
        out.push_back(
            {QStringLiteral("This book as it was on %1").arg(QLocale().toString(date, QLocale::LongFormat)),
             QStringLiteral("opened beside it"), QString(), 0, QString(), day});
    }
    return out;
}

StartView startView(const std::vector<Book::BuildLine>& builds, const std::vector<StartEntry>& kits,
                    const QString& trouble, bool hasBuild, int at) {
    StartView v;
    for (const auto& b : builds)
        v.entries.push_back({QStringLiteral("%1, begun").arg(qs(b.kitName)), QStringLiteral("go on with it"),
                             QString(), b.id, QString(), ""});
    v.entries.insert(v.entries.end(), kits.begin(), kits.end());
    v.at = std::clamp(at, 0, std::max(0, int(v.entries.size()) - 1));
    if (!trouble.isEmpty()) {
        v.now = QStringLiteral("The kit of this build cannot be read.");
        v.why = trouble + QStringLiteral(
                              " The build is kept as it is; choose another, or begin one. Z takes the last "
                              "action back.");
    } else {
        v.now = hasBuild ? QStringLiteral("Go on with a build, or begin another kit.")
                         : QStringLiteral("Begin: choose a kit and press Enter.");
        v.why = QStringLiteral(
            "The first is the practice kit. O opens a kit file; L takes a parts list, pasted or as a table. "
            "A file "
            "may be dropped here.");
    }
    for (std::size_t i = 0; i < v.entries.size(); ++i) {
        const StartEntry& e = v.entries[i];
        v.lines.push_back(
            {e.build ? VerdictState::pass : VerdictState::notDone, e.title, e.detail, int(i) == v.at, false});
    }
    return v;
}

}  // namespace ombrek
