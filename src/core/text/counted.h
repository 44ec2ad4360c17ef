#pragma once

#include <cstdint>
#include <string>
#include <string_view>

namespace ombrek {

/// "1 turn", "2 turns"; `many` where an s does not make the plural: counted(2, "pass", "passes").
std::string counted(std::int64_t count, std::string_view one, std::string_view many = {});

}  // namespace ombrek
