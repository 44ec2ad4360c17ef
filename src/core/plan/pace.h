#pragma once

namespace ombrek {

/// Minutes of work left at this builder's pace.
///
/// The pace is time spent over time planned for what is done, drawn towards 1 while little is done (an hour
/// of planned work counts as evidence for the kit's own figures). Common practice: builders differ by a
/// factor of two.
/// @param planned  planned minutes of the steps done @param spent  minutes at the bench for them
/// @param left     planned minutes of the steps that remain
inline double minutesLeft(double planned, double spent, double left) {
    constexpr double prior = 60.0;
    return left * (spent + prior) / (planned + prior);
}

}  // namespace ombrek
