#pragma once

#include <optional>
#include <string_view>

#include "core/quantity/quantity.h"

namespace ombrek {

enum class PartKind { resistor, capacitor, inductor, diode, transistor, ic, crystal, coil, trimmer, other };
inline constexpr int kPartKinds = 10;

/// The kind's word as used in kit files and on screen: "resistor", "ic", …
std::string_view word(PartKind kind);
std::optional<PartKind> partKind(std::string_view word);

/// What the value of a part of this kind measures in; none for kinds whose value is a description.
Unit unitOf(PartKind kind);

}  // namespace ombrek
