#pragma once

#include <string>
#include <vector>

#include "core/parts/part_kind.h"
#include "formats/table_csv.h"
#include "lists/amount.h"

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
    bool link = false;     ///< a resistor of nothing, "0R0"
    double tolerance = 0;  ///< [%]
    bool toleranceAssumed = false;
    double low = 0, high = 0;     ///< range of a trimmer [F]
    double volts = 0, watts = 0;  ///< rated; 0: not said
    std::string mark, description, package, code;
    std::string mpn;       ///< the maker's part number, or the type of a semiconductor: what to read on it
    bool fitted = true;    ///< not "DNP", "not fitted": it is on the print and not in the bag
    std::string variants;  ///< "40 m: 100p, 20 m: 47p", where they differ
    std::vector<std::string> doubts;  ///< sentences; empty: sure

    bool sure() const { return doubts.empty(); }
};

/// The fields of a line, still text; any may be empty.
struct ListFields {
    std::string refs, quantity, kind, value, description, tolerance, package, volts, mark, code;
    std::string mpn, remark, fitted, notFitted;
};

/// What holds for a row beside its own words: a heading above it, its column's unit, the file as a whole.
struct RowContext {
    PartKind kind = PartKind::other;             ///< of a heading; `other` for none
    double tolerance = 0, volts = 0, watts = 0;  ///< of a heading; 0 for none
    bool fitted = true;                          ///< the heading does not say "not fitted"
    std::string prefix;                          ///< "p" below a heading "Value (pF)"
    Manner manner;                               ///< of the file's numbers
    enum class Count {
        unknown,
        front,
        back,
        none
    } count = Count::unknown;  ///< where text has its quantities
};

/// Tolerance a list does not state: 5 % for resistors, 10 % for capacitors and chokes, 20 % for electrolytics
/// (common practice).
double usualTolerance(PartKind kind, double nominal, std::string_view description);

/// Understand the fields of one line: every word may be a value, a rating, a count, a mark, a package, a type
/// or prose, and the reading for which letter, value, words, package and file speak most is taken. What is
/// not certain is a doubt, never a guess kept quiet: a quantity that disagrees with the designators, a value
/// without a unit, a mark that reads another value, a kind that another comes close to.
/// Example: understand({.refs = "T1", .value = "BC846"}).kind is transistor, its letter notwithstanding.
ListLine understand(const ListFields& fields, const RowContext& context = {});

/// "6", "6x", "6 pcs", "6.0": 0 when it is no quantity.
int readQuantity(std::string_view text);

/// "100 nF ±10 %" or the description, for previews.
std::string valueText(const ListLine& line);

}  // namespace ombrek
