#include "core/proof/close_in.h"

#include <catch2/catch.hpp>
#include <cmath>

using namespace ombrek;

namespace {

/// Lines by their offsets and levels as an analyser of a narrow filter draws them.
std::vector<TracePoint> about(double carrier, double span, double step,
                              const std::vector<std::pair<double, double>>& lines) {
    std::vector<TracePoint> out;
    for (double f = carrier - span; f <= carrier + span; f += step) {
        double sum = 1e-10;
        for (const auto& [offset, level] : lines)
            sum +=
                std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - carrier - offset) / (3 * step), 2));
        out.push_back({f, 10 * std::log10(sum)});
    }
    return out;
}

}  // namespace

TEST_CASE("hum beside a carrier is named by its multiple of the mains") {
    const auto t =
        about(7.03e6, 400, 2, {{0, 0}, {100, -34}, {-100, -35}, {50, -52}, {-50, -52}, {173, -40}});
    CHECK(isCloseIn(t, 7.03e6));
    const CloseIn c = judgeCloseIn(t, 7.03e6, Emission::carrier);
    CHECK(c.carrier == Approx(7.03e6));
    CHECK(c.hum == Approx(34).margin(0.5));
    CHECK(c.state == VerdictState::doubtful);
    int named = 0, other = 0;
    for (const CloseLine& line : c.lines) {
        INFO(line.offset << " " << line.below << " " << line.name);
        if (std::abs(std::abs(line.offset) - 100) < 3) {
            CHECK(line.name.find("100") != std::string::npos);
            ++named;
        }
        other += line.name == "not named";
        CHECK((line.name != "not named" || std::abs(line.offset - 173) < 3));
    }
    CHECK(named == 2);
    CHECK(other == 1);
    const CloseIn clean = judgeCloseIn(about(7.03e6, 400, 2, {{0, 0}}), 7.03e6, Emission::carrier);
    CHECK(clean.state == VerdictState::pass);
    CHECK(std::isnan(clean.hum));
}

TEST_CASE("a sideband rig: what is left of the other side and of its carrier") {
    std::vector<std::pair<double, double>> lines{{0, -45}};
    for (int i = 3; i < 27; ++i) {
        lines.push_back({i * 100.0, 0});
        lines.push_back({-i * 100.0, -38});
    }
    const auto t = about(14.2e6, 5000, 20, lines);
    const CloseIn upper = judgeCloseIn(t, 14.2e6, Emission::upperSideband);
    CHECK(upper.unwanted == Approx(38).margin(0.5));
    // 24 lines of equal size over one: 10·log 24 = 13.8 dB more.
    CHECK(upper.carrierBelow == Approx(45 + 13.8).margin(0.5));
    CHECK(upper.state == VerdictState::doubtful);
    CHECK(upper.bandwidth == Approx(2400).margin(200));
    const CloseIn lower = judgeCloseIn(t, 14.2e6, Emission::lowerSideband);
    CHECK(lower.unwanted == Approx(-38).margin(0.5));
}

TEST_CASE("a carrier's suppression does not depend on how many points a trace has") {
    // A filter of 60 Hz, 24 lines to either side at 0 dB, the carrier at -45 dB: 45 + 10·log 24 = 58.8 dB, by
    // definition.
    for (const double step : {5.0, 10.0, 20.0, 40.0}) {
        std::vector<TracePoint> t;
        for (double f = -5000; f <= 5000; f += step) {
            double sum = 1e-10;
            const auto add = [&](double offset, double level) {
                sum += std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - offset) / 60, 2));
            };
            add(0, -45);
            for (int i = 3; i < 27; ++i) add(i * 100.0, 0), add(-i * 100.0, 0);
            t.push_back({14.2e6 + f, 10 * std::log10(sum)});
        }
        INFO("step " << step);
        CHECK(judgeCloseIn(t, 14.2e6, Emission::bothSidebands).carrierBelow == Approx(58.8).margin(1.0));
    }
}

TEST_CASE("what is too coarse, or holds no carrier, cannot tell") {
    const auto coarse = about(7.03e6, 40000, 500, {{0, 0}});
    CHECK(judgeCloseIn(coarse, 7.03e6, Emission::carrier).state == VerdictState::cannotTell);
    CHECK(judgeCloseIn({}, 7.03e6, Emission::carrier).state == VerdictState::cannotTell);
    CHECK(judgeCloseIn(about(7e6, 400, 2, {{0, 0}}), 9e6, Emission::upperSideband).state ==
          VerdictState::cannotTell);
    CHECK_FALSE(isCloseIn(about(7e6, 3e6, 1e4, {{0, 0}}), 7e6));
    CHECK_FALSE(isCloseIn({}, 7e6));
}
