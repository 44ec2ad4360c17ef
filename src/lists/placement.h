#pragma once

#include <optional>
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
    std::string package;  ///< as the file names it
};

/// The corner a board's places are counted from, in the file's own numbers: the file of the other side is
/// laid on the same.
struct PlaceOrigin {
    double left = 0, top = 0;  ///< in the file's unit
    double unit = 1;           ///< [mm]
};

/// What is known before a placement file is read.
struct PlacementContext {
    /// The parts list; rows of others do not make the board larger. Empty: all count.
    std::vector<std::string> refs;
    /// Of the file read before for this board, when this one is of its other side.
    std::optional<PlaceOrigin> origin;
};

/// What was made of a placement file, and what was guessed in doing so.
struct Placement {
    std::vector<PlacedPart> parts;
    double width = 0, height = 0;  ///< of a board that holds them with a margin [mm]
    PlaceOrigin origin;
    std::string units;             ///< "millimetres", "inches", "mils"
    std::string guesses;           ///< what was guessed, a sentence to be shown
    std::vector<Problem> refused;  ///< rows that were not taken, with their line
};

/// A placement table of any program: columns for designator, x, y, and, where they are there, rotation, side
/// and package, by their heading in any order and several languages; any dialect of CSV, or columns set with
/// blanks, with a heading, with one in a comment, or with none. Units by the heading, by a comment, by a
/// suffix in the cells, else by which makes a board of a believable size; the origin by which way y runs:
/// files have it upwards. An underside whose x are all negative is seen from below and is turned.
/// @return a Problem when there is no such table or nothing in it can be placed
Result<Placement> readPlacement(const std::string& bytes, const PlacementContext& context = {});

/// What does not agree with a parts list: parts of the file that the list does not know, and parts of the
/// list that the file does not place. One sentence each, empty when all agrees.
std::vector<std::string> disagreements(const Placement& placement, const std::vector<std::string>& refs);

/// A kit's text with the places of a placement file; the board as large as they need, where the kit has
/// none. A part that the file names takes side and turn from it anew. Other fields stay as they were.
std::string withPlaces(const std::string& kitText, const Placement& placement);
/// What a kit's text knows from the placement file before.
PlacementContext placementContext(const std::string& kitText);

/// Whether a file is of the side that the file before left out: most of its parts have no place in the kit.
bool isOtherSide(const Placement& placement, const std::string& kitText);

}  // namespace ombrek
