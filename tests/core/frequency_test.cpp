#include <algorithm>
#include <cmath>
#include <limits>
#include <random>

#include "core/frequency/crystals.h"
#include "core/frequency/dial.h"
#include "core/frequency/reference.h"

using namespace ombrek;

TEST_CASE("a counter that reads 64 and 66 kHz high has an offset, not a reference error", "[reference]") {
    // Source: worked by hand, f_read = (1 + k)·f + b through both points.
    const auto fit = fitReference({{16.0640e6, 16e6, 50}, {8.0656e6, 8e6, 50}});
    CHECK(fit.verdict == ReferenceFit::Verdict::offset);
    CHECK(fit.offset == Approx(67200));
    CHECK(fit.ppm == Approx(-200));
    CHECK((fit.offsetLow < 67200 && fit.offsetHigh > 67200));
}

TEST_CASE("reference error, both, neither, cannot tell") {
    using V = ReferenceFit::Verdict;
    const auto reads = [](double b, double k, std::vector<double> at) {
        std::vector<CountedPoint> out;
        for (const double f : at) out.push_back({f * (1 + k) + b, f, 1});
        return out;
    };
    CHECK(fitReference(reads(0, 12e-6, {5e6, 10e6, 15e6})).verdict == V::reference);
    CHECK(fitReference(reads(0, 12e-6, {5e6, 10e6, 15e6})).ppm == Approx(12));
    CHECK(fitReference(reads(100, 12e-6, {5e6, 10e6, 15e6})).verdict == V::both);
    // A quarter of the harm, by four points on a line: both are there.
    CHECK(fitReference(reads(-203, 4.2e-6, {3.579545e6, 10e6, 16e6, 20e6})).verdict == V::both);
    CHECK(fitReference(reads(0, 0, {5e6, 10e6})).verdict == V::neither);
    CHECK(fitReference(reads(455e3, 0, {5e6, 10e6})).verdict == V::offset);
    for (const auto& few : {reads(0, 0, {}), reads(50, 0, {5e6}), reads(50, 0, {5e6, 5e6})}) {
        CHECK(fitReference(few).verdict == V::cannotTell);
        CHECK(std::isnan(fitReference(few).ppm));
    }
    // Two frequencies so near to each other that the line through them tells nothing.
    CHECK(fitReference({{10.0001e6, 10e6, 40}, {10.0011e6, 10.001e6, 40}}).verdict == V::cannotTell);
    CHECK(fitReference({{NAN, 1e6, 1}, {1e6, -5, 1}, {INFINITY, 3, 1}}).verdict == V::cannotTell);
    CHECK(claimOf(NAN).find("Go or no-go") == 0);
    CHECK(claimOf(30).find("420") != std::string::npos);  // 30 ppm of 14 MHz by hand
}

TEST_CASE("how exact two marks are nobody said: the figure stands, its limits stay unknown", "[reference]") {
    // Two crystals' marks are good for 50 ppm each (common practice): by hand, the slope through them is off
    // by up to (16·50 + 8·50)/8 = 150 ppm.
    const auto unsaid = fitReference({{16.0640e6, 16e6, 0}, {8.0656e6, 8e6, 0}});
    CHECK(unsaid.verdict == ReferenceFit::Verdict::offset);
    CHECK(unsaid.ppm == Approx(-200));
    CHECK((std::isnan(unsaid.ppmLow) && std::isnan(unsaid.ppmHigh) && std::isnan(unsaid.offsetLow)));
    // What rests on it is told from the safe side: no less than the figure.
    CHECK(worstPpm(unsaid) == Approx(250));
    CHECK(std::isnan(worstPpm(fitReference({}))));
    const auto marked =
        fitReference({{16.0640e6, 16e6, 800 / std::sqrt(3.0)}, {8.0656e6, 8e6, 400 / std::sqrt(3.0)}});
    CHECK(worstPpm(marked) == Approx(-marked.ppmLow));
    CHECK((marked.ppmLow < -300 && marked.ppmHigh > -100));
    // Three that scatter by 10 Hz: Student's factor for one too many is 12.71 (ISO 2602), not 1.96.
    const auto three = fitReference({{5000010, 5e6, 0}, {9999990, 10e6, 0}, {15000010, 15e6, 0}});
    CHECK(three.verdict == ReferenceFit::Verdict::neither);
    CHECK(three.ppmHigh - three.ppmLow > 20);
}

