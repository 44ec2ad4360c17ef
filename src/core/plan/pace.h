#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <string_view>
#include <vector>

namespace ombrek {

/// Kinds of work that a builder is quick or slow at.
enum class WorkKind { prepare, solder, polarised, winding, mechanical, test, inspect };
inline constexpr int kWorkKinds = 7;
std::string_view word(WorkKind kind);

/// A step that is done: what the plan gave it and what it took [min].
struct WorkDone {
    WorkKind kind = WorkKind::solder;
    double planned = 0, took = 0;
};

/// A step that is left [min].
struct WorkLeft {
    WorkKind kind = WorkKind::solder;
    double planned = 0;
};

/// How quick a builder is: the logarithm of time taken over time planned, as a builder's own pace plus a
/// deviation for each kind of work, both normal.
///
/// Before anything is done the pace is 0 ± 0.5 (builders differ by a factor of 1.6, one in six by more) and
/// each kind's deviation 0 ± 0.25; one step scatters by 0.4 about it (common practice, all three). Steps done
/// update this as in any text on Bayesian linear regression.
class Pace {
 public:
    static constexpr double kBuilder = 0.5, kKind = 0.25, kStep = 0.4;  ///< standard deviations

    explicit Pace(const std::vector<WorkDone>& done = {});

    /// Mean and standard deviation of the logarithmic pace of a kind of work.
    struct Log {
        double mean = 0, deviation = 0;
    };
    /// The pace of one kind of work, as a logarithm with its spread.
    Log of(WorkKind kind) const;
    /// The usual time over the time planned, e to that mean.
    double factor(WorkKind kind) const;

    struct Left {
        double low = 0, middle = 0, high = 0;  ///< one in ten is below, half, nine in ten [min]
    };
    /// Minutes for what is left: a sum over `trials` draws of the pace and of each step. Same seed, same
    /// result.
    Left left(const std::vector<WorkLeft>& steps, int trials = 2000, std::uint64_t seed = 1) const;

    /// One draw of the minutes for each kind of work left. @param random  0 … 1, each time it is called
    class Draws;

 private:
    friend class Draws;
    static constexpr int kUnknowns = 1 + kWorkKinds;
    std::array<double, kUnknowns> mean_{};
    std::array<std::array<double, kUnknowns>, kUnknowns> root_{};  ///< lower triangle; root·rootᵀ: covariance
};

/// Draws of the minutes that steps will take, one after the other.
class Pace::Draws {
 public:
    Draws(const Pace& pace, const std::vector<WorkLeft>& steps, std::uint64_t seed);
    double next();

 private:
    double normal();

    const Pace& pace_;
    /// Steps of one kind, taken together: the sum of their log-normal times has nearly this mean and spread.
    struct Heap {
        WorkKind kind;
        double planned = 0, spread = 0;  ///< [min], logarithmic
    };
    std::vector<Heap> heaps_;
    std::uint64_t state_;
    bool spare_ = false;
    double kept_ = 0;
};

}  // namespace ombrek
