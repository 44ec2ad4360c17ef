#include <random>

#include "judged/tune_before.h"
#include "judged/tune_next.h"
#include "station/tune/end_stop.h"
#include "station/tune/tune_rounds.h"
#include "station/tune/tune_ways.h"
#include "tune_bench.h"

using namespace ombrek;

namespace {

using Kind = Adjustment::Kind;
using What = BeforeTuning::What;

constexpr std::int64_t kNow = 1800000000;

Adjustment set(const char* id, double target, double tolerance, Unit unit = Unit::hertz) {
    Adjustment out = adjustmentOf(id, Kind::set);
    out.unit = unit;
    out.target = target;
    out.tolerance = tolerance;
    return out;
}

void readAs(TuneBench& bench, const std::string& id, double value, double position, double u = 0) {
    bench.take({0,
                Subject::adjustment(id),
                value,
                bench.kit.adjustment(id)->unit,
                u,
                {{std::string(kPosition), position}},
                "typed",
                0});
}

}  // namespace

TEST_CASE("before an adjustment: what must hold, what must be done, the load, what it rests on, the warmth") {
    TuneBench bench;
    Check rail;
    rail.id = "rail";
    rail.title = "8 V rail";
    rail.limits = {7.6, 8.4};
    bench.kit.checks = {rail};
    Adjustment ref = set("ref", 10e6, 20);
    Adjustment rx = adjustmentOf("rx", Kind::peak);
    rx.needs = {Subject::check("rail")};
    rx.ready = "JP3 closed";
    rx.after = {"ref"};
    rx.warmUp = 10;
    bench.kit.adjustments = {ref, rx};
    const auto before = [&](std::int64_t now) {
        return beforeTuning(Judged(bench.kit, bench.build), *bench.kit.adjustment("rx"), now);
    };
    BeforeTuning b = before(kNow);
    CHECK(b.what == What::check);
    CHECK(b.bars());
    CHECK(b.subject == Subject::check("rail"));
    bench.take({0, Subject::check("rail"), 8.0, Unit::volt, 0, {}, "typed", 0});
    b = before(kNow);
    CHECK(b.what == What::ready);
    CHECK(b.now == "JP3 closed? Enter: yes.");
    CHECK(b.bars());
    bench.build.sittings = {{kNow - 600, kNow}};
    bench.build.gates[wordKept(*bench.kit.adjustment("rx"), b)] = {"on", kNow - 100, ""};
    b = before(kNow);
    CHECK(b.what == What::rests);
    CHECK_FALSE(b.bars());  // knowingly it may be read
    readAs(bench, "ref", 10e6, 0.4);
    b = before(kNow);
    CHECK(b.what == What::cold);
    CHECK(b.asks());
    bench.build.gates[wordKept(*bench.kit.adjustment("rx"), b)] = {"on", kNow - 100, ""};
    b = before(kNow);
    CHECK(b.what == What::warming);
    CHECK(b.minutesLeft == Approx(10 - 100 / 60.0));
    CHECK(before(kNow + 600).clear());
    // Another evening: it is asked again.
    CHECK(before(kNow + 86400).what == What::ready);
}

TEST_CASE("of what transmits the load is asked for, whatever else holds") {
    TuneBench bench;
    Adjustment tx = adjustmentOf("tx", Kind::peak);
    tx.unit = Unit::watt;
    bench.kit.adjustments = {tx};
    const BeforeTuning b = beforeTuning(Judged(bench.kit, bench.build), bench.kit.adjustments[0], kNow);
    CHECK(b.what == What::load);
    CHECK(b.bars());
    CHECK(wordKept(bench.kit.adjustments[0], b) == kLoadOn);
}

TEST_CASE("a value within its limits that the meter cannot prove is not turned at for ever") {
    TuneBench bench;
    bench.kit.adjustments = {set("bfo", 456500, 5), set("vfo", 5e6, 1000)};
    readAs(bench, "bfo", 456470, 0.0, 12);
    readAs(bench, "bfo", 456530, 1.0, 12);
    CHECK_FALSE(bench.state("bfo").meterEnds);
    readAs(bench, "bfo", 456500.4, 0.5, 12);
    const TuneState stands = bench.state("bfo");
    CHECK(stands.state == VerdictState::doubtful);  // not a pass: the meter is off by more than the limits
    CHECK(stands.meterEnds);
    CHECK(stands.nextPosition == 0.5);
    CHECK(stands.sentence.find("as near as this meter tells") != std::string::npos);
    const Judged judged(bench.kit, bench.build);
    CHECK(nextAdjustment(judged)->id == "vfo");  // the way goes on
    readAs(bench, "vfo", 5e6, 0.5);
    CHECK(nextAdjustment(Judged(bench.kit, bench.build))->id == "bfo");  // but it is not forgotten
}

