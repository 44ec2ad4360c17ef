#include "kit/build.h"

#include <algorithm>

namespace ombrek {

const Reading* Build::last(const std::string& subject) const {
    const auto hit = std::find_if(readings.rbegin(), readings.rend(),
                                  [&](const Reading& r) { return r.subject == subject; });
    return hit == readings.rend() ? nullptr : &*hit;
}

std::vector<Reading> Build::all(const std::string& subject) const {
    std::vector<Reading> out;
    std::copy_if(readings.begin(), readings.end(), std::back_inserter(out),
                 [&](const Reading& r) { return r.subject == subject; });
    return out;
}

WindingProgress Build::winding(const std::string& coil, const std::string& winding) const {
    const auto hit = windings.find(coil + "/" + winding);
    return hit == windings.end() ? WindingProgress{} : hit->second;
}

}  // namespace ombrek