TEST_CASE("the intervals of a reference hold the truth 19 of 20 times") {
    std::mt19937 engine(5);
    std::normal_distribution<double> n(0, 1);
    int held = 0;
    for (int i = 0; i < 400; ++i) {
        std::vector<CountedPoint> points;
        for (const double f : {2e6, 5e6, 10e6, 20e6})
            points.push_back({f * (1 + 8e-6) + 30 + 4 * n(engine), f, 4});
        const auto fit = fitReference(points);
        held += fit.ppmLow <= 8 && 8 <= fit.ppmHigh;
    }
    // 380 of 400 are meant; three deviations of that count are 13. More scatter than expected widens it:
    // above.
    CHECK(held >= 367);
}

namespace {

/// Every choice of `size` of what is left, the best of them.
double bestSpread(const std::vector<double>& f, std::size_t size) {
    std::vector<bool> chosen(f.size(), false);
    std::fill(chosen.begin(), chosen.begin() + std::ptrdiff_t(size), true);
    double best = std::numeric_limits<double>::infinity();
    do {
        double low = 1e18, high = 0;
        for (std::size_t i = 0; i < f.size(); ++i) {
            if (chosen[i]) low = std::min(low, f[i]), high = std::max(high, f[i]);
        }
        best = std::min(best, high - low);
    } while (std::prev_permutation(chosen.begin(), chosen.end()));
    return best;
}

/// The least sum of spreads of so many sets, by trying every set for the first crystal that is used.
double bestSum(const std::vector<double>& f, std::size_t size, std::size_t sets) {
    if (sets == 0) return 0;
    double best = std::numeric_limits<double>::infinity();
    std::vector<bool> chosen(f.size(), false);
    std::fill(chosen.begin(), chosen.begin() + std::ptrdiff_t(size), true);
    do {
        double low = 1e18, high = 0;
        std::vector<double> left;
        for (std::size_t i = 0; i < f.size(); ++i) {
            if (chosen[i])
                low = std::min(low, f[i]), high = std::max(high, f[i]);
            else
                left.push_back(f[i]);
        }
        if (high - low < best) best = std::min(best, high - low + bestSum(left, size, sets - 1));
    } while (std::prev_permutation(chosen.begin(), chosen.end()));
    return best;
}

}  // namespace

TEST_CASE("crystal sets are those of an exhaustive search", "[reference]") {
    std::mt19937 engine(16);
    std::normal_distribution<double> n(4.9152e6, 80);
    for (std::size_t count = 3; count <= 16; ++count) {
        std::vector<MeasuredCrystal> batch;
        std::vector<double> left;
        for (std::size_t i = 0; i < count; ++i) {
            batch.push_back({"Y" + std::to_string(i + 1), std::round(n(engine))});
            left.push_back(batch.back().frequency);
        }
        const std::size_t size = 3 + count % 3;
        const auto sets = crystalSets(batch, size);
        CHECK(sets.size() == count / size);
        for (const CrystalSet& set : sets) {
            CHECK(set.spread == bestSpread(left, size));
            for (const std::size_t i : set.at)
                left.erase(std::find(left.begin(), left.end(), batch[i].frequency));
        }
        if (count > 11) continue;  // what can be tried out
        left.clear();
        for (const auto& c : batch) left.push_back(c.frequency);
        double sum = 0;
        for (const CrystalSet& set : crystalSetsTogether(batch, size)) sum += set.spread;
        CHECK(sum == Approx(bestSum(left, size, count / size)).margin(1e-6));
    }
    CHECK(crystalSets({}, 4).empty());
    CHECK(crystalSets({{"a", 1}}, 0).empty());
}

