#include "core/parts/part_kind.h"

#include <algorithm>
#include <array>

#include "core/text/enumerators.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, kPartKinds> kWords{
    "resistor", "capacitor", "inductor", "diode", "transistor", "ic", "crystal", "coil", "trimmer", "other"};

}  // namespace

static_assert(kPartKinds == enumerators<PartKind>());
std::string_view word(PartKind kind) { return kWords[static_cast<std::size_t>(kind)]; }

std::optional<PartKind> partKind(std::string_view word) {
    const auto hit = std::find(kWords.begin(), kWords.end(), word);
    if (hit == kWords.end()) return std::nullopt;
    return static_cast<PartKind>(hit - kWords.begin());
}

Unit unitOf(PartKind kind) {
    switch (kind) {
        case PartKind::resistor:
            return Unit::ohm;
        case PartKind::capacitor:
            return Unit::farad;
        case PartKind::inductor:
            return Unit::henry;
        default:
            return Unit::none;
    }
}

}  // namespace ombrek
