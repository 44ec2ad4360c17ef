#include <catch2/catch.hpp>
#include <cmath>
#include <cstdio>
#include <fstream>
#include <random>
#include <set>
#include <sstream>

#include "circuit/reads.h"
#include "circuit/suspects.h"
#include "folder.h"
#include "handbook_circuits.h"

using namespace ombrek;

// A circuit at rest against hand sums and against ngspice run apart from us; single faults found again from
// their own readings. The circuits are of the kind that every handbook has; their values are ours.

namespace {

Netlist circuit(const char* text) {
    auto out = readNetlist(text);
    if (!out) FAIL(out.error().text());
    return *out;
}

KitCircuit kitCircuit(const Netlist& netlist) {
    KitCircuit out;
    out.netlist = netlist;
    return out;
}

std::vector<CircuitReading> at(const std::vector<std::string>& nodes) {
    std::vector<CircuitReading> out;
    for (const std::string& node : nodes)
        out.push_back({node, "0", CircuitReading::Quantity::voltage, 0, 0, "", 0});
    return out;
}

}  // namespace

TEST_CASE("the operating point of a divider, a follower, a diode and a current by hand", "[reference]") {
    // Source: Ohm's law; the follower's base is loaded by its emitter resistor times beta + 1.
    const auto point = operatingPoint(circuit(kFollower));
    REQUIRE(point);
    const double vbe =
        0.0258 * std::log(point->between("out") / 1e3 / 1e-14);  // Shockley's equation at 27 °C
    CHECK(point->between("base") - point->between("out") == Approx(vbe).margin(0.005));
    const double load = 151e3, lower = 10e3 * load / (10e3 + load);
    CHECK(point->between("base") == Approx(12 * lower / (10e3 + lower)).margin(0.06));
    CHECK(point->between("vcc") == Approx(12));
    CHECK(point->between("vcc", "base") == Approx(12 - point->between("base")));
    CHECK(std::isnan(point->between("nowhere")));
    const Netlist divider = circuit("d\nV1 a 0 10\nR1 a b 1k\nR2 b 0 3k\n");
    CHECK(operatingPoint(divider)->between("b") == Approx(7.5));
    auto asked = at({"b"});
    asked.push_back({"R1", "0", CircuitReading::Quantity::current, 0, 0, "", 0});
    asked.push_back({"a", "0", CircuitReading::Quantity::resistance, 0, 0, "", 0});
    asked.push_back({"a", "b", CircuitReading::Quantity::resistance, 0, 0, "", 0});
    const auto reads = readingsOf(divider, asked);
    CHECK(reads[0] == Approx(7.5));
    CHECK(reads[1] == Approx(2.5e-3));
    CHECK(reads[2] == Approx(4e3).epsilon(0.001));  // the supply is out
    CHECK(reads[3] == Approx(1e3).epsilon(0.001));
}

TEST_CASE("the same voltages as ngspice run apart from us", "[reference]") {
    if (std::string(NGSPICE).find("NOTFOUND") != std::string::npos) return;
    const Folder folder;
    for (const char* text : kHandbook) {
        const Netlist netlist = circuit(text);
        INFO(netlist.title);
        const auto point = operatingPoint(netlist);
        REQUIRE(point);
        std::string batch(text);
        batch.insert(batch.rfind(".end\n"), ".op\n.print op all\n");
        std::ofstream(folder / "circuit.cir") << batch;
        std::string said;
        FILE* pipe =
            popen((std::string(NGSPICE) + " -b " + (folder / "circuit.cir").string() + " 2>&1").c_str(), "r");
        REQUIRE(pipe != nullptr);
        char buffer[4096];
        while (const std::size_t got = std::fread(buffer, 1, sizeof buffer, pipe)) said.append(buffer, got);
        pclose(pipe);
        int compared = 0;
        for (const std::string& node : netlist.nodes()) {
            std::istringstream lines(said);
            for (std::string line; std::getline(lines, line);) {
                std::istringstream words(line);
                std::string name;
                double volts = 0;
                if (!(words >> name >> volts) || (name != node && name != "v(" + node + ")")) continue;
                INFO(node);
                CHECK(point->between(node) == Approx(volts).margin(1e-3));
                ++compared;
                break;
            }
        }
        CHECK(compared >= 3);
    }
}

