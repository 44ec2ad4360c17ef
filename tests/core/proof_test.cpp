#include <cmath>
#include <stdexcept>

#include "core/proof/frequency.h"
#include "core/proof/harmonics.h"
#include "core/proof/power.h"
#include "core/proof/readiness.h"

using namespace ombrek;

TEST_CASE("watts, dBm and peak-to-peak volts", "[reference]") {
    // Source: definition of dBm; power of a sine in 50 Ω. 5 W = 36.99 dBm = 44.72 Vpp; 1 W = 30 dBm = 20.0
    // Vpp; 36.92 dBm = 4.92 W; 35.57 dBm = 3.61 W.
    CHECK(dbmFromWatts(5) == Approx(36.99).margin(0.005));
    CHECK(dbmFromWatts(1) == Approx(30.0));
    CHECK(wattsFromDbm(36.92) == Approx(4.92).margin(0.005));
    CHECK(wattsFromDbm(35.57) == Approx(3.61).margin(0.005));
    CHECK(powerFromPeakToPeak(44.72, 0, 50).watts == Approx(5.0).margin(0.002));
    CHECK(powerFromPeakToPeak(20.0, 0, 50).watts == Approx(1.0));
    CHECK_THROWS_AS(dbmFromWatts(0), std::domain_error);
    CHECK_THROWS_AS(powerFromPeakToPeak(1, 0, 0), std::domain_error);
}

TEST_CASE("a level behind an attenuator") {
    const Power p = powerThroughAttenuator(6.9, 30, 0.2);
    CHECK(p.watts == Approx(wattsFromDbm(36.9)));
    CHECK(p.uncertainty / p.watts == Approx(0.047).margin(0.001));  // 0.2 dB is 4.7 %
}

TEST_CASE("a diode probe reads the peak less its drop", "[reference]") {
    // Source: P = ((Vdc + Vd)/√2)²/R: 21.8 V with a drop of 0.56 V on 50 Ω: (22.36/√2)²/50 = 5 W.
    const Power p = powerFromDiodeProbe(21.80, 0.1, 0.56, 0.1, 50);
    CHECK(p.watts == Approx(5.0).margin(0.002));
    CHECK(p.uncertainty == Approx(2 * 5.0 * std::hypot(0.1, 0.1) / 22.36).epsilon(0.01));
    CHECK_THROWS_AS(powerFromDiodeProbe(1, 0, 0, 0, -50), std::domain_error);
}

TEST_CASE("a wattmeter with its correction") {
    const Power p = powerFromWattmeter(2.8, 1.1, 10);
    CHECK(p.watts == Approx(3.08));
    CHECK(p.uncertainty == Approx(0.308));
}

TEST_CASE("all methods agree on the same sine") {
    for (double watts = 0.1; watts < 20; watts *= 1.7) {
        const double vpp = std::sqrt(8 * 50 * watts);
        CHECK(powerFromPeakToPeak(vpp, 0, 50).watts == Approx(watts));
        CHECK(powerThroughAttenuator(dbmFromWatts(watts) - 30, 30, 0).watts == Approx(watts));
        CHECK(powerFromDiodeProbe(vpp / 2 - 0.35, 0, 0.35, 0, 50).watts == Approx(watts));
        CHECK(powerFromWattmeter(watts, 1, 0).watts == Approx(watts));
    }
}

TEST_CASE("every power carries its working") {
    for (const Power& p : {powerFromPeakToPeak(20, 0, 50), powerThroughAttenuator(0, 30, 0),
                           powerFromDiodeProbe(10, 0, 0.3, 0, 50), powerFromWattmeter(3, 1, 5)}) {
        CHECK_FALSE(p.working.lines.empty());
        CHECK(p.working.text().find('=') != std::string::npos);
        CHECK(p.working.text().find("Source: ") != std::string::npos);
    }
}

TEST_CASE("power goes with the square of the supply", "[reference]") {
    // Source: common practice for a stage saturated by its supply: 13.8 → 12 V is −1.21 dB; 50 W at 20 V
    // gives 23.8 W at 13.8 V.
    CHECK(10 * std::log10(powerAtSupply(1, 13.8, 12)) == Approx(-1.21).margin(0.005));
    CHECK(powerAtSupply(50, 20, 13.8) == Approx(23.8).margin(0.05));
    CHECK(dbmFromWatts(powerAtSupply(wattsFromDbm(36.92), 13.8, 12)) == Approx(35.7).margin(0.02));
    CHECK_THROWS_AS(powerAtSupply(1, 0, 12), std::domain_error);
}

