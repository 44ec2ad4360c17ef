#include "station/winding/coil_figures.h"

#include <catch2/catch.hpp>
#include <cmath>

#include "bench_fixture.h"
#include "core/coil/loss.h"
#include "core/coil/winding.h"
#include "station/winding/reel.h"
#include "station/winding/winding.h"

using namespace ombrek;

namespace {

const std::vector<MagneticCore>& cores() { return shippedTables().cores; }

CoilIdea idea(std::string_view text) {
    CoilIdea plain;
    plain.wire = parseWire("28AWG").value();
    plain.wireText = "28AWG";
    return changedIdea(plain, text, cores()).value();
}

const CoilFigures::Line* line(const CoilFigures& figures, const std::string& name) {
    for (const auto& l : figures.lines) {
        if (l.name.starts_with(name)) return &l;
    }
    return nullptr;
}

}  // namespace

TEST_CASE("what if: words in any order change the coil", "[coil figures]") {
    const CoilIdea a = idea("T50-6 26 26AWG 5M 3W 75ohm"), b = idea("75ohm 3W 26 5M T50-6 26AWG");
    CHECK(a.turns == 26);
    CHECK(a.frequency == 5e6);
    CHECK(a.power == 3);
    CHECK(a.ohms == 75);
    CHECK(figuresOf(a).inductance == figuresOf(b).inductance);
    // An air coil on one former of one wire, in any order of the words.
    CHECK(figuresOf(idea("1mm air 8mm 12mm 9")).inductance ==
          figuresOf(idea("air 8mm 12mm 9 1mm")).inductance);
    CHECK(figuresOf(idea("air 8mm 12mm 9 1mm")).inductance != figuresOf(idea("air 8mm 12mm 9")).inductance);
    // 24 turns at 4.9 nH: 2.82 µH; a target alone sets the turns (L = AL·N², definition of AL).
    CHECK(idea("T68-2 1u").turns == turnsFor(idea("T68-2 1u").core, 1e-6));
    for (const char* bad :
         {"T50-99", "0", "501", "-3", "3parsec", "air", "air 8 9", "air 8mm", "1e9ohm", "\x01"})
        CHECK_FALSE(changedIdea(a, bad, cores()));
}

TEST_CASE("what if, on a ring of one's own", "[coil figures]") {
    // The T50-2 of the core table said in words: the same coil.
    const MagneticCore& table = *shippedTables().core("T50-2");
    const CoilIdea own = idea("AL4.9n 12.7x7.7x4.83 24 5M 3W"), same = idea("T50-2 24 5M 3W");
    CHECK(table.al == Approx(own.core.al));
    CHECK(figuresOf(own).inductance == Approx(figuresOf(same).inductance));
    CHECK(line(figuresOf(own), "Neatly")->value == line(figuresOf(same), "Neatly")->value);
    CHECK(line(figuresOf(own), "Drift") == nullptr);  // only the table knew its temperature coefficient
    CHECK(idea("AL4.9n 12.7x7.7x4.83 1u").turns == idea("T50-2 1u").turns);
    CHECK(idea("T50-2 AL10n 10").core.al == Approx(1e-8));
    const auto half = changedIdea(idea("air 8mm 12mm"), "AL4.9n", cores());
    REQUIRE_FALSE(half);
    CHECK(half.error().sentence.find("size in mm") != std::string::npos);
}

TEST_CASE("an air-core coil follows Wheeler's formula and says where that ends", "[coil figures]") {
    // Source: H. A. Wheeler 1928, r²N²/(9r + 10l), inches: 10 turns, radius ½ in, length 1 in: 1.724 µH.
    CoilIdea wheeler = idea("air 10mm 25.4mm 10");
    wheeler.airRadius = 0.0127;
    CHECK(figuresOf(wheeler).inductance == Approx(1e-6 * 0.25 * 100 / (4.5 + 10)).epsilon(1e-3));
    CHECK(figuresOf(idea("air 20mm 5mm 4")).sentence.find("formula") != std::string::npos);
    CHECK(figuresOf(idea("air 8mm 3mm 30")).sentence.find("side by side") != std::string::npos);
}

