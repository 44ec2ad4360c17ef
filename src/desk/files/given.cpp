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
    {GivenKind::log, "log", ""},              {GivenKind::upgrade, "kit", ""},          {GivenKind::placement, "board", ""},
    {GivenKind::packingList, "delivery", ""}, {GivenKind::stock, "drawers", ""},
    {GivenKind::partsList, "list", ""},       {GivenKind::voltages, "paper", "checks"},
    {GivenKind::steps, "paper", "steps"},     {GivenKind::coils, "paper", "coils"}};

/// One port, an antenna or a load; two are a filter. By the name, else by the numbers of the first point.
bool onePort(const Given& given) {
    if (given.file.endsWith(QStringLiteral(".s1p"), Qt::CaseInsensitive)) return true;
    if (given.file.endsWith(QStringLiteral(".s2p"), Qt::CaseInsensitive)) return false;
    for (const QString& line : qs(given.text).split(QChar('\n'))) {
        const QStringList words =
            line.section(QChar('!'), 0, 0).simplified().split(QChar(' '), Qt::SkipEmptyParts);
        bool number = false;
        if (!words.isEmpty()) words.front().toDouble(&number);
        if (number) return words.size() == 3;
    }
    return false;
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

std::optional<GivenPlace> placeOf(const Given& given) {
    if (given.kind == GivenKind::touchstone)
        return GivenPlace{GivenKind::touchstone, onePort(given) ? "coupler" : "filter", ""};
    for (const GivenPlace& place : kPlaces) {
        if (place.kind == given.kind) return place;
    }
    return std::nullopt;
}

QString whyNotTaken(const Given& given) {
    const QString name =
        given.file.isEmpty() ? QStringLiteral("What was copied") : QFileInfo(given.file).fileName();
    switch (given.kind) {
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
