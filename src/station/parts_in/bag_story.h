#pragma once

#include <string>
#include <vector>

#include "core/parts/bag.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// One thing that is wrong with the bag, with its reason.
struct BagTrouble {
    enum class What { missing, anotherValue, doubtful, mismarked, misplaced, loose, over };
    What what = What::missing;
    std::string ref;         ///< the line it is about; empty for a part over
    std::int64_t loose = 0;  ///< the loose part it is about; 0: none
    std::string head;        ///< "C13 10 nF reads 21.8 nF"
    std::string sentence;    ///< why
    VerdictState state = VerdictState::fail;
    double odds = 1;                   ///< that this is the explanation
    std::string belongsTo;             ///< line to which the part should go; empty: none
    std::vector<std::string> alike{};  ///< further lines that one cause and one remedy hold for

    /// All lines it is about.
    std::vector<std::string> lines() const {
        std::vector<std::string> out;
        if (!ref.empty()) out.push_back(ref);
        out.insert(out.end(), alike.begin(), alike.end());
        return out;
    }
};

/// What the whole bag tells, all parts against all lines at once (see matchBag).
struct BagStory {
    std::vector<BagTrouble> troubles;  ///< in the list's order, loose parts last
    std::string decider;  ///< the one measurement that would decide the closest call; may be empty
    std::vector<std::vector<Explanation>>
        looseCould;         ///< of each loose part, what it may be, likeliest first
    bool weighing = false;  ///< of a moment ago: the newest reading is still being weighed
};

/// @return the story of every reading, mark and loose part in the build so far; what is not known yet is no
/// trouble
BagStory bagStory(const Kit& kit, const Build& build);

/// The lines of a kit that have a value to measure.
std::vector<WantedPart> wantedParts(const Kit& kit);

/// What a mark may say for a part of this kind, likeliest first [SI].
std::vector<double> markedValues(const std::string& printed, PartKind kind);

/// Where a part without a line may belong, from its value, its mark or both, among the lines still open.
std::vector<Explanation> couldBe(const Kit& kit, const Build& build, const LoosePart& part);

}  // namespace ombrek
