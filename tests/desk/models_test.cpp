#include <cmath>

#include "desk/air/log_model.h"
#include "desk/board/board_model.h"
#include "desk/first_light/first_light_model.h"
#include "desk/history/history_model.h"
#include "desk/list/list_model.h"
#include "desk/parts_in/parts_in_model.h"
#include "desk/proof/proof_model.h"
#include "desk/remedy/remedy_model.h"
#include "desk/which_part/which_part_model.h"
#include "desk/winding/winding_model.h"
#include "judged/judged.h"
#include "judged/remedy.h"
#include "judged/repair.h"
#include "kit/instrument.h"
#include "report/plots.h"
#include "report/report.h"
#include "station/board/board.h"
#include "station/board/work.h"
#include "station/phrases.h"
#include "station/readings.h"
#include "window_fixture.h"

using namespace ombrek;

// What the pages say, worked out from the book without any window.

namespace {

const Kit& kit() { return practiceKit().kit; }

void read(Build& build, const Subject& subject, double value, Unit unit, double setting = 0) {
    build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit,
                              usualUncertainty(unit, value), settingsOf(subject, "typed", setting), "typed",
                              0});
}

bool holds(const std::string& text, const std::string& part) { return text.find(part) != std::string::npos; }

}  // namespace

TEST_CASE("parts in: the next line, what to look for, and what the bag tells") {
    Build build;
    PartsInView v = partsInView({kit(), build}, "", "");
    CHECK(v.wanted->ref == "R51");  // by kind and value: the smallest resistor
    CHECK(v.shown == v.wanted);
    CHECK(holds(v.now, "Measure R51: one of two 10\u202fΩ, from bag A."));
    CHECK(holds(v.why, "marked brown black black gold"));
    CHECK(v.troubles.empty());
    read(build, Subject::part("R1"), 12.1e3, Unit::ohm);
    v = partsInView({kit(), build}, "", "");
    CHECK(v.shown->ref == "R1");
    CHECK(v.wanted->ref == "R51");
    REQUIRE(v.troubles.size() == 1);
    CHECK(holds(v.troubles[0].head, "R1 10\u202fkΩ reads 12.1\u202fkΩ"));
    CHECK(holds(v.troubles[0].sentence, "looks like 12"));
    CHECK(holds(v.counts, "1 of another value"));
    v = partsInView({kit(), build}, "U1", "U1");
    CHECK(holds(v.now, "Find U1"));
    CHECK(holds(v.why, "flat side as printed"));
    std::size_t dots = 0;
    for (const auto& row : v.rows) dots += row.dots.size();
    CHECK(dots == kit().parts.size());
}

TEST_CASE("parts in: each depth asks in its own words") {
    Build build;
    build.depth = BagDepth::measureDoubtful;
    CHECK(partsInView({kit(), build}, "R64", "").now == "Is R64 marked red red red gold?");
    CHECK(holds(partsInView({kit(), build}, "C74", "").now, "Measure C74"));
    CHECK(holds(partsInView({kit(), build}, "C74", "").why, "measured because it sets a frequency"));
    build.depth = BagDepth::trustBag;
    CHECK(partsInView({kit(), build}, "R1", "").now == "Are there three of 10\u202fkΩ, from bag A?");
    CHECK(holds(partsInView({kit(), build}, "R1", "").why, "R1, R2, R80"));
}

TEST_CASE("parts in: a small capacitor wants the clips' stray taken off first") {
    Build build;
    CHECK(holds(partsInView({kit(), build}, "C11", "", false).why, "F9"));
    CHECK_FALSE(holds(partsInView({kit(), build}, "C11", "", true).why, "F9"));
    CHECK_FALSE(holds(partsInView({kit(), build}, "C2", "", false).why, "F9"));  // 100 nF does not care
}

TEST_CASE("parts in: what a mark says is told beside what the list wants") {
    CHECK(holds(markSentence(*kit().part("C34"), "561J"), "560\u202fpF"));
    CHECK(holds(markSentence(*kit().part("C34"), "561J"), "measure it"));
    CHECK(holds(markSentence(*kit().part("C34"), "56J"), "as the list wants"));
    CHECK(holds(markSentence(*kit().part("C34"), "hello"), "no mark that is known"));
    CHECK(holds(markSentence(*kit().part("Q2"), "PNP"), "E accepts another type"));
}

