#include "circuit/network_of.h"

#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <fstream>
#include <memory>
#include <random>
#include <sstream>

#include "core/circuit/ladder.h"
#include "core/circuit/network.h"
#include "folder.h"
#include "formats/touchstone.h"
#include "process.h"

using namespace ombrek;
using Complex = std::complex<double>;

namespace {

struct Simulated {
    double frequency;
    Complex in, out;  ///< voltages with one volt behind the source's resistance
};

/// The same elements between a source and a load, by ngspice. Where no direct current flows a very large
/// resistance to ground holds a node.
std::vector<Simulated> simulated(const std::string& elements, double z1, double z2, double low, double high,
                                 int points) {
    REQUIRE(std::string(NGSPICE).find("NOTFOUND") == std::string::npos);
    static const Folder folder;
    const std::string file = (folder / "net.cir").string(), data = (folder / "net.out").string();
    std::ofstream net(file);
    net.precision(12);
    net << "network\nVsim simsrc 0 AC 1\nRsim simsrc in " << z1 << "\nRlsim out 0 " << z2 << "\n"
        << elements << ".options rshunt=1e13\n.control\nset numdgt=14\nac lin " << points << " " << std::fixed
        << low << " " << high << "\nset wr_singlescale\nwrdata " << data
        << " v(in) v(out)\nquit\n.endc\n.end\n";
    net.close();
    std::remove(data.c_str());
    outputOf(std::string(NGSPICE) + " -b " + file + " 2>&1");
    std::ifstream in(data);
    std::vector<Simulated> out;
    for (std::string line; std::getline(in, line);) {
        std::istringstream words(line);
        words.imbue(std::locale::classic());
        double f, a, b, c, d;
        if (words >> f >> a >> b >> c >> d) out.push_back({f, {a, b}, {c, d}});
    }
    return out;
}

/// Made of random parts; every coil and capacitor loses something.
class RandomNetwork {
 public:
    explicit RandomNetwork(std::mt19937& dice) : dice_(dice) {
        text_.imbue(std::locale::classic());
        text_.precision(12);
    }

    double ratio(double low, double high) {
        return low * std::pow(high / low, std::uniform_real_distribution<>(0, 1)(dice_));
    }
    int whole(int low, int high) { return std::uniform_int_distribution<>(low, high)(dice_); }

    void part(const std::string& a, const std::string& b) {
        const int n = ++count_;
        const std::string mid = "m" + std::to_string(n);
        switch (whole(0, 3)) {
            case 0:
                text_ << "R" << n << " " << a << " " << b << " " << ratio(5, 5e3) << "\n";
                break;
            case 1:
                text_ << "L" << n << " " << a << " " << mid << " " << ratio(0.05e-6, 20e-6) << "\n"
                      << "Rx" << n << " " << mid << " " << b << " " << ratio(0.05, 5) << "\n";
                break;
            default:
                text_ << "C" << n << " " << a << " " << b << " " << ratio(5e-12, 5e-9) << "\n"
                      << "Rx" << n << " " << a << " " << b << " " << ratio(2e3, 1e6) << "\n";
                break;
        }
    }
    std::string text() const { return text_.str(); }