TEST_CASE("a rig that drifts while it is set is followed, not argued with") {
    TuneBench bench;
    bench.kit.adjustments = {set("bfo", 1e6, 5)};
    double position = 0.5;
    int taken = 0;
    TuneState now;
    for (; taken < 40; ++taken) {
        // 200 Hz of travel, and 40 Hz that go while it warms up.
        readAs(bench, "bfo", 1e6 + 200 * (0.45 - position) - 40 * std::exp(-taken / 6.0), position);
        now = bench.state("bfo");
        if (now.state == VerdictState::pass) break;
        position = now.nextPosition;
    }
    CHECK(now.state == VerdictState::pass);
    CHECK(taken <= 20);
}

TEST_CASE("those who back off: proved at the peak, left below it on the side they chose") {
    for (const BackOff way : {BackOff{0.02, true}, BackOff{0.03, false}, BackOff{0.01, true}}) {
        TuneBench bench;
        Adjustment tx = adjustmentOf("tx", Kind::peak);
        tx.unit = Unit::watt;
        bench.kit.adjustments = {tx};
        bench.build.choices[Choice::backOff] = {keptOf(way), 1};
        const auto watts = [](double x) { return 5 / (1 + std::pow((x - 0.43) / 0.06, 2)); };
        double position = 0.5;
        int taken = 0;
        bool proved = false;
        TuneState now;
        for (; taken < 40; ++taken) {
            readAs(bench, "tx", watts(position), position);
            now = bench.state("tx");
            proved = proved || now.sentence.find("The peak is proved") == 0;
            if (now.state == VerdictState::pass) break;
            position = now.nextPosition;
        }
        INFO(keptOf(way) << " at " << position);
        CHECK(now.state == VerdictState::pass);
        CHECK(proved);
        CHECK((position > 0.43) == way.toMore);
        const double fallen = 1 - watts(position) / 5;
        CHECK(fallen > 0.3 * way.share);
        CHECK(fallen < 3.5 * way.share);
        // A receiver is left at its peak by everybody.
        bench.kit.adjustments[0].unit = Unit::volt;
        CHECK(bench.state("tx").sentence.find("backed off") == std::string::npos);
    }
}

TEST_CASE("a bar that shows its most over half the travel cannot tell where the peak is") {
    TuneBench bench;
    Adjustment rx = adjustmentOf("rx", Kind::peak);
    rx.scale = {ReadingScale::Kind::bar, 8, 1};
    bench.kit.adjustments = {rx};
    for (const double x : {0.5, 0.62, 0.38, 0.3, 0.7}) {
        bench.take(
            {0, Subject::adjustment("rx"), 8, Unit::none, 0, {{std::string(kPosition), x}}, "seen", 0});
    }
    CHECK(bench.state("rx").state == VerdictState::cannotTell);
    CHECK(bench.state("rx").sentence.find("weaken the signal") != std::string::npos);
}

TEST_CASE("a lamp is put out by its brightness alone, as on a resistive bridge") {
    TuneBench bench;
    Adjustment c = adjustmentOf("c1", Kind::null);
    c.scale = {ReadingScale::Kind::light, 8, 1};
    bench.kit.adjustments = {c};
    double position = 0.5;
    int taken = 0;
    for (; taken < 40 && bench.state("c1").state != VerdictState::pass; ++taken) {
        const int bright = int(std::lround(5 * std::min(1.0, std::abs(position - 0.34) / 0.4)));
        bench.take({0,
                    Subject::adjustment("c1"),
                    double(bright),
                    Unit::none,
                    0,
                    {{std::string(kPosition), position}},
                    "seen",
                    0});
        position = taken == 0 ? 0.62 : bench.state("c1").nextPosition;
    }
    CHECK(bench.state("c1").state == VerdictState::pass);
    CHECK(std::abs(bench.build.readings.back().setting(kPosition) - 0.34) < 0.05);
}

