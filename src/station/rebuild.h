#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/circuit/ladder.h"
#include "core/coil/core.h"
#include "core/quantity/problem.h"
#include "kit/kit.h"

namespace ombrek {

/// A band [Hz].
struct Band {
    double low = 0, high = 0;
};

/// "3.5M..3.8M", "3.5 to 3.8 MHz".
Result<Band> readBand(const std::string& text);

/// A coil as it is wound for another band.
struct Rewound {
    std::string ref;
    double before = 0, wanted = 0,
           after = 0;  ///< [H]: the kit's target, what the band asks, what whole turns give
    std::string coreBefore, coreAfter;
    std::vector<int> turnsBefore, turnsAfter;  ///< of each winding
    std::string note;                          ///< what whole turns leave, and how it is mended
};
/// A capacitor for another band, snapped to one that is sold.
struct Recapped {
    std::string ref;
    double before = 0, wanted = 0, after = 0;  ///< [F]
};

struct ResponsePoint {
    double frequency = 0;          ///< [Hz]
    double before = 0, after = 0;  ///< insertion loss [dB]
};

/// What comes after every change of a low-pass, and is a caution.
inline constexpr std::string_view kProveAgain =
    "Prove power and harmonics again on the new band, into a dummy load.";

/// A kit's filters for a band that was not supplied.
struct Rebuilt {
    Band from, band;
    double ohms = 50;
    std::vector<Rewound> coils;
    std::vector<Recapped> capacitors;
    std::vector<FilterElement> lowPass;  ///< the order of the ladder, as in the kit
    std::vector<LadderElement> before, after;
    std::vector<ResponsePoint> response;
    std::vector<std::string> again;   ///< what must be checked again, sentences
    std::vector<std::string> doubts;  ///< what could not be reckoned
    /// Why nothing may be transmitted on the new band with this kit's low-pass; empty: it was rebuilt, or the
    /// kit never transmits. A variant of such a kit is not to be made.
    std::string barred;

    /// What becomes of a coil; null when it stays.
    const Rewound* coil(const std::string& ref) const;
    /// What becomes of a capacitor; null when it stays.
    const Recapped* capacitor(const std::string& ref) const;
};

/// The low-pass and the tuned circuits of a kit for another band: reactances are kept, so that inductances
/// and capacitances go with the ratio of the bands' upper ends; capacitors are snapped to E24, tuned coils
/// are reckoned to put the middle of the band at half the trimmer's travel with the capacitors so chosen, and
/// every coil gets whole turns on the ring of its size whose mix is good there and which comes nearest.
/// @param prototype  take the low-pass from a Chebyshev prototype of 0.1 dB instead of from the kit's values
/// @return a Problem when the kit has no such filter or the band is none
/// Source: frequency scaling of a normalised network, any filter text.
Result<Rebuilt> rebuild(const Kit& kit, Band band, const std::vector<MagneticCore>& cores,
                        bool prototype = false);

/// "C1 L1 C2 L2 C3": the low-pass by its parts from the finals to the antenna, coils in series, capacitors to
/// ground; "series" or "shunt" before a part says otherwise.
/// @return a Problem that names what the kit has not, or what is no part of a low-pass
Result<std::vector<FilterElement>> lowPassLine(const Kit& kit, const std::string& text);

/// The band a kit is made for: of the coil tuned round its rated frequency, else that frequency alone.
std::optional<Band> bandOf(const Kit& kit);

}  // namespace ombrek
