#pragma once

#include <complex>
#include <limits>
#include <string>
#include <vector>

namespace ombrek {

/// From the least to the most of a variable part [SI]; 0 … 0: there is none.
struct PartRange {
    double low = 0, high = 0;
    bool there() const { return high > 0; }
};

/// An antenna coupler: what it is made of, and how far each part goes.
struct Coupler {
    enum class Kind {
        l,  ///< series coil, and the capacitor across whichever end the load wants
        t,  ///< capacitor, coil to ground, capacitor
        pi  ///< capacitor to ground, coil, capacitor to ground
    };
    Kind kind = Kind::t;
    PartRange l, c1, c2;       ///< c1 at the rig, c2 at the antenna
    double coilQ = 150;        ///< (common practice for ring cores; air coils 200 and more)
    double capacitorQ = 1000;  ///< (common practice)
    double volts = 0;          ///< what a capacitor holds [V peak]; 0: not said
    double source = 50;        ///< [Ω]
    double swr = 1.5;          ///< that the rig is content with (common practice)
};

/// A load at a frequency, as the coupler can best be set to it.
struct CouplerMatch {
    bool reaches = false;
    double swr = std::numeric_limits<double>::infinity();  ///< at the rig
    double l = 0, c1 = 0, c2 = 0;                          ///< where its knobs stand [H, F]; 0: not in
    bool atLoad = false;                                   ///< L: the capacitor is at the antenna's end
    double lossDb = 0;                                     ///< in the coupler itself
    struct Stress {
        double volts = 0, amps = 0;  ///< V peak across it, A r.m.s. through it
    };
    Stress coil, first, second;  ///< coil, c1, c2 at `watts`
    double watts = 0;            ///< forward, that they are reckoned at
    double flashOver =
        std::numeric_limits<double>::infinity();  ///< power at which a capacitor holds no more [W]
    std::string sentence;
};

/// Among the settings that match exactly the one that loses least; where none does, the one with the least
/// standing wave ratio. Losses: each part's Q as a resistance in series.
/// @param load  [Ω], its resistance positive @param frequency  [Hz] @param watts  forward
/// @throws std::domain_error where these are not positive, or the coupler has no coil or capacitor
CouplerMatch match(const Coupler& coupler, std::complex<double> load, double frequency, double watts);

}  // namespace ombrek