TEST_CASE("an end stop: turns and the drawers, each with its odds: the wand agrees") {
    TuneBench bench;
    Part trimmer, fixed;
    trimmer.ref = "C10";
    trimmer.kind = PartKind::trimmer;
    trimmer.low = 10e-12;
    trimmer.high = 60e-12;
    fixed.ref = "C11";
    fixed.kind = PartKind::capacitor;
    fixed.unit = Unit::farad;
    fixed.nominal = 100e-12;
    Coil coil;
    coil.ref = "T1";
    coil.windings = {{"main", 30, {}, {}, {}}};
    coil.tune = CoilTune{"C10", {"C11"}, 5e-12, 7.0e6, 7.2e6};
    bench.kit.parts = {trimmer, fixed};
    bench.kit.coils = {coil};
    Adjustment rx = adjustmentOf("rx", Kind::peak);
    rx.coil = "T1";
    rx.adjuster = "C10";
    bench.kit.adjustments = {rx};
    const auto volts = [](double x) { return 1 / std::hypot(1.0, (x - 1.25) / 0.15); };  // beyond its most
    double position = 0.5;
    for (int i = 0; i < 20 && bench.state("rx").state != VerdictState::fail; ++i) {
        bench.read("rx", volts(position), position);
        position = bench.state("rx").nextPosition;
    }
    const TuneState end = bench.state("rx");
    CHECK(end.ended);
    CHECK(end.remedy.find("Add ") == 0);
    StockLine c22;
    c22.kind = PartKind::capacitor;
    c22.unit = Unit::farad;
    c22.value = 33e-12;
    c22.count = 2;
    c22.drawer = "B2";
    StockLine none = c22, big = c22;
    none.count = 0;
    none.drawer = "empty";
    big.value = 1e-9;
    const auto ways = waysFromEndStop(bench.kit, rx, bench.build, end, {none, big, c22});
    REQUIRE(ways.size() == 2);  // turns, and the one capacitor that fits and is there
    CHECK(ways[0].what.find("Add ") == 0);
    CHECK(ways[0].odds > 0.5);
    CHECK(ways[1].what.find("B2") != std::string::npos);
    CHECK(ways[1].odds > 0.5);
    bench.take({0,
                Subject::adjustment("rx"),
                1,
                Unit::none,
                0,
                {{std::string(kPosition), 1.0}, {std::string(kWand), double(Wand::ferrite)}},
                "by ear",
                0});
    CHECK(bench.state("rx").sentence.find("too small") != std::string::npos);
    CHECK(bench.state("rx").ended);  // it is no reading of the meter
    // Its coil is wound anew: it begins again, wands and all.
    bench.build.changes.push_back({Subject::coil("T1"), bench.build.readings.back().id, 1, "wound"});
    CHECK(bench.state("rx").readings.empty());
    CHECK(bench.state("rx").wands.empty());
    CHECK(waysFromEndStop(bench.kit, rx, bench.build, bench.state("rx"), {c22}).empty());
}

TEST_CASE("a bias of three: one that draws nothing takes the pass back") {
    TuneBench bench;
    Adjustment bias = adjustmentOf("bias", Kind::bias);
    bias.unit = Unit::ampere;
    bias.safe = SafeEnd::low;
    bias.target = 0.03;
    bias.tolerance = 0.006;
    bias.never = 0.2;
    bias.volts = 5;
    bias.each = {"Q5", "Q6", "Q7"};
    bench.kit.adjustments = {bias};
    readAs(bench, "bias", 0.040, 0);
    readAs(bench, "bias", 0.040, 0);
    readAs(bench, "bias", 0.071, 0.45);
    CHECK(bench.state("bias").state == VerdictState::pass);
    for (int which = 1; which <= 3; ++which) {
        bench.take({0,
                    Subject::adjustment("bias"),
                    which == 3 ? 0.0705 : 0.055,
                    Unit::ampere,
                    0,
                    {{std::string(kPosition), 0.45}, {std::string(kLifted), double(which)}},
                    "typed",
                    0});
    }
    const TuneState state = bench.state("bias");
    REQUIRE(state.shares);
    CHECK(state.shares->state == VerdictState::fail);
    CHECK(state.state == VerdictState::fail);
    CHECK(state.sentence.find("Q7") == 0);
    CHECK(state.readings.size() == 3);  // what was read with one out is no step of the way
    bench.take(
        {0, Subject::adjustment("bias"), 0.05, Unit::ampere, 0, {{std::string(kLifted), 1e300}}, "typed", 0});
    CHECK(bench.state("bias").shares->each.size() == 3);
}

