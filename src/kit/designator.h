#pragma once

#include <functional>
#include <string>
#include <string_view>

namespace ombrek {

/// Words of a text that may be designators: runs of letters and digits.
void eachWord(std::string_view text, const std::function<void(const std::string&)>& use);

/// Whether a text names a part: "U3 pin 3" names U3, not U.
bool namesPart(std::string_view text, std::string_view ref);

}  // namespace ombrek
