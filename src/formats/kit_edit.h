#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <vector>

#include "formats/placement.h"
#include "kit/kit.h"

namespace ombrek {

/// Steps as a kit file has them.
nlohmann::ordered_json stepsJson(const std::vector<Step>& steps);

/// A kit's text with the places of a placement file; the board as large as they need, where the kit has
/// none. Fields that are not concerned stay as they were.
std::string withPlaces(const std::string& kitText, const Placement& placement);

/// A kit's text with what the manual or the print has wrong at a step; an empty text takes it out.
std::string withErratum(const std::string& kitText, const std::string& step, const std::string& erratum);

}  // namespace ombrek
