#include "station/tune/tune_order.h"
#include "station/tune/tune_ways.h"
#include "tune_bench.h"

using namespace ombrek;

namespace {

using Kind = Adjustment::Kind;

Adjustment made(const char* id, Kind kind, Unit unit, const char* title, const char* adjuster = "C1") {
    Adjustment out = adjustmentOf(id, kind);
    out.title = title;
    out.unit = unit;
    out.adjuster = adjuster;
    return out;
}

std::vector<std::string> idsOf(const std::vector<TuneTurn>& order) {
    std::vector<std::string> out;
    for (const TuneTurn& turn : order) out.push_back(turn.adjustment->id);
    return out;
}

/// As a manual without an order might list them, from its parts list.
Kit jumbled() {
    Kit kit;
    kit.adjustments = {made("tx", Kind::peak, Unit::watt, "Transmit band-pass to maximum power"),
                       made("bias", Kind::bias, Unit::ampere, "Bias of the finals"),
                       made("rx", Kind::peak, Unit::volt, "Receive band-pass to maximum"),
                       made("if1", Kind::peak, Unit::volt, "IF transformer, first", "T3"),
                       made("offset", Kind::set, Unit::hertz, "Transmit offset"),
                       made("driver", Kind::peak, Unit::volt, "Driver tank to maximum"),
                       made("vfo", Kind::set, Unit::hertz, "Lower end of the dial"),
                       made("bfo", Kind::set, Unit::hertz, "Set the BFO"),
                       made("if2", Kind::peak, Unit::volt, "IF transformer, last", "T5"),
                       made("clock", Kind::set, Unit::hertz, "Master clock"),
                       made("phase", Kind::null, Unit::volt, "Phase to a null"),
                       made("contrast", Kind::contrast, Unit::none, "Contrast")};
    return kit;
}

}  // namespace

TEST_CASE("the common order: seen first, then what all is read against, power last (common practice)") {
    const Kit kit = jumbled();
    const auto order = tuningOrder(kit, true);
    CHECK(idsOf(order) == std::vector<std::string>{"contrast", "clock", "bfo", "vfo", "if2", "if1", "rx",
                                                   "phase", "offset", "driver", "bias", "tx"});
    for (const TuneTurn& turn : order) CHECK_FALSE(turn.reason.empty());
    // As listed nothing is moved, and nothing is claimed.
    CHECK(idsOf(tuningOrder(kit, false)).front() == "tx");
    CHECK(tuningOrder(kit, false).front().reason.empty());
}

TEST_CASE("what one rests on comes before it in either order, and a ring is taken as listed") {
    Kit kit = jumbled();
    kit.adjustments[0].after = {"rx"};
    kit.adjustments[2].after = {"vfo"};
    const auto listed = idsOf(tuningOrder(kit, false));
    const auto at = [&](const char* id) {
        return std::find(listed.begin(), listed.end(), id) - listed.begin();
    };
    CHECK(at("vfo") < at("rx"));
    CHECK(at("rx") < at("tx"));
    kit.adjustments[6].after = {"tx"};  // a ring
    CHECK(tuningOrder(kit, false).size() == kit.adjustments.size());
    kit.adjustments[6].after = {"nobody"};
    CHECK(tuningOrder(kit, true).size() == kit.adjustments.size());
}

TEST_CASE("a rig of several bands is tuned band by band, its bias once before any power") {
    Kit kit;
    for (const char* band : {"80 m", "40 m"}) {
        for (auto& [id, kind, unit, title] : std::vector<std::tuple<std::string, Kind, Unit, const char*>>{
                 {"rx", Kind::peak, Unit::volt, "Receive band-pass"},
                 {"tx", Kind::peak, Unit::watt, "Transmit band-pass, power"}}) {
            Adjustment a = made("x", kind, unit, title);
            a.id = id + std::string(band);
            a.band = band;
            kit.adjustments.push_back(std::move(a));
        }
    }
    kit.adjustments.push_back(made("bias", Kind::set, Unit::ampere, "Quiescent current"));
    kit.adjustments.push_back(made("bfo", Kind::set, Unit::hertz, "Carrier oscillator"));
    CHECK(idsOf(tuningOrder(kit, true)) ==
          std::vector<std::string>{"bfo", "rx80 m", "rx40 m", "bias", "tx80 m", "tx40 m"});
}

TEST_CASE("a word inside another does not move an adjustment") {
    Kit kit;
    kit.adjustments = {made("a", Kind::peak, Unit::volt, "Shift register clock filter of the amplifier"),
                       made("b", Kind::peak, Unit::volt, "Lifted collector to maximum")};
    const auto order = tuningOrder(kit, true);  // "lIFted" is no IF, "bIAS" none
    CHECK(order.back().adjustment->id == "a");  // its "shift" is an offset's word
    CHECK(order.front().adjustment->id == "b");
}

TEST_CASE("what the builder chose is kept as a word, and read again") {
    CHECK(readBackOff("2")->share == Approx(0.02));
    CHECK(readBackOff("-1,5 %")->share == Approx(0.015));
    CHECK_FALSE(readBackOff("-1.5")->toMore);
    CHECK(readBackOff("0")->share == 0);
    for (const char* bad : {"", "x", "7", "-6 %", "nan", "1e99"}) CHECK_FALSE(readBackOff(bad).has_value());
    Build build;
    CHECK(backOffOf(build).share == 0);
    for (const BackOff way : {BackOff{0.02, true}, BackOff{0.015, false}, BackOff{0, true}}) {
        build.choices[Choice::backOff] = {keptOf(way), 1};
        CHECK(backOffOf(build).share == Approx(way.share));
        CHECK(backOffOf(build).toMore == way.toMore);
    }
    CHECK(wordOf(BackOff{0.02, false}) == "backed off 2\u202f% towards less");
    build.choices[Choice::backOff] = {"as you like", 1};
    CHECK(backOffOf(build).share == 0);
    CHECK_FALSE(commonOrder(build));
    build.choices[Choice::tuningOrder] = {kCommonOrder, 1};
    CHECK(commonOrder(build));
}
