#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>

#include "bench_fixture.h"
#include "book/book.h"
#include "folder.h"
#include "formats/next_builder.h"
#include "judged/judged.h"
#include "judged/licence.h"
#include "judged/not_measured.h"
#include "judged/on_air.h"
#include "judged/repair.h"
#include "judged/rig_card.h"
#include "judged/sign_off.h"
#include "station/rests_on.h"

using namespace ombrek;

namespace {

const Kit& rig() { return provingKit().kit; }  // three bands
const LimitProfile& limit() { return shippedTables().profile(""); }

void read(Build& build, const Subject& subject, double value, Unit unit, double uncertainty,
          Settings settings = {}, const std::string& method = "typed") {
    build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit, uncertainty,
                              std::move(settings), method, std::int64_t(1000 + build.readings.size())});
}

/// A power read by a power meter behind 30 dB.
void readPower(Build& build, const std::string& band, double watts) {
    read(build, Subject::power(band), 10 * std::log10(watts * 1000) - 30, Unit::dbm, 0.2,
         {{"attenuation", 30}, {std::string(kSupply), 13.8}}, "attenuator");
}

const Evidence& evidence(const Readiness& ready, const std::string& gate, const std::string& what) {
    for (const Gate& g : ready.gates) {
        if (g.id != gate) continue;
        for (const Evidence& e : g.evidence) {
            if (e.what == what) return e;
        }
    }
    throw std::runtime_error("no evidence " + what);
}
const Gate& gateOf(const Readiness& ready, const std::string& id) {
    for (const Gate& g : ready.gates) {
        if (g.id == id) return g;
    }
    throw std::runtime_error("no gate " + id);
}

/// The builder's word on one evidence as it stands.
void accept(Build& build, const Readiness& ready, const std::string& gate, const std::string& what,
            const std::string& forbids = "") {
    const Evidence& e = evidence(ready, gate, what);
    build.gates[evidenceGate(gate, e)] = {"lived with", 0, basisOf({e}), forbids};
}

FitFor fitness(const Judged& judged, const std::string& what) {
    for (const FitFor& f : fitFor(judged)) {
        if (f.what == what) return f;
    }
    throw std::runtime_error("no use " + what);
}

}  // namespace

TEST_CASE("a gate lists what it rests on, with value, uncertainty, meter and day, band by band") {
    Build build;
    readPower(build, "40m", 4.1);
    build.readings.back().meter = "the power meter";
    build.readings.back().sheet = "0.2 dB";
    const Judged judged(rig(), build, limit());
    const Evidence& e = evidence(judged.readiness(), "power", "Power at the rated supply, 40m");
    CHECK(e.value == Approx(4.1).epsilon(0.001));
    CHECK(e.uncertainty > 0);
    CHECK(e.figure.find("±") != std::string::npos);
    CHECK(e.figure.find("13.8") != std::string::npos);
    CHECK(e.meter == "the power meter, 0.2 dB");
    CHECK(e.at == build.readings.back().at);
    CHECK(e.band == "40m");
    CHECK(evidence(judged.readiness(), "power", "Power at the rated supply, 30m").at == 0);
}

TEST_CASE("passing knowingly is of one evidence, and falls back when a later reading changes it") {
    Build build;
    for (const char* band : {"40m", "30m", "20m"}) readPower(build, band, 4.1);
    readPower(build, "30m", 1.0);
    Readiness ready = Judged(rig(), build, limit()).readiness();
    CHECK_FALSE(gateOf(ready, "power").open());
    accept(build, ready, "power", "Power at the rated supply, 30m");
    ready = Judged(rig(), build, limit()).readiness();
    CHECK(gateOf(ready, "power").open());
    CHECK(gateOf(ready, "power").passedKnowingly);
    readPower(build, "30m", 1.01);  // about what it was
    CHECK(gateOf(Judged(rig(), build, limit()).readiness(), "power").open());
    readPower(build, "30m", 0.3);  // something else
    ready = Judged(rig(), build, limit()).readiness();
    CHECK_FALSE(gateOf(ready, "power").open());
    CHECK(gateOf(ready, "power").lapsed == "Power at the rated supply, 30m");
    // Another band that fails is not covered by that word.
    accept(build, ready, "power", "Power at the rated supply, 30m");
    readPower(build, "20m", 1.0);
    CHECK_FALSE(gateOf(Judged(rig(), build, limit()).readiness(), "power").open());
    // What passes by itself needs no word any more.
    readPower(build, "20m", 4.1);
    readPower(build, "30m", 4.1);
    ready = Judged(rig(), build, limit()).readiness();
    CHECK(gateOf(ready, "power").state() == VerdictState::pass);
    CHECK_FALSE(evidence(ready, "power", "Power at the rated supply, 30m").accepted);
}

