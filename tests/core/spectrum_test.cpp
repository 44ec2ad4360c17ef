#include <catch2/catch.hpp>
#include <map>
#include <random>

#include "core/proof/spectrum.h"

using namespace ombrek;

namespace {

/// An analyser's trace: lines of its own filter's shape on noise. Levels in dBm.
std::vector<TracePoint> traceOf(const std::map<double, double>& lines, double noise, double from, double to,
                                int points, unsigned seed) {
    std::mt19937 random(seed);
    std::normal_distribution<double> gauss(0, 2);
    const double step = (to - from) / (points - 1), width = 2 * step;
    std::vector<TracePoint> out;
    for (int i = 0; i < points; ++i) {
        const double f = from + step * i;
        double milliwatts = std::pow(10, (noise + gauss(random)) / 10);
        for (const auto& [hertz, level] : lines)
            milliwatts += std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - hertz) / width, 2));
        out.push_back({f, 10 * std::log10(milliwatts)});
    }
    return out;
}

SpectrumQuestion asked(double carrier, double watts) {
    SpectrumQuestion q;
    q.carrier = carrier;
    q.watts = watts;
    q.profile.base = 43;
    return q;
}

const TracePeak* at(const Spectrum& s, double hertz) {
    for (const TracePeak& p : s.peaks)
        if (std::abs(p.hertz - hertz) < 60e3) return &p;
    return nullptr;
}

}  // namespace

TEST_CASE("ten products of a superhet are found and named, on simulated traces") {
    const double vfo = 5.062e6, bfo = 15.9985e6, f = bfo + vfo;  // 21.0605 MHz
    SpectrumQuestion q = asked(f, 3);
    q.oscillators = {{"VFO", vfo}, {"BFO", bfo}};
    const std::vector<std::pair<double, std::string>> products{{vfo, "VFO"},
                                                               {bfo, "BFO"},
                                                               {bfo - vfo, "BFO − VFO"},
                                                               {2 * vfo, "2 × VFO"},
                                                               {3 * vfo, "3 × VFO"},
                                                               {2 * bfo, "2 × BFO"},
                                                               {bfo + 2 * vfo, "2 × VFO + BFO"},
                                                               {2 * bfo - vfo, "2 × BFO − VFO"},
                                                               {2 * f, "harmonic 2"},
                                                               {3 * f, "harmonic 3"}};
    int named = 0, all = 0;
    for (unsigned seed = 1; seed <= 20; ++seed) {
        std::mt19937 random(seed);
        std::map<double, double> lines{{f, 4.8}};
        for (const auto& [hertz, name] : products) lines[hertz] = -45 - double(random() % 20);
        const Spectrum s = judgeSpectrum(traceOf(lines, -85, 1e6, 70e6, 3451, seed), q);
        CHECK(s.carrier.hertz == Approx(f).margin(40e3));
        for (const auto& [hertz, name] : products) {
            ++all;
            const TracePeak* peak = at(s, hertz);
            named += peak != nullptr && peak->name == name;
            if (peak != nullptr && peak->name != name) WARN(name << " was called " << peak->name);
        }
    }
    CHECK(named == all);
}

TEST_CASE("the limit: below it by the uncertainty passes, above it fails, between them nobody can tell") {
    const double f = 7.03e6;
    const auto judged = [&](double below) {
        return judgeSpectrum(traceOf({{f, 0}, {2 * f, -below}}, -90, 1e6, 40e6, 3901, 3), asked(f, 5));
    };
    const auto second = [](const Spectrum& s) { return *at(s, 14.06e6); };
    CHECK(second(judged(50)).state == VerdictState::pass);
    CHECK(second(judged(36)).state == VerdictState::fail);
    CHECK(second(judged(44)).state == VerdictState::cannotTell);
    CHECK(second(judged(42)).state == VerdictState::cannotTell);
    CHECK(second(judged(50)).below == Approx(50).margin(1));  // within the trace's own grid and noise
    CHECK(judged(50).state == VerdictState::pass);
    CHECK(judged(36).state == VerdictState::fail);
    // Without the carrier's power nothing is judged.
    SpectrumQuestion q = asked(f, 0);
    CHECK(judgeSpectrum(traceOf({{f, 0}, {2 * f, -60}}, -90, 1e6, 40e6, 3901, 3), q).state ==
          VerdictState::cannotTell);
}

TEST_CASE("not seen is a reading: below the noise it proves the limit, or cannot tell") {
    const double f = 14.06e6;
    const Spectrum quiet = judgeSpectrum(traceOf({{f, 0}}, -80, 5e6, 60e6, 2751, 4), asked(f, 5));
    const TracePeak* second = at(quiet, 2 * f);
    REQUIRE(second != nullptr);
    CHECK_FALSE(second->seen);
    CHECK(second->state == VerdictState::pass);
    CHECK(second->below > 60);
    const Spectrum noisy = judgeSpectrum(traceOf({{f, 0}}, -42, 5e6, 60e6, 2751, 4), asked(f, 5));
    REQUIRE(at(noisy, 2 * f) != nullptr);
    CHECK(at(noisy, 2 * f)->state == VerdictState::cannotTell);
    CHECK(noisy.state == VerdictState::cannotTell);
    // What the trace does not cover is no pass of the whole.
    const Spectrum narrow = judgeSpectrum(traceOf({{f, 0}}, -80, 13e6, 15e6, 801, 4), asked(f, 5));
    CHECK(narrow.state == VerdictState::cannotTell);
    CHECK(narrow.sentence.find("does not cover") != std::string::npos);
}

