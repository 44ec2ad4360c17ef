#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace ombrek {

/// Words of a text that say what a rig is to be doing, by data/words/conditions.txt.
struct ConditionSaid {
    std::string means;  ///< "key down"
    std::size_t begin = 0, end = 0;
};
/// All of them in their order, the longest phrase first where two overlap.
std::vector<ConditionSaid> conditionsSaid(std::string_view text);

/// What the rig is to be doing, as a text says it: "key down". Empty when it does not; of two that go
/// together
/// ("first power, chips out") the one that says more.
std::string conditionIn(std::string_view text);

/// Whether two conditions that a text names cannot both be so: "power off, key down".
bool conditionsDiffer(std::string_view text);

/// Whether a text names a condition and says nothing else: "Key down:", "Voltages on receive", and not "TX
/// LED on".
bool saysConditionAlone(std::string_view text);

/// Whether a text that is not understood may change the condition of what stands below it.
bool mayChangeCondition(std::string_view text);

/// "Apply 12 V": a supply is connected.
bool saysApply(std::string_view text);

}  // namespace ombrek
