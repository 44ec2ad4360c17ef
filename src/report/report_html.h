#pragma once

#include <QString>
#include <QStringList>
#include <vector>

#include "core/quantity/verdict.h"
#include "kit/build.h"

namespace ombrek {

// How a report is written: small pieces of HTML that QTextDocument prints as well.

using HtmlRow = QStringList;

/// Text of a person for HTML, with nothing in it that is markup.
QString esc(const std::string& text);
/// A verdict in text: the word, so that it survives a monochrome printer.
QString mark(VerdictState state);
/// "2026-11-27 18:30 UTC"; the same everywhere.
QString when(std::int64_t seconds);
/// "2026-11-27".
QString dayOf(std::int64_t seconds);
QString table(const HtmlRow& head, const std::vector<HtmlRow>& rows);
/// A reading with the digits that its error earns, its uncertainty behind it where there is one.
QString readingText(const Reading* reading);

}  // namespace ombrek
