#include <catch2/catch.hpp>

#include "bench_fixture.h"
#include "core/text/letters.h"
#include "judged/judged.h"
#include "judged/less_power.h"
#include "station/proof/antenna.h"
#include "station/proof/chain.h"
#include "station/proof/filter.h"
#include "station/proof/power_table.h"
#include "station/said.h"

using namespace ombrek;

namespace {

/// A build of the three-band rig with readings typed one after the other.
class Typed {
 public:
    Build build;
    void supply(double volts) { add(Subject::supply(), volts, Unit::volt, "typed", 0.01 * volts); }
    void power(const std::string& band, double watts, const std::string& way = "wattmeter",
               double error = 0.1) {
        add(Subject::power(band), watts, Unit::watt, way, error * watts);
        if (way == "wattmeter") build.readings.back().settings["correction"] = 1;
    }
    void current(const std::string& band, double amps) {
        add(Subject::current(band), amps, Unit::ampere, "typed", 0);
    }
    void scope(const std::string& band, double volts) {
        add(Subject::power(band), volts, Unit::volt, "peak-to-peak", 0.03 * volts);
    }

 private:
    void add(const Subject& subject, double value, Unit unit, const std::string& way, double error) {
        build.readings.push_back({++id_, subject, value, unit, error, {}, way, 0});
    }
    std::int64_t id_ = 0;
};

const Kit& rig() { return provingKit().kit; }

}  // namespace

TEST_CASE("a kit with several bands is proved on each") {
    CHECK(rig().ratings.bandNames() == std::vector<std::string>{"40m", "30m", "20m"});
    CHECK(rig().ratings.on("20m").frequency == Approx(14.06e6));
    CHECK(rig().ratings.frequency == Approx(7.03e6));  // the first one's
    CHECK(rig().lowPassOn("30m").front().ref == "C31");
    Typed t;
    t.supply(13.8);
    t.power("40m", 4.0, "wattmeter", 0.05);
    const Judged judged(rig(), t.build);
    CHECK(judged.proof("40m").powerVerdict.state == VerdictState::pass);
    CHECK(judged.proof("20m").powerVerdict.state == VerdictState::notDone);
    const Readiness& ready = judged.readiness();
    const auto gate =
        std::find_if(ready.gates.begin(), ready.gates.end(), [](const Gate& g) { return g.id == "power"; });
    REQUIRE(gate != ready.gates.end());
    CHECK(gate->evidence.size() == 3);
    CHECK_FALSE(gate->open());  // one band is not all of them
}

TEST_CASE("powers by band and supply: square of the supply, efficiency, gaps") {
    Typed t;
    PowerTable table = powerTable(rig(), t.build);
    REQUIRE(table.bands.size() == 3);
    CHECK(table.supplies == std::vector<double>{9, 12, 13.8});  // nothing above the rated one is asked for
    CHECK(table.supplies[table.rated] == 13.8);
    REQUIRE(table.next);
    CHECK(*table.next == std::pair<std::size_t, std::size_t>(0, 2));  // the promise comes first
    t.supply(13.7);
    t.power("40m", 4.0);
    t.current("40m", 0.6);
    t.supply(9.1);
    t.power("40m", 1.2);
    table = powerTable(rig(), t.build);
    const PowerCell& cell = table.at(0, 2);
    CHECK(cell.efficiency == Approx(4.0 / (0.6 * 13.7)));
    CHECK(cell.heat == Approx(0.6 * 13.7 - 4));
    CHECK(cell.state == VerdictState::pass);
    // 4 W at 13.8 V are 4·(9.1/13.8)² at 9.1 V (a stage saturated by its supply: common practice).
    CHECK(table.at(0, 0).promised == Approx(4 * std::pow(9.1 / 13.8, 2)));
    CHECK(table.at(0, 0).state != VerdictState::fail);  // a square is no promise
    CHECK(*table.next == std::pair<std::size_t, std::size_t>(1, 2));
    t.supply(11.0);
    t.power("40m", 2.0);
    CHECK(powerTable(rig(), t.build).supplies.size() == 4);  // what was read elsewhere has its column
}

