#include "report/report_words.h"

#include <QCryptographicHash>
#include <algorithm>
#include <sstream>

#include "judged/on_air.h"
#include "judged/repair.h"

namespace ombrek {

std::vector<std::int64_t> chosenPhotos(const std::string& kept) {
    std::vector<std::int64_t> out;
    std::istringstream in(kept);
    for (std::int64_t id = 0; in >> id;) out.push_back(id);
    return out;
}

QString sha256Of(const std::string& text) {
    return QString::fromLatin1(
        QCryptographicHash::hash(QByteArray::fromStdString(text), QCryptographicHash::Sha256).toHex());
}

ReportWords reportWordsOf(const Book& book, const Build& build, std::int64_t now) {
    ReportWords out;
    out.now = now;
    const auto word = [&](const char* key) { return QString::fromStdString(book.preference(key)); };
    out.name = word("who");
    out.call = word("callsign");
    out.locator = word("locator");
    out.state = sha256Of(book.state());
    out.meters = book.meters();
    const auto log = book.contacts();
    if (const Contact* first = firstContact(log, build.id)) {
        out.first = *first;
        const auto from = placeOfLocator(first->own.empty() ? book.preference("locator") : first->own);
        const auto to = placeOfLocator(first->locator);
        if (from && to) out.way = greatCircle(*from, *to);
    }
    out.contacts = std::size_t(
        std::count_if(log.begin(), log.end(), [&](const Contact& c) { return c.build == build.id; }));
    // Photographs of a repair are its evidence; of a step those that were chosen.
    for (const PhotoLine& p : build.photos) {
        if (repairOf(build, p) != nullptr)
            out.photos.push_back({p, QByteArray::fromStdString(book.photo(p.id))});
    }
    for (const std::int64_t id : chosenPhotos(book.preference(kReportPhotos))) {
        const auto line = std::find_if(build.photos.begin(), build.photos.end(),
                                       [&](const PhotoLine& p) { return p.id == id; });
        // Ids of other builds are not meant; one of this build that is gone was there once.
        if (line != build.photos.end())
            out.photos.push_back({*line, QByteArray::fromStdString(book.photo(id))});
    }
    return out;
}

}  // namespace ombrek
