#pragma once

#include "formats/table_csv.h"
#include "kit/kit.h"
#include "lists/list_line.h"

namespace ombrek {

/// One line of a distributor's packing list.
struct PackingLine {
    std::size_t line = 0;
    std::string code, description, substitutedBy;
    int ordered = 0, shipped = 0, backOrdered = 0;
};

enum class Delivery { complete, backOrdered, substituted, shortShipped, notOrdered, notOnList };
/// "complete", "back-ordered", "substituted" …
std::string_view word(Delivery delivery);

/// A packing list against the order it answers.
struct DeliveryLine {
    Delivery state = Delivery::complete;
    std::string what;      ///< "100 nF ±10 %" or the supplier's own words
    std::string sentence;  ///< "4 of 6 shipped, 2 back-ordered."
    std::vector<std::string> refs;
    int wanted = 0, shipped = 0, backOrdered = 0;
};

/// Read a packing list: a table with a column of order codes or descriptions and columns for what was
/// ordered, shipped, back-ordered and sent instead, in any wording. A back order that is not given is what
/// was ordered and not shipped, only when the list says so in words.
Result<std::vector<PackingLine>> readPackingList(const std::string& bytes, const Progress& progress = {});

/// A kit's parts as the lines one would order: like parts together.
std::vector<ListLine> orderOf(const Kit& kit);

/// Set a packing list against the parts list that was ordered. Lines meet by order code, else by value.
/// A list line the packing list does not name is told as not on it.
std::vector<DeliveryLine> reconcile(const std::vector<ListLine>& order,
                                    const std::vector<PackingLine>& packing);

}  // namespace ombrek
