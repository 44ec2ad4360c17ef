#include "core/text/counted.h"

namespace ombrek {

std::string counted(std::int64_t count, std::string_view one, std::string_view many) {
    std::string out = std::to_string(count) + " ";
    if (count == 1) return out.append(one);
    return many.empty() ? out.append(one) + "s" : out.append(many);
}

}  // namespace ombrek