TEST_CASE(
    "a fault is found again from its own readings: first, or with what no reading at rest can tell from it") {
    int faults = 0, first = 0, third = 0;
    for (const char* text : kHandbook) {
        const Netlist sound = circuit(text);
        auto asked = at(sound.nodes());
        const auto healthy = readingsOf(sound, asked);
        for (const Fault& fault : singleFaults(sound)) {
            const auto reads = readingsOf(withFault(sound, fault), asked);
            bool seen = false;
            for (std::size_t i = 0; i < asked.size(); ++i) {
                asked[i].value = reads[i];
                asked[i].error = 0.01 + 0.002 * std::abs(reads[i]);
                seen = seen || std::abs(reads[i] - healthy[i]) > 0.1 + 0.1 * std::abs(healthy[i]);
            }
            if (!seen) continue;  // it does nothing to the voltages at rest
            ++faults;
            const auto suspicion = suspectsOf(kitCircuit(sound), asked);
            REQUIRE(suspicion);
            INFO(fault.ref << " " << fault.what);
            CHECK_FALSE(suspicion->suspects.front().ref.empty());
            // Those that read the same within the meter's error share its place.
            int before = 0;
            for (const Suspect& s : suspicion->suspects) {
                bool same = true;
                for (std::size_t i = 0; i < asked.size(); ++i)
                    same = same && std::abs(s.reads[i] - reads[i]) <= 3 * asked[i].error;
                if (same) break;
                ++before;
            }
            first += before == 0;
            third += before < 3;
        }
    }
    CHECK(faults > 50);
    CHECK(double(first) / faults >= 0.8);
    CHECK(double(third) / faults >= 0.95);
}

TEST_CASE("hundreds of faults of one circuit are each what a circuit of their own with that fault says") {
    for (const char* text : kHandbook) {
        // A meter on every node, so that none floats.
        Netlist sound = circuit(text);
        for (const std::string& node : sound.nodes())
            sound.elements.push_back({"Rmeter_" + node, {node, "0"}, "10meg"});
        const auto faults = singleFaults(sound);
        std::size_t told = 0;
        REQUIRE(eachFault(sound, faults, [&](std::size_t i, const Result<OperatingPoint>& together) {
            ++told;
            INFO(faults[i].ref << " " << faults[i].what);
            REQUIRE(together);
            // Solved for after this one: callers wait for each other.
            return true;
        }));
        CHECK(told == faults.size());
        std::vector<OperatingPoint> points(faults.size());
        (void)eachFault(sound, faults, [&](std::size_t i, const Result<OperatingPoint>& point) {
            points[i] = *point;
            return true;
        });
        for (std::size_t i = 0; i < faults.size(); ++i) {
            const auto alone = operatingPoint(withFault(sound, faults[i]));
            INFO(faults[i].ref << " " << faults[i].what);
            REQUIRE(alone);
            for (const std::string& node : sound.nodes())
                CHECK(points[i].between(node) == Approx(alone->between(node)).margin(2e-3).epsilon(1e-3));
        }
    }
}

TEST_CASE("a sound circuit is called sound, and each next reading is one that was not taken") {
    const Netlist sound = circuit(kTwoStages);
    auto asked = at({"c1", "e2"});
    const auto reads = readingsOf(sound, asked);
    for (std::size_t i = 0; i < asked.size(); ++i) asked[i].value = reads[i] * 1.01;
    const auto suspicion = suspectsOf(kitCircuit(sound), asked);
    REQUIRE(suspicion);
    CHECK(suspicion->suspects.front().ref.empty());
    CHECK_FALSE(suspicion->unexplained);
    double sum = 0;
    for (const Suspect& s : suspicion->suspects) sum += s.odds;
    CHECK(sum == Approx(1));
    CHECK(suspicion->next.node != "c1");
    CHECK(suspicion->next.node != "e2");
    asked[0].value = 57;
    CHECK(suspectsOf(kitCircuit(sound), asked)->unexplained);
    CHECK_FALSE(suspectsOf(kitCircuit(sound), asked, [](double) { return false; }));
}

