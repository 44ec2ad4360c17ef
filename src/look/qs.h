#pragma once

#include <QString>
#include <string>
#include <string_view>

namespace ombrek {

/// The core's UTF-8 as Qt's text.
inline QString qs(const std::string& text) { return QString::fromStdString(text); }
inline QString qs(std::string_view text) { return QString::fromUtf8(text.data(), int(text.size())); }

}  // namespace ombrek