TEST_CASE("which part is this: odds, open lines and readings ranked by need") {
    Build build;
    WhichPartView v = whichPartView({kit(), build}, 0, PartKind::inductor, 0);
    CHECK(v.part == nullptr);
    CHECK(v.wanted.empty());
    CHECK_FALSE(whichPartView({kit(), build}, 0, PartKind::resistor, 0).wanted.empty());
    build.loose.push_back({5, PartKind::capacitor, "102", 0.97e-9, 1e-11});
    v = whichPartView({kit(), build}, 5, PartKind::capacitor, 0);
    REQUIRE(v.part != nullptr);
    CHECK(v.could.front().refs == std::vector<std::string>{"C27"});
    CHECK(v.could.front().odds > 0.95);
    CHECK(v.now == "It is C27, 1\u202fnF: Enter puts it there.");
    CHECK(v.readings.front().wanted);
    build.loose.front().value = NAN;
    CHECK(holds(whichPartView({kit(), build}, 5, PartKind::capacitor, 0).now, "a mark alone can lie"));
}

TEST_CASE("what to do about it: a missing line looks again first, an offer is judged by its own limits") {
    Build build;
    build.parts["R82"] = PartMark::missing;
    const auto& drawers = practiceKit().drawers;
    RemedyView v = remedyView({kit(), build}, drawers, {}, 0, 0);
    CHECK(holds(v.now, "R82 is missing: look again"));
    CHECK_FALSE(v.places.empty());
    REQUIRE_FALSE(v.offers.empty());
    CHECK(v.verdict.state == VerdictState::pass);
    CHECK(v.verdict.reading == Approx(1e6));
    CHECK(v.verdict.uncertainty == Approx(1e4));  // the 1 % of the part in the drawer
    build.remedies["R82"] = {Remedy::How::shopping, ""};
    CHECK(holds(remedyView({kit(), build}, drawers, {}, 0, 0).now, "settled"));
    CHECK(holds(remedyView({kit(), Build{}}, drawers, {}, 0, 0).now, "Nothing is wrong"));
}

TEST_CASE("what was chosen from a drawer serves the other lines of its cause while there is some") {
    Kit small;
    for (const char* ref : {"C1", "C2", "C3"}) {
        Part part;
        part.ref = ref;
        part.kind = PartKind::capacitor;
        part.nominal = 22e-9;
        part.tolerance = 10;
        small.parts.push_back(part);
    }
    BagTrouble trouble;
    trouble.ref = "C1";
    trouble.alike = {"C2", "C3"};
    const std::vector<StockLine> drawers{
        {1, "A1", PartKind::capacitor, 22e-9, Unit::farad, 5, 50, 0, "film", 9},
        {2, "B2", PartKind::capacitor, 22e-9, Unit::farad, 10, 50, 0, "disc", 2}};
    const Build build;
    const Judged judged{small, build};
    const auto offers = fromDrawers(small.parts.front(), drawers, {}, 0);
    const auto disc = std::find_if(offers.begin(), offers.end(), [](const Substitute& s) {
        return s.parts == std::vector<std::size_t>{1};
    });
    REQUIRE(disc != offers.end());
    const auto kept = keptFor(trouble, judged, drawers, {}, std::size_t(disc - offers.begin()));
    REQUIRE(kept.size() == 3);
    CHECK(kept[0].stock == std::vector<std::int64_t>{2});
    CHECK(kept[1].stock == std::vector<std::int64_t>{2});
    CHECK(kept[2].stock == std::vector<std::int64_t>{1});
}

TEST_CASE("a new contact begins with the band of the last one, never with its frequency") {
    StationLog log;
    Contact last;
    last.build = 7;
    last.frequency = 21.0612e6;
    last.band = "15m";
    last.mode = "CW";
    log.contacts.push_back(last);
    Build build;
    build.id = 7;
    const Judged judged{kit(), build};
    const Contact next = beginContact(log, &judged, 1000);
    CHECK(next.band == "15m");
    CHECK(next.mode == "CW");
    CHECK(next.frequency == 0);
    log.contacts.clear();
    const Contact first = beginContact(log, &judged, 1000);
    CHECK(first.frequency == 0);
    CHECK_FALSE(first.band.empty());
}