TEST_CASE("a power that is read before any supply stands in no field") {
    Typed t;
    t.power("40m", 4.0);
    const PowerTable table = powerTable(rig(), t.build);
    for (const auto& row : table.cells)
        for (const PowerCell& cell : row) CHECK_FALSE(cell.reading.has_value());
}

TEST_CASE("more out than in is no pass, and two ways that differ are told") {
    Typed t;
    t.supply(13.8);
    t.power("40m", 4.2);
    t.current("40m", 0.2);
    CHECK(powerTable(rig(), t.build).at(0, 2).state == VerdictState::cannotTell);
    Typed two;
    two.supply(13.8);
    two.power("40m", 2.5, "wattmeter", 0.05);
    two.scope("40m", 40);  // 4 W in 50 Ω
    const PowerCell cell = powerTable(rig(), two.build).at(0, 2);
    CHECK_THAT(cell.ways, Catch::Contains("differ by more"));
    CHECK(cell.power.watts == Approx(4).epsilon(0.01));  // the last one stands
    const auto corrections = wattmeterCorrections(rig(), two.build);
    REQUIRE(corrections.size() == 1);
    CHECK(corrections[0].factor == Approx(4 / 2.5).epsilon(0.01));
    CHECK(correctionAt(corrections, 2.5) == Approx(1.6).epsilon(0.01));
    CHECK(correctionAt({}, 2.5) == 1);
    Typed agree;
    agree.supply(13.8);
    agree.power("40m", 3.9);
    agree.scope("40m", 40);
    const PowerCell both = powerTable(rig(), agree.build).at(0, 2);
    CHECK_THAT(both.ways, Catch::Contains("agree"));
    CHECK(both.power.watts > 3.9);
    CHECK(both.power.watts < 4.001);
}

TEST_CASE("a kit without a promise has no table, no filter and no causes") {
    const Kit none;
    const Build build;
    CHECK(powerTable(none, build).cells.empty());
    CHECK(filterAsBuilt(none, build).empty());
    CHECK(std::isnan(mostPower(none, "", NAN, NAN)));
    const Judged judged(none, build);
    CHECK(causesOfLess(powerFacts(judged, "", "")).empty());
}

TEST_CASE("what the socket leads to, as builders write it") {
    const auto chain = parseChain("30 dB pad 2 W, analyser +20 dBm").value();
    REQUIRE(chain.size() == 2);
    CHECK(chain[0].name == "30 dB pad");
    CHECK(chain[0].attenuation == 30);
    CHECK(chain[0].watts == 2);
    CHECK(chain[1].mostDbm == 20);
    const auto other =
        parseChain("dummy load 20W; wattmeter 10 W; probe 50 V; tap 40dB; 2,5 dB cable, 500 mW pad 10 dB")
            .value();
    REQUIRE(other.size() == 6);
    CHECK(other[0].watts == 20);
    CHECK(other[1].fullScale == 10);
    CHECK(other[1].watts == 0);
    CHECK(other[2].mostVolts == 50);
    CHECK(other[3].attenuation == 40);
    CHECK(other[4].attenuation == Approx(2.5));
    CHECK(other[5].watts == Approx(0.5));
    for (const char* wrong :
         {"", "  ,  ", "pad 30", "pad 30 apples", "pad 900 dB", "load -5 W", "load 0 W", "pad 30 dB 5"})
        CHECK_FALSE(parseChain(wrong).has_value());
    CHECK(mostPower(rig(), "40m", NAN, 13.8) == Approx(4.8));
    CHECK(mostPower(rig(), "40m", NAN, 15) == Approx(4.8 * std::pow(15 / 13.8, 2)));
    CHECK(mostPower(rig(), "40m", 24, 13.8) == Approx(24));
}

