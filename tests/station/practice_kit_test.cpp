#include <cmath>
#include <set>

#include "bench_fixture.h"
#include "core/coil/winding.h"
#include "station/proof/proof.h"
#include "station/winding/winding.h"

using namespace ombrek;

// The practice kit is designed, not decorated: these tests hold it to that.

namespace {

const Kit& kit() { return practiceKit().kit; }

}  // namespace

TEST_CASE("the practice kit is of the size it claims") {
    CHECK(kit().parts.size() >= 95);
    CHECK(kit().coils.size() >= 8);
    CHECK(kit().steps.size() >= 60);
    CHECK(kit().checks.size() >= 15);
    CHECK(kit().adjustments.size() >= 4);
    int holds = 0;
    for (const Step& step : kit().steps) holds += step.hold.has_value();
    CHECK(holds >= 6);
    CHECK(kit().lookAheads.size() >= 4);
}

TEST_CASE("every part is fitted once and has its place inside the board") {
    std::multiset<std::string> fitted;
    for (const Step& step : kit().steps) fitted.insert(step.fits.begin(), step.fits.end());
    for (const Part& part : kit().parts) {
        INFO(part.ref);
        CHECK(fitted.count(part.ref) == 1);
        REQUIRE(part.place);
        CHECK(part.place->x - part.place->width / 2 >= 0);
        CHECK(part.place->x + part.place->width / 2 <= kit().board.width);
        CHECK(part.place->y - part.place->height / 2 >= 0);
        CHECK(part.place->y + part.place->height / 2 <= kit().board.height);
    }
}

TEST_CASE("no two parts lie on each other") {
    for (std::size_t i = 0; i < kit().parts.size(); ++i) {
        for (std::size_t j = i + 1; j < kit().parts.size(); ++j) {
            const Place& a = *kit().parts[i].place;
            const Place& b = *kit().parts[j].place;
            const bool apart = std::fabs(a.x - b.x) >= (a.width + b.width) / 2 - 0.05 ||
                               std::fabs(a.y - b.y) >= (a.height + b.height) / 2 - 0.05;
            INFO(kit().parts[i].ref << " and " << kit().parts[j].ref);
            CHECK(apart);
        }
    }
}

TEST_CASE("every coil's target is what its turns give, and it fits its core") {
    for (const Coil& coil : kit().coils) {
        INFO(coil.ref);
        CHECK(coil.target == Approx(inductance(coil.core, coil.windings.front().turns)).epsilon(0.02));
        CHECK(coreFill(coil) <= 0.92);
    }
}

TEST_CASE("every tuned coil has its band near the middle of the trimmer") {
    const Build build;
    for (const Coil& coil : kit().coils) {
        if (!coil.tune) continue;
        const auto cover = coilCover(kit(), coil, build);
        INFO(coil.ref << ": " << cover->sentence);
        CHECK(cover->state == VerdictState::pass);
    }
}

TEST_CASE("marks on resistors and capacitors say their values") {
    for (const Part& part : kit().parts) {
        if ((part.kind != PartKind::resistor && part.kind != PartKind::capacitor) ||
            part.mark.find("µF") != std::string::npos)
            continue;
        INFO(part.ref << " " << part.value << " marked " << part.mark);
        const auto readings = readMark(part.mark, part.kind);
        bool right = false;
        for (const auto& r : readings) right = right || std::fabs(r.value / part.nominal - 1) < 1e-6;
        CHECK(right);
    }
}

TEST_CASE("the driver's transformer holds the rule of reactance", "[reference]") {
    // Source: common practice: the smaller winding's reactance at least 4 to 5 times the impedance it sees.
    const Coil& t4 = *kit().coil("T4");
    const double reactance = 2 * M_PI * 21e6 * inductance(t4.core, t4.windings[0].turns);
    CHECK(reactance > 5 * 50.0 * std::pow(4.0 / 6, 2));
}

TEST_CASE("the rated power is what the supply and the load at the drains give") {
    // Saturated finals behind the polarity diode: (V − 0.4 − 0.5)²/(2·R), R = 50 Ω·(4/6)² (common practice).
    const double v = kit().ratings.supply - 0.9;
    CHECK(v * v / (2 * 50 * 16.0 / 36) == Approx(kit().ratings.power).epsilon(0.05));
}

TEST_CASE("the supply's checks bracket what the regulators give") {
    CHECK(kit().check("rail8")->limits.holds(8));
    CHECK(kit().check("rail5")->limits.holds(5));
    CHECK(kit().check("after-d1")->limits.holds(kit().ratings.supply - 0.35));
    CHECK(kit()
              .check("half-rail")
              ->limits.holds(8 * kit().part("R2")->nominal /
                             (kit().part("R1")->nominal + kit().part("R2")->nominal)));
}

TEST_CASE("the dummy load is 50 Ω and the coupler's bridge two arms") {
    const auto read = [](const char* name) {
        return readKitFile(std::string(OMBREK_DATA_FOLDER) + "/demo/" + name + ".kit.json",
                           shippedTables().cores)
            ->kit;
    };
    const Kit load = read("breakwater");
    double siemens = 0;
    for (const char* ref : {"R1", "R2", "R3", "R4"}) siemens += 1 / load.part(ref)->nominal;
    CHECK(load.check("load")->limits.holds(1 / siemens));
    const Kit coupler = read("slack-tide");
    CHECK(coupler.check("bridge")->limits.holds(coupler.part("R1")->nominal + coupler.part("R2")->nominal));
}

TEST_CASE("sender and receiver meet: filter and oscillator add up to the band", "[reference]") {
    // Source: mixing: 16 MHz filter and 5 MHz oscillator give 21 MHz.
    CHECK(kit().adjustment("bfo")->target + kit().adjustment("vfo")->target == Approx(21.0006e6));
    CHECK(kit().ratings.frequency > 21.0e6);
    CHECK(kit().ratings.frequency < 21.1e6);
}
