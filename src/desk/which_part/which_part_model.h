#pragma once

#include <string>
#include <vector>

#include "judged/judged.h"

namespace ombrek {

/// What "which part is this?" shows of one part without a line.
struct WhichPartView {
    const LoosePart* part = nullptr;  ///< null: nothing is in hand yet
    std::string now, why;
    std::string head;  ///< "A capacitor marked 472K"
    struct Could {
        std::vector<std::string> refs;  ///< empty: no line wants it
        std::string text;               ///< "C74 or C77: 150 pF ±5 %"
        double odds = 0;
        bool open = false;  ///< some of the line is still short
    };
    std::vector<Could> could;  ///< likeliest first
    struct Reading {
        std::string value, meaning;
        bool wanted = false;  ///< this kit still needs it
    };
    std::vector<Reading> readings;    ///< what its mark may say, what the kit still needs first
    std::vector<std::string> wanted;  ///< while nothing is in hand: what is still short of this kind
    std::vector<std::string> others;  ///< the other parts without a line
};

/// @param id      of the loose part in hand; 0: none
/// @param kind    looked for
/// @param chosen  line of `could` that Enter takes
WhichPartView whichPartView(const Judged& judged, std::int64_t id, PartKind kind, std::size_t chosen);

/// The designator a loose part is put to when it is of this line: the first that is short or open.
std::string lineFor(const Judged& judged, const std::vector<std::string>& refs);

}  // namespace ombrek