TEST_CASE("a carrier above 30 MHz is judged by no profile of those below") {
    const Spectrum s =
        judgeSpectrum(traceOf({{50.1e6, 0}, {100.2e6, -70}}, -95, 40e6, 160e6, 6001, 8), asked(50.1e6, 5));
    REQUIRE(at(s, 100.2e6) != nullptr);
    CHECK(at(s, 100.2e6)->state == VerdictState::cannotTell);
    CHECK(s.state == VerdictState::cannotTell);
    CHECK(s.sentence.find("does not speak of") != std::string::npos);
}

TEST_CASE("noise alone, a missing carrier, rubbish and one point are no spectrum") {
    CHECK(judgeSpectrum(traceOf({}, -80, 1e6, 40e6, 2000, 5), asked(7e6, 5)).state ==
          VerdictState::cannotTell);
    const Spectrum other = judgeSpectrum(traceOf({{14e6, 0}}, -80, 1e6, 40e6, 2000, 5), asked(7e6, 5));
    CHECK(other.state == VerdictState::cannotTell);
    CHECK(other.carrier.hertz == 0);
    CHECK(judgeSpectrum({}, asked(7e6, 5)).state == VerdictState::cannotTell);
    CHECK(judgeSpectrum({{7e6, 0}}, asked(7e6, 5)).state == VerdictState::cannotTell);
    CHECK(judgeSpectrum({{NAN, 0}, {1, INFINITY}, {-5, 2}}, asked(7e6, 5)).peaks.empty());
    // Without a word about the carrier it is the highest.
    CHECK(
        judgeSpectrum(traceOf({{7e6, 0}, {21e6, -50}}, -80, 1e6, 40e6, 3901, 6), asked(0, 5)).carrier.hertz ==
        Approx(7e6).margin(20e3));
}

TEST_CASE("what falls faster than the carrier is the analyser's own") {
    // An overdriven input makes its own second harmonic: with 10 dB less it falls by 20 (second-order law,
    // any text on receivers).
    const auto trace = [](double level, double second, double third) {
        std::vector<TracePoint> out;
        for (int i = 0; i <= 4000; ++i) {
            const double f = 1e6 + 0.02e6 * i;
            const auto line = [&](double at, double l) {
                return std::pow(10, l / 10) * std::exp(-2.77 * std::pow((f - at) / 0.04e6, 2));
            };
            out.push_back(
                {f, 10 * std::log10(1e-9 + line(7e6, level) + line(14e6, second) + line(21e6, third))});
        }
        return out;
    };
    SpectrumQuestion q;
    q.carrier = 7e6;
    q.watts = 5;
    const Spectrum hot = judgeSpectrum(trace(0, -40, -55), q), cool = judgeSpectrum(trace(-10, -60, -65), q);
    const auto own = ownProducts(hot, cool);
    REQUIRE(own.size() == 1);
    CHECK(own[0].name == "harmonic 2");
    CHECK(ownProducts(hot, hot).empty());
    CHECK(ownProducts({}, cool).empty());
}

TEST_CASE("a rule of small transmitters: 25 microwatts, 40 dB, and no need under 10 microwatts") {
    // Source: 47 CFR 97.307(e) (from memory).
    LimitProfile p;
    p.base = 60;
    p.from = 30e6;
    p.to = 225e6;
    p.smallWatts = 25;
    p.smallBase = 40;
    p.smallMost = 25e-6;
    p.smallLeast = 10e-6;
    CHECK(requiredSuppression(p, 50) == Approx(60));
    CHECK(requiredSuppression(p, 25) == Approx(60));  // 25 W over 25 µW
    CHECK(requiredSuppression(p, 5) == Approx(53.01).margin(0.01));
    CHECK(requiredSuppression(p, 0.1) == Approx(40));   // at 100 mW 40 dB are 10 µW
    CHECK(requiredSuppression(p, 0.01) == Approx(30));  // 10 µW is low enough
    CHECK(p.speaksOf(50e6));
    CHECK_FALSE(p.speaksOf(7e6));
}

TEST_CASE("harmonics are multiples of the carrier that was said, not of the bin it stands in") {
    // 101 points over 60 MHz: bins of 600 kHz. 4.2 × 14.06 MHz by hand.
    auto q = asked(14.06e6, 5);
    const auto trace = traceOf({{14.06e6, 0}, {42.18e6, -38}}, -80, 0, 60e6, 101, 3);
    const Spectrum out = judgeSpectrum(trace, q);
    const auto third =
        std::find_if(out.peaks.begin(), out.peaks.end(), [](auto& p) { return p.harmonic == 3; });
    REQUIRE(third != out.peaks.end());
    CHECK(third->seen);
    const auto second =
        std::find_if(out.peaks.begin(), out.peaks.end(), [](auto& p) { return p.harmonic == 2; });
    REQUIRE(second != out.peaks.end());
    CHECK(second->hertz == Approx(28.12e6).epsilon(1e-9));
    CHECK_FALSE(second->seen);
    // The trace ends between twice what was said and twice the bin.
    const auto short_ = judgeSpectrum(traceOf({{14.06e6, 0}}, -80, 0, 28.13e6, 48, 3), q);
    CHECK(short_.sentence.find("does not cover") == std::string::npos);
}
