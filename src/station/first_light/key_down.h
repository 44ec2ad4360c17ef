#pragma once

#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// Whether the key goes down, or the rig may transmit, while this is read: the kit says so, it is a power or
/// a final's bias, or its words say "key down".
bool keyDown(const Check& check);
bool keyDown(const Adjustment& adjustment);

/// What is still to be done before the key goes down.
struct LoadAsk {
    const Step* hold = nullptr;  ///< the kit's own hold that the load is on, not done yet
    bool confirm = false;        ///< no such hold bars, but nobody has said this evening that the load is on
    bool clear() const { return hold == nullptr && !confirm; }
    std::string now, why;  ///< as the now line says it
};

/// The gate under which the builder's word on the load is kept; it holds for the evening.
inline constexpr const char* kLoadOn = "load";

/// Asked wherever the key goes down: the kit's hold on the load (a hold point whose words name the load) must
/// be done or knowingly passed, and each evening the builder says that it is on, since it is unplugged in
/// between.
/// @param ownHolds  false for a check that the hold itself rests on
/// @param now  seconds since 1970
LoadAsk askForLoad(const Kit& kit, const Build& build, std::int64_t now, bool ownHolds = true);

}  // namespace ombrek
