#include "station/proof/frequencies.h"
#include "tune_bench.h"

using namespace ombrek;

namespace {

void count(TuneBench& bench, Subject subject, double value, Settings settings = {}) {
    bench.take({0, std::move(subject), value, Unit::hertz, 0, std::move(settings), "typed", 0});
}

}  // namespace

TEST_CASE("a counter that reads two crystals alike too high has an offset") {
    // 16 MHz read 16.0640, 8 MHz read 8.0656.
    TuneBench bench;
    count(bench, Subject::reference("16 MHz"), 16.0640e6, {{std::string(kKnown), 16e6}});
    CHECK(counterOf(bench.build).verdict == ReferenceFit::Verdict::cannotTell);
    count(bench, Subject::reference("8 MHz"), 8.0e6, {{std::string(kKnown), 8e6}});
    count(bench, Subject::reference("8 MHz"), 8.0656e6, {{std::string(kKnown), 8e6}});  // the last counts
    CHECK(knownFrequencies(bench.build).size() == 2);
    CHECK(counterOf(bench.build).verdict == ReferenceFit::Verdict::offset);
    count(bench, Subject::reference("broken"), 5e6);  // nothing is known of it
    count(bench, Subject::reference("zero"), 0, {{std::string(kKnown), 8e6}});
    CHECK(knownFrequencies(bench.build).size() == 2);
}

TEST_CASE("how exact a known frequency is may be said with it") {
    TuneBench bench;
    count(bench, Subject::reference("16 MHz"), 16.0640e6, {{std::string(kKnown), 16e6}});
    count(bench, Subject::reference("8 MHz"), 8.0656e6, {{std::string(kKnown), 8e6}});
    CHECK(std::isnan(counterOf(bench.build).ppmLow));
    CHECK(claimOf(counterOf(bench.build).ppmLow).find("Go or no-go") == 0);
    for (const double f : {16e6, 8e6})
        count(bench, Subject::reference(f > 1e7 ? "16 MHz" : "8 MHz"), f > 1e7 ? 16.0640e6 : 8.0656e6,
              {{std::string(kKnown), f}, {std::string(kKnownWithin), 50.0}});
    CHECK(counterOf(bench.build).ppmLow < -300);
    CHECK(counterOf(bench.build).ppmHigh > -100);
}

TEST_CASE("a count off a display that nobody described is good for 50 ppm") {
    // Source: what plain crystals are off, common practice.
    CHECK(typedWith({}, Unit::hertz, 14.06e6).uncertainty >= 50e-6 * 14.06e6);
    std::vector<MeterLine> own = usualMeters();
    for (MeterLine& line : own) line.id = 1;
    CHECK(typedWith(own, Unit::hertz, 14.06e6).uncertainty < 30);
    CHECK(measuredWith({}, Unit::hertz, 14.06e6, {"my counter"}).uncertainty >= 50e-6 * 14.06e6);
    CHECK(measuredWith({}, Unit::hertz, 14.06e6, {std::string(kPracticeBench)}).uncertainty < 30);
    CHECK(typedWith({}, Unit::volt, 5).uncertainty == measuredWith({}, Unit::volt, 5).uncertainty);
}

TEST_CASE("crystals: the last of each, dead ones, a load, a loss") {
    TuneBench bench;
    count(bench, Subject::crystal("10"), 4.913872e6);
    count(bench, Subject::crystal("2"), 4.913800e6);
    count(bench, Subject::crystal("2"), 4.913790e6);
    bench.take({0, Subject::crystal("A"), 0, Unit::none, 0, {}, "seen", 0});
    count(bench, Subject::crystal("2"), 4.914790e6, {{std::string(kLoad), 30e-12}});
    count(bench, Subject::crystal("2"), 4.913790e6,
          {{std::string(kLoss), 1.94}, {std::string(kBetween), 50.0}});
    const auto batch = batchOf(bench.build);
    REQUIRE(batch.size() == 3);
    CHECK(batch[0].id == "2");  // by number, words behind
    CHECK(batch[1].id == "10");
    CHECK(batch[2].frequency == 0);
    CHECK(batch[0].frequency == 4.913790e6);
    REQUIRE(batch[0].motional);
    // C_m = 2(C_0 + C_L)Δf/f; R = 2·50·(10^(1.94/20) − 1)
    CHECK(batch[0].motional->capacitance == Approx(2 * 34e-12 * 1000 / 4.913790e6).epsilon(0.01));
    CHECK(batch[0].resistance == Approx(100 * (std::pow(10, 1.94 / 20) - 1)).epsilon(0.01));
    CHECK(batch[0].q > 10000);
    CHECK_FALSE(batch[1].motional);
}

TEST_CASE("the dial's points by rising position, of one band, and what is wanted") {
    TuneBench bench;
    for (const double x : {90.0, 0.0, 180.0})
        count(bench, Subject::dial(std::to_string(x)), 7e6 + 100 * x, {{std::string(kPosition), x}});
    count(bench, Subject::dial("0", "80 m"), 3.5e6, {{std::string(kPosition), 0.0}});
    const auto points = dialPointsOf(bench.build);
    REQUIRE(points.size() == 3);
    CHECK(points[0].frequency == 7e6);
    CHECK(points[2].position == 180);
    CHECK(dialPointsOf(bench.build, "80 m").size() == 1);
    for (const char* text :
         {"7.000M 7.060M", "7.0 to 7.06 MHz", "7.000 MHz \u2013 7.060 MHz", "  7000k..7060k "}) {
        INFO(text);
        REQUIRE(readRange(text));
        CHECK(readRange(text)->low == Approx(7.0e6));
        CHECK(readRange(text)->high == Approx(7.06e6));
    }
    for (const char* bad : {"", "7M", "7.06M 7.0M", "a b", "7M x", "0 7M"})
        CHECK_FALSE(readRange(bad).has_value());
}
