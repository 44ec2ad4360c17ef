#include <catch2/catch.hpp>
#include <cmath>

#include "bench_fixture.h"
#include "judged/supply_advice.h"
#include "station/first_light/flow_wanted.h"

using namespace ombrek;

namespace {

Check checkNamed(const std::string& title, Unit unit = Unit::volt) {
    Check out;
    out.id = "c";
    out.title = title;
    out.unit = unit;
    return out;
}

Instrument named(const std::string& name, const std::string& measures, std::int64_t place) {
    Instrument out;
    out.name = name;
    out.way = Way::serial;
    out.measures = measures;
    out.place = place;
    return out;
}

}  // namespace

TEST_CASE("the builder's own instrument is asked before the practice bench, in the order of the list") {
    std::vector<Instrument> all{practiceInstrument(), named("second", "V A", 2), named("first", "V Ω", 1)};
    CHECK(instrumentOf(all, Unit::volt)->name == "first");
    CHECK(instrumentOf(all, Unit::ampere)->name == "second");
    CHECK(instrumentOf(all, Unit::hertz)->way == Way::practice);
    all[2].used = false;
    CHECK(instrumentOf(all, Unit::volt)->name == "second");
    all[0].used = false;
    CHECK(instrumentOf(all, Unit::hertz) == nullptr);
    CHECK(unitsOf("V Ω furlong Hz") == std::vector{Unit::volt, Unit::ohm, Unit::hertz});
    CHECK(measuresText(unitsOf("dBm dB F")) == "dBm dB F");
}

TEST_CASE(
    "an instrument is judged by its own sheet, of the range that it was in, with the count that was seen") {
    MeterLine low;
    low.name = "grey";
    low.unit = Unit::volt;
    low.high = 6;
    low.percent = 0.5;
    low.digits = 2;
    MeterLine high = low;
    high.low = 6;
    high.high = 60;
    high.percent = 2;
    MeterLine other = low;
    other.name = "red";
    other.percent = 9;
    const std::vector<MeterLine> meters{low, high, other};
    CHECK(meterFor(meters, Unit::volt, 5, {"grey"})->percent == 0.5);
    CHECK(meterFor(meters, Unit::volt, 5, {"grey", 60})->percent == 2);  // 5 V read in the 60 V range
    CHECK(meterFor(meters, Unit::volt, 5, {"red"})->percent == 9);
    CHECK(meterFor(meters, Unit::volt, 5, {"blue"})->percent ==
          meterFor(usualMeters(), Unit::volt, 5)->percent);
    // GUM: 2 digits of 10 mV, and 0.5 % of 5 V, each rectangular.
    CHECK(measuredWith(meters, Unit::volt, 5, {"grey", 0, 0.01}).uncertainty ==
          Approx(2 * std::hypot(0.025, 0.02) / std::sqrt(3.0)));
    CHECK(measuredWith(meters, Unit::ohm, INFINITY, {"grey"}).beyond);
    CHECK(measuredWith(meters, Unit::volt, 5, {"grey"}).meter == "grey");
}

TEST_CASE("volts are DC unless the check says otherwise") {
    Kit kit;
    kit.checks = {checkNamed("5 V regulator output"), checkNamed("Audio at the volume pot"),
                  checkNamed("RF at the driver"), checkNamed("Back of the pack"),
                  checkNamed("Ripple, peak to peak")};
    const char* ids[] = {"a", "b", "c", "d", "e"};
    for (std::size_t i = 0; i < kit.checks.size(); ++i) kit.checks[i].id = ids[i];
    const auto flow = [&](const char* id) { return flowWanted(kit, Subject::check(id), Unit::volt); };
    CHECK(flow("a") == Flow::dc);
    CHECK(flow("b") == Flow::ac);
    CHECK(flow("c") == Flow::ac);
    CHECK(flow("d") == Flow::dc);
    CHECK(flow("e") == Flow::peakToPeak);
    CHECK(flow("none of them") == Flow::dc);
    CHECK(flowWanted(kit, Subject::check("b"), Unit::ohm) == Flow::either);
}

TEST_CASE("the supply is set from what the kit says, never guessed, and never far over the kit's voltage") {
    Kit kit;
    Build build;
    const Judged nothing(kit, build);
    CHECK(supplyAdvice(nothing).volts == 0);
    CHECK(supplyAdvice(nothing).amperes == 0);
    CHECK(supplyAdvice(nothing).why.find("does not say") != std::string::npos);
    CHECK(supplyTrouble(kit, 13.8, 0.3).empty());
    CHECK_FALSE(supplyTrouble(kit, 24, 0.3).empty());

    kit.ratings.supply = 12;
    kit.ratings.currentHigh = 0.5;
    Check draws = checkNamed("Supply current", Unit::ampere);
    draws.limits.high = 0.08;
    draws.condition = "receive";
    kit.checks = {draws};
    const Judged judged(kit, build);
    CHECK(supplyAdvice(judged).volts == 12);
    CHECK(supplyAdvice(judged).amperes == Approx(0.12));
    build.readings = {{1, Subject::check("c"), 0.06, Unit::ampere, 0.0001, {}, "typed", 0}};
    const Judged passed(kit, build);
    CHECK(supplyAdvice(passed).amperes == Approx(0.6));
    CHECK_FALSE(supplyTrouble(kit, 13.8, 0.3).empty());
    for (const auto& [volts, amperes] : std::vector<std::pair<double, double>>{
             {0, 1}, {12, 0}, {NAN, 1}, {12, NAN}, {-12, 1}, {12, 1000}, {INFINITY, 1}})
        CHECK_FALSE(supplyTrouble(kit, volts, amperes).empty());
}