TEST_CASE("what a builder saw of a weak power, and what is asked next") {
    const auto f =
        readPowerWords(rig(), "40m", "swr 1.8, drive 70 %; Key up 13,9 V, other 2.4 W, warm 2 of 3, jumps no")
            .value();
    CHECK(f.loadSwr == Approx(1.8));
    CHECK(f.drive == Approx(0.7));
    CHECK(f.unloaded == Approx(13.9 / 13.8));
    CHECK(f.other == Approx(0.6));
    CHECK(f.handed == Approx(2.0 / 3));
    CHECK(f.finals == 3);
    CHECK(f.jumps == 0);
    CHECK(readPowerWords(rig(), "40m", "voice")->voice);
    CHECK(readPowerWords(rig(), "40m", "").has_value());
    for (const char* wrong : {"swr", "swr 0.5", "drive apples", "warm 4 of 3", "key up 13 W", "banana 3",
                              "jumps perhaps", "swr nan"})
        CHECK_FALSE(readPowerWords(rig(), "40m", wrong).has_value());
    Typed t;
    t.supply(13.8);
    t.power("40m", 2.0);
    const Judged judged(rig(), t.build);
    const PowerFacts weak = powerFacts(judged, "40m", "");
    CHECK(weak.power == Approx(0.5));
    CHECK(weak.supply == Approx(1));
    CHECK(weak.finals == 3);
    CHECK_FALSE(whatToLookAt(weak).empty());
    const PowerFacts said = powerFacts(judged, "40m", "warm 2 of 3");
    CHECK(causesOfLess(said).front().id == "dead-final");
}

TEST_CASE("a filter as built: measured values, losses, and finals as they were read") {
    Typed t;
    const auto wanted = filterAsWanted(rig(), "40m");
    REQUIRE(wanted.size() == 7);
    CHECK(wanted[1].coil());
    CHECK(wanted[1].element.ohms > 0);
    CHECK_FALSE(wanted[1].measured);
    t.build.readings.push_back({1, Subject::coil("L1"), 1.6e-6, Unit::henry, 16e-9, {}, "typed", 0});
    const auto built = filterAsBuilt(rig(), t.build, "40m");
    CHECK(built[1].element.value == Approx(1.6e-6));
    CHECK(built[1].measured);
    CHECK(built[1].spread == Approx(1));
    const FilterQuestion worst = filterQuestion(rig(), t.build, {}, 0, "40m");
    CHECK(worst.before(2) == Approx(6.02).margin(0.01));
    const double loss =
        insertionLoss(elementsOf(built), 14.06e6, 50) - insertionLoss(elementsOf(built), 7.03e6, 50);
    t.build.readings.push_back({2, Subject::harmonic(2, "40m"), loss + 15, Unit::decibel, 1, {}, "typed", 0});
    CHECK(filterQuestion(rig(), t.build, {}, 0, "40m").before(2) == Approx(15).margin(1e-6));
    const Network net = filterNetwork(rig()).value();
    CHECK(net.twoPort());
    CHECK(turnsOf(rig(), wanted)[1] == 19);
}

