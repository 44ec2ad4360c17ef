#pragma once

#include <QString>
#include <vector>

#include "formats/table_csv.h"

namespace ombrek {

/// " 3 refused, the first on line 7: …"; empty when none was. @param how  "refused", "were odd"
inline QString refusedWords(const std::vector<RefusedLine>& lines, const char* how = "refused") {
    if (lines.empty()) return {};
    return QStringLiteral(" %L1 %2, the first on line %3: %4")
        .arg(lines.size())
        .arg(QString::fromUtf8(how))
        .arg(lines.front().line)
        .arg(QString::fromStdString(lines.front().reason));
}

}  // namespace ombrek
