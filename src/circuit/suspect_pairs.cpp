#include <algorithm>
#include <cmath>
#include <numeric>

#include "circuit/likelihood.h"
#include "circuit/reads.h"
#include "circuit/suspects.h"

namespace ombrek {
namespace {

constexpr double kPairPrior = 0.05;  ///< that two faults are there at once, against one
constexpr std::size_t kPairFirsts = 60, kPairs = 150;

}  // namespace

void FaultFinder::forgetPairs() {
    faults_.resize(singles_);
    priors_.resize(singles_);
    for (auto& [state, sims] : sims_) {
        sims.volts.resize(singles_ + 1);
        for (auto& [branch, amps] : sims.currents) amps.resize(singles_ + 1);
        for (auto& [leads, ohms] : sims.ohms) ohms.resize(singles_ + 1);
    }
}

/// The pairs that explain most when each does what it does alone: a guess, which chooses what is simulated.
std::vector<Fault> FaultFinder::likelyPairs(const std::vector<CircuitReading>& readings) const {
    std::vector<std::vector<double>> reads;
    std::vector<double> spreads;
    const auto share = shares(readings, reads, spreads);
    const ReadingModel model = modelOf(readings, spreads);
    std::vector<std::size_t> firsts(singles_);
    std::iota(firsts.begin(), firsts.end(), std::size_t(1));
    std::stable_sort(firsts.begin(), firsts.end(),
                     [&](std::size_t a, std::size_t b) { return share[a] > share[b]; });
    if (firsts.size() > kPairFirsts) firsts.resize(kPairFirsts);
    std::vector<std::pair<double, std::pair<std::size_t, std::size_t>>> guesses;
    for (const std::size_t a : firsts) {
        for (std::size_t b = 1; b <= singles_; ++b) {
            if (b == a || faults_[a - 1].ref == faults_[b - 1].ref) continue;
            // Each pair once, whichever of the two stands first.
            if (std::find(firsts.begin(), firsts.end(), b) != firsts.end() && b < a) continue;
            std::vector<double> guess = reads[a];
            for (std::size_t i = 0; i < guess.size(); ++i) {
                const double moved = reads[b][i] - reads[0][i];
                if (std::isfinite(guess[i]) && std::isfinite(moved))
                    guess[i] += moved;
                else if (reads[b][i] != reads[0][i])
                    guess[i] = reads[b][i];
            }
            guesses.push_back({model.logLikelihood(guess) + std::log(faults_[a - 1].prior + 1e-6) +
                                   std::log(faults_[b - 1].prior + 1e-6),
                               {a, b}});
        }
    }
    const std::size_t most = std::min(kPairs, guesses.size());
    std::partial_sort(guesses.begin(), guesses.begin() + std::ptrdiff_t(most), guesses.end(),
                      [](const auto& x, const auto& y) { return x.first > y.first; });
    std::vector<Fault> out;
    for (std::size_t i = 0; i < most; ++i) {
        const auto [a, b] = guesses[i].second;
        out.push_back(bothOf(faults_[a - 1], faults_[b - 1]));
        out.back().prior = kPairPrior * faults_[a - 1].prior * faults_[b - 1].prior;
    }
    return out;
}

Result<void> FaultFinder::simulatePairs(const std::vector<CircuitReading>& readings,
                                        const std::function<bool(double)>& goOn) {
    forgetPairs();
    const std::vector<Fault> pairs = likelyPairs(readings);
    const std::size_t all = singles_ + pairs.size();
    for (auto& [state, sims] : sims_) {
        sims.volts.resize(all + 1);
        for (auto& [branch, amps] : sims.currents) amps.resize(all + 1, NAN);
        bool stopped = false;
        auto ran = eachFault(sims.sensed, pairs,
                             [&, &sims = sims](std::size_t i, const Result<OperatingPoint>& point) {
                                 keep(sims, singles_ + 1 + i, point);
                                 stopped = goOn && !goOn(double(i) / double(pairs.size()));
                                 return !stopped;
                             });
        for (auto& [leads, ohms] : sims.ohms) {
            ohms.resize(all + 1, NAN);
            const auto ends = circuitWords(leads);
            if (!ran || stopped) continue;
            ran = eachFault(withOhmmeter(sims.standing, ends[0], ends[1]), pairs,
                            [&, &ohms = ohms](std::size_t i, const Result<OperatingPoint>& point) {
                                if (point) ohms[singles_ + 1 + i] = ohmsOf(*point, ends[0], ends[1]);
                                return true;
                            });
        }
        if (!ran || stopped) {
            forgetPairs();
            return ran ? problem("", "Stopped.") : ran;
        }
    }
    for (const Fault& pair : pairs) {
        faults_.push_back(pair);
        priors_.push_back(pair.prior);
    }
    return {};
}

}  // namespace ombrek