TEST_CASE("a coupler and loads as builders write them") {
    const auto c = parseCoupler("T, coil 0.1u..12u, rig 10p..260p, antenna 10p..260p, 100 V, Q 200").value();
    CHECK(c.kind == Coupler::Kind::t);
    CHECK(c.l.high == Approx(12e-6));
    CHECK(c.volts == 100);
    CHECK(c.coilQ == 200);
    CHECK(parseCoupler("L, coil 0..10u, rig 10p..1n").has_value());
    // The page's own examples, copied with the point that ends their sentence.
    CHECK(parseCoupler("T, coil 0.1u..25u, rig 10p..240p, antenna 10p..240p, 100 V.").has_value());
    CHECK(parseAntennaLoads("35-120j, wire 20.3, 40m: 12+40j.").value().size() == 3);
    for (const char* wrong :
         {"", "T", "T, coil 1u..2u", "T, coil 1u..2u, rig 1p..2p", "coil 1u..2u, rig 1p..2p",
          "pi, coil 5u..2u, rig 1p..2p, antenna 1p..2p", "T, coil x..y, rig 1p..2p, antenna 1p..2p",
          "T, coil 1u..2u, rig 1p..2p, antenna 1p..2p, -5 V", "T, apples"})
        CHECK_FALSE(parseCoupler(wrong).has_value());
    const auto loads = parseAntennaLoads("40m: 35-120j; wire 20.3, loop 110+60j, 7.03M: 12,5+3j").value();
    REQUIRE(loads.size() == 4);
    CHECK(loads[0].band == "40m");
    CHECK(loads[1].wire == Approx(20.3));
    CHECK(loads[2].name == "loop 110+60j");
    CHECK(loads[2].ohms == std::complex<double>(110, 60));
    CHECK(loads[3].frequency == Approx(7.03e6));
    for (const char* wrong : {"", "wire", "wire 0", "wire 1e9", "-3+4j", "0", "apples"})
        CHECK_FALSE(parseAntennaLoads(wrong).has_value());
    const auto rows = antennaRows(rig(), c, loads, 0);
    CHECK(rows.size() == 1 + 3 + 3 + 1);
    CHECK(rows[0].match.watts == 4);
    CHECK(antennaRows(Kit(), c, loads, 5).size() == 1);  // only the one that names its frequency
    CHECK(reflectedShare(1.5) == Approx(0.04));          // SWR 1.5: 4 % (definition)
}

TEST_CASE("what is said in a line falls into things, and a decimal comma into none") {
    CHECK(thingsSaid("a b, c;d\n e ,, 2,5 dB,3 W") ==
          std::vector<std::string>{"a b", "c", "d", "e", "2,5 dB", "3 W"});
    CHECK(thingsSaid("  ").empty());
    CHECK(wordsSaid("  30   dB\tpad ") == std::vector<std::string>{"30", "dB", "pad"});
    CHECK(trimmed(" \t x y \n") == "x y");
    CHECK(lowered("SWR 1.5") == "swr 1.5");
}

TEST_CASE("what arrives goes by the most that was ever read, and nothing that amplifies is a pad") {
    Typed t;
    t.supply(12.0);
    t.power("40m", 24, "wattmeter", 0.05);
    CHECK(mostRead(rig(), t.build, 12) == Approx(24 * 1.05).epsilon(0.001));
    CHECK(mostRead(rig(), t.build, 15) == Approx(24 * 1.05 * std::pow(15.0 / 12, 2)).epsilon(0.001));
    CHECK(std::isnan(mostRead(rig(), Build(), 12)));
    // Another band, where nothing was read: 4.8 W are promised at the most, but 24 came out of this rig.
    CHECK(whatArrives(rig(), t.build, "20m", 12, "wattmeter 10 W").state == VerdictState::fail);
    CHECK(whatArrives(rig(), Build(), "20m", 12, "").state == VerdictState::cannotTell);
    for (const char* wrong :
         {"preamp 20 dB, analyser +20 dBm", "+20 dB box", "amplifier 10 dB", "gain block 15 dB"})
        CHECK_FALSE(parseChain(wrong).has_value());
    CHECK(parseChain("line sampler 40 dB 20 W").has_value());
}

TEST_CASE("a limit that does not speak of a carrier passes nothing") {
    Kit kit = rig();
    kit.ratings.bands.clear();
    kit.ratings.frequency = 50.1e6;
    Build build;
    build.readings.push_back({1, Subject::harmonic(2), 70, Unit::decibel, 1, {}, "typed", 0});
    const LimitProfile below;
    CHECK(proofState(kit, build, below).harmonicVerdicts.at(0).state == VerdictState::cannotTell);
    kit.ratings.frequency = 7.03e6;
    CHECK(proofState(kit, build, below).harmonicVerdicts.at(0).state == VerdictState::pass);
}