TEST_CASE("flux, room and drift carry their verdict", "[coil figures]") {
    const CoilFigures small = figuresOf(idea("T37-6 3 7M 100W")), large = figuresOf(idea("T68-2 20 7M 1W"));
    CHECK(line(small, "Flux")->state == VerdictState::fail);
    CHECK(line(large, "Flux")->state == VerdictState::pass);
    CHECK(line(figuresOf(idea("T37-6 60 7M")), "Neatly")->state == VerdictState::fail);
    CHECK(figuresOf(idea("T37-6 4 4.5mm")).sentence == "This wire does not pass the hole.");
    CHECK(line(figuresOf(idea("T50-6 26 5M")), "Drift") != nullptr);
    CHECK(line(figuresOf(idea("air 8mm 12mm 10 5M")), "Drift") == nullptr);
}

TEST_CASE("the reels in the drawers are held against the cut list", "[reel]") {
    CutList list;
    list.totals = {{"28AWG", 2.9}, {"26AWG", 2.4}, {"0.5mm", 1}};
    const auto of = [](const char* what) {
        StockLine line;
        line.drawer = "W1";
        line.what = what;
        line.count = 1;
        return line;
    };
    const auto use = reelUse(list, {of("enamelled wire 28AWG, 12 m"), of("wire, 26 AWG 2m"), of("wire 24AWG"),
                                    of("hookup, 0.5 mm 9 m"), of("28AWG 7 m"), of("28AWG cable, 70 m"),
                                    of("choke wired with 28AWG, 3 m")});
    REQUIRE(use.size() == 3);
    for (const ReelUse& u : use) {
        if (u.wire == "28AWG") CHECK(u.atHand == 12);
        if (u.wire == "28AWG") CHECK(u.state == VerdictState::pass);
        if (u.wire == "26AWG") CHECK(u.state == VerdictState::fail);
        if (u.wire == "26AWG") CHECK(u.sentence.find("short") != std::string::npos);
        if (u.wire == "0.5mm") CHECK(u.state == VerdictState::notDone);
    }
}

TEST_CASE("what if: random words are understood or refused, and what is understood has sane figures",
          "[coil figures]") {
    std::uint64_t state = 12345;
    const auto below = [&](std::size_t n) {
        state = state * 6364136223846793005ULL + 1442695040888963407ULL;
        return std::size_t((state >> 33) % n);
    };
    const std::vector<std::string> words{"T50-6", "FT37-43", "air 8mm 12mm", "air",  "12",  "0",  "999",
                                         "28AWG", "0.3mm",   "2.7u",         "1n",   "7M",  "3W", "1k",
                                         "50ohm", "-1",      "nan",          "1e99", "µ",   "%",  "T",
                                         "mm",    "W",       "1H",           "5W5W", "\xff"};
    const CoilIdea start = idea("T50-6 20 7M 3W");
    int understood = 0;
    for (int round = 0; round < 3000; ++round) {
        std::string text;
        for (std::size_t i = 0; i <= below(4); ++i) text += words[below(words.size())] + " ";
        const auto changed = changedIdea(start, text, cores());
        if (!changed) {
            REQUIRE_FALSE(changed.error().sentence.empty());
            continue;
        }
        ++understood;
        INFO(text);
        const CoilFigures figures = figuresOf(*changed);
        REQUIRE(changed->turns >= 1);
        REQUIRE(changed->turns <= 500);
        REQUIRE(std::isfinite(figures.inductance));
        REQUIRE(figures.inductance > 0);
        REQUIRE(figures.low < figures.high);
        REQUIRE_FALSE(figures.sentence.empty());
    }
    CHECK(understood > 300);
}

TEST_CASE("an air-core coil takes the wire of a helix", "[coil figures]") {
    // Source: length of a helix, N·√((2πr)² + (l/N)²), r to the middle of the wire.
    CoilIdea helix = idea("air 8mm 12mm 10 7M");
    helix.airRadius = 5e-3;
    const double wire = 10 * std::hypot(2 * 3.14159265 * 5e-3, 1.2e-3);
    CHECK(line(figuresOf(helix), "Wire without tails")->value == formatQuantity(wire, Unit::metre, 3));
    helix.airLength = 0.2;  // stretched, so that the length counts
    const double stretched = 10 * std::hypot(2 * 3.14159265 * 5e-3, 0.02);
    CHECK(line(figuresOf(helix), "Wire without tails")->value == formatQuantity(stretched, Unit::metre, 3));
}

