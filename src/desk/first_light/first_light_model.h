#pragma once

#include <string>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// What the First light page shows, worked out from the book alone.
struct FirstLightView {
    const Check* check = nullptr;  ///< in hand; null when all are made
    const Check* bar = nullptr;    ///< the gate that bars the way to it
    std::string now, why;
    std::string upstream;  ///< how its feed stands; empty: the kit does not say what feeds it
    Verdict verdict;       ///< of the check in hand; its limits and unit always
    double nominal = 0;
    bool bridge = false;  ///< its current is right: Enter says that the gap is closed
    struct Line {
        const Check* check = nullptr;
        Verdict verdict;
    };
    std::vector<Line> lines;
};

/// @param chosen  check id; empty: the next to make
FirstLightView firstLightView(const Judged& judged, const std::string& chosen);

}  // namespace ombrek
