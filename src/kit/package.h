#pragma once

#include "kit/kit.h"

namespace ombrek {

/// The outline of a part on the board, from its package's usual size.
struct Package {
    double width = 0, height = 0;  ///< at turn 0 [mm]
    bool round = false;
    enum class Mark { none, band, plus, notch, flat, dot } mark = Mark::none;  ///< at the end of pin 1
    bool heatShy = false;  ///< suffers from a hot joint beside it
};

/// Whether a transistor or chip has a metal tab, as power packages have; it may be live.
bool hasTab(const Part& part);
/// Whether a transistor or chip is of the small packages with three legs and a flat.
bool isThreeLegged(const Part& part);
/// Whether a coil is on a core with two holes.
bool onTwoHoles(const Part& part);

/// Whether a capacitor goes in one way round only: the kit gives it an orientation, calls it electrolytic,
/// tantalum or the like, or it has 1 µF or more and is not called ceramic, film or bipolar. Safe side: an
/// electrolytic turned round may burst.
bool polarisedCapacitor(const Part& part);

/// A light-emitting diode, by its designator or its words.
bool isLed(const Part& part);

/// By the package that its words name ("0805", "DIP-8", "TO-92"), else by its kind. Sizes: common practice
/// for wired parts, IEC 60115 size codes for chips (from memory). The place's own size, where the kit has
/// one, goes before.
Package packageOf(const Part& part);

}  // namespace ombrek