TEST_CASE("what if: the largest and smallest that are taken", "[coil figures]") {
    const CoilIdea a = idea("T50-6 26");
    CHECK(idea("T50-6 500").turns == 500);
    CHECK(idea("T50-6 1").turns == 1);
    CHECK(changedIdea(a, "air 0.9m 1.9m", cores()));
    for (const char* bad : {"501", "0", "air 1m 12mm", "air 8mm 2m", "air 0.1mm 12mm", "air 8mm 0.1mm"})
        CHECK_FALSE(changedIdea(a, bad, cores()));
}

TEST_CASE("a core has to carry the power where its coil does", "[coil figures]") {
    // Source: P = U²/R. The transmit coil is tuned for power, L2 is in the low-pass, T1 only receives.
    const Kit& kit = practiceKit().kit;
    const double volts = std::sqrt(kit.ratings.power * kit.ratings.ohms);
    CHECK(dutyOf(kit, *kit.coil("T2")).volts == Approx(volts));
    CHECK(dutyOf(kit, *kit.coil("L2")).volts == Approx(volts));
    CHECK(dutyOf(kit, *kit.coil("T1")).volts == 0);
    Kit silent = kit;
    silent.ratings.power = 0;
    CHECK(dutyOf(silent, *silent.coil("L2")).volts == 0);
}

TEST_CASE("turns lie on the ring wire against wire", "[coil figures]") {
    // Source: so many as fit go once round. A winding without pads lies from 210° on, to its share of 330°.
    Kit kit = practiceKit().kit;
    Coil coil = *kit.coil("L1");
    coil.windings.resize(1);
    coil.windings[0].start.reset();
    coil.windings[0].finish.reset();
    coil.windings[0].turns = turnsThatFit(coil.core, coil.wire) / 2;
    CHECK_FALSE(layOf(kit, coil).front().crowded);
    coil.windings[0].turns = turnsThatFit(coil.core, coil.wire) + 1;
    CHECK(layOf(kit, coil).front().crowded);
}

TEST_CASE("a coil's figures begin with what the kit says of it", "[coil figures]") {
    const Kit& kit = practiceKit().kit;
    const Coil& tuned = *kit.coil("T1");
    CHECK(ideaOf(kit, tuned).frequency == Approx(std::sqrt(tuned.tune->low * tuned.tune->high)));
    const Coil& filter = *kit.coil("L2");
    CHECK(ideaOf(kit, filter).frequency == kit.ratings.frequency);
    CHECK(ideaOf(kit, filter).ohms == kit.ratings.ohms);
    CHECK(ideaOf(kit, filter).power == kit.ratings.power);
    CHECK(ideaOf(kit, filter).turns == filter.windings.front().turns);
}

TEST_CASE("windings are told apart by resistance where a hand meter can, else by inductance") {
    Coil coil;
    coil.core.al = 350e-9;
    coil.core.outerDiameter = 9.52e-3, coil.core.innerDiameter = 4.75e-3, coil.core.height = 3.17e-3;
    coil.wire = enamelledWire(0.1e-3);
    coil.windings = {{"primary", 20, {}, {}, {}}, {"secondary", 5, {}, {}, {}}};
    // 0.1 mm copper has 2.195 Ω/m (1.7241e-8 Ω·m over its section, IEC 60028): 20 turns of about 12.6 mm and
    // two tails of 30 mm are 0.31 m and near 0.67 Ω (shown in milliohms).
    CHECK(toldApart(coil).find("by resistance: primary 6") != std::string::npos);
    coil.wire = enamelledWire(0.5e-3);
    const std::string told = toldApart(coil);
    CHECK(told.find("by inductance: primary 140") != std::string::npos);  // 400 · 350 nH
    coil.windings[1].turns = 20;
    CHECK(toldApart(coil).empty());
    coil.windings.pop_back();
    CHECK(toldApart(coil).empty());
}