TEST_CASE("a parts list: doubtful rows first, corrected, confirmed and dropped") {
    ListModel model;
    model.take(
        readPartsList("R1, R2  4k7  5%  2\nC1  22  1\nno part at all\nQ1  NPN, small signal\n").value());
    REQUIRE(model.rows().size() == 4);
    CHECK(model.rows()[0].state == VerdictState::fail);
    CHECK(model.rows()[1].state == VerdictState::doubtful);
    CHECK(model.doubtful() == 1);
    CHECK(model.refused() == 1);
    CHECK_FALSE(model.correct(1, "nonsense"));
    CHECK(model.doubtful() == 1);
    REQUIRE(model.correct(1, "C1  22pF 5%"));
    CHECK(model.doubtful() == 0);
    model.drop(0);
    CHECK(model.refused() == 0);
    CHECK(model.parts() == 4);
    for (std::size_t i = 0; i < model.rows().size();
         ++i) {  // what is offered to be said again reads back the same
        const std::string before = model.rows()[i].text;
        REQUIRE(model.correct(i, model.rowText(i)));
        CHECK(
            std::any_of(model.rows().begin(), model.rows().end(), [&](auto& r) { return r.text == before; }));
    }
}

TEST_CASE("parts in: the bag is through") {
    Build build;
    for (const Part& part : kit().parts) build.parts[part.ref] = PartMark::trusted;
    CHECK(holds(partsInView({kit(), build}, "", "").now, "Every part is in"));
    build.parts["R1"] = PartMark::missing;
    const PartsInView v = partsInView({kit(), build}, "", "");
    CHECK(v.wanted == nullptr);
    CHECK(holds(v.now, "look again"));
}

TEST_CASE("winding: each stage says what to do") {
    Build build;
    const auto now = [&] { return windingView(kit(), build, "L1").now; };
    CHECK(now() == "Cut 54\u202fcm of 26AWG for L1.");
    build.coilChecks["L1/cut"] = "yes";
    CHECK(now() == "Wind L1: 26 passes to go.");
    build.windings["L1/tank"].turns = 25;
    CHECK(now() == "Wind L1: one pass to go.");
    build.windings["L1/tank"].turns = 26;
    CHECK(holds(now(), "recount"));
    build.windings["L1/tank"].turns = 28;
    CHECK(now() == "L1 has 2 more than the kit says.");
    build.windings["L1/tank"] = {26, true};
    CHECK(holds(now(), "Measure L1"));
    read(build, Subject::coil("L1"), 2.60e-6, Unit::henry);
    CHECK(holds(now(), "Squeeze"));
    read(build, Subject::coil("L1"), 2.70e-6, Unit::henry);
    CHECK(holds(now(), "Strip the tails of L1"));
    CHECK(holds(windingView(kit(), build, "L1").caution, "ventilate"));
    build.coilChecks["L1/strip"] = "scrape";
    CHECK(holds(now(), "tail to tail"));
    build.coilChecks["L1/tank/continuity"] = "ok";
    CHECK(holds(now(), "L1 is right"));  // one winding: nothing to be apart from
    const WindingView v = windingView(kit(), build, "L1");
    CHECK(v.cover->state == VerdictState::pass);
    CHECK(v.coils.size() == kit().coils.size());
}

TEST_CASE("winding: the count may be trusted, and twisted wires are told apart") {
    Kit own = kit();
    Coil& t4 = *std::find_if(own.coils.begin(), own.coils.end(), [](auto& c) { return c.ref == "T4"; });
    t4.twisted = {"drains", "load"};
    Build build;
    build.windings["T4/drains"] = {4, true};
    build.windings["T4/load"] = {6, true};
    CHECK(coilStage(t4, build) == CoilStage::measure);
    build.coilChecks["T4/trust"] = "yes";
    CHECK(coilVerdict(t4, build).state == VerdictState::pass);
    CHECK(holds(coilVerdict(t4, build).sentence, "not measured"));
    build.coilChecks["T4/strip"] = "blob";
    CHECK(coilStage(t4, build) == CoilStage::untwist);
    CHECK(windingView(own, build, "T4").now == "Does wire 1 here beep with 1 at the other end?");
    build.coilChecks["T4/twist"] = "n";
    CHECK(coilStage(t4, build) == CoilStage::continuity);
    CHECK(holds(windingView(own, build, "T4").why, "1 is 2, 2 is 1"));
    build.coilChecks["T4/drains/continuity"] = build.coilChecks["T4/load/continuity"] = "ok";
    CHECK(coilStage(t4, build) == CoilStage::isolation);
    build.coilChecks["T4/isolation"] = "ok";
    CHECK(coilStage(t4, build) == CoilStage::ready);
}

