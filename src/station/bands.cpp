#include "station/bands.h"

#include "core/air/band_name.h"
#include "core/quantity/quantity.h"

#include <algorithm>

namespace ombrek {

bool hasBand(const Kit& kit, const std::string& name) {
    const auto names = kit.ratings.bandNames();
    return std::find(names.begin(), names.end(), name) != names.end();
}

std::string bandNamed(const Kit& kit, const std::string& name) {
    return hasBand(kit, name) ? name : kit.ratings.bandNames().front();
}

std::string bandAfter(const Kit& kit, const std::string& name) {
    const auto names = kit.ratings.bandNames();
    const auto hit = std::find(names.begin(), names.end(), name);
    return hit == names.end() || hit + 1 == names.end() ? names.front() : *(hit + 1);
}

std::string bandCalled(const Kit& kit, const std::string& band) {
    if (!band.empty()) return band;
    const std::string about = bandAt(kit.ratings.frequency);
    return about.empty() ? formatQuantity(kit.ratings.frequency, Unit::hertz, 4) : about;
}

}  // namespace ombrek
