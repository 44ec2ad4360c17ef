#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <memory>
#include <sstream>

#include "core/circuit/ladder.h"
#include "core/coil/tank.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "formats/tables.h"
#include "process.h"
#include "station/rebuild.h"

using namespace ombrek;

// Source: ngspice, the general-purpose circuit simulator, as an independent computation of the same networks.

namespace {

/// Run a netlist's AC analysis and give |v(out)| at each frequency. Skips the test when no simulator is
/// installed.
std::vector<double> simulate(const std::string& elements, const std::vector<double>& frequencies) {
    if (std::string(NGSPICE).empty() || std::string(NGSPICE).find("NOTFOUND") != std::string::npos) {
        FAIL("ngspice is not installed; ./check installs it");
    }
    std::string folder = "/tmp/ombrek-spice-XXXXXX";
    REQUIRE(mkdtemp(folder.data()) != nullptr);
    std::vector<double> out;
    for (const double f : frequencies) {
        std::ofstream netlist(folder + "/net.cir");
        netlist << "ladder\nV1 src 0 AC 2\n"
                << elements << "\n.control\nset numdgt=10\nac lin 1 " << std::fixed << f << " " << f
                << "\nprint mag(v(out))\nquit\n.endc\n.end\n";
        netlist.close();
        const std::string text = outputOf(std::string(NGSPICE) + " -b " + folder + "/net.cir 2>/dev/null");
        const auto at = text.find("mag(v(out)) = ");
        INFO(text);
        REQUIRE(at != std::string::npos);
        out.push_back(std::strtod(text.c_str() + at + 14, nullptr));
    }
    std::remove((folder + "/net.cir").c_str());
    std::remove(folder.c_str());
    return out;
}

std::string netlistOf(const std::vector<LadderElement>& ladder, double r) {
    std::ostringstream out;
    out.precision(12);
    out << "Rs src n0 " << r << "\n";
    int node = 0, count = 0;
    for (const LadderElement& e : ladder) {
        ++count;
        const bool series = e.kind == LadderElement::Kind::seriesL || e.kind == LadderElement::Kind::seriesC;
        const bool coil = e.kind == LadderElement::Kind::seriesL || e.kind == LadderElement::Kind::shuntL;
        out << (coil ? "L" : "C") << count << " n" << node << " ";
        if (series) {
            out << "n" << ++node;
        } else {
            out << "0";
        }
        out << " " << e.value << "\n";
    }
    out << "Rl n" << node << " 0 " << r << "\nEout out 0 n" << node << " 0 1\n";
    return out.str();
}

const Kit& kit() {
    static const Kit kit = readKitFile(std::string(OMBREK_DATA_FOLDER) + "/demo/lantern-15.kit.json",
                                       readTables(OMBREK_DATA_FOLDER)->cores)
                               ->kit;
    return kit;
}

}  // namespace

TEST_CASE("the ladder agrees with the circuit simulator", "[reference]") {
    using K = LadderElement::Kind;
    const std::vector<std::vector<LadderElement>> ladders{
        lowPassOf(kit()),
        {{K::seriesL, 1e-6}, {K::shuntC, 100e-12}, {K::seriesL, 0.5e-6}},
        {{K::seriesC, 100e-12}, {K::shuntL, 0.4e-6}, {K::seriesC, 220e-12}},
        {{K::shuntC, 330e-12},
         {K::seriesC, 47e-12},
         {K::shuntL, 1e-6},
         {K::seriesL, 2e-6},
         {K::shuntC, 82e-12}}};
    const std::vector<double> frequencies{1e6, 7.1e6, 14.2e6, 21.06e6, 30e6, 42.12e6, 63.18e6};
    for (const auto& ladder : ladders) {
        const auto simulated =
            simulate(netlistOf(ladder, 50), frequencies);  // with 2 V behind 50 Ω a through line gives 1 V
        for (std::size_t i = 0; i < frequencies.size(); ++i) {
            INFO(frequencies[i]);
            CHECK(insertionLoss(ladder, frequencies[i], 50) ==
                  Approx(-20 * std::log10(simulated[i])).margin(1e-4));
        }
    }
}

TEST_CASE("the practice kit's low-pass passes 21 MHz and stops its harmonics, says the simulator",
          "[reference]") {
    const auto v = simulate(netlistOf(lowPassOf(kit()), 50), {21.06e6, 42.12e6, 63.18e6});
    CHECK(-20 * std::log10(v[0]) < 0.3);
    CHECK(-20 * std::log10(v[1]) > 40);
    CHECK(-20 * std::log10(v[2]) > 60);
}