TEST_CASE("winding: what is seen before the tails are parted, and the cut list of the kit") {
    bool seen = false;
    for (const auto& fact : windingView(kit(), Build{}, "T1").facts) seen = seen || fact.value == "21-3-5";
    CHECK(seen);
    const CutList list = cutList(kit());
    std::size_t windings = 0;
    for (const Coil& coil : kit().coils) windings += coil.windings.size();
    CHECK(list.lines.size() == windings);
    double all = 0, sum = 0;
    for (const CutLine& line : list.lines) sum += line.length;
    for (const auto& [wire, length] : list.totals) all += length;
    CHECK(all == Approx(sum));
    CHECK(list.totals.size() == 4);  // four gauges
}

TEST_CASE("winding: a coil that Tune may still change keeps its tails") {
    Build build;
    CHECK(holds(mayStillChange(kit(), *kit().coil("T1"), build), "no glue"));
    CHECK(mayStillChange(kit(), *kit().coil("L2"), build).empty());
    const auto aheads = lookAheadsAt(*kit().step("t1"), kit(), build);
    CHECK(std::any_of(aheads.begin(), aheads.end(), [](auto& a) { return holds(a.say, "no glue"); }));
}

TEST_CASE("winding: a kit without coils, and a coil with several windings") {
    CHECK(windingView(Kit{}, Build{}, "").coil == nullptr);
    Build build;
    build.coilChecks["T1/cut"] = "yes";
    build.windings["T1/main"] = {22, true};
    CHECK(windingView(kit(), build, "T1").now == "Wind T1 antenna link: three passes to go.");
    int cuts = 0;
    for (const auto& fact : windingView(kit(), build, "T1").facts) cuts += holds(fact.name, "Cut");
    CHECK(cuts == 3);
}

TEST_CASE("board: what is fitted now, what is in, what waits") {
    Build build;
    const auto order = stepOrder(kit(), Order::manual).value();
    for (const char* id : {"lay-out", "look-board", "r-supply"}) build.steps[id] = {};
    const BoardView v = boardView({kit(), build}, "");
    CHECK(v.step->id == "d1");
    for (const auto& piece : v.pieces) {
        const auto& ref = piece.part->ref;
        const auto wanted = ref == "D1"                  ? BoardPiece::Fitting::now
                            : ref == "R1" || ref == "R2" ? BoardPiece::Fitting::in
                                                         : BoardPiece::Fitting::waits;
        CHECK(piece.fitting == wanted);
    }
    CHECK(holds(v.why, "Parts in (F1) comes first"));
    CHECK(holds(boardView({kit(), build}, "e-supply").erratum, "C4"));
    CHECK(holds(boardView({kit(), build}, "t1").caution, "ventilate"));
    CHECK(holds(boardView({kit(), build}, "hold-supply").now, "Hold point: "));
}

TEST_CASE("first light: the page names limits, place and suspects") {
    Build build;
    FirstLightView v = firstLightView(Judged(kit(), build), "");
    CHECK(holds(v.now, "at least 500"));
    CHECK(holds(v.why, "Power off"));
    read(build, Subject::check("short"), 20, Unit::ohm);
    v = firstLightView(Judged(kit(), build), "");
    CHECK(v.check->id == "short");
    CHECK(holds(v.why, "bridge at C1"));
    CHECK(firstLightView(Judged(kit(), build), "rail5").bar->id == "short");
    CHECK(firstLightView(Judged(Kit{}, build), "").check == nullptr);
}

TEST_CASE("proof: one thing after the other, then the sum of it") {
    Build build;
    const auto view = [&] {
        return proofView({kit(), build, shippedTables().profile("")}, std::nullopt, powerMethods().front());
    };
    CHECK(holds(view().now, "read the supply"));
    read(build, Subject::supply(), 12.5, Unit::volt);
    CHECK(holds(view().why, "attenuator first"));
    build.readings.push_back(
        {9, Subject::power(), 4.8, Unit::dbm, 0.2, {{"attenuation", 30}}, "attenuator", 0});
    CHECK(holds(view().now, "frequency"));
    read(build, Subject::frequency(), 21.06001e6, Unit::hertz);
    read(build, Subject::harmonic(2), 55, Unit::decibel);
    CHECK(holds(view().now, "harmonic 3"));
    read(build, Subject::harmonic(3), 30, Unit::decibel);
    CHECK(holds(view().now, "not all of it is right"));
    read(build, Subject::harmonic(3), 65, Unit::decibel);
    CHECK(holds(view().now, "Proved"));
    CHECK(proofView({Kit{}, build, shippedTables().profile("")}, std::nullopt, powerMethods().front())
              .items.empty());
}