namespace {

const LimitProfile kFlat{"flat", "43 dB", 43, 0, 200, ""};
const LimitProfile kRising{"rising", "43 + 10 log P, at most 50", 43, 10, 50, ""};

}  // namespace

TEST_CASE("spurious limits", "[reference]") {
    // Source: 47 CFR 97.307(d): 43 dB below 30 MHz. ITU-R SM.329 / RR Appendix 3, amateur below 30 MHz (from
    // memory): 43 + 10 log PEP or 50 dB, whichever is less stringent.
    CHECK(requiredSuppression(kFlat, 3) == 43);
    CHECK(requiredSuppression(kFlat, 1000) == 43);
    CHECK(requiredSuppression(kRising, 1) == Approx(43));
    CHECK(requiredSuppression(kRising, 3) == Approx(47.77).margin(0.01));
    CHECK(requiredSuppression(kRising, 5) == Approx(49.99).margin(0.01));
    CHECK(requiredSuppression(kRising, 100) == 50);
    CHECK_THROWS_AS(requiredSuppression(kFlat, 0), std::domain_error);
}

TEST_CASE("a harmonic against a limit, with the analyser's error") {
    CHECK(judgeHarmonic({2, 50, 1}, kFlat, 3, VerdictRule::guardBand).state == VerdictState::pass);
    CHECK(judgeHarmonic({2, 43.5, 1}, kFlat, 3, VerdictRule::guardBand).state == VerdictState::doubtful);
    CHECK(judgeHarmonic({2, 43.5, 1}, kFlat, 3, VerdictRule::simple).state == VerdictState::pass);
    CHECK(judgeHarmonic({2, 40, 1}, kFlat, 3, VerdictRule::guardBand).state == VerdictState::fail);
    CHECK(judgeHarmonic({3, 46, 0.5}, kRising, 3, VerdictRule::guardBand).state == VerdictState::fail);
}

TEST_CASE("parts per million", "[reference]") {
    // Source: definition: 10.0021 MHz against 10 MHz is +210 ppm.
    CHECK(partsPerMillion(10.0021e6, 10e6) == Approx(210));
    CHECK(partsPerMillion(9.999e6, 10e6) == Approx(-100));
    CHECK_THROWS_AS(partsPerMillion(1, 0), std::domain_error);
    CHECK(deviationWorking(10.0021e6, 10e6).text().find("210") != std::string::npos);
}

TEST_CASE("a frequency against its rating") {
    CHECK(judgeFrequency(21.0601e6, 21.06e6, 20, 30, VerdictRule::guardBand).state == VerdictState::pass);
    CHECK(judgeFrequency(21.0604e6, 21.06e6, 20, 30, VerdictRule::guardBand).state == VerdictState::doubtful);
    CHECK(judgeFrequency(21.062e6, 21.06e6, 20, 30, VerdictRule::guardBand).state == VerdictState::fail);
    CHECK(judgeFrequency(21.06e6, 21.06e6, 1, 30, VerdictRule::guardBand).state == VerdictState::cannotTell);
}

TEST_CASE("a gate is as good as its worst evidence, and can be passed knowingly") {
    Gate gate{
        "coils", "Coils", Station::winding, {{"T1", VerdictState::pass, ""}, {"L1", VerdictState::pass, ""}},
        false,   ""};
    CHECK(gate.state() == VerdictState::pass);
    CHECK(gate.open());
    gate.evidence.push_back({"L2", VerdictState::doubtful, ""});
    CHECK(gate.state() == VerdictState::doubtful);
    CHECK_FALSE(gate.open());
    CHECK(gate.summary() == "2 of 3 pass, 1 doubtful");
    gate.passedKnowingly = true;
    CHECK(gate.open());
    CHECK(gate.state() == VerdictState::doubtful);
}

TEST_CASE("readiness counts what is earned and what is only open") {
    Readiness r;
    CHECK_FALSE(r.fit());
    r.gates = {{"a", "A", Station::none, {{"", VerdictState::pass, ""}}, false, ""},
               {"b", "B", Station::none, {{"", VerdictState::fail, ""}}, true, "known"},
               {"c", "C", Station::none, {{"", VerdictState::notDone, ""}}, false, ""}};
    CHECK(r.earned() == 1);
    CHECK(r.open() == 2);
    CHECK(r.next()->id == "c");
    CHECK_FALSE(r.fit());
    r.gates[2].evidence[0].state = VerdictState::pass;
    CHECK(r.fit());
    CHECK(r.next() == nullptr);
}
