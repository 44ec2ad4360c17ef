#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace ombrek {

/// What is turned, and how a builder sees where it stands. Its position is 0 … 1 everywhere else.
struct Adjuster {
    enum class Kind {
        trimmer,  ///< a plate trimmer: least to most in half a turn
        pot,      ///< a trimmer resistor, of one turn or many
        slug,     ///< of a coil, in turns
        coil,     ///< spread (least) to squeezed (most), by eye
        jumper,   ///< in steps
        menu      ///< a number in the rig's own menu
    };
    Kind kind = Kind::trimmer;
    double turns = 0;          ///< from end to end; 0: usual for its kind
    double low = 0, high = 0;  ///< of a menu's number, or of a jumper's steps; alike: not said

    bool operator==(const Adjuster&) const = default;
};

/// Where it stands in the builder's own terms: "57.3 %", "4.5 turns", "step 3", "412". A pot of one turn goes
/// by the hours that its slot shows, from 7 to 5 (common practice).
std::string positionText(const Adjuster& adjuster, double position);
/// The same as an hour, "10:30", for what turns once at most; empty for all else.
std::string hourText(const Adjuster& adjuster, double position);

/// What a person typed: per cent of the travel, or the builder's own terms. @return nothing beyond its ends
std::optional<double> readPosition(const Adjuster& adjuster, std::string_view text);

/// What may be typed, for a sentence: "0 to 100 %", "0 to 25 turns".
std::string positionRange(const Adjuster& adjuster);

/// The nearest position at which it can stand: a jumper has steps, a menu whole numbers.
double standable(const Adjuster& adjuster, double position);

/// Whether it has play: it must be come to from the same side each time.
bool hasPlay(const Adjuster& adjuster);

}  // namespace ombrek