TEST_CASE("plots hold what was read, what was fitted, and the limit") {
    Build build;
    for (const double x : {0.3, 0.38, 0.46, 0.6})
        read(build, Subject::adjustment("rx"), 0.8 / std::sqrt(1 + std::pow((x - 0.4) / 0.07, 2)), Unit::volt,
             x);
    const PlotData tune = tunePlot(Judged(kit(), build), *kit().adjustment("rx"));
    REQUIRE(tune.series.size() == 2);
    CHECK(tune.series[1].x.size() == 4);
    CHECK(tune.marks.at(0).at == Approx(40).margin(0.5));
    CHECK(tune.yLabel == QStringLiteral("[mV]"));
    const ProofState proof = proofState(kit(), build, shippedTables().profile("us-below-30"));
    const PlotData spectrum = spectrumPlot(kit(), build, proof, shippedTables().profile("us-below-30"));
    CHECK(spectrum.marks.at(0).at == -43);
    CHECK(spectrum.series.at(0).x.size() > 200);
    for (const int harmonics : {1, 3, 5, 6, 10, 15}) {  // as many figures as find room, the fundamental first
        Kit more = kit();
        more.ratings.harmonics = harmonics;
        const PlotData plot = spectrumPlot(more, build, proof, shippedTables().profile("us-below-30"));
        CHECK(plot.xTicks.size() <= 5);
        CHECK(plot.xTicks.front().first == Approx(21.06).margin(0.01));
    }
}

TEST_CASE("a photograph that is not in the book any more is said on the report, a damaged one too") {
    application();
    ReportWords words{.now = 1800000000};
    words.photos = {{{1, "lay-out", true, 1000}, ""}, {{2, "lay-out", false, 2000}, "no picture"}};
    Build build;
    const Report report = makeReport({kit(), build, shippedTables().profile("")}, words);
    CHECK(report.html.count(QStringLiteral("this photograph is not in the book any more")) == 2);
    CHECK(report.photos.empty());
    Repair repair;
    repair.id = 7;
    repair.ref = "Q3";
    build.repairs.push_back(repair);
    words.photos.push_back({{3, photoStep(repair), false, 3000}, ""});
    CHECK(makeReport({kit(), build, shippedTables().profile("")}, words)
              .html.contains(QStringLiteral("Repair of Q3")));
    CHECK(pdfOf(reportSheet(report)).startsWith("%PDF-"));
}

TEST_CASE("the report says what was passed knowingly, and escapes what people wrote") {
    application();
    Build build;
    build.kitText = practiceKit().text;
    build.gates["power"] = {"<script>alert(1)</script> & meter \"low\"", 0};
    build.remarks["lay-out"] = "a < b";
    const Report report = makeReport({kit(), build, shippedTables().profile("")}, {.now = 1800000000});
    const QByteArray html = reportAsHtml(report);
    CHECK(html.contains("passed knowingly"));
    CHECK(html.contains("&lt;script&gt;"));
    CHECK_FALSE(html.contains("<script>"));
    CHECK(html.contains("a &lt; b"));
    CHECK(html.contains("0 of 11 gates are earned, 1 passed knowingly, 10 open."));
    CHECK(pdfOf(reportSheet(report)).startsWith("%PDF-"));
}
TEST_CASE("a tap is asked for at its turn and adds wire to the cut") {
    const Kit other =
        readKitFile(std::string(OMBREK_DATA_FOLDER) + "/demo/slack-tide.kit.json", shippedTables().cores)
            .value()
            .kit;
    const Coil& coil = *other.coil("L1");
    Build build;
    build.windings["L1/coil"] = {5, false};
    CHECK(windingView(other, build, "L1").now == "Twist a loop for the tap 1, then go on: 20 passes to go.");
    build.windings["L1/coil"] = {6, false};
    CHECK(holds(windingView(other, build, "L1").now, "nineteen passes to go"));
    build.windings["L1/coil"] = {12, false};
    CHECK(windingView(other, build, "L1").why == "12 are on: one ten and two. Stop where you like.");
    Winding plain = coil.windings[0];
    plain.taps.clear();
    CHECK(lengthToCut(coil, coil.windings[0]) > lengthToCut(coil, plain) + 8 * coil.tail);
}