TEST_CASE(
    "a bias by a menu's numbers is rounded towards its safe end: too coarse steps are not called safe") {
    TuneBench bench;
    Adjustment bias = adjustmentOf("bias", Kind::bias);
    bias.unit = Unit::ampere;
    bias.safe = SafeEnd::low;
    bias.volts = 5;
    bias.never = 0.25;
    bias.turned = {Adjuster::Kind::menu, 0, 0, 63};
    bench.kit.adjustments = {bias};
    readAs(bench, "bias", 0.040, 0);
    readAs(bench, "bias", 0.040, 0);
    CHECK(bench.state("bias").nextPosition == Approx(1.0 / 63));
    bench.kit.adjustments[0].turned = {Adjuster::Kind::jumper, 0, 1, 4};
    CHECK(bench.state("bias").state == VerdictState::cannotTell);
    CHECK(bench.state("bias").nextPosition == 0);
}

TEST_CASE("three IF circuits that pull each other converge in rounds, and each round says what it gained") {
    TuneBench bench;
    bench.kit.adjustments = {adjustmentOf("if3", Kind::peak, {"if2", "if1"}),
                             adjustmentOf("if2", Kind::peak, {"if3", "if1"}),
                             adjustmentOf("if1", Kind::peak, {"if3", "if2"})};
    std::map<std::string, double> stands{{"if3", 0.5}, {"if2", 0.5}, {"if1", 0.5}};
    const std::map<std::string, double> best{{"if3", 0.33}, {"if2", 0.61}, {"if1", 0.45}};
    const auto db = [&] {
        double out = 0;
        for (const auto& [id, at] : stands) {
            double off = at - best.at(id);
            for (const auto& [other, where] : stands)
                if (other != id) off += 0.15 * (where - best.at(other));
            out -= 10 * std::log10(1 + std::pow(off / 0.1, 2));
        }
        return out;
    };
    int taken = 0;
    for (; taken < 120; ++taken) {
        const Adjustment* next = nextAdjustment(Judged(bench.kit, bench.build));
        if (next == nullptr) break;
        stands[next->id] = bench.state(next->id).nextPosition;
        bench.read(next->id, std::pow(10, db() / 20), stands[next->id]);
    }
    CHECK(taken < 120);
    CHECK(db() > -0.3);
    const auto rounds = roundsOf(bench.build, partnersOf(bench.kit, bench.kit.adjustments[0]));
    REQUIRE(rounds.size() >= 2);
    CHECK(rounds[1].gained > 0);
    CHECK(rounds.back().moved < rounds[1].moved + 1e-9);
    CHECK(roundSentence(rounds, 1).find("Round 2 gained") == 0);
    CHECK(roundSentence(rounds, 0) == "Round 1: the first.");
    WARN("three IF circuits: " << taken << " readings in " << rounds.size() << " rounds");
}

TEST_CASE("band ends by coil and trimmer go to and fro until neither moves the other (any radio text)") {
    TuneBench bench;
    Adjustment low = set("low", 7.000e6, 1500), high = set("high", 7.200e6, 1500);
    low.kind = high.kind = Kind::range;
    low.partners = {"high"};
    bench.kit.adjustments = {low, high};
    std::map<std::string, double> stands{{"low", 0.5}, {"high", 0.5}};
    const auto hertz = [&](const std::string& id) {
        const double coil = stands["low"] - 0.38, trimmer = stands["high"] - 0.66;
        return id == "low" ? 7.000e6 * (1 - 0.06 * coil - 0.025 * trimmer)
                           : 7.200e6 * (1 - 0.025 * coil - 0.06 * trimmer);
    };
    int taken = 0;
    for (; taken < 80; ++taken) {
        const Adjustment* next = nextAdjustment(Judged(bench.kit, bench.build));
        if (next == nullptr) break;
        stands[next->id] = bench.state(next->id).nextPosition;
        readAs(bench, next->id, hertz(next->id), stands[next->id]);
    }
    CHECK(taken < 80);
    const double atLow = hertz("low"), atHigh = hertz("high");
    // Both at once within their tolerance.
    CHECK(std::abs(atLow - 7.000e6) < 1500);
    CHECK(std::abs(atHigh - 7.200e6) < 1500);
    WARN("band ends: " << taken << " readings, off by " << atLow - 7e6 << " and " << atHigh - 7.2e6 << " Hz");
}
