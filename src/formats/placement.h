#pragma once

#include <string>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// Where a part sits by a placement file, in this program's way: the middle of the part in millimetres from
/// the top left corner seen from above, turned clockwise.
struct PlacedPart {
    std::string ref;
    double x = 0, y = 0;  ///< [mm]
    double turn = 0;      ///< [°]
    bool underside = false;
};

/// What was made of a placement file, and what was guessed in doing so.
struct Placement {
    std::vector<PlacedPart> parts;
    double width = 0, height = 0;  ///< of a board that holds them with a margin [mm]
    std::string units;             ///< "millimetres", "inches", "mils"
    std::string guesses;           ///< what was guessed, a sentence to be shown
    std::vector<Problem> refused;  ///< rows that were not taken, with their line
};

/// A placement table: columns for designator, x, y, and, where they are there, rotation and side, by their
/// heading in any order; any dialect of CSV. Units by the heading, by a suffix in the cells, else by which
/// makes a board of a believable size; the origin by which way y runs: files have it upwards.
/// @return a Problem when there is no such table or nothing in it can be placed
Result<Placement> readPlacement(const std::string& bytes);

/// What does not agree with a parts list: parts of the file that the list does not know, and parts of the
/// list that the file does not place. One sentence each, empty when all agrees.
std::vector<std::string> disagreements(const Placement& placement, const std::vector<std::string>& refs);

}  // namespace ombrek