TEST_CASE("the builder's word stays with a thing, whatever it is called") {
    Build build;
    readPower(build, "20m", 2.0);
    readPower(build, "40m", 4.1);
    readPower(build, "30m", 4.1);
    const char* title = "Power at the rated supply, 20m";
    const Readiness before = Judged(rig(), build, limit()).readiness();
    Evidence e = evidence(before, "power", title);
    CHECK(evidenceGate("power", e) == "power/" + Subject::power("20m").text());
    accept(build, before, "power", title);
    CHECK(build.gates.begin()->second.basis.find(title) == std::string::npos);
    e.what = "What it puts out";
    REQUIRE(wordOn(build, "power", e) != nullptr);
    CHECK(speaksFor(wordOn(build, "power", e)->second.basis, e));
    // Older books have it by its title.
    const GateRecord old{"lived with", 0, "fail\tPower at the rated supply, 20m\n", ""};
    build.gates = {{std::string("power/") + title, old}};
    CHECK(evidence(Judged(rig(), build, limit()).readiness(), "power", title).accepted);
}

TEST_CASE("unknown is no pass, and a known defect says what it forbids") {
    Build build;
    const Readiness nothing = Judged(rig(), build, limit()).readiness();
    for (const Gate& g : nothing.gates) CHECK_FALSE(g.open());
    accept(build, nothing, "harmonics", "Harmonic 2, 20m", "transmitting on 20m");
    const Readiness ready = Judged(rig(), build, limit()).readiness();
    const auto defects = knownDefects(ready);
    REQUIRE(defects.size() == 1);
    CHECK(defects.front().what == "Harmonic 2, 20m");
    CHECK(defects.front().forbids == "transmitting on 20m");
    CHECK_FALSE(gateOf(ready, "harmonics").open());  // the others are not read
    CHECK(rigCard(Judged(rig(), build, limit())).defects.front() == "transmitting on 20m");
}

TEST_CASE("what fails the limit, and what a known defect forbids, bars its band whatever is said") {
    Build build;
    for (const char* band : {"40m", "30m", "20m"}) {
        readPower(build, band, 4.1);
        read(build, Subject::frequency(band), rig().ratings.on(band).frequency, Unit::hertz, 20);
        for (const int order : {2, 3}) read(build, Subject::harmonic(order, band), 60, Unit::decibel, 1);
    }
    build.gates["licence"] = {"confirmed", 0};
    const auto passAll = [&] {
        for (const char* id : {"parts", "coils", "steps", "holds", "checks", "power", "harmonics"}) {
            const Readiness now = Judged(rig(), build, limit()).readiness();
            for (const Gate& g : now.gates) {
                if (g.id == id && g.state() != VerdictState::pass)
                    build.gates[id] = {"lived with", 0, basisOf(g.evidence)};
            }
        }
    };
    passAll();
    for (const char* band : {"40m", "30m", "20m"})
        CHECK(fitness(Judged(rig(), build, limit()), std::string("the air on ") + band).fit);
    read(build, Subject::harmonic(2, "20m"), 30, Unit::decibel, 1);
    passAll();
    CHECK(gateOf(Judged(rig(), build, limit()).readiness(), "harmonics").open());
    CHECK_FALSE(fitness(Judged(rig(), build, limit()), "the air on 20m").fit);
    CHECK(fitness(Judged(rig(), build, limit()), "the air on 40m").fit);
    CHECK(fitness(Judged(rig(), build, limit()), "receiving").fit);
    const auto defect = [&](const char* forbids) {
        const Readiness now = Judged(rig(), build, limit()).readiness();
        const Evidence& e = gateOf(now, "coils").evidence.front();
        build.gates[evidenceGate("coils", e)] = {"known", 0, basisOf({e}), forbids};
        const Judged judged(rig(), build, limit());
        return std::pair(fitness(judged, "the air on 40m").fit, fitness(judged, "the air on 30m").fit);
    };
    CHECK(defect("the power read-out is not to be trusted") == std::pair(true, true));
    CHECK(defect("transmitting on 40m") == std::pair(false, true));
    CHECK(defect("to transmit") == std::pair(false, false));
}