TEST_CASE("following the advice finds the fault in a few readings") {
    int found = 0, all = 0, taken = 0;
    std::mt19937 engine(7);
    for (const char* text : {kStage, kTwoStages}) {
        const Netlist sound = circuit(text);
        const auto faults = singleFaults(sound);
        const auto everywhere = at(sound.nodes());
        const auto healthy = readingsOf(sound, everywhere);
        for (int round = 0; round < 12; ++round) {
            const Fault& fault = faults[engine() % faults.size()];
            const auto truth = readingsOf(withFault(sound, fault), everywhere);
            bool seen = false;
            for (std::size_t i = 0; i < truth.size(); ++i)
                seen = seen || std::abs(truth[i] - healthy[i]) > 0.2 + 0.1 * std::abs(healthy[i]);
            if (!seen) continue;
            ++all;
            auto asked = at({sound.nodes().back()});
            bool hit = false;
            for (int reading = 0; reading < 8 && !hit; ++reading) {
                const auto reads = readingsOf(withFault(sound, fault), asked);
                for (std::size_t i = 0; i < asked.size(); ++i)
                    asked[i].value = reads[i], asked[i].error = 0.02;
                const auto suspicion = suspectsOf(kitCircuit(sound), asked);
                REQUIRE(suspicion);
                const Suspect& best = suspicion->suspects.front();
                hit = best.ref == fault.ref;
                ++taken;
                if (suspicion->next.node.empty()) {
                    // Nothing tells more at rest: it is among those that read the same.
                    for (std::size_t i = 0; i < 4 && !hit; ++i) hit = suspicion->suspects[i].ref == fault.ref;
                    break;
                }
                asked.push_back({suspicion->next.node, "0", CircuitReading::Quantity::voltage, 0, 0, "", 0});
            }
            found += hit;
        }
    }
    INFO(found << " of " << all << " in " << taken);
    CHECK(all >= 12);
    CHECK(double(found) / all >= 0.8);
}

TEST_CASE("two faults at once are found where no single one explains what is read") {
    // Pairs by lot, in parts of their own, each of which moves something by itself.
    std::mt19937 engine(11);
    int all = 0, both = 0;
    for (const char* text : {kTwoStages, kKeying, kPair}) {
        const Netlist sound = circuit(text);
        auto asked = at(sound.nodes());
        const auto healthy = readingsOf(sound, asked);
        std::vector<Fault> seen;
        for (const Fault& fault : singleFaults(sound)) {
            const auto reads = readingsOf(withFault(sound, fault), asked);
            bool far = false;
            for (std::size_t i = 0; i < reads.size(); ++i)
                far = far || std::abs(reads[i] - healthy[i]) > 0.5 + 0.1 * std::abs(healthy[i]);
            if (far) seen.push_back(fault);
        }
        for (int round = 0; round < 12; ++round) {
            const Fault& a = seen[engine() % seen.size()];
            const Fault& b = seen[engine() % seen.size()];
            if (a.ref == b.ref) continue;
            const auto reads = readingsOf(withFault(sound, bothOf(a, b)), asked);
            for (std::size_t i = 0; i < asked.size(); ++i) {
                asked[i].value = reads[i];
                asked[i].error = 0.01 + 0.002 * std::abs(reads[i]);
            }
            FaultFinder finder(kitCircuit(sound));
            REQUIRE(finder.simulateFor(asked));
            const Suspicion s = finder.rank(asked);
            if (s.suspects.front().ref2.empty() && !s.unexplained) continue;  // one fault reads the same
            ++all;
            // Both parts among the first three lines, or a pair that reads the same.
            bool named = false;
            for (std::size_t i = 0; i < 3; ++i) {
                const Suspect& x = s.suspects[i];
                const std::set<std::string> parts{x.ref, x.ref2};
                named = named || (parts.contains(a.ref) && parts.contains(b.ref));
                bool same = !x.ref2.empty();
                for (std::size_t k = 0; k < asked.size(); ++k)
                    same = same && std::abs(x.reads[k] - reads[k]) <= 3 * asked[k].error;
                named = named || same;
            }
            both += named;
        }
    }
    INFO(both << " of " << all);
    CHECK(all >= 12);
    CHECK(double(both) / all >= 0.8);
}

TEST_CASE("where no voltage tells more, a resistance with the power off does") {
    // A dead rail behind a dropper: the resistor open, or the capacitor behind it short.
    const Netlist sound = circuit(kOscillator);
    for (const char* truth : {"C1 short", "R1 open"}) {
        const auto faults = singleFaults(sound);
        const auto fault = std::find_if(faults.begin(), faults.end(),
                                        [&](const Fault& f) { return f.ref + " " + f.what == truth; });
        REQUIRE(fault != faults.end());
        const Netlist faulty = withFault(sound, *fault);
        auto asked = at({"vcc", "vz", "drain", "source", "tap", "gate"});
        std::string ref;
        for (int turn = 0; turn < 4; ++turn) {
            const auto reads = readingsOf(faulty, asked);
            for (std::size_t i = 0; i < asked.size(); ++i) asked[i].value = reads[i];
            const auto s = suspectsOf(kitCircuit(sound), asked);
            REQUIRE(s);
            ref = s->suspects.front().ref;
            if (s->next.node.empty()) break;
            INFO(s->next.why);
            CHECK(s->next.quantity == "resistance");
            CHECK(s->next.why.find("Power off") == 0);
            asked.push_back(s->next.reading());
        }
        INFO(truth);
        CHECK(asked.size() > 6);
        // Whatever lies across the short reads the same: the Zener diode may be it.
        CHECK((ref == "R1") == (fault->ref == "R1"));
    }
}

