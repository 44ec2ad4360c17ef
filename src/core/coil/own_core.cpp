#include "core/coil/own_core.h"

#include <optional>
#include <string>
#include <vector>

#include "core/quantity/quantity.h"

namespace ombrek {
namespace {

constexpr double kMillimetre = 1e-3;
constexpr double kOwnTolerance = 5;  ///< as the powder rings of the table [%]

/// Three lengths with an x between them [m].
std::optional<std::vector<double>> sizeOf(std::string_view word) {
    std::vector<double> out;
    while (true) {
        const std::size_t at = word.find_first_of("xX");
        const auto number = parseQuantity(word.substr(0, at));
        if (!number || number->unit != Unit::none || !(number->value > 0)) return std::nullopt;
        out.push_back(number->value * kMillimetre);
        if (at == std::string_view::npos) break;
        word.remove_prefix(at + 1);
    }
    const bool ring = out.size() == 3 && out[0] > out[1] && out[0] < 0.5 && out[2] < 0.5;
    return ring ? std::optional(out) : std::nullopt;
}

/// "AL4.9n", "al=4.9nH": AL [H/turn²].
std::optional<double> alOf(std::string_view word) {
    if (word.size() < 4 || (word[0] != 'A' && word[0] != 'a') || (word[1] != 'L' && word[1] != 'l'))
        return std::nullopt;
    word.remove_prefix(word[2] == '=' ? 3 : 2);
    const bool bare = word.find_first_not_of("0123456789.,") == std::string_view::npos;
    const auto value = parseQuantity(word, Unit::henry);
    if (bare || !value || value->unit != Unit::henry || !(value->value > 0) || value->value > 1e-3)
        return std::nullopt;
    return value->value;
}

}  // namespace

bool takeOwnCore(MagneticCore& core, std::string_view word) {
    const auto al = alOf(word);
    const auto size = sizeOf(word);
    if (!al && !size) return false;
    MagneticCore own;
    own.designation = "own ring";
    own.material = core.material;
    if (core.shape == MagneticCore::Shape::ring) {
        own.outerDiameter = core.outerDiameter;
        own.innerDiameter = core.innerDiameter;
        own.height = core.height;
    }
    own.al = al ? *al : core.al;
    own.alTolerancePercent = core.alTolerancePercent > 0 ? core.alTolerancePercent : kOwnTolerance;
    if (size) {
        own.outerDiameter = (*size)[0];
        own.innerDiameter = (*size)[1];
        own.height = (*size)[2];
    }
    core = own;
    return true;
}

bool whole(const MagneticCore& core) {
    return core.al > 0 && core.innerDiameter > 0 && core.outerDiameter > core.innerDiameter &&
           core.height > 0;
}

}  // namespace ombrek
