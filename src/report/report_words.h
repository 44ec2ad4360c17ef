#pragma once

#include <QByteArray>
#include <QString>
#include <optional>
#include <vector>

#include "book/book.h"
#include "core/air/locator.h"

namespace ombrek {

/// What a report says beside the build: who built it, with what it was measured, what it did on the air.
struct ReportWords {
    std::int64_t now = 0;               ///< when it is made, seconds since 1970
    QString name{}, call{}, locator{};  ///< of the builder; may be empty
    QString state{};  ///< SHA-256 of what the book says of the build, in hexadecimal; may be empty
    std::vector<MeterLine> meters{};   ///< of the bench
    std::optional<Contact> first{};    ///< the rig's first contact
    std::optional<GreatCircle> way{};  ///< to it, where both places are known
    std::size_t contacts = 0;          ///< that the rig made
    struct Photo {
        PhotoLine line;
        QByteArray jpeg;  ///< empty: it is not in the book any more
    };
    std::vector<Photo> photos{};  ///< that were chosen for it
};

/// The book's preference that holds the ids of photographs chosen for the report, "3 7".
inline constexpr const char* kReportPhotos = "report photos";
std::vector<std::int64_t> chosenPhotos(const std::string& kept);

/// Who, when and which book the report is of. @param now  seconds since 1970, UTC
ReportWords reportWordsOf(const Book& book, const Build& build, std::int64_t now);

/// SHA-256 of a text, 64 hexadecimal digits.
QString sha256Of(const std::string& text);

}  // namespace ombrek