 private:
    std::mt19937& dice_;
    std::ostringstream text_;
    int count_ = 0;
};

std::string randomLadder(std::mt19937& dice) {
    RandomNetwork net(dice);
    const int arms = net.whole(2, 9);
    std::string node = "in";
    bool series = net.whole(0, 1) == 1;
    for (int i = 0; i < arms; ++i, series = !series) {
        const bool last = i >= arms - 2 && series;
        const std::string next = last || (i == arms - 1) ? "out" : "n" + std::to_string(i);
        if (series) {
            net.part(node, next);
            node = next;
        } else {
            net.part(node, "0");
        }
    }
    if (node != "out") net.part(node, "out");
    return net.text();
}

std::string randomMesh(std::mt19937& dice) {
    RandomNetwork net(dice);
    const int nodes = net.whole(3, 8);
    const auto name = [&](int i) {
        return i < 0            ? std::string("0")
               : i == 0         ? std::string("in")
               : i == nodes - 1 ? std::string("out")
                                : "n" + std::to_string(i);
    };
    for (int i = 1; i < nodes; ++i) net.part(name(i - 1), name(i));  // all hang together
    for (int i = 0; i < nodes * 2; ++i) {
        const int a = net.whole(0, nodes - 1), b = net.whole(-1, nodes - 1);
        if (a != b) net.part(name(a), name(b));
    }
    return net.text();
}

/// The largest difference of an S-parameter over some frequencies.
double apart(const std::string& elements, double z1, double z2) {
    const auto read = readNetlist("network\n" + elements + ".end\n");
    REQUIRE(read);
    const auto net = networkOf(*read);
    REQUIRE(net);
    REQUIRE(net->in == "in");
    REQUIRE(net->out == "out");
    const auto frequencies = frequenciesFrom(1e6, 50e6, 8);
    const auto ours = scatteringOf(net->network, frequencies, z1, z2);
    REQUIRE(ours);
    const auto theirs = simulated(elements, z1, z2, 1e6, 50e6, 8);
    REQUIRE(theirs.size() == frequencies.size());
    double worst = 0;
    for (std::size_t i = 0; i < theirs.size(); ++i) {
        const Complex s11 = 2.0 * theirs[i].in - 1.0, s21 = 2.0 * theirs[i].out * std::sqrt(z1 / z2);
        worst = std::max({worst, std::abs(s11 - (*ours)[i].s11), std::abs(s21 - (*ours)[i].s21)});
        CHECK(std::abs((*ours)[i].s21 - (*ours)[i].s12) < 1e-9);  // nothing in it has a direction
    }
    return worst;
}

ReadNetwork readOf(const std::string& text) {
    const auto netlist = readNetlist(text);
    REQUIRE(netlist);
    const auto out = networkOf(*netlist);
    INFO((out ? "" : out.error().text()));
    REQUIRE(out);
    return *out;
}

}  // namespace

TEST_CASE("200 random ladders agree with the circuit simulator to 1e-6", "[reference]") {
    // Source: ngspice, AC analysis of the same elements.
    std::mt19937 dice(21);
    double worst = 0;
    for (int i = 0; i < 200; ++i) {
        const std::string elements = randomLadder(dice);
        INFO(elements);
        const double z1 = i % 2 ? 50 : 200, z2 = i % 3 ? 50 : 1000, here = apart(elements, z1, z2);
        CHECK(here < 1e-6);
        worst = std::max(worst, here);
    }
    WARN("worst difference of a ladder " << worst);
}

TEST_CASE("50 random networks of lossy parts agree with the circuit simulator to 1e-6", "[reference]") {
    std::mt19937 dice(22);
    double worst = 0;
    for (int i = 0; i < 50; ++i) {
        const std::string elements = randomMesh(dice);
        INFO(elements);
        const double here = apart(elements, i % 2 ? 50 : 75, i % 3 ? 50 : 300);
        CHECK(here < 1e-6);
        worst = std::max(worst, here);
    }
    WARN("worst difference of a network " << worst);
}

TEST_CASE("coupled coils agree with the circuit simulator", "[reference]") {
    const std::string elements =
        "L1 in a 1u\nRa a 0 0.4\nL2 b 0 4u\nRb b out 1.2\nK1 L1 L2 0.93\nC1 out 0 33p\nRc out 0 10k\n";
    CHECK(apart(elements, 50, 200) < 1e-6);
    CHECK(apart("L1 in 0 1u\nL2 out 0 16u\nK1 L1 L2 0.99\nR1 in 0 3k\n", 50, 800) < 1e-6);
}

