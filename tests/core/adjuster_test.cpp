#include <catch2/catch.hpp>
#include <cmath>

#include "core/adjust/adjuster.h"
#include "core/adjust/scale.h"
#include "core/adjust/seen.h"
#include "core/adjust/wand.h"
#include "core/coil/in_reach.h"
#include "core/quantity/quantity.h"

using namespace ombrek;

TEST_CASE("positions are told and read in what the builder sees") {
    const Adjuster trimmer, helipot{Adjuster::Kind::pot, 25, 0, 0}, pot{Adjuster::Kind::pot, 0, 0, 0};
    const Adjuster jumper{Adjuster::Kind::jumper, 0, 1, 4}, menu{Adjuster::Kind::menu, 0, 0, 1023};
    CHECK(positionText(trimmer, 0.573) == "57.3\u202f%");
    CHECK(positionText(helipot, 0.18) == "4.50\u202fturns");
    CHECK(positionText(jumper, 1.0 / 3) == "step 2");
    CHECK(positionText(menu, 0.5) == "512");
    // A trimmer goes from least at nine to most at three, a pot from seven to five.
    CHECK(hourText(trimmer, 0) == "9:00");
    CHECK(hourText(trimmer, 0.5) == "12:00");
    CHECK(hourText(trimmer, 1) == "3:00");
    CHECK(hourText(pot, 0) == "7:00");
    CHECK(hourText(pot, 1) == "5:00");
    CHECK(hourText(helipot, 0.5).empty());
    CHECK(*readPosition(trimmer, "57.3") == Approx(0.573));
    CHECK(*readPosition(trimmer, "57,3 %") == Approx(0.573));
    CHECK(*readPosition(helipot, "4.5 turns") == Approx(0.18));
    CHECK(*readPosition(helipot, "18 %") == Approx(0.18));
    CHECK(*readPosition(menu, "412") == Approx(412.0 / 1023));
    CHECK(standable(jumper, 0.4) == Approx(1.0 / 3));
    for (const char* bad : {"", "x", "-1", "101", "nan", "1e999", "4k7"})
        CHECK_FALSE(readPosition(trimmer, bad).has_value());
    CHECK_FALSE(readPosition(helipot, "26").has_value());
    CHECK_FALSE(readPosition(menu, "1024").has_value());
    CHECK(standable(trimmer, NAN) == 0.5);
}

TEST_CASE("a digit beside a bar and its blocks are one scale: the full last range is the most it can show") {
    const ReadingScale bar{ReadingScale::Kind::bar, 8, 3}, plain{ReadingScale::Kind::bar, 8, 1};
    const ReadingScale s{ReadingScale::Kind::sMeter, 8, 1}, light{ReadingScale::Kind::light, 8, 1};
    const auto rank = [](const ReadingScale& scale, const char* text) { return readMark(scale, text)->rank; };
    CHECK(rank(bar, "1 8") < rank(bar, "2 0"));
    CHECK(rank(bar, "2:5") == rank(bar, "2 5"));
    CHECK(markText(bar, rank(bar, "2 5")) == "range 2, 5 of 8");
    CHECK(readMark(bar, "3 8")->full);
    CHECK_FALSE(readMark(bar, "2 8")->full);
    CHECK(rank(plain, "5") == 5);
    CHECK(rank(s, "S7") == 7);
    CHECK(rank(s, "9+20") > rank(s, "9"));
    CHECK(markText(s, rank(s, "s9+20 dB")) == "S9+20");
    CHECK(rank(light, "dim") < rank(light, "bright"));
    CHECK(rank(light, "5") == rank(light, "Full"));
    for (const char* bad : {"", "9", "4 2", "1 9", "-1", "two", "1 2 3", "1.5 2"})
        CHECK_FALSE(readMark(bar, bad).has_value());
    for (const char* bad : {"12", "8+10", "9+90", "loud"}) CHECK_FALSE(readMark(s, bad).has_value());
}

