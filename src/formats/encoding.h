#pragma once

#include <functional>
#include <string>
#include <string_view>

namespace ombrek {

/// Told how far long work has come, 0 … 1; answers whether to go on.
using Progress = std::function<bool(double)>;

/// Text from a file or a clipboard as UTF-8: byte-order marks taken off, UTF-16 turned, anything that is no
/// valid UTF-8 read as Latin-1, NUL bytes dropped, line ends made "\n".
std::string toUtf8(std::string_view bytes);

}  // namespace ombrek
