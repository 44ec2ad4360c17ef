#pragma once

#include <vector>

#include "book/book.h"
#include "desk/pieces/lines.h"
#include "kit/kit.h"

namespace ombrek {

/// A kit that can be begun, a build that can be gone on with, another book, or a daily copy of this one.
struct StartEntry {
    QString title, detail, kitFile;
    std::int64_t build = 0;  ///< 0: no build
    QString book{};          ///< another book to open
    std::string copyOf{};    ///< the day of a daily copy of this book
};
/// What the start page says of a kit that ships.
StartEntry startEntry(const Kit& kit, const QString& file);
/// Kits and books that were open lately, without those that ship (their files) and without this book.
std::vector<StartEntry> recentEntries(const QStringList& kits, const QStringList& books,
                                      const QString& thisBook, const std::vector<StartEntry>& shipped);
/// The daily copies of a book, the newest first. @param days  "2026-11-25"
std::vector<StartEntry> copyEntries(const std::vector<std::string>& days);

/// What the Start page shows.
struct StartView {
    QString now, why;
    std::vector<StartEntry> entries;  ///< builds first
    std::vector<StateLine> lines;
    int at = 0;  ///< brought into what there is
};

/// @param trouble   why the kit in hand cannot be shown; empty when it can
/// @param hasBuild  a build is in hand
StartView startView(const std::vector<Book::BuildLine>& builds, const std::vector<StartEntry>& kits,
                    const QString& trouble, bool hasBuild, int at);

}  // namespace ombrek