TEST_CASE("no reason makes up for a licence") {
    Build build;
    build.licence = "40m 7.0-7.2 MHz 1 W CW\n";
    readPower(build, "40m", 4.1);
    read(build, Subject::frequency("40m"), 7.03e6, Unit::hertz, 20);
    Readiness ready = Judged(rig(), build, limit()).readiness();
    CHECK(evidence(ready, "licence", "Within my limits, 40m").state == VerdictState::fail);
    CHECK(evidence(ready, "licence", "Within my limits, 20m").state == VerdictState::fail);
    build.gates["licence"] = {"confirmed", 0};
    accept(build, ready, "licence", "Within my limits, 40m");
    build.gates["licence/x"] = {"whatever", 0, basisOf(gateOf(ready, "licence").evidence)};
    ready = Judged(rig(), build, limit()).readiness();
    CHECK_FALSE(gateOf(ready, "licence").open());
}

TEST_CASE("the builder's own limits: written in a line, held at the worst error and the signal's width") {
    const auto typed = readBandLimit("40m 7.0-7.2 MHz 100 W CW SSB");
    REQUIRE(typed);
    CHECK(typed->band == "40m");
    CHECK(typed->low == 7.0e6);
    CHECK(typed->high == 7.2e6);
    CHECK(typed->watts == 100);
    CHECK(typed->modes == "CW SSB");
    CHECK(readBandLimit(bandLimitText(*typed)).value() == *typed);
    CHECK(readBandLimit("20m 14..14.35M")->high == Approx(14.35e6));
    CHECK(readBandLimit("630m 472-479 kHz 1 W")->low == Approx(472e3));
    CHECK(readBandLimit("30m 10,1 to 10,15 MHz cw")->modes == "CW");
    for (const char* wrong : {"", "40m", "40m 7.2-7.0", "7.0-7.2 MHz", "40m seven", "40m 7-7.2 MHz loud",
                              "40m 7-7.2 MHz -5 W", "40m -7--7.2"}) {
        INFO(wrong);
        CHECK_FALSE(readBandLimit(wrong));
    }
    Build build;
    build.licence = "40m 7.0-7.2 MHz 10 W CW\nrubbish\n";
    CHECK(bandLimits(build.licence).size() == 1);
    const auto line = [&] { return licenceLines(Judged(rig(), build, limit())).front(); };
    CHECK(line().verdict.state == VerdictState::cannotTell);  // nothing was read
    readPower(build, "40m", 4.1);
    read(build, Subject::frequency("40m"), 7.03e6, Unit::hertz, 20);
    CHECK(line().verdict.state == VerdictState::pass);
    // 30 ppm of 7.03 MHz promised, and half of 500 Hz (common practice) on either side.
    CHECK(line().error == Approx(7.03e6 * 30e-6).epsilon(0.2));
    CHECK(line().lowest >= 7.0e6 + line().error + 250);
    CHECK(line().lowest < 7.0e6 + line().error + 350);
    CHECK(line().highest <= 7.2e6 - line().error - 250);
    CHECK(line().highest > 7.2e6 - line().error - 350);
    read(build, Subject::frequency("40m"), 7.0001e6, Unit::hertz, 20);
    CHECK(line().verdict.state != VerdictState::pass);  // too near to the edge
    build.choices[Choice::mode] = {"SSB", 0};
    CHECK(line().verdict.state == VerdictState::fail);
}

TEST_CASE("allocations of the three regions are whole, and every band of every region lies within the next") {
    const auto& all = shippedTables().allocations;
    for (const int region : {1, 2, 3}) {
        double last = 0;
        int count = 0;
        for (const Allocation& a : all) {
            if (a.region != region) continue;
            CHECK(a.low > last);
            last = a.high;
            ++count;
        }
        CHECK(count == 15);
    }
    // Radio Regulations, article 5 (from memory): 7 to 7.2 MHz in regions 1 and 3, to 7.3 MHz in region 2.
    const auto of = [&](const char* band, int region) {
        return *std::find_if(all.begin(), all.end(),
                             [&](const Allocation& a) { return a.band == band && a.region == region; });
    };
    CHECK(of("40m", 1).high == 7.2e6);
    CHECK(of("40m", 2).high == 7.3e6);
    CHECK(of("20m", 3).high == 14.35e6);
}

