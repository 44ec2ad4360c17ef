#include "core/plan/station.h"

#include <cstddef>
#include <iterator>

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

struct StationRow {
    std::string_view name, id;
};
constexpr StationRow kStations[] = {{"Parts in", "parts-in"}, {"Winding", "winding"},
                                    {"Board", "board"},       {"First light", "first-light"},
                                    {"Tune", "tune"},         {"Proof", "proof"},
                                    {"Sign-off", "sign-off"}, {"", ""}};
static_assert(std::size(kStations) == enumerators<Station>());

}  // namespace

std::string_view word(Station station) { return kStations[std::size_t(station)].name; }
std::string_view idOf(Station station) { return kStations[std::size_t(station)].id; }

}  // namespace ombrek
