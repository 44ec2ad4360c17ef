#pragma once

#include <string>

#include "lists/parts.h"

namespace ombrek {

/// A parts list pasted from a manual: a line a part or a group of like parts, with designators at its
/// beginning or its end, a value in any usual notation, a quantity, a mark. Lines that go on after a comma,
/// headings ("Resistors, 1/4 W 5 %"), page heads and feet between, two columns side by side and hardware
/// without designators are understood; what is not is refused with a reason.
/// @param variant  which of the bands is built, where rows name values for several; empty: not chosen
PartsList readListText(const std::string& bytes, const Progress& progress = {},
                       const std::string& variant = {});

}  // namespace ombrek
