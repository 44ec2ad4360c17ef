#include <cmath>
#include <map>
#include <random>

#include "circuit/expected_reading.h"
#include "circuit/reads.h"
#include "practice_rig.h"
#include "draws.h"

using namespace ombrek;

// A kit's circuit: what its comments say, what a sound rig reads, and what reading by hand says of the same.

namespace {

const char* kDivider =
    "divider\n* state on: S1=0.01\n* state off: S1=1e9, power off\n* state alone: only VS A\n"
    "* check mid: v(mid) in on\n* check drain: i(VS) in on\n* check ohms: r(in, mid) in off\n"
    "VS bat 0 10\nRS1 bat in 1e9\nRA in mid 1MEG\nRB mid 0 1MEG\nRP_a in wiper 4k\nRP_b wiper 0 6k\n.end\n";

KitCircuit read(const std::string& text) {
    auto out = readKitCircuit(text, shippedModels());
    if (!out) FAIL(out.error().text());
    return std::move(*out);
}

}  // namespace

TEST_CASE("states, wipers and the supply of a circuit, and a meter's own load", "[reference]") {
    const KitCircuit c = read(kDivider);
    CHECK(c.states.size() == 3);
    CHECK(c.state("ON") == c.state("on"));
    CHECK(c.probes.size() == 3);
    CircuitBench bench;
    bench.supply = 12;
    const Netlist on = inState(c, c.state("on"), bench);
    // Source: Ohm's law; a meter of 10 MΩ on a divider of two 1 MΩ reads 4.8 % low (facts of the trade: 5 to
    // 9 %).
    CHECK(readingsOf(on, {c.probes.at("mid")})[0] == Approx(6).epsilon(0.001));
    CHECK(readingsOf(on, {c.probes.at("mid")}, 10e6)[0] == Approx(6 / 1.05).epsilon(0.001));
    CHECK(readingsOf(on, {c.probes.at("drain")})[0] == Approx(12 / 10e3 + 12 / 2e6).epsilon(0.001));
    CHECK(readingsOf(inState(c, c.state("off"), bench), {c.probes.at("ohms")})[0] ==
          Approx(1e6 * 1.01e6 / 2.01e6).epsilon(0.01));
    CHECK(inState(c, c.state("alone"), {}).elements.size() == 2);
    const KitCircuit turned = read(std::string(kDivider) + "");
    KitCircuit moved = turned;
    moved.states[0].values.emplace_back("RP", "0.25");
    CHECK(readingsOf(inState(moved, &moved.states[0], bench),
                     {{"wiper", "0", CircuitReading::Quantity::voltage, 0, 0, "", 0}})[0] ==
          Approx(3).epsilon(0.001));
    const auto expected = expectedReadings(c, nullptr, bench, {c.probes.at("mid"), c.probes.at("drain")});
    REQUIRE(expected);
    // Two resistors of 5 %, rectangular: 6 V moves by 2.5 % each, over the root of three; twice that in
    // quadrature.
    const ExpectedReading& mid = expected->at(0);
    CHECK(mid.value == Approx(5.714).epsilon(0.001));
    CHECK(mid.unloaded == Approx(6).epsilon(0.001));
    CHECK(mid.high - mid.value == Approx(2 * std::sqrt(2.0) * 6 * 0.025 / std::sqrt(3.0)).epsilon(0.05));
    CHECK_FALSE(expectedReadings(c, nullptr, bench, {c.probes.at("mid")}, {}, [](double) { return false; }));
    // A measured part is what it is, and does not scatter any more.
    bench.measured = {{"RA", 1.1e6}};
    const auto known = expectedReadings(c, nullptr, bench, {c.probes.at("mid")});
    CHECK(known->at(0).unloaded == Approx(12 / 2.1).epsilon(0.001));
    CHECK(known->at(0).high - known->at(0).value < 0.8 * (mid.high - mid.value));
}

TEST_CASE("remarks that do not hold together are refused with their place") {
    for (const auto& [text, words] :
         {std::pair{"t\n* state on\n* check a: v(b) in nowhere\nR1 b 0 1k\n", "no state"},
          std::pair{"t\n* check a: v(nowhere)\nR1 b 0 1k\n", "no nowhere"},
          std::pair{"t\n* check a: i(R9)\nR1 b 0 1k\n", "no r9"},
          std::pair{"t\n* check a: w(b)\nR1 b 0 1k\n", "wants the form"},
          std::pair{"t\n* check a: v(b) of on\nR1 b 0 1k\n", "wants the form"},
          std::pair{"t\n* state on: leap\nR1 b 0 1k\n", "not understood"}}) {
        const auto out = readKitCircuit(text, "");
        INFO(text);
        REQUIRE_FALSE(out);
        CHECK(out.error().text().find(words) != std::string::npos);
    }
    // A comment that only begins like one is a comment.
    CHECK(readKitCircuit("t\n* state of the art\n* check this\n* spread\n* path\nR1 b 0 1k\n", ""));
    CHECK(readKitCircuit("t\n* spread ((( [a 30\n* state x: a(b[=1\nR1 b 0 1k\n", ""));
}