TEST_CASE("a final makes its bias, power, harmonics and what is drawn doubtful, a relay the band it serves") {
    const auto texts = [](const Kit& kit, const char* ref) {
        std::set<std::string> out;
        for (const Subject& s : shownAgain(kit, ref)) out.insert(s.text());
        return out;
    };
    const Kit& lantern = practiceKit().kit;
    CHECK(texts(lantern, "Q6") == std::set<std::string>{"check:isolated", "adjust:bias", "proof:power",
                                                        "proof:harmonic:2", "proof:harmonic:3"});
    CHECK(texts(lantern, "L3") ==
          std::set<std::string>{"coil:L3", "proof:power", "proof:harmonic:2", "proof:harmonic:3"});
    const Kit& bell = tuningKit().kit;
    CHECK(texts(bell, "Q21").contains("adjust:bias"));
    CHECK(texts(bell, "Q21").contains("proof:power"));
    // A relay is called by its band: that band alone.
    CHECK(texts(rig(), "K2") == std::set<std::string>{"proof:power@30m", "proof:current@30m",
                                                      "proof:harmonic:2@30m", "proof:harmonic:3@30m"});
    CHECK(texts(rig(), "Q2").size() == 12);
    CHECK(texts(lantern, "R1").size() <= 3);  // a divider does not touch the transmitter
    CHECK_FALSE(texts(lantern, "R1").contains("proof:power"));
}

TEST_CASE("a repair is open until what it made doubtful is shown again, and a later one takes it over") {
    Build build;
    readPower(build, "40m", 1.9);
    Repair repair;
    repair.at = 5000;
    repair.ref = "Q3";
    repair.id = 1;
    repair.again = "proof:power@40m;proof:frequency@40m;nonsense:x";
    build.changes.push_back({Subject::part("Q3"), build.readings.back().id, 5000, "repaired"});
    build.repairs.push_back(repair);
    auto states = repairStates(Judged(rig(), build, limit()));
    REQUIRE(states.size() == 1);
    REQUIRE(states[0].again.size() == 2);
    CHECK_FALSE(states[0].closed());
    CHECK_FALSE(states[0].again[0].before.empty());
    CHECK(states[0].again[0].after.empty());
    readPower(build, "40m", 4.1);
    build.readings.back().at = 5100;
    read(build, Subject::frequency("40m"), 7.03e6, Unit::hertz, 20);
    build.readings.back().at = 5200;
    states = repairStates(Judged(rig(), build, limit()));
    CHECK(states[0].closed());
    CHECK_FALSE(states[0].again[0].change.empty());
    // Broken once more: the second asks for the same again, and answers for both.
    Repair second = repair;
    second.at = 6000;
    second.id = 2;
    build.changes.push_back({Subject::part("Q3"), build.readings.back().id, 6000, "repaired"});
    build.repairs.push_back(second);
    states = repairStates(Judged(rig(), build, limit()));
    CHECK_FALSE(states[0].closed());
    CHECK(states[1].closed());
    // An open trouble is never closed.
    Repair open;
    open.noticed = "hum";
    open.id = 3;
    open.seen = 7000;
    build.repairs.push_back(open);
    build.sightings.push_back({1, 3, 7100, "cold"});
    states = repairStates(Judged(rig(), build, limit()));
    CHECK_FALSE(states[0].closed());
    CHECK(states[0].sightings.size() == 1);
}

