#include "station/rebuild.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "core/circuit/prototype.h"
#include "core/coil/tank.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/tables.h"

using namespace ombrek;

namespace {

const Tables& tables() {
    static const Tables all = readTables(dataFolder()).value();
    return all;
}

KitFile lantern() { return readKitFile(dataFolder() / "demo/lantern-15.kit.json", tables().cores).value(); }

double lossAt(const std::vector<LadderElement>& ladder, double frequency) {
    return insertionLoss(ladder, frequency, 50);
}

}  // namespace

TEST_CASE("prototype values of the handbook") {
    // Source: Matthaei, Young & Jones 1964, Chebyshev 0.1 dB n = 7 and 0.01 dB n = 5.
    const std::vector<double> seven{1.1812, 1.4228, 2.0967, 1.5734, 2.0967, 1.4228, 1.1812},
        five{0.7563, 1.3049, 1.5773, 1.3049, 0.7563};
    const auto a = chebyshev(7, 0.1), b = chebyshev(5, 0.01);
    for (std::size_t i = 0; i < 7; ++i) CHECK(a[i] == Approx(seven[i]).margin(1e-4));
    for (std::size_t i = 0; i < 5; ++i) CHECK(b[i] == Approx(five[i]).margin(1e-4));
    CHECK_THROWS(chebyshev(4, 0.1));
}

TEST_CASE("a low-pass for another band keeps its shape") {
    const KitFile file = lantern();
    const auto rebuilt = rebuild(file.kit, {3.5e6, 3.8e6}, tables().cores);
    REQUIRE(rebuilt);
    REQUIRE(rebuilt->after.size() == file.kit.lowPass.size());
    const double scale = 3.8e6 / rebuilt->from.high;
    for (std::size_t i = 0; i < rebuilt->after.size(); ++i) {
        // A frequency-scaled network has its elements divided by the ratio; E24 and whole turns leave some
        // per cent.
        CHECK(rebuilt->after[i].value == Approx(rebuilt->before[i].value / scale).epsilon(0.05));
    }
    CHECK(lossAt(rebuilt->after, 3.65e6) < 0.5);
    // Twice the upper end as far down as it was on the kit's own band, within what snapping does; twice the
    // lower end of a wide band lies nearer, and that is said.
    CHECK(lossAt(rebuilt->after, 2 * 3.8e6) > lossAt(rebuilt->before, 2 * rebuilt->from.high) - 3);
    CHECK(std::any_of(rebuilt->again.begin(), rebuilt->again.end(), [](const std::string& sentence) {
        return sentence.find("twice the band's lower end") != std::string::npos;
    }));
    for (const Rewound& coil : rebuilt->coils) {
        CAPTURE(coil.ref);
        CHECK(coil.turnsAfter.front() > 0);
        CHECK((std::fabs(coil.after / coil.wanted - 1) < 0.02 || !coil.note.empty()));
    }
    CHECK_FALSE(rebuilt->again.empty());
}

TEST_CASE("the tuned circuits reach the new band, and the whole becomes a kit") {
    const KitFile file = lantern();
    const auto rebuilt = rebuild(file.kit, {7.0e6, 7.2e6}, tables().cores);
    REQUIRE(rebuilt);
    const auto kit = readKit(withBand(file.text, *rebuilt), tables().cores);
    REQUIRE(kit);
    const Coil* coil = kit->coil("T1");
    REQUIRE(coil);
    CHECK(coil->tune->high == Approx(7.2e6));
    CHECK(trimmerCover(rebuilt->coil("T1")->after, coil->windings.front().turns, tankOf(*kit, *coil->tune),
                       7.0e6, 7.2e6)
              .state == VerdictState::pass);
    // The oscillator is not on the band: it stays.
    CHECK(kit->coil("L1")->target == file.kit.coil("L1")->target);
    CHECK(kit->coil("T1")->windings[1].turns >= 1);
}

TEST_CASE("what cannot be rebuilt is said") {
    const KitFile file = lantern();
    CHECK_FALSE(rebuild(file.kit, {7e6, 30e6}, tables().cores));
    CHECK_FALSE(rebuild(file.kit, {0, 0}, tables().cores));
    CHECK_FALSE(rebuild(file.kit, {NAN, 7e6}, tables().cores));
    CHECK_FALSE(rebuild(Kit{}, {7e6, 7.2e6}, tables().cores));
    const auto prototype = rebuild(file.kit, {7e6, 7.3e6}, tables().cores, true);
    REQUIRE(prototype);
    CHECK(lossAt(prototype->after, 7.15e6) < 0.6);
}

TEST_CASE("without a known low-pass no transmitter is made for another band, and a line makes it known") {
    KitFile file = lantern();
    const auto whole = file.kit.lowPass;
    file.kit.lowPass.clear();
    const auto barred = rebuild(file.kit, {3.5e6, 3.8e6}, tables().cores);
    REQUIRE(barred);
    CHECK(barred->barred.find("Do not transmit") != std::string::npos);
    REQUIRE_FALSE(barred->doubts.empty());
    CHECK(barred->doubts.front() == barred->barred);
    // What never goes on the air by itself has none.
    file.kit.ratings.air = Ratings::Air::no;
    CHECK(rebuild(file.kit, {3.5e6, 3.8e6}, tables().cores)->barred.empty());

    std::string line;
    for (const FilterElement& e : whole) line += (line.empty() ? "" : ", ") + e.ref;
    const auto read = lowPassLine(file.kit, line);
    REQUIRE(read);
    REQUIRE(read->size() == whole.size());
    for (std::size_t i = 0; i < whole.size(); ++i) {
        CHECK((*read)[i].ref == whole[i].ref);
        CHECK((*read)[i].series == whole[i].series);
    }
    const auto kit = readKit(withLowPass(file.text, *read), tables().cores);
    REQUIRE(kit);
    CHECK(rebuild(*kit, {3.5e6, 3.8e6}, tables().cores)->barred.empty());
    for (const char* wrong : {"", "C99 L1", "one line", "R1 C1"}) CHECK_FALSE(lowPassLine(file.kit, wrong));
    CHECK_FALSE(lowPassLine(file.kit, whole[0].ref + " " + whole[0].ref));
}