TEST_CASE("a peak is found from the marks of a bar of eight blocks alone") {
    // Any scale that rises with the level will do: here the root of the power in three ranges.
    for (const double peak : {0.22, 0.41, 0.5, 0.63, 0.78}) {
        std::vector<MarkPoint> marks;
        double position = 0.5;
        PeakEstimate out;
        int readings = 0;
        for (; readings < 60; ++readings) {
            const double level = 1 / std::hypot(1.0, (position - peak) / 0.08);
            const int range = level > 0.5 ? 3 : level > 0.25 ? 2 : 1;
            const int blocks = int(std::lround(7.6 * level * std::pow(2.0, 3 - range)));
            marks.push_back({position, double((range - 1) * 9 + blocks)});
            out = peakByEar(comparisons(marks), {true, false});
            if (out.state == VerdictState::pass || out.state == VerdictState::fail) break;
            position = marks.size() == 1 ? 0.62 : out.nextPosition;
        }
        INFO(peak << " after " << readings);
        CHECK(out.state == VerdictState::pass);
        const double off = (position - peak) / 0.08;
        CHECK(10 * std::log10(1 + off * off) <= 0.3);
    }
}

TEST_CASE("contrast: seen or not, until it is: nowhere is another fault") {
    CHECK(seekSeen({}).nextPosition == 0.5);
    for (const double window : {0.02, 0.3, 0.62, 0.97}) {
        std::vector<SeenPoint> looked;
        PeakEstimate out;
        double position = 0.5;
        while (looked.size() < 50 && out.state != VerdictState::pass) {
            looked.push_back({position, std::abs(position - window) < 0.04});
            out = seekSeen(looked);
            position = out.nextPosition;
        }
        CHECK(out.state == VerdictState::pass);
        CHECK(looked.size() <= 32);
    }
    std::vector<SeenPoint> nowhere;
    PeakEstimate out = seekSeen(nowhere);
    while (nowhere.size() < 60 && out.state != VerdictState::fail) {
        nowhere.push_back({out.nextPosition, false});
        out = seekSeen(nowhere);
    }
    CHECK(out.state == VerdictState::fail);
    CHECK(nowhere.size() < 45);
    const PeakEstimate back = seekSeen({{0.5, true}, {0.7, false}});
    CHECK(back.state == VerdictState::doubtful);
    CHECK(back.nextPosition == 0.5);
}

TEST_CASE("finger, ferrite and brass near a coil say which way it is off (common practice)") {
    const auto test = [](const char* text) { return *readWand(text); };
    CHECK(*wandsSay({test("ferrite louder")}) == 1);
    CHECK(*wandsSay({test("finger: louder"), test("brass softer")}) == 1);
    CHECK(*wandsSay({test("brass louder")}) == -1);
    CHECK(*wandsSay({test("ferrite softer"), test("brass softer")}) == 0);
    // One that only made it softer leaves the peak and the other side open.
    CHECK_FALSE(wandsSay({test("ferrite softer")}).has_value());
    CHECK_FALSE(wandsSay({test("ferrite louder"), test("brass louder")}).has_value());
    CHECK_FALSE(wandsSay({}).has_value());
    for (const char* bad :
         {"", "louder", "ferrite", "ferrite louder softer", "ferrite brass louder", "glass louder"})
        CHECK_FALSE(readWand(bad).has_value());
}

TEST_CASE("the odds that a trimmer is in reach after turns or a capacitor, against Thomson's formula") {
    const TankCapacitance tank{100e-12, 5e-12, 10e-12, 60e-12};
    // 190 pF would resonate: 25 pF more than the trimmer has.
    const PeakBelief beyond{(190e-12 - 115e-12) / 50e-12, 0.1};
    CHECK(reachOdds(beyond) < 0.01);
    // A ninth more of the inductance brings it to 171 pF, a quarter more to 152.
    CHECK(changed(beyond, tank, {190.0 / 171, 0}).position == Approx((171 - 115) / 50.0));
    CHECK(reachOdds(changed(beyond, tank, {1.25, 0})) > 0.95);
    CHECK(changed(beyond, tank, {1, 47e-12}).position == Approx((143 - 115) / 50.0));
    CHECK(reachOdds(changed(beyond, tank, {1, 47e-12})) > 0.95);
    CHECK(reachOdds(changed(beyond, tank, {1, 100e-12})) < 0.05);
    CHECK(changed(beyond, tank, {0, 0}).position == beyond.position);  // no such coil: as it was
}
