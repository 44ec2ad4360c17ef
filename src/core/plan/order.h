#pragma once

#include <array>
#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// The schools of building order that the plan can follow. The numbers are kept in books.
enum class Order {
    manual = 0,       ///< as the manual has it
    lowestFirst = 1,  ///< lowest parts first, so that the board lies flat
    byKind = 2,       ///< all resistors, all capacitors, …
    byStage = 3,      ///< a stage of the circuit with its test, then the next
    hardestFirst = 4  ///< what is dreaded first, while the hand is rested
};

/// A school with its word for commands and files, its name, and what it buys and costs.
struct School {
    Order order;
    std::string_view word, name, buys, costs;
};
/// The schools of building, in the order in which they are offered.
const std::array<School, 5>& schools();
/// The school of an order.
const School& school(Order order);

/// What the plan needs to know of one step.
struct PlanStep {
    std::string id;
    std::vector<std::string> after;   ///< ids of steps that must be done before
    double height = 0.0;              ///< of the parts it fits above the board [mm]
    std::vector<std::string> before;  ///< ids of steps that must not be done yet
    int kind = 0;                     ///< rank of the kind of part it fits
    int stage = 0;                    ///< rank of its stage
    double hardness = 0;              ///< the larger, the more dreaded
};

/// The steps in building order, as indices into `steps`.
///
/// Every step comes after those it names and before those that must not be done yet; among the steps that
/// are free the school decides, and equals stay in the manual's order.
/// @return a permutation of 0 … n−1, or a Problem: an unknown id, an id twice, or a circle, which is spelled
/// out
Result<std::vector<std::size_t>> planOrder(const std::vector<PlanStep>& steps, Order order);

}  // namespace ombrek