TEST_CASE("the receive coil with its trimmer resonates where the simulator says", "[reference]") {
    const Coil& t1 = *kit().coil("T1");
    const TankCapacitance tank = tankOf(kit(), *t1.tune);
    const double expected = resonance(t1.target, tank.at(0.5));
    std::vector<double> around;
    for (int i = -10; i <= 10; ++i) around.push_back(expected * (1 + i * 0.002));
    std::ostringstream net;
    net.precision(12);
    net << "Rs src out 100k\nL1 out 0 " << t1.target << "\nC1 out 0 " << tank.at(0.5) << "\nRp out 0 1MEG\n";
    const auto v = simulate(net.str(), around);
    const auto best = std::max_element(v.begin(), v.end()) - v.begin();
    CHECK(around[std::size_t(best)] == Approx(expected).epsilon(0.001));
}

TEST_CASE("Chebyshev prototypes have their ripple", "[reference]") {
    // Source: Matthaei, Young & Jones 1964, table of prototypes: n = 7, 0.1 dB and n = 5, 0.01 dB.
    const auto ripple = [](const std::vector<double>& g) {
        const double wc = 2 * M_PI * 1e6;
        std::vector<LadderElement> ladder;
        for (std::size_t k = 0; k < g.size(); ++k) {
            const bool coil = k % 2 == 1;
            ladder.push_back({coil ? LadderElement::Kind::seriesL : LadderElement::Kind::shuntC,
                              coil ? g[k] * 50 / wc : g[k] / 50 / wc});
        }
        double most = 0;
        for (double f = 1e3; f <= 1e6; f += 1e3) most = std::max(most, insertionLoss(ladder, f, 50));
        return most;
    };
    CHECK(ripple({1.1812, 1.4228, 2.0967, 1.5734, 2.0967, 1.4228, 1.1812}) == Approx(0.1).margin(0.001));
    CHECK(ripple({0.7563, 1.3049, 1.5773, 1.3049, 0.7563}) == Approx(0.01).margin(0.0005));
}

TEST_CASE("Butterworth is 3 dB down at its edge", "[reference]") {
    // Source: g_k = 2 sin((2k−1)π/2n), any filter text.
    for (const int n : {3, 5, 7}) {
        std::vector<LadderElement> ladder;
        const double wc = 2 * M_PI * 1e6;
        for (int k = 1; k <= n; ++k) {
            const double g = 2 * std::sin((2 * k - 1) * M_PI / (2 * n));
            const bool coil = k % 2 == 0;
            ladder.push_back({coil ? LadderElement::Kind::seriesL : LadderElement::Kind::shuntC,
                              coil ? g * 50 / wc : g / 50 / wc});
        }
        CHECK(insertionLoss(ladder, 1e6, 50) == Approx(3.0103).margin(1e-4));
        CHECK(insertionLoss(ladder, 2e6, 50) ==
              Approx(10 * std::log10(1 + std::pow(2.0, 2 * n))).margin(1e-6));
    }
    CHECK_THROWS_AS(insertionLoss({}, 0, 50), std::domain_error);
    CHECK(insertionLoss({}, 1e6, 50) == Approx(0).margin(1e-12));
}

TEST_CASE("a low-pass rebuilt for another band agrees with the simulator within 0.1 dB", "[reference]") {
    const auto tables = readTables(dataFolder());
    REQUIRE(tables);
    const auto file = readKitFile(dataFolder() / "demo/lantern-15.kit.json", tables->cores);
    REQUIRE(file);
    for (const Band band : {Band{3.5e6, 3.8e6}, Band{7.0e6, 7.2e6}, Band{10.1e6, 10.15e6}}) {
        const auto rebuilt = rebuild(file->kit, band, tables->cores);
        REQUIRE(rebuilt);
        const std::vector<double> frequencies{band.low, band.high, 2 * band.low, 3 * band.low};
        const auto simulated = simulate(netlistOf(rebuilt->after, rebuilt->ohms), frequencies);
        for (std::size_t i = 0; i < frequencies.size(); ++i) {
            const auto point =
                std::find_if(rebuilt->response.begin(), rebuilt->response.end(),
                             [&](const auto& p) { return std::fabs(p.frequency - frequencies[i]) < 1; });
            REQUIRE(point != rebuilt->response.end());
            CAPTURE(frequencies[i]);
            CHECK(point->after == Approx(-20 * std::log10(simulated[i])).margin(0.1));
        }
    }
}
