#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ombrek {

/// What is brought near a coil to see which way its circuit is off; no meter is needed.
enum class Wand {
    finger,   ///< adds capacitance
    ferrite,  ///< adds inductance
    brass     ///< takes inductance away
};

/// It was brought near, and the signal went this way: 1 louder, 0 no change, −1 softer.
struct WandTest {
    Wand wand = Wand::finger;
    int louder = 0;
};

/// "ferrite louder". @return nothing when it is none
std::optional<WandTest> readWand(std::string_view text);
std::string wandText(const WandTest& test);

/// What the tests say together: 1 the circuit wants more inductance or capacitance, −1 less, 0 it is at its
/// peak; nothing when they cannot tell, or contradict each other. Common practice.
std::optional<int> wandsSay(const std::vector<WandTest>& tests);

}  // namespace ombrek