TEST_CASE("six steps on the air: nothing radiates before its gates are open, a repair ends what was heard") {
    Build build;
    build.id = 4;
    auto states = airStates(Judged(rig(), build, limit()), nullptr);
    REQUIRE(states.size() == 6);
    CHECK(nextAirStep(states)->step->id == std::string("practice"));
    CHECK(states[0].barred.empty());
    CHECK(states[1].barred.empty());
    for (const int radiating : {2, 4, 5}) CHECK_FALSE(states[std::size_t(radiating)].barred.empty());
    for (const AirStep& step : airSteps()) {
        CHECK(*step.title != '\0');
        for (const AirItem& item : step.items)
            CHECK((*item.wrong != '\0' || std::string(item.id) == "contact"));
    }
    const auto note = [&](const char* step, const char* item, VerdictState state, double value,
                          const char* text, std::int64_t at) {
        build.air.push_back({std::int64_t(build.air.size() + 1), step, item, state, value, text, at});
    };
    note("practice", "silent", VerdictState::pass, NAN, "", 100);
    note("practice", "sidetone", VerdictState::pass, NAN, "", 110);
    for (const char* item : {"tone", "clicks", "chirp", "hum"})
        note("load", item, VerdictState::pass, NAN, "", 120);
    note("load", "position", VerdictState::fail, NAN, "800 Hz low", 130);
    states = airStates(Judged(rig(), build, limit()), nullptr);
    CHECK(states[1].state == VerdictState::fail);
    CHECK(states[1].items[4].sentence.find("800 Hz low") != std::string::npos);
    note("load", "position", VerdictState::pass, NAN, "", 140);
    note("antenna", "swr@40m", VerdictState::pass, 1.4, "1.4", 150);
    states = airStates(Judged(rig(), build, limit()), nullptr);
    CHECK(states[1].state == VerdictState::pass);
    CHECK(states[2].state == VerdictState::pass);  // one band is enough to go on
    note("antenna", "swr@30m", VerdictState::pass, 5, "5", 160);
    states = airStates(Judged(rig(), build, limit()), nullptr);
    CHECK(states[2].state == VerdictState::fail);  // whatever was typed as a pass
    Repair repair;
    repair.at = 200;
    repair.ref = "Q3";
    build.repairs.push_back(repair);
    states = airStates(Judged(rig(), build, limit()), nullptr);
    CHECK(states[0].state == VerdictState::notDone);
    Contact first;
    first.build = 4;
    first.call = "QX1ABC";
    CHECK(airStates(Judged(rig(), build, limit()), &first)[5].state == VerdictState::pass);
    std::vector<Contact> log(3);
    log[0].at = 5, log[1].at = 9, log[1].build = 4, log[2].at = 7, log[2].build = 4;
    CHECK(firstContact(log, 4) == &log[2]);
    CHECK(firstContact(log, 0) == nullptr);
    for (const char* wrong : {"", "0.5", "-2", "inf", "nan", "1e9", "two", "1.4 W"}) CHECK(swrOf(wrong) == 0);
    CHECK(swrOf("1.4:1") == Approx(1.4));
}

TEST_CASE("a report's statement of what was not measured names what waits and what is never asked") {
    const auto lines = notMeasured(Judged(rig(), Build(), limit()));
    const auto says = [&](const char* word) {
        return std::any_of(lines.begin(), lines.end(),
                           [&](const std::string& l) { return l.find(word) != std::string::npos; });
    };
    for (const char* word : {"power not measured", "frequency not measured", "harmonic", "inductance",
                             "Sensitivity", "supply voltages", "temperature"}) {
        INFO(word);
        CHECK(says(word));
    }
}

TEST_CASE("the kit for its next builder has times and errata and nothing of this one") {
    const Folder folder;
    const auto file = folder / "done.ombrek";
    practiceBook(file, practiceKit(), PracticeStage::finished);
    const auto book = Book::open(file).value();
    const std::string kitText = [&] {
        auto document = nlohmann::ordered_json::parse(book->build()->kitText);
        document["note"] = "asked Ada Sørensen (QX9ZZ) in Kiel about it, see /home/ada/kits";
        document["steps"][0]["erratum"] = "the print is mirrored";
        document["steps"][1]["erratum"] = "qx9zz found the print mirrored";
        document["steps"][2]["note"] = "C:\\Users\\ada\\list.txt";
        document["x-remark"] = "bought with Ada";
        return document.dump();
    }();
    const Kit kit = readKit(kitText, shippedTables().cores).value();
    const auto next =
        forNextBuilder(kitText, kit, *book->build(), {"Ada Sørensen", "QX9ZZ", "JO62qm", "Kiel"});
    REQUIRE(next);
    for (const char* mine :
         {"QX9ZZ", "qx9zz", "Ada", "Sørensen", "JO62qm", "Kiel", "/home/", "C:\\", "x-remark"}) {
        INFO(mine);
        CHECK(next->kitText.find(mine) == std::string::npos);
    }
    CHECK(next->leftOut.size() == 3);
    CHECK(next->times > 20);
    const Kit read = readKit(next->kitText, shippedTables().cores).value();
    CHECK(read.steps[0].erratum == "the print is mirrored");
    CHECK(read.steps[1].erratum.empty());
    const auto timed =
        std::count_if(read.steps.begin(), read.steps.end(), [](const Step& s) { return s.taken > 0; });
    CHECK(std::size_t(timed) == next->times);
    CHECK(std::any_of(read.steps.begin(), read.steps.end(), [](const Step& s) { return s.mended > 0; }));
    const Kit planned = readKit(plannedByBuilderBefore(next->kitText).value(), shippedTables().cores).value();
    for (std::size_t i = 0; i < planned.steps.size(); ++i) {
        if (read.steps[i].taken > 0)
            CHECK(planned.steps[i].minutes == Approx(read.steps[i].taken).margin(0.1));
    }
    CHECK_FALSE(plannedByBuilderBefore(practiceKit().text));
    CHECK_FALSE(forNextBuilder("no kit", kit, *book->build(), {}));
}
