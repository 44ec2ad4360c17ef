#pragma once

#include <QString>
#include <optional>

#include "core/quantity/problem.h"
#include "lists/given_kind.h"

namespace ombrek {

/// What somebody dropped or pasted, looked at.
struct Given {
    GivenKind kind = GivenKind::unknown;
    QString file;  ///< empty: the text itself
    std::string text;
};

/// Look at the beginning of a file; may run on any thread.
/// @return a Problem for a folder, what is no plain file, what cannot be read, is gone or is empty
Result<Given> lookAt(const QString& file);

/// Where a kind belongs: the page that takes it, and what opens it there.
struct GivenPlace {
    GivenKind kind;
    const char *page, *about;  ///< `about` of Page::begin; "" : the file goes to Page::openFile
};
/// Nothing for what no page takes.
std::optional<GivenPlace> placeOf(const Given& given);

/// Why what no page takes cannot be used, and what to do instead.
QString whyNotTaken(const Given& given);

}  // namespace ombrek