TEST_CASE("a coil drawn the wrong way round for its holes is said") {
    Kit turned = kit();
    for (Coil& coil : turned.coils) coil.clockwise = false;
    CHECK(layTrouble(kit(), *kit().coil("T1")).empty());
    CHECK(holds(layTrouble(turned, *turned.coil("T1")), "main"));
}

TEST_CASE("board: what lies close by and suffers from heat, what is to be mended, what to have ready") {
    Build build;
    const auto order = stepOrder(kit(), Order::manual).value();
    CHECK(boardView({kit(), build}, "lay-out").tools.size() > 3);
    CHECK(boardView({kit(), build}, "d1").hot.empty());  // nothing is in yet
    for (const char* done : {"lay-out", "look-board", "e-supply"}) build.steps[done] = {};
    const auto hot = boardView({kit(), build}, "d1").hot;
    CHECK_FALSE(hot.empty());
    for (const auto& ref : hot) CHECK(ref != "R1");
    build.steps["d1"] = {};
    build.findings.push_back({1, "D1", Finding::What::turned, 1, 0});
    const BoardView v = boardView({kit(), build}, "d1");
    CHECK(v.now == "Mend D1: turned.");
    CHECK(holds(v.why, "wick"));
    const auto line = std::find_if(v.plan.begin(), v.plan.end(), [](const auto& l) { return l.id == "d1"; });
    CHECK(line->state == VerdictState::fail);
    CHECK(std::any_of(v.pieces.begin(), v.pieces.end(), [](const BoardPiece& p) { return p.mend; }));
}

TEST_CASE("first light asks for the sanity pass while polarised parts are not held against the print") {
    Build build;
    CHECK_FALSE(holds(firstLightView(Judged(kit(), build), "").why, "held against the print"));
    build.steps["d1"] = {};
    CHECK(holds(firstLightView(Judged(kit(), build), "").why, "1 polarised part is"));
    build.senses["D1"] = 5;
    CHECK_FALSE(holds(firstLightView(Judged(kit(), build), "").why, "held against the print"));
}

TEST_CASE("the report tells of holds passed knowingly and of what the loupe found") {
    Build build;
    build.steps["hold-supply"] = {true, 1000};
    build.remarks["hold-supply"] = "proved on <another> meter";
    build.findings.push_back({1, "R1", Finding::What::bridge, 2000, 0});
    application();
    const QString html = makeReport({kit(), build, shippedTables().profile("")}, {.now = 5000}).html;
    CHECK(html.contains(QStringLiteral("Hold points passed knowingly")));
    CHECK(html.contains(QStringLiteral("proved on &lt;another&gt; meter")));
    CHECK(html.contains(QStringLiteral("bridge")));
    CHECK(html.contains(QStringLiteral("<b>open</b>")));
    CHECK_FALSE(makeReport({kit(), Build{}, shippedTables().profile("")}, {.now = 5000})
                    .html.contains(QStringLiteral("loupe")));
}

TEST_CASE("history is filtered by part, station and day, as one types") {
    Build build;
    build.started = 1700000000;
    read(build, Subject::part("R1"), 10e3, Unit::ohm);
    read(build, Subject::part("C11"), 18e-12, Unit::farad);
    read(build, Subject::coil("T1"), 1.4e-6, Unit::henry);
    build.readings[2].at = 1764150000;  // 26 November 2025
    const auto rows = [&](const char* words) {
        return historyView({kit(), build}, QString::fromUtf8(words)).rows.size();
    };
    CHECK(rows("") == 4);
    CHECK(rows("r1") == 1);
    CHECK(rows("winding") == 1);
    CHECK(rows("WINDING t1") == 1);
    CHECK(rows("winding r1") == 0);
    CHECK(rows("2025-11") == 1);
    CHECK(rows("nov 2025") == 1);
    CHECK(rows("11") == 0);  // not the end of C11
    CHECK(rows("nothing of the kind") == 0);
    CHECK(historyView({kit(), build}, QString()).rows.front().line.what.find("T1") == 0);
}
