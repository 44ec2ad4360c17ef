#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace ombrek {

/// What a builder says in a line: things with commas, semicolons or line ends between, each of a few words. A
/// comma between two digits is a decimal mark. Without the blanks about them; what is empty is left out.
std::vector<std::string> thingsSaid(std::string_view text);

/// The words of one thing.
std::vector<std::string> wordsSaid(std::string_view text);

}  // namespace ombrek
