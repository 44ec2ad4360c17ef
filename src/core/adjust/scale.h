#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/adjust/by_ear.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// What a builder reads where there is no number: marks that rise with what is tuned, by a law that nobody
/// knows. Only which of two is higher counts.
struct ReadingScale {
    enum class Kind {
        number,  ///< a meter
        sMeter,  ///< "7", "9+20"
        bar,     ///< blocks, "5"; with a range beside it "2 5"
        light    ///< of a lamp: 0 dark to 5 full, or in words
    };
    Kind kind = Kind::number;
    int blocks = 8;  ///< of a bar
    int ranges = 1;  ///< of a bar: how many it has

    bool operator==(const ReadingScale&) const = default;
};

/// One such reading. Its rank is what is kept.
struct ScaleMark {
    double rank = 0;
    bool full = false;  ///< it can show no more: the true level is this or higher
};

/// @return a Problem that says what may be typed
Result<ScaleMark> readMark(const ReadingScale& scale, std::string_view text);
/// A kept rank as it was read: "range 2, 5 of 8", "S9+20".
std::string markText(const ReadingScale& scale, double rank);
/// Whether this rank is the most that it can show.
bool isFull(const ReadingScale& scale, double rank);
/// What may be typed, for a prompt.
std::string markWords(const ReadingScale& scale);

/// A mark that was read at a position.
struct MarkPoint {
    double position = 0, rank = 0;
};

/// The comparisons that marks amount to: each with the highest before it.
std::vector<HeardPoint> comparisons(const std::vector<MarkPoint>& marks);

}  // namespace ombrek
