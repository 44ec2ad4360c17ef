#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A band, channel or function of a rig: whether it works, and the parts that it uses.
struct Channel {
    enum class Works { yes, weak, no };
    std::string name;
    Works works = Works::yes;
    std::vector<std::string> uses;  ///< designators
};
/// The word of a state, as a line of channels says it.
std::string_view word(Channel::Works works);

/// "30m dead K3 L5 C12": a name, a word for how it works, what it uses.
/// @return a Problem when there is no such word, or no name
Result<Channel> readChannel(const std::string& line);

/// What may be behind the dead ones.
struct SharedCause {
    std::string what;                ///< a designator, "R7"; or a kind of part, "K"
    bool kind = false;               ///< each dead one has its own of this kind
    double odds = 0;                 ///< all causes together 1
    std::vector<std::string> parts;  ///< designators of it in the dead ones
};

/// Ranked: a part that all dead ones use and no live one does; else a kind of part that each of them has of
/// its own, as relays of one age. Empty without a dead one. Likelihoods are common practice.
std::vector<SharedCause> sharedCauses(const std::vector<Channel>& channels);

/// "The three dead ones, 40m, 30m and 20m, share nothing but the kind of K: bypass K1." A sentence to act on.
std::string comparedWords(const std::vector<Channel>& channels);

/// A builder presses on a place while a reading runs; when it jumps soon after, the place is suspect.
struct Press {
    double at = 0;  ///< [s]
    std::string place;
};
struct RunningReading {
    double at = 0;  ///< [s]
    double value = 0;
};

/// Times at which a running reading jumps by more than a twentieth of what it was, or what its noise is.
std::vector<double> jumpsOf(const std::vector<RunningReading>& readings);

struct PlaceOdds {
    std::string place;
    int presses = 0, jumps = 0;  ///< jumps within a second and a half of a press
    double odds = 0;             ///< all places, and "none of them", together 1
};
/// Each place held against jumps that come by themselves, at the rate at which they come between presses. The
/// last row, without a place, is that it is none of them.
std::vector<PlaceOdds> placesByJumps(const std::vector<RunningReading>& readings,
                                     const std::vector<Press>& presses);

}  // namespace ombrek
