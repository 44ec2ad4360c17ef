#pragma once

#include <string>
#include <vector>

#include "core/parts/part_kind.h"
#include "core/quantity/verdict.h"
#include "core/quantity/working.h"

namespace ombrek {

/// A like part that is at hand.
struct StockPart {
    std::string id;
    PartKind kind = PartKind::other;
    double value = 0;      ///< SI
    double tolerance = 0;  ///< [%]
    double volts = 0;      ///< rated; 0: not known
    double watts = 0;      ///< rated; 0: not known
    int count = 0;
};

struct SubstituteWanted {
    PartKind kind = PartKind::other;
    double value = 0;      ///< SI, positive
    double tolerance = 0;  ///< [%]
    double volts = 0;      ///< at least; 0: any
    double watts = 0;      ///< at least; 0: any
};

struct Substitute {
    enum class How { single, series, parallel };
    How how = How::single;
    std::vector<std::size_t> parts;  ///< indices into the stock; twice the same: two of one line
    double value = 0;                ///< resulting [SI]
    Limits limits;                   ///< of the result, each part at its own limit
    double volts = 0, watts = 0;     ///< of the pair; 0: not known
    double deviation = 0;            ///< of the value from the one wanted [%]
    bool within = false;             ///< its limits lie wholly inside the wanted ones
    Working working;
};

/// "single", "series", "parallel".
std::string_view word(Substitute::How how);

/// What in the stock can stand for a part: like parts, and two in series or parallel.
///
/// A candidate's value must be within the wanted tolerance; a rating that is asked for must be met, an
/// unknown one does not meet it. Best first: those whose limits lie inside the wanted limits, then one part
/// before two, then the nearest value, then the tighter limits. A pair's voltage: in parallel the lower; in
/// series capacitors share it inversely to their value and resistors by value. A pair's power: shared by
/// current.
/// @param most  longest list returned
/// Source: series and parallel connection; any text on circuits. Sharing of voltage by nominal values.
std::vector<Substitute> substitutes(const SubstituteWanted& wanted, const std::vector<StockPart>& stock,
                                    std::size_t most = 20);

}  // namespace ombrek
