#pragma once

#include <QString>

namespace ombrek {

/// What an act does, in a sentence or two, where its words alone leave a question; empty otherwise.
/// @param page  id of its page, or "window"
QString actTip(const QString& page, const QString& act);

}  // namespace ombrek
