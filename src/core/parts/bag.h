#pragma once

#include <string>
#include <vector>

#include "core/parts/marks.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// One designator of the parts list that has a value to measure.
struct WantedPart {
    std::string ref;
    PartKind kind = PartKind::other;
    double nominal = 0;    ///< SI, positive
    double tolerance = 0;  ///< [%]
};

/// One part out of the bag: measured, read from its mark, or both.
struct FoundPart {
    std::string id;
    PartKind kind = PartKind::other;
    double value = 0;            ///< measured [SI]; NaN when it was not
    double error = 0;            ///< U = 2u of the meter [same unit]
    std::vector<double> marked;  ///< what its mark may say, likeliest first [SI]
    std::string takenFor;        ///< designator the builder took it for; may be empty
};

/// One thing a part of the bag may be, with its odds. All designators of a like line stand together, since
/// which of two equal parts goes where does not matter.
struct Explanation {
    std::vector<std::string> refs;  ///< empty: no line wants it
    double odds = 0;                ///< 0 … 1
};

enum class BagCase {
    fits,
    substituted,  ///< of another value than the line it must be meant for
    mismarked,    ///< measures as the line wants, but its mark says another value
    misplaced     ///< taken for one line, belongs to another
};

/// One part paired with a line.
struct BagPair {
    std::size_t found = 0, wanted = 0;  ///< indices
    BagCase what = BagCase::fits;
    Verdict verdict;
    double odds = 1;  ///< that it is this line and no other
    std::string reason;
};

/// A line or a part left alone, and why.
struct BagLeft {
    std::size_t index = 0;
    double odds = 1;
    std::string reason;
};

struct BagAnswer {
    std::vector<BagPair> pairs;  ///< in the order of the parts found
    std::vector<BagLeft> missing, surplus;
    std::vector<std::vector<Explanation>> could;  ///< of each part found, likeliest first
    std::string decider;                          ///< the one measurement that would decide; may be empty
    int deciderFound = -1;                        ///< the part it is about
};

/// The best assignment of the whole bag to the whole list at once.
///
/// Each pair is priced by its likelihood: the part's deviation from nominal, on a logarithmic scale, under
/// the line's tolerance (rectangular) widened by the meter's error (normal, U = 2u), or, for a part out of
/// tolerance, as a substitute within a factor of two; against leaving the line missing and the part over. The
/// cheapest pairing of all is taken; kinds are never mixed. Odds come from what the next best pairing costs.
/// @param finished  the bag is empty: a line without its part is missing, not waiting
/// Source: minimum-cost assignment of log-likelihoods; the priors (one line in a hundred missing, one part in
/// a hundred over, one in seventy of another value) are common practice, not data.
BagAnswer matchBag(const std::vector<WantedPart>& wanted, const std::vector<FoundPart>& found,
                   VerdictRule rule = VerdictRule::guardBand, bool finished = true);

/// The same marks in another order: readings that the kit still needs come first.
std::vector<MarkReading> rankByNeed(std::vector<MarkReading> readings, const std::vector<WantedPart>& wanted);

}  // namespace ombrek
