#include "desk/files/given.h"

#include <QFile>
#include <QFileInfo>

#include "desk/session.h"

namespace ombrek {
namespace {

tl::unexpected<Problem> problem(const QFileInfo& file, const char* sentence) {
    return tl::make_unexpected(Problem{file.fileName().toStdString(), sentence});
}

constexpr GivenPlace kPlaces[] = {
    {GivenKind::upgrade, "kit", ""},          {GivenKind::placement, "board", ""},
    {GivenKind::packingList, "delivery", ""}, {GivenKind::stock, "drawers", ""},
    {GivenKind::partsList, "list", ""},       {GivenKind::voltages, "paper", "checks"},
    {GivenKind::steps, "paper", "steps"},     {GivenKind::coils, "paper", "coils"}};

/// Points and span of a Touchstone file's beginning, as far as it was looked at.
QString touchstoneLine(const std::string& text) {
    int points = 0;
    for (const QString& line : qs(text).split(QChar('\n'))) {
        bool number = false;
        line.simplified().section(QChar(' '), 0, 0).toDouble(&number);
        points += number;
    }
    return QStringLiteral("%1 points of network parameters").arg(points);
}

}  // namespace

Result<Given> lookAt(const QString& path) {
    const QFileInfo info(path);
    if (!info.exists()) return problem(info, "It is not there any more.");
    if (info.isDir()) return problem(info, "This is a folder: drop the files in it, one at a time.");
    if (!info.isFile()) return problem(info, "This is no plain file.");
    if (info.size() == 0) return problem(info, "This file is empty.");
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return problem(info, "This file cannot be read.");
    Given out;
    out.file = path;
    out.text = file.read(qint64(kGivenHead)).toStdString();
    if (out.text.empty()) return problem(info, "Nothing could be read of this file.");
    out.kind = givenKind(out.text, info.fileName().toStdString());
    return out;
}

std::optional<GivenPlace> placeOf(GivenKind kind) {
    for (const GivenPlace& place : kPlaces) {
        if (place.kind == kind) return place;
    }
    return std::nullopt;
}

QString whyNotTaken(const Given& given) {
    const QString name =
        given.file.isEmpty() ? QStringLiteral("What was copied") : QFileInfo(given.file).fileName();
    switch (given.kind) {
        case GivenKind::touchstone:
            return QStringLiteral("%1: %2. No page uses them yet; nothing was taken.")
                .arg(name, touchstoneLine(given.text));
        case GivenKind::archive:
            return QStringLiteral(
                       "%1 is an archive or a spreadsheet file: write the table as CSV and drop that.")
                .arg(name);
        case GivenKind::pdf:
            return QStringLiteral("%1 is a PDF: open it, copy its list or table, and press Ctrl+V here.")
                .arg(name);
        default:
            return QStringLiteral(
                       "%1 is no book, kit, list, table or picture that Ombrek knows; nothing was taken.")
                .arg(name);
    }
}

}  // namespace ombrek