TEST_CASE("a crystal's series branch comes back from its own equations", "[reference]") {
    // Source: a series resonant branch with the holder across it, pulled by a load in series: solved exactly
    // here by bisection of the total reactance; the first order that is used is good to Cm/C0.
    const double cm = 15e-15, lm = 0.07, c0 = 4e-12, pi = std::acos(-1.0);
    const auto resonant = [&](double load) {
        double a = 1 / (2 * pi * std::sqrt(lm * cm)), b = a * 1.01;
        const auto reactance = [&](double f) {
            const double w = 2 * pi * f, branch = w * lm - 1 / (w * cm), across = -1 / (w * c0);
            return branch * across / (branch + across) - (std::isinf(load) ? 0 : 1 / (w * load));
        };
        // The branch is inductive between its series and parallel resonances.
        b = a * std::sqrt(1 + cm / c0) * (1 - 1e-9);
        a *= 1 + 1e-12;
        for (int i = 0; i < 200; ++i) {
            const double m = (a + b) / 2;
            (reactance(m) < 0 ? a : b) = m;
        }
        return a;
    };
    const double series = 1 / (2 * pi * std::sqrt(lm * cm));
    const auto m =
        motionalByTwoLoads(resonant(20e-12), 20e-12, series, std::numeric_limits<double>::infinity(), c0);
    REQUIRE(m);
    CHECK(m->capacitance == Approx(cm).epsilon(0.01));
    CHECK(m->inductance == Approx(lm).epsilon(0.01));
    const auto two = motionalByTwoLoads(resonant(15e-12), 15e-12, resonant(33e-12), 33e-12, c0);
    REQUIRE(two);
    CHECK(two->capacitance == Approx(cm).epsilon(0.01));
    CHECK(pulledBy(*two, 15e-12, c0) == Approx(resonant(15e-12) - two->series).epsilon(1e-6));
    CHECK(crystalQ(*m, 20) == Approx(2 * pi * series * lm / 20).epsilon(0.01));
    CHECK_FALSE(motionalByTwoLoads(5e6, 20e-12, 5e6, 20e-12, c0));
    CHECK_FALSE(motionalByTwoLoads(5e6, 20e-12, 5.001e6, 33e-12, c0));
    CHECK_FALSE(motionalByTwoLoads(NAN, 20e-12, 5e6, 33e-12, c0));
    // A series resistance of 50 Ω between 50 Ω and 50 Ω leaves two thirds of the voltage: 3.52 dB.
    CHECK(lossResistance(50, 20 * std::log10(1.5)) == Approx(50));
    CHECK(nullResistance(50, 20 * std::log10(2.0)) == Approx(25));
    CHECK(std::isnan(lossResistance(50, -1)));
    CHECK(judgeCrystal(true, 7.0001e6, 7e6, 50) == CrystalState::go);
    CHECK(judgeCrystal(true, 7.1e6, 7e6, 50) == CrystalState::far);
    CHECK(judgeCrystal(false, 7e6, 7e6, 50) == CrystalState::dead);
    CHECK(carrierOutside(4.9135e6, 4.9138e6, 4.9162e6) == Approx(300));
}

TEST_CASE("a dial: round frequencies in their places, never turned back") {
    std::vector<DialPoint> points;
    for (const double a : {0.0, 30.0, 75.0, 120.0, 180.0})
        points.push_back({a, 7.0e6 + 200e3 * std::pow(a / 180, 1.5)});
    DialShape shape;
    shape.sweep = 0;
    const auto dial = dialOf(points, shape);
    REQUIRE(dial);
    CHECK(dial->major == Approx(20e3));
    CHECK(dial->minor == Approx(5e3));
    CHECK(dial->marks.size() == 41);
    for (std::size_t i = 1; i < dial->marks.size(); ++i) {
        CHECK(dial->marks[i].place > dial->marks[i - 1].place);
        CHECK(dial->marks[i].frequency > dial->marks[i - 1].frequency);
    }
    CHECK(dial->marks.front().place == Approx(0).margin(1e-6));
    CHECK(dial->marks.back().place == Approx(180).margin(1e-6));
    CHECK(dial->marks.back().label == "7.20");
    CHECK(toCheck(*dial).size() == 5);
    // A knob whose frequency falls, on a straight scale.
    for (DialPoint& p : points) p.frequency = 14.4e6 - p.frequency;
    shape.round = false;
    shape.size = 120;
    const auto straight = dialOf(points, shape);
    REQUIRE(straight);
    CHECK(straight->marks.front().frequency > straight->marks.back().frequency);
    CHECK(straight->marks.back().place == Approx(120).margin(1e-6));
    points[2].frequency = points[0].frequency + 1;
    CHECK_FALSE(dialOf(points, shape));
    points.resize(2);
    CHECK_FALSE(dialOf(points, shape));
    CHECK_FALSE(dialOf({{0, 1e6}, {0, 2e6}, {1, 3e6}}, shape));
    CHECK_FALSE(dialOf({{0, NAN}, {0.5, 2e6}, {1, 3e6}}, shape));
    shape.size = 1e9;
    CHECK_FALSE(dialOf({{0, 1e6}, {0.5, 2e6}, {1, 3e6}}, shape));
}
