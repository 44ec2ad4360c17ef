#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "core/circuit/ladder.h"
#include "core/proof/harmonics.h"

namespace ombrek {

/// An element of the filter with how well its value is known.
struct FilterPart {
    std::string ref;
    LadderElement element;
    double spread = 5;  ///< limit of its value's error [%]: the meter's, else its tolerance
    bool measured = false;
    double wanted = 0;  ///< as the kit has it [same unit]; 0: not said
    /// An inductor, in series or in a trap.
    bool coil() const {
        return element.kind == LadderElement::Kind::seriesL || element.kind == LadderElement::Kind::shuntL;
    }
};
/// The same as a ladder that can be reckoned, from the transmitter to the socket.
std::vector<LadderElement> elementsOf(const std::vector<FilterPart>& filter);

/// What comes out of the final stage before the filter.
enum class Final {
    single,   ///< one transistor, or several in parallel
    pushPull  ///< two that take turns: even harmonics cancel but for their balance
};
/// Harmonic of the final stage below its fundamental [dB]. From the safe side the pulses are taken as they
/// can be at the worst: 1/n of a sawtooth for one transistor, of a square wave in push-pull, whose even ones
/// are 20 dB of balance lower (Fourier series; balance is common practice). @param order  2 and more
double harmonicOf(Final stage, int order);

/// What is asked of a filter.
struct FilterQuestion {
    double carrier = 0;             ///< [Hz]
    double source = 50, load = 50;  ///< [Ω]
    Final stage = Final::single;
    int harmonics = 5;
    double required = 43;  ///< below the carrier [dB]
    /// What the finals really give, by order from the second [dB below]; NaN, or shorter: not known, taken at
    /// the worst.
    std::vector<double> finals{};
    /// Of a harmonic before the filter: as the finals give it, else at the worst.
    double before(int order) const;
};

/// At the carrier and its harmonics.
struct FilterFigures {
    double loss = 0;            ///< at the carrier [dB]
    std::vector<double> below;  ///< of each harmonic from the second, behind the filter [dB]
    double worstMargin = 0;     ///< the least of them over what is required [dB]
    int worstOrder = 2;
};
/// Loss in the band, attenuation of each harmonic [dB], and the least margin. @throws std::domain_error
/// without elements
FilterFigures filterFigures(const std::vector<LadderElement>& filter, const FilterQuestion& question);

/// Many filters of parts as they may be.
struct FilterBand {
    std::vector<double> frequencies;        ///< [Hz]
    std::vector<double> low, middle, high;  ///< loss: 5, 50 and 95 of 100 lie below [dB]
    double chance = 0;                      ///< to meet the limit, 0 … 1
    double lossLow = 0, lossHigh = 0;       ///< at the carrier, 5 to 95 of 100 [dB]
    int trials = 0;
};
/// @param progress  told 0 … 1, answers whether to go on; none: it goes on @return as far as it came
FilterBand toleranceBand(const std::vector<FilterPart>& filter, const FilterQuestion& question,
                         const std::vector<double>& frequencies, int trials, std::uint64_t seed,
                         const std::function<bool(double)>& progress = {});

/// A coil to squeeze or to spread, or to wind on.
struct Squeeze {
    std::string ref;
    double percent = 0;  ///< change of its inductance; more: squeeze
    FilterFigures before, after;
    std::vector<LadderElement> filter;  ///< with it changed
};
enum class SqueezeFor { power, suppression };
/// For each coil the change within ± `reach` % that gives most, the best coil first. For power: least loss,
/// while no harmonic comes nearer its limit than it is, or than 3 dB. For suppression: the most margin, while
/// the carrier loses at most 0.2 dB more. A coil that was measured off what the kit wants, by more than the
/// meter may be, is only ever bent back towards it: the fault is there, not to be helped along. Empty where
/// nothing is won (0.02 dB of loss, 0.2 dB of margin).
std::vector<Squeeze> whichToSqueeze(const std::vector<FilterPart>& filter, const FilterQuestion& question,
                                    SqueezeFor aim, double reach = 10);

/// A low-pass with turns put on where squeezing is not enough.
struct TurnsMore {
    std::vector<std::string> coils;  ///< one name for each turn; empty: no turn helps
    FilterFigures after;
    std::vector<LadderElement> filter;
};
/// A turn more on one coil after another, each time the one that gives most, until the limit is met with
/// 1 dB to spare or the carrier would lose over 0.5 dB more.
/// @param turns  of each part; 0: no coil
TurnsMore turnsToMeet(const std::vector<FilterPart>& filter, const std::vector<int>& turns,
                      const FilterQuestion& question);

}  // namespace ombrek
