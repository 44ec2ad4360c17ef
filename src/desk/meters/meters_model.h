#pragma once

#include <vector>

#include "desk/pieces/lines.h"
#include "kit/instrument.h"

namespace ombrek {

/// What the Meters page shows of one data-sheet line among all.
struct MetersView {
    QString now, why;
    QString title, accuracy, promise;
    std::vector<Fact> facts, worth;  ///< from its data sheet; what it can tell of parts that a kit is full of
    std::vector<StateLine> lines;
    QString rule, ruleText;
};

/// @param meters  at least one
/// @param at      which of them
/// @param simple  the simple rule is in force
/// @param who     at the bench; may be empty
/// @param now     seconds since 1970, UTC
MetersView metersView(const std::vector<MeterLine>& meters, std::size_t at, bool simple,
                      const std::string& who, std::int64_t now);

/// "Capacitance".
QString quantityOf(Unit unit);
/// The builder's name for the instrument, or its role's.
QString nameOf(const MeterLine& line);

}  // namespace ombrek
