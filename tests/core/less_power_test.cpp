#include "core/proof/less_power.h"

#include <catch2/catch.hpp>
#include <map>
#include <random>

using namespace ombrek;

namespace {

/// A rig with one thing wrong, made by what happens in it and not by the ranking's own rules: a final stage
/// that follows its supply, its drive and its load, and meters that scatter.
struct SimulatedRig {
    std::string cause;
    PowerFacts facts;
};

SimulatedRig rigWith(const std::string& cause, std::mt19937& dice) {
    const auto between = [&](double low, double high) {
        return std::uniform_real_distribution<>(low, high)(dice);
    };
    const auto noise = [&](double spread) { return std::normal_distribution<>(1, spread)(dice); };
    double loaded = between(0.985, 1.01), unloaded = between(0.995, 1.015), drive = noise(0.04),
           audio = noise(0.04);
    double filter = between(0, 0.2), coil = between(0, 5), swr = between(1.02, 1.25), bias = noise(0.06);
    double toGain = between(0, 0.15), meter = noise(0.03), promise = 1, alive = 1, path = 1;
    const int finals = std::uniform_int_distribution<>(2, 4)(dice);
    bool jumps = false;
    if (cause == "supply") loaded = between(0.7, 0.88);
    if (cause == "voltage") loaded = unloaded = between(0.6, 0.88);
    if (cause == "meter") meter *= between(0.55, 0.82);
    if (cause == "promise") promise = between(1.18, 1.35);
    if (cause == "drive") drive *= between(0.55, 0.85);
    if (cause == "audio") audio *= between(0.5, 0.85);
    if (cause == "filter") filter = between(1.0, 3.0);
    if (cause == "coil") coil = between(12, 45), filter = between(0.5, 2.0);
    if (cause == "dead-final") alive = double(finals - 1) / finals;
    if (cause == "bias") bias *= between(0.2, 0.6);
    if (cause == "mistuned") toGain = between(1.0, 3.5);
    if (cause == "mismatch") swr = between(2.2, 4.5);
    if (cause == "joint") jumps = true, path = between(0.4, 0.8);
    const double gamma = (swr - 1) / (swr + 1), stage = drive * audio * std::pow(10, -toGain / 20);
    const double conducts = 0.75 + 0.25 * std::min(bias, 1.0);  // crossover eats the foot of the wave
    const double power = std::pow(loaded * stage, 2) * std::pow(alive, between(1.2, 1.9)) * conducts * path *
                         (1 - gamma * gamma) * std::pow(10, -filter / 10);
    SimulatedRig out{cause, {}};
    PowerFacts& f = out.facts;
    f.power = power * meter / promise * noise(0.02);
    f.powerError = 0.08;
    f.finals = finals;
    f.voice = cause == "audio" || between(0, 1) < 0.2;
    const auto know = [&](double chance, double& into, double value) {
        if (between(0, 1) < chance) into = value;
    };
    know(0.95, f.supply, loaded * noise(0.005));
    know(0.9, f.unloaded, unloaded * noise(0.005));
    know(0.85, f.current, loaded * stage * alive * (0.6 + 0.4 * conducts) * noise(0.05));
    know(0.8, f.other, power / promise * noise(0.06));
    know(0.8, f.filterLoss, filter + 0.15 * (noise(1) - 1));
    know(0.9, f.coil, coil + std::abs(noise(1) - 1));
    know(0.8, f.loadSwr, swr * noise(0.03));
    know(0.8, f.drive, drive * std::pow(10, -toGain / 20) * audio * noise(0.06));
    know(0.8, f.audio, audio * noise(0.05));
    know(0.8, f.bias, bias * alive * noise(0.05));
    know(0.85, f.toGain, std::max(0.0, toGain * noise(0.1)));
    know(0.7, f.handed, alive);
    know(0.8, f.jumps, jumps ? 1 : 0);
    return out;
}

}  // namespace

TEST_CASE("1,000 rigs that give less: the cause stands first in 4 of 5, among three in 19 of 20",
          "[simulation]") {
    std::mt19937 dice(16);
    const std::vector<std::string> causes{"supply",   "voltage",  "meter", "promise",    "drive",
                                          "audio",    "filter",   "coil",  "dead-final", "bias",
                                          "mistuned", "mismatch", "joint"};
    int first = 0, three = 0, rigs = 0;
    std::map<std::string, int> missed;
    while (rigs < 1000) {
        const SimulatedRig rig = rigWith(causes[std::size_t(rigs) % causes.size()], dice);
        if (!lessThanPromised(rig.facts)) continue;  // nothing to explain
        ++rigs;
        const auto ranked = causesOfLess(rig.facts);
        REQUIRE(ranked.size() == causes.size());
        const auto at =
            std::find_if(ranked.begin(), ranked.end(), [&](const auto& c) { return c.id == rig.cause; });
        first += at == ranked.begin();
        three += at - ranked.begin() < 3;
        if (at != ranked.begin()) ++missed[rig.cause + " taken for " + ranked[0].id];
    }
    std::string misses;
    for (const auto& [what, count] : missed) misses += what + ": " + std::to_string(count) + "\n";
    INFO(misses);
    CAPTURE(first, three);
    CHECK(first >= 800);
    CHECK(three >= 950);
}

TEST_CASE("a dead final of three is told by its ratio, and its test is lifting one after the other") {
    PowerFacts f;
    f.power = 0.5;
    f.finals = 3;
    f.supply = f.unloaded = 1;
    f.current = 0.68;
    f.drive = 1;
    const auto ranked = causesOfLess(f);
    REQUIRE_FALSE(ranked.empty());
    CHECK(ranked[0].id == "dead-final");
    CHECK_THAT(ranked[0].test, Catch::Contains("Lift one final"));
    CHECK_FALSE(ranked[0].supports.empty());
    double sum = 0;
    for (const auto& c : ranked) sum += c.odds;
    CHECK(sum == Approx(1));
}

TEST_CASE("what is as promised, or not known, has no cause") {
    PowerFacts f;
    CHECK(causesOfLess(f).empty());
    f.power = 0.97;
    CHECK(causesOfLess(f).empty());
    f.power = NAN;
    CHECK_FALSE(lessThanPromised(f));
    f.power = 0;
    CHECK_FALSE(causesOfLess(f).empty());
    for (const auto& c : causesOfLess(f)) CHECK(std::isfinite(c.odds));
}

TEST_CASE("a single final is not dead beside others") {
    PowerFacts f;
    f.power = 0.5;
    f.finals = 1;
    for (const auto& c : causesOfLess(f)) {
        if (c.id == "dead-final") CHECK(c.odds < 0.05);
    }
}