TEST_CASE("designators behind SPICE's letters, and points that a check's own words name") {
    const PracticeRig rig;
    CHECK(designatorOf("XU1", &rig.kit) == "U1");
    CHECK(designatorOf("RF1", &rig.kit) == "F1");
    CHECK(designatorOf("R70_a", &rig.kit) == "R70");
    CHECK(designatorOf("LT1_main", &rig.kit) == "T1");
    CHECK(designatorOf("R1", &rig.kit) == "R1");
    CHECK(designatorOf("VS", &rig.kit) == "VS");
    Check check;
    check.unit = Unit::volt;
    const auto node = [&](const char* at, const char* condition = "") {
        check.at = at;
        check.condition = condition;
        const auto probe = probeOf(rig.circuit, rig.kit, check);
        return probe ? probe->node + "/" + probe->state : std::string("?");
    };
    CHECK(node("Q1 drain", "receive") == "q1_d/receive");
    CHECK(node("U3 pin 8", "receive") == "u3_8/receive");
    CHECK(node("D1 cathode") == "v12/");
    CHECK(node("emitter of Q4", "key down") == "q4_e/key down");
    CHECK(node("U3 pin 9") == "?");
    CHECK(node("the plug") == "?");
    CHECK(node("Q1 drain", "upside down") == "?");
    check.unit = Unit::hertz;
    CHECK(node("Q1 drain") == "?");
}

TEST_CASE("every element of the practice circuit is a part of the kit, a wire of the bench, or nothing") {
    const PracticeRig rig;
    for (const CircuitElement& e : rig.circuit.netlist.elements) {
        INFO(e.name);
        CHECK((rig.kit.part(designatorOf(e.name, &rig.kit)) != nullptr || e.name == "VS" ||
               e.name == "BSUPPLY"));
    }
    // And every part of the kit that carries a direct current or holds one off is in it.
    for (const Part& part : rig.kit.parts) {
        if (part.ref == "J1") continue;  // the plug itself
        INFO(part.ref);
        CHECK(
            std::any_of(rig.circuit.netlist.elements.begin(), rig.circuit.netlist.elements.end(),
                        [&](const CircuitElement& e) { return designatorOf(e.name, &rig.kit) == part.ref; }));
    }
}

TEST_CASE(
    "every check of the practice kit is inside its limits with nominal parts, and in builds that "
    "scatter") {
    const PracticeRig rig;
    std::map<std::string, std::vector<const Check*>> byState;
    int told = 0;
    for (const Check& check : rig.kit.checks) {
        const auto probe = probeOf(rig.circuit, rig.kit, check);
        // A circuit at rest knows no frequency.
        CHECK(probe.has_value() == (check.unit != Unit::hertz));
        if (!probe) continue;
        byState[probe->state].push_back(&check);
        ++told;
    }
    CHECK(told == 18);
    std::mt19937 engine(1851);
    std::uniform_real_distribution<double> share(-1, 1);
    int read = 0, inside = 0;
    const auto judge = [&](const std::vector<const Check*>& checks, const std::vector<double>& reads,
                           bool nominal) {
        for (std::size_t i = 0; i < checks.size(); ++i) {
            const Limits& limits = checks[i]->limits;
            const bool holds = reads[i] >= limits.low && reads[i] <= limits.high;
            if (nominal) {
                INFO(checks[i]->id << " reads " << reads[i]);
                CHECK(holds);
                continue;
            }
            ++read;
            inside += holds;
        }
    };
    // Regulators, transistors and the supply are drawn in 40 lots, the resistors anew in each of 25 builds of
    // a lot.
    const int kLots = draws(40, 10);
    constexpr int kOfALot = 25;
    for (int lot = 0; lot <= kLots; ++lot) {
        const bool nominal = lot == 0;
        CircuitBench bench;
        bench.supply = 12.5 * (nominal ? 1.0 : 1 + 0.01 * share(engine));
        KitCircuit drawn = rig.circuit;
        std::vector<ScatterPlace> resistors;
        for (const ScatterPlace& place : scatterPlaces(rig.circuit, &rig.kit, {})) {
            if (place.resistor) resistors.push_back(place);
            if (!place.resistor && !nominal)
                scatter(drawn.netlist, place, 1 + share(engine) * place.percent / 100);
        }
        std::vector<std::vector<Alteration>> builds(nominal ? 1 : kOfALot);
        for (auto& build : builds) {
            for (const ScatterPlace& place : resistors) {
                const double ohms = spiceNumber(rig.circuit.netlist.element(place.element)->word());
                if (!nominal)
                    build.push_back({place.element, ohms * (1 + share(engine) * place.percent / 100)});
            }
        }
        for (const auto& [state, checks] : byState) {
            const Netlist standing = inState(drawn, rig.circuit.state(state), bench, &rig.kit);
            std::vector<CircuitReading> asked;
            for (const Check* check : checks) asked.push_back(*probeOf(rig.circuit, rig.kit, *check));
            const bool ohms = asked[0].quantity == CircuitReading::Quantity::resistance;
            const std::string a = circuitNode(asked[0].node), b = circuitNode(asked[0].node2);
            std::vector<std::vector<Alteration>> here = builds;
            for (auto& build : here)
                std::erase_if(build,
                              [&](const Alteration& x) { return standing.element(x.resistor) == nullptr; });
            REQUIRE(operatingPoints(ohms ? withOhmmeter(standing, a, b) : withSenses(standing, asked), here,
                                    [&](std::size_t, const Result<OperatingPoint>& point) {
                                        REQUIRE(point);
                                        std::vector<double> reads;
                                        for (const CircuitReading& r : asked)
                                            reads.push_back(ohms ? ohmsOf(*point, a, b)
                                                                 : liveRead(*point, standing, r));
                                        judge(checks, reads, nominal);
                                        return true;
                                    }));
        }
    }
    INFO(inside << " of " << read);
    CHECK(read == 18 * kLots * kOfALot);
    CHECK(double(inside) / read >= 0.99);
}
