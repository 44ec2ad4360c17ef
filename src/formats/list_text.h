#pragma once

#include <string>
#include <vector>

#include "formats/encoding.h"
#include "formats/list_line.h"

namespace ombrek {

struct PartsList {
    std::vector<ListLine> lines;
    std::vector<RefusedLine> refused;
    int parts() const;     ///< designators, each counted once
    int doubtful() const;  ///< lines with a doubt
};

/// A parts list pasted from a manual: a line a part or a group of like parts, with designators at its
/// beginning or its end, a value in any usual notation, a quantity, a mark. Lines that go on after a comma,
/// headings
/// ("Resistors, 1/4 W 5 %"), page heads and feet between are understood; what is not is refused with a
/// reason.
PartsList readListText(const std::string& bytes, const Progress& progress = {});

/// Doubts that need the whole list: a designator on two lines.
void checkTwice(PartsList& list);

}  // namespace ombrek
