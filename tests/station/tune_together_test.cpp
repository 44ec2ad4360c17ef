#include "tune_bench.h"

using namespace ombrek;

TEST_CASE("two nulls that pull each other end in a few turns, and agree on who is turned next") {
    TuneBench bench;
    bench.kit.adjustments = {adjustmentOf("phase", Adjustment::Kind::null, {"amplitude"}),
                             adjustmentOf("amplitude", Adjustment::Kind::null)};
    std::map<std::string, double> stands{{"phase", 0.5}, {"amplitude", 0.5}};
    const auto volts = [&] {
        const double p = stands["phase"] - 0.35, a = stands["amplitude"] - 0.62;
        return std::sqrt(std::pow(p + 0.4 * a, 2) + std::pow(a - 0.3 * p, 2) + 1e-5);
    };
    CHECK(bench.state("phase").nextPosition == 0.5);
    CHECK(bench.state("phase").sentence.find("half travel") != std::string::npos);
    std::string in = "phase";
    int taken = 0;
    for (; taken < 40; ++taken) {
        bench.read(in, volts(), stands[in]);
        const TuneState phase = bench.state("phase"), amplitude = bench.state("amplitude");
        CHECK(phase.state == amplitude.state);
        if (phase.state == VerdictState::pass) break;
        // One of them is told to wait for the other.
        CHECK((phase.other.empty() != amplitude.other.empty()));
        in = phase.other.empty() ? "phase" : "amplitude";
        CHECK(bench.state(in).other.empty());
        stands[in] = bench.state(in).nextPosition;
    }
    CHECK(taken < 40);
    // Within 3 dB of the floor, √2 in volts.
    CHECK(volts() < std::sqrt(1e-5) * std::sqrt(2.0));
    CHECK(bench.state("phase").sentence.find("dB") != std::string::npos);
}

TEST_CASE("a peak by ear: no number is wanted, and a number takes over again") {
    TuneBench bench;
    bench.kit.adjustments = {adjustmentOf("rx", Adjustment::Kind::peak)};
    const auto gain = [](double x) { return 1 / std::sqrt(1 + std::pow((x - 0.31) / 0.07, 2)); };
    double stands = 0.5;
    int taken = 0;
    for (; taken < 60; ++taken) {
        const TuneState now = bench.state("rx");
        if (now.state == VerdictState::pass) break;
        const double next = taken == 0 ? 0.62 : now.nextPosition;
        const double db = 20 * std::log10(gain(next) / gain(stands));
        bench.hear("rx", db > 0.5 ? 1 : db < -0.5 ? -1 : 0, stands, next);
        stands = next;
    }
    CHECK(taken < 60);
    CHECK(20 * std::log10(1 / gain(stands)) < 0.3);
    CHECK(bench.state("rx").readings.empty());
    bench.read("rx", 0.8, 0.5);
    CHECK(bench.state("rx").heard.empty());
    CHECK(bench.state("rx").state != VerdictState::pass);
}

TEST_CASE("loudest at an end by ear is an end stop") {
    TuneBench bench;
    bench.kit.adjustments = {adjustmentOf("rx", Adjustment::Kind::peak)};
    double stands = 0.5;
    for (int i = 0; i < 60; ++i) {
        const TuneState now = bench.state("rx");
        if (now.state == VerdictState::fail) break;
        const double next = i == 0 ? 0.62 : now.nextPosition;
        const double db = 30 * (next - stands);  // it rises to its most
        bench.hear("rx", db > 0.5 ? 1 : db < -0.5 ? -1 : 0, stands, next);
        stands = next;
    }
    CHECK(bench.state("rx").state == VerdictState::fail);
    CHECK(bench.state("rx").sentence.find("too few turns") != std::string::npos);
}
