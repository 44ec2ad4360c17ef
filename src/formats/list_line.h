#pragma once

#include <string>
#include <vector>

#include "core/parts/part_kind.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// What one line of a parts list was understood to say. One line may stand for several designators.
struct ListLine {
    std::size_t line = 0;  ///< in the source, from 1
    std::string text;      ///< as it stood
    std::vector<std::string> refs;
    int quantity = 0;  ///< as the list says; 0: it does not
    PartKind kind = PartKind::other;
    std::string value;   ///< as printed, for kinds without a quantity ("NPN, small signal")
    double nominal = 0;  ///< SI; 0: none
    Unit unit = Unit::none;
    double tolerance = 0;  ///< [%]
    bool toleranceAssumed = false;
    double low = 0, high = 0;     ///< range of a trimmer [F]
    double volts = 0, watts = 0;  ///< rated; 0: not said
    std::string mark, description, package, code;
    std::vector<std::string> doubts;  ///< sentences; empty: sure

    bool sure() const { return doubts.empty(); }
};

/// A row of the source that gave no part, and why.
struct RefusedLine {
    std::size_t line = 0;
    std::string text, reason;
};

/// The fields of a line, still text; any may be empty.
struct ListFields {
    std::string refs, quantity, kind, value, description, tolerance, package, volts, mark, code;
};

/// Tolerance a list does not state: 5 % for resistors, 10 % for capacitors and chokes, 20 % for electrolytics
/// (common practice).
double usualTolerance(PartKind kind, double nominal, std::string_view description);

/// Understand the fields of one line. What is not certain is a doubt, never a guess kept quiet: a quantity
/// that disagrees with the designators, a value without a unit, a mark that reads another value.
/// @param kindHint  from a heading above; `other` for none
/// @param toleranceHint  from a heading above [%]; 0 for none
ListLine understand(const ListFields& fields, PartKind kindHint = PartKind::other, double toleranceHint = 0);

/// "100 nF ±10 %" or the description, for previews.
std::string valueText(const ListLine& line);

}  // namespace ombrek