TEST_CASE("a line without loss agrees with the circuit simulator", "[reference]") {
    CHECK(apart("T1 in 0 b 0 Z0=75 TD=9n\nL1 b out 0.4u\nC1 out 0 47p\n", 50, 50) < 1e-6);
    // A quarter wave of 75 ohm turns 50 into 112.5 (any network text).
    const auto line = readOf("t\nT1 in 0 out 0 Z0=75 F=7.03MEG NL=0.25\n");
    const auto s = scatteringOf(line.network, {7.03e6}, 50, 50).value();
    const Complex z = 50.0 * (1.0 + s[0].s11) / (1.0 - s[0].s11);
    CHECK(z.real() == Approx(112.5).epsilon(1e-6));
}

TEST_CASE("the ladder's sweep is the network's", "[reference]") {
    using Kind = LadderElement::Kind;
    const std::vector<LadderElement> ladder{{Kind::shuntC, 330e-12, 0.2}, {Kind::seriesL, 1.1e-6, 0.8},
                                            {Kind::shuntC, 680e-12},      {Kind::seriesC, 100e-12, 0.1},
                                            {Kind::shuntL, 2e-6, 0.5},    {Kind::seriesR, 12},
                                            {Kind::shuntR, 470}};
    Network net;
    net.nodes = 5;
    net.in = 1;
    net.out = 4;
    using P = NetworkPart::Kind;
    net.parts = {{"C1", P::capacitor, 1, 0, 330e-12, 0.2},
                 {"L1", P::inductor, 1, 2, 1.1e-6, 0.8},
                 {"C2", P::capacitor, 2, 0, 680e-12},
                 {"C3", P::capacitor, 2, 3, 100e-12, 0.1},
                 {"L2", P::inductor, 3, 0, 2e-6, 0.5},
                 {"R1", P::resistor, 3, 4, 12},
                 {"R2", P::resistor, 4, 0, 470}};
    const auto frequencies = frequenciesFrom(1e6, 60e6, 60);
    const auto points = scatteringOf(net, frequencies, 50, 75).value();
    const LadderSweep s = sweep(ladder, frequencies, 50, 75);
    for (std::size_t i = 0; i < frequencies.size(); ++i) {
        CHECK(std::abs(Complex(s.s21re[i], s.s21im[i]) - points[i].s21) < 1e-12);
        CHECK(std::abs(Complex(s.s11re[i], s.s11im[i]) - points[i].s11) < 1e-12);
        CHECK(s.loss(i) == Approx(lossOf(points[i].s21)));
    }
}

TEST_CASE("ports are found as netlists name them") {
    const auto named = readOf("t\nL1 in out 1u\nC1 out gnd 100p\n");
    CHECK(named.in == "in");
    CHECK(named.out == "out");
    CHECK(named.notes.empty());
    const auto numbered = readOf("t\nC1 1 0 100p\nL1 1 2 1u\nL2 2 3 1u\nC3 3 0 100p\nC2 2 0 220p\n");
    CHECK(numbered.in == "1");
    CHECK(numbered.out == "3");
    CHECK(numbered.notes.size() == 2);
    const auto setUp =
        readOf("t\nV1 src 0 AC 1\nRs src a 75\nL1 a b 1u\nC1 b 0 100p\nRload b 0 300\n.ac lin 2 1 2\n.end\n");
    CHECK(setUp.in == "a");
    CHECK(setUp.out == "b");
    CHECK(setUp.source == Approx(75));
    CHECK(setUp.load == Approx(300));
    CHECK(setUp.network.parts.size() == 2);
    const auto ports =
        readOf("t\nV2 y 0 dc 0 ac 1 portnum 2 z0 100\nV1 x 0 dc 0 ac 1 portnum 1 z0 50\nL1 x y 1u\n");
    CHECK(ports.in == "x");
    CHECK(ports.out == "y");
    CHECK(ports.load == Approx(100));
    const auto one = readOf("antenna\nR1 in a 35\nC1 a 0 188p\n");
    CHECK_FALSE(one.out.empty());  // a second node is taken for the other port, and it is said
    CHECK(one.notes.size() == 1);
    const auto alone = networkOf(*readNetlist("antenna\nR1 in a 35\nC1 a 0 188p\n"), "", "none");
    REQUIRE(alone);
    CHECK_FALSE(alone->network.twoPort());
    const auto inner = readOf(
        "t\n.param big=1u\n.subckt arm p q\nL1 p q {big}\nC1 q 0 value=100p\n.ends\nX1 in m arm\nX2 m out "
        "arm\nRx in out 10MEG\n");
    CHECK(inner.network.parts.size() == 5);
    const auto lossy = readOf("t\nL1 in out 1u Rser=0.5\nC1 out 0 1n Rpar=10k\n");
    CHECK(lossy.network.parts[0].ohms == Approx(0.5));
    CHECK(lossy.network.parts[1].parallel == Approx(1e4));
}