TEST_CASE("netlists of other programs: case, continued lines, comments, analyses: and what is refused") {
    const Netlist netlist = circuit(
        ".title exported\n* a comment\nR1 NET1 GND 4K7 ; behind\nr2 net1\n+ Net2 10MEG\nV1 Net2 0 DC 5 AC "
        "1\n.tran 1u 1m\n"
        ".control\nrun\nplot v(net1)\n.endc\n.options reltol=1e-4\nXU1 net2 0 net3 REG PARAMS: x=1\n"
        ".subckt REG in gnd out\nE1 out gnd in gnd 0.5\n.ends\n.END\nR9 after the end\n");
    CHECK(netlist.elements.size() == 4);
    CHECK(netlist.element("R2")->nodes == std::vector<std::string>{"net1", "net2"});
    CHECK(netlist.element("xu1")->nodes == std::vector<std::string>{"net2", "0", "net3"});
    CHECK(netlist.element("R1")->nodes[1] == "0");
    for (const auto& [text, words] :
         {std::pair{"t\n.include models.lib\n", "one file"}, std::pair{"t\nQ1 c b e 2N9999\n", "2N9999"},
          std::pair{"t\nR1 a\n", "lacks"}, std::pair{"t\nR1 a b 1k\nr1 b 0 1k\n", "twice"},
          std::pair{"t\nW1 a b 1k\n", "no element"}, std::pair{"t\n.subckt A b\nR1 b 0 1k\n", "no end"},
          std::pair{"", "no circuit"}, std::pair{"only a title", "no circuit"},
          std::pair{"t\n.op\n.end\n", "no element"}}) {
        const auto read = readNetlist(text);
        INFO(text);
        REQUIRE_FALSE(read);
        CHECK(read.error().text().find(words) != std::string::npos);
    }
    std::string many = "t\n";
    for (int i = 0; i < 10002; ++i) many += "R" + std::to_string(i) + " a 0 1k\n";
    CHECK_FALSE(readNetlist(many));
    CHECK(spiceNumber("4.7k") == Approx(4700));
    CHECK(spiceNumber("10MEG") == Approx(1e7));
    CHECK(spiceNumber("100nF") == Approx(1e-7));
    CHECK(spiceNumber("2200") == Approx(2200));
    CHECK(std::isnan(spiceNumber("{R}")));
    // Nodes that are numbers, and names with brackets.
    CHECK(operatingPoint(circuit("t\nV1 1 0 10\nR1 1 2 1k\nR2 2 0 1k\n"))->between("2") == Approx(5));
    CHECK(operatingPoint(circuit("t\nV1 Net-(D1-K) 0 10\nR1 Net-(D1-K) /OUT 1k\nR2 /OUT 0 1k\n"))
              ->between("/out") == Approx(5));
    CHECK(circuit("t\nR1 Net-(D1-K) GND 1k\n").shown("net-_d1-k_") == "Net-(D1-K)");
    CHECK(sourceValue(circuit("t\nV1 a 0 DC 9 AC 1\nR1 a 0 1k\n").elements[0]) == Approx(9));
    // What floats is solved all the same, and what cannot be says so.
    CHECK(operatingPoint(circuit("t\nV1 a 0 5\nC1 a b 1u\nR1 b c 1k\n")));
    CHECK_FALSE(operatingPoint(circuit("t\nV1 a 0 5\nV2 a 0 6\nR1 a 0 1k\n")));
    CHECK(operatingPoint(circuit("t\nV1 a 0 5\nR1 a 0 1k\n")));  // and the next is solved again
}

TEST_CASE("readings as a table: any order, a decimal comma, overload: and what is refused") {
    const auto read = readCircuitReadings(
        "value;node;quantity;error\n4,92 V;OUT;voltage;10m\nOL;a;resistance;\n12m;R1;current;1m\n");
    REQUIRE(read);
    REQUIRE(read->size() == 3);
    CHECK(read->at(0).node == "out");
    CHECK(read->at(0).value == Approx(4.92));
    CHECK(read->at(0).error == Approx(0.01));
    CHECK(std::isinf(read->at(1).value));
    CHECK(read->at(2).value == Approx(0.012));
    for (const char* text : {"", "node,value\n", "node,quantity,value\na,smell,1\n", "a,b\n1,2\n",
                             "node,value\na,much\n", "node,value,error\na,1,-1\n"})
        CHECK_FALSE(readCircuitReadings(text));
    const Netlist netlist = circuit(kFollower);
    CHECK_FALSE(suspectsOf(kitCircuit(netlist), at({"nowhere"})));
}
