#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// The schools of building order that the plan can follow.
enum class Order {
    manual,      ///< as the manual has it
    lowestFirst  ///< lowest parts first, so that the board lies flat
};
std::string_view word(Order order);

/// What the plan needs to know of one step.
struct PlanStep {
    std::string id;
    std::vector<std::string> after;  ///< ids of steps that must be done before
    double height = 0.0;             ///< of the parts it fits above the board [mm]
};

/// The steps in building order, as indices into `steps`.
///
/// Every step comes after those it names; among the steps that are free, the manual's order or the lowest
/// part decides, and equals stay in the manual's order.
/// @return a permutation of 0 … n−1, or a Problem: an unknown id, an id twice, or a circle, which is spelled
/// out
Result<std::vector<std::size_t>> planOrder(const std::vector<PlanStep>& steps, Order order);

}  // namespace ombrek
