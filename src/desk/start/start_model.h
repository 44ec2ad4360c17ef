#pragma once

#include <vector>

#include "book/book.h"
#include "desk/pieces/lines.h"
#include "kit/kit.h"

namespace ombrek {

/// A kit that can be begun, or a build that can be gone on with.
struct StartEntry {
    QString title, detail, kitFile;
    std::int64_t build = 0;  ///< 0: a kit
};
StartEntry startEntry(const Kit& kit, const QString& file);

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