TEST_CASE("what is no network of lossy parts is refused with the part's name") {
    const auto refused = [](const std::string& text, const std::string& in = "") {
        const auto netlist = readNetlist(text);
        if (!netlist) return netlist.error().text();
        const auto net = networkOf(*netlist, in);
        if (net) {
            const auto s = scatteringOf(net->network, {1e6}, 50, 50);
            return s ? std::string() : s.error().text();
        }
        return net.error().text();
    };
    CHECK_THAT(refused("t\nL1 in out 1u\nD1 out 0 dd\n.model dd d\n"), Catch::Contains("D1"));
    CHECK_THAT(refused("t\nL1 in out -1u\n"), Catch::Contains("L1"));
    CHECK_THAT(refused("t\nL1 in out 0\n"), Catch::Contains("L1"));
    CHECK_THAT(refused("t\nL1 in out {nowhere}\n"), Catch::Contains("L1"));
    CHECK_THAT(refused("t\nL1 in out 1u\nK1 L1 L9 0.5\n"), Catch::Contains("l9"));
    CHECK_THAT(refused("t\nL1 in out 1u\nL2 in 0 1u\nK1 L1 L2 1.5\n"), Catch::Contains("K1"));
    CHECK_THAT(refused("t\nL1 in out 1u\n", "elsewhere"), Catch::Contains("elsewhere"));
    CHECK_THAT(refused("t\nL1 in out 1u\nC9 afar beyond 1n\n"), Catch::Contains("air"));
    CHECK_THAT(refused("t\nV1 a 0 1\nV2 b 0 1\nV3 c 0 1\nR1 a b 1\nR2 b c 1\n"),
               Catch::Contains("two ports"));
}

TEST_CASE("m= is so many side by side, as the simulator has it; a parameter that is not reckoned is refused",
          "[reference]") {
    CHECK(apart("R1 in a 30 m=3\nL1 a b 1u m=2\nC1 b 0 100p m=4\nL2 b out 2u\n", 50, 50) < 1e-6);
    for (const char* odd : {"L1 in out 1u cpar=3p\n", "R1 in out 50 bv=3\n", "C1 in out 1n m=0\n"}) {
        INFO(odd);
        const auto netlist = readNetlist(std::string("t\n") + odd);
        REQUIRE(netlist);
        CHECK_FALSE(networkOf(*netlist, "in", "out"));
    }
}

TEST_CASE("a ladder of 300 sections is reckoned as its chain of matrices has it") {
    using Kind = LadderElement::Kind;
    std::vector<LadderElement> ladder;
    std::string text = "t\n";
    for (int i = 0; i < 300; ++i) {
        ladder.push_back({Kind::seriesL, 0.2e-6, 0});
        ladder.push_back({Kind::shuntC, 80e-12, 0});
        const std::string from = i == 0 ? "in" : "n" + std::to_string(i),
                          to = i == 299 ? "out" : "n" + std::to_string(i + 1);
        text += "L" + std::to_string(i) + " " + from + " " + to + " 0.2u\nC" + std::to_string(i) + " " + to +
                " 0 80p\n";
    }
    const auto read = readOf(text);
    for (const double f : {1e6, 7e6, 20e6}) {
        const auto s = scatteringOf(read.network, {f}, 50, 50).value();
        CHECK(lossOf(s[0].s21) == Approx(insertionLoss(ladder, f, 50)).margin(1e-6));
    }
}
