#include <cmath>

#include "desk/board/loupe_model.h"
#include "desk/board/photos_model.h"
#include "desk/board/sitting_model.h"
#include "desk/drawers/drawers_model.h"
#include "desk/list/delivery_model.h"
#include "desk/meters/meters_model.h"
#include "desk/sign_off/sign_off_model.h"
#include "desk/start/start_model.h"
#include "desk/tune/tune_model.h"
#include "desk/winding/cores_model.h"
#include "desk/winding/figures_model.h"
#include "desk/winding/picture_model.h"
#include "desk/winding/trimmer_model.h"
#include "station/readings.h"
#include "window_fixture.h"

using namespace ombrek;

// What the side pages and the last stations show, worked out without any window; and of a kit with nothing in
// it.

namespace {

const Kit& kit() { return practiceKit().kit; }

void read(Build& build, const Subject& subject, double value, Unit unit, Settings settings = {}) {
    build.readings.push_back({std::int64_t(build.readings.size() + 1), subject, value, unit,
                              usualUncertainty(unit, value), std::move(settings), "typed", 0});
}

Settings at(double position) { return {{std::string(kPosition), position}}; }

QString valueOf(const std::vector<Fact>& facts, const char* name) {
    for (const Fact& f : facts) {
        if (f.name == QString::fromUtf8(name)) return f.value;
    }
    return QStringLiteral("(none)");
}

}  // namespace

TEST_CASE("tune shows the adjustment in hand, where it stands and what is asked before the key goes down") {
    Build build;
    TuneView v = tuneView({kit(), build}, "", std::nullopt, {}, 1000);
    CHECK(v.adjustment->id == "bfo");
    CHECK(v.next == v.adjustment);
    CHECK(v.before.clear());
    CHECK_FALSE(v.last);
    CHECK(v.now.startsWith(QStringLiteral("Set the BFO: turn C40 to ")));
    CHECK(v.lines.size() == kit().adjustments.size());
    CHECK(v.lines[0].current);
    CHECK(valueOf(v.facts, "Best at") == QStringLiteral("(none)"));
    const Adjustment& bfo = *kit().adjustment("bfo");
    read(build, Subject::adjustment("bfo"), bfo.target, Unit::hertz, at(0.428));
    v = tuneView({kit(), build}, "bfo", 0.428, {}, 1000);
    CHECK(v.settled());
    CHECK(v.last->value == bfo.target);
    CHECK(valueOf(v.facts, "Stands at") == QStringLiteral("42.8\u202f%"));
    CHECK(v.next->id == "vfo");
    CHECK(v.why.contains(QStringLiteral("Enter goes on")));
    v = tuneView({kit(), build}, "tx", std::nullopt, {}, 1000);  // power: the key goes down
    CHECK(v.before.bars());
    CHECK(v.now == qs(v.before.load.now));
    v = tuneView({Kit{}, build}, "", std::nullopt, {}, 1000);
    CHECK(v.adjustment == nullptr);
    CHECK(v.now.contains(QStringLiteral("nothing to adjust")));
    CHECK(positionText(Adjuster(), -3) == "0.0\u202f%");
    CHECK(positionText(Adjuster(), 1e300) == "100.0\u202f%");
}

TEST_CASE("sign-off shows what is wrong first, and says what passing knowingly passed over") {
    Build build;
    const Judged judged(kit(), build);
    SignOffView v = signOffView(judged, "");
    REQUIRE(v.gate != nullptr);
    CHECK(v.gate == judged.readiness().next());
    CHECK(v.now.startsWith(QStringLiteral("Next gate: ")));
    CHECK(v.why.contains(QStringLiteral("K passes what bars it knowingly")));
    CHECK(v.evidence.size() == v.gate->evidence.size());
    CHECK(valueOf(v.fit, "Receiving") == QStringLiteral("no"));
    CHECK(valueOf(v.fit, "The air on 15m") == QStringLiteral("no"));
    Build wrong;
    read(wrong, Subject::check("rail5"), 9, Unit::volt);
    const Judged spoilt(kit(), wrong);
    for (const Gate& g : spoilt.readiness().gates) {
        const SignOffView shown = signOffView(spoilt, g.id);
        CHECK(shown.gate == &g);
        CHECK(std::is_sorted(shown.evidence.begin(), shown.evidence.end(), [](const auto& a, const auto& b) {
            return a.state == VerdictState::fail && b.state != VerdictState::fail;
        }));
        if (g.state() != VerdictState::fail) continue;
        CHECK(shown.evidence.front().state == VerdictState::fail);
    }
    CHECK(signOffView(spoilt, "no such gate").gate == spoilt.readiness().next());
}

TEST_CASE("meters show what a data sheet can tell, whose age it is and who is at the bench") {
    const std::vector<MeterLine>& meters = usualMeters();
    constexpr std::int64_t kNow = 1764150000, kTwoYears = 731 * 86400;
    for (std::size_t i = 0; i < meters.size(); ++i) {
        const MetersView v = metersView(meters, i, false, "", kNow);
        CHECK(v.lines.size() == meters.size());
        CHECK(v.lines[i].current);
        CHECK(v.title.contains(nameOf(meters[i])));
        CHECK(valueOf(v.facts, "Last calibrated") == QStringLiteral("not known"));
        CHECK(valueOf(v.facts, "At the bench") == QStringLiteral("no name"));
    }
    MeterLine pico = *meterFor(meters, Unit::farad, 22e-12);
    CHECK(metersView({pico}, 0, false, "", kNow).now.contains(QStringLiteral("take the zero")));
    pico.zero = 0.6e-12;
    pico.calibrated = kNow - kTwoYears;
    const MetersView v = metersView({pico}, 0, true, "Mara", kNow);
    CHECK_FALSE(v.now.contains(QStringLiteral("take the zero")));
    CHECK(v.promise.contains(QStringLiteral("no longer promises")));
    CHECK(v.lines[0].state == VerdictState::doubtful);
    CHECK(valueOf(v.facts, "At the bench") == QStringLiteral("Mara"));
    CHECK(v.rule == QStringLiteral("Simple rule in force"));
    // 1 % of 22 pF and 0.5 pF, each rectangular: U = 2·√(0.22² + 0.5²)/√3 = 0.63 pF (GUM 4.3.7), more than a
    // quarter of 5 %, 1.1 pF.
    CHECK(v.worth[0].state == VerdictState::doubtful);
    CHECK(v.worth[1].state == VerdictState::pass);  // 100 nF to 10 %
}

TEST_CASE("drawers say what is promised, and what to do when they are empty") {
    const StockLine line{7, "B3", PartKind::capacitor, 22e-9, Unit::farad, 5, 100, 0, "film", 4};
    const std::vector<Promise> some{{7, 1, "C2", 1}}, all{{7, 1, "C2", 4}};
    CHECK(drawerLineView(line, {}).promised.isEmpty());
    CHECK(drawerLineView(line, some).promised == QStringLiteral("1 of them promised to a kit."));
    CHECK(drawerRow(line, some, true).state == VerdictState::pass);
    CHECK(drawerRow(line, all, false).state == VerdictState::notDone);
    CHECK(drawerRow(line, all, false).right == QStringLiteral("4 in B3, 4 promised"));
    CHECK(drawersView(0, 0).found.contains(QStringLiteral("A adds a line")));
    CHECK(drawersView(3, 120).found == QStringLiteral("3 of 120 lines"));
}

TEST_CASE("what is over becomes a line of the drawer \"spares\", by its mark before its reading") {
    Build build;
    build.loose = {{1, PartKind::capacitor, "103", 9.8e-9, 1e-11},
                   {2, PartKind::transistor, "NPN 45", NAN, 0}};
    for (const Part& part : kit().parts) build.parts[part.ref] = PartMark::seen;  // nothing is missing
    std::vector<std::int64_t> ids;
    const auto spares = sparesOf({kit(), build}, ids);
    REQUIRE(spares.size() == ids.size());
    for (std::size_t i = 0; i < spares.size(); ++i) {
        CHECK(spares[i].drawer == "spares");
        CHECK(spares[i].count == 1);
        if (ids[i] == 1) CHECK(spares[i].value == Approx(10e-9));  // 103: IEC 60062
        if (ids[i] == 2) CHECK(spares[i].what.find("NPN 45") == 0);
    }
    CHECK(spares.size() == 2);
}

TEST_CASE("this sitting: where one was, what it wants, and the evening by which it is done") {
    Build build;
    SittingView v = sittingView({kit(), build}, 120);
    CHECK(v.ahead);
    CHECK(v.back.isEmpty());
    CHECK(v.now.startsWith(QStringLiteral("This sitting: ")));
    CHECK(v.pace.size() == 6);
    for (const Step& step : kit().steps) build.steps[step.id] = {false, 1000};
    v = sittingView({kit(), build}, 120);
    CHECK_FALSE(v.ahead);
    CHECK(v.why == QStringLiteral("F4 goes to First light."));
    CHECK(oddsView({}, std::nullopt, "").text.startsWith(QStringLiteral("D, then the evenings")));
    const std::vector<FreeTime> evenings{{1764150000, 120}, {1764236400, 120}};
    CHECK(oddsView(evenings, std::nullopt, "Thu").facts[0].value == QStringLiteral("…"));
    const FinishOdds odds{{0.2, 0.6}, 1000};
    const OddsView o = oddsView(evenings, odds, "Thu");
    CHECK(o.facts[0].value != o.facts[1].value);
    CHECK(o.facts[2].value == QStringLiteral("later than half a year"));
    CHECK(sittingMinutes(QStringLiteral("2h")) == 120.0);
    for (const char* absurd : {"", "h", "9", "961", "-60", "1e400", "two"})
        CHECK_FALSE(sittingMinutes(QString::fromUtf8(absurd)));
}

TEST_CASE("the loupe goes through what was fitted, and lists what is to be mended") {
    Build build;
    LoupeView v = loupeView({kit(), build}, LoupePass::all, 99);
    CHECK(v.part() == nullptr);
    CHECK(v.drawing.zoom == 1);
    const auto fitting =
        std::find_if(kit().steps.begin(), kit().steps.end(), [](const Step& s) { return s.fits.size() > 1; });
    build.steps[fitting->id] = {false, 1000};
    build.findings = {{1, fitting->fits[0], Finding::What::dry, 1100, 0}};
    v = loupeView({kit(), build}, LoupePass::all, 99);
    REQUIRE(v.part() != nullptr);
    CHECK(v.at == v.parts.size() - 1);
    CHECK(v.drawing.mirrored);
    CHECK(v.title == QStringLiteral("All joints: %1 left, 1 to mend").arg(v.parts.size()));
    CHECK(v.lines.back().state == VerdictState::fail);
    CHECK(v.lines.size() == v.parts.size() + 1);
    CHECK_FALSE(loupeView({kit(), build}, LoupePass::senses, 0).drawing.mirrored);
}

TEST_CASE("photographs: the last of each side, and no step") {
    Build build;
    const std::string step = kit().steps.front().id;
    build.photos = {{3, step, false, 1}, {5, step, true, 2}, {6, "another", true, 3}};
    const PhotosView v = photosView(kit(), build, step);
    CHECK(v.before == 3);
    CHECK(v.after == 5);
    CHECK(v.last() == 5);
    CHECK_FALSE(photosView(kit(), build, "none").known);
}

TEST_CASE("cores: others at hand, the whole table, and clues that fit none") {
    const auto& table = shippedTables().cores;
    const Coil& t1 = *kit().coil("T1");
    CoresView v = otherCoresView(kit(), t1, {}, table, 9999);
    CHECK(v.why.contains(QStringLiteral("whole table")));
    CHECK(v.at == v.lines.size() - 1);
    CHECK(v.lines.back().current);
    CHECK(v.unit == QStringLiteral("turns"));
    v = otherCoresView(kit(), t1, {table.front()}, table, 0);
    CHECK(v.why.contains(QStringLiteral("From your drawers")));
    const auto clues = readCoreClues("12.7 7.7 4.8 yellow 0.40u");
    REQUIRE(clues);
    v = whichCoreView(*clues, QStringLiteral("12.7"), table, 0);
    CHECK(v.lines.size() <= 12);
    CHECK(v.unit == QStringLiteral("%"));
    CHECK(noRingView().unit.isEmpty());
    CHECK(whichCoreView(*clues, QString(), {}, 0).number == noRingView().number);
}

TEST_CASE(
    "the trimmer page: by the kit's figures, by the measured coil, and with turns that are only tried") {
    Build build;
    const auto tuned = tunedCoils(kit());
    REQUIRE_FALSE(tuned.empty());
    const Coil& coil = *tuned.front();
    TrimmerPageView v = trimmerPageView(kit(), build, coil.ref, 0);
    CHECK(v.coil == &coil);
    CHECK(valueOf(v.facts, "Measured") == QStringLiteral("(none)"));
    CHECK(v.chance.size() == 2);
    read(build, Subject::coil(coil.ref), coil.target * 1.6, Unit::henry);
    v = trimmerPageView(kit(), build, coil.ref, 0);
    CHECK(v.now.startsWith(QStringLiteral("Take off ")));
    CHECK(valueOf(v.facts, "Measured") != QStringLiteral("(none)"));
    CHECK(trimmerPageView(kit(), build, coil.ref, -2).why.startsWith(QStringLiteral("Only tried")));
    CHECK(trimmerPageView(kit(), build, coil.ref, -10000).coil != nullptr);
    CHECK(trimmerPageView(kit(), build, "X9", 0).coil == nullptr);
}

TEST_CASE("figures: the kit's coil, an idea of it, and none") {
    const CoilIdea idea = ideaOf(kit(), *kit().coil("T1"));
    FiguresView v = figuresView(idea, QStringLiteral("T1"), false);
    CHECK(v.known);
    CHECK(v.now.startsWith(QStringLiteral("T1: ")));
    CHECK(v.curve.series.size() == 2);
    CHECK(v.curve.series[1].x[0] == idea.turns);
    CHECK(figuresView(idea, QStringLiteral("T1"), true).now.startsWith(QStringLiteral("What if: ")));
    CHECK_FALSE(figuresView({}, QString(), false).known);
}

TEST_CASE("a count in a picture is set against the counter and the plan") {
    Build build;
    TurnCount count;
    count.marks.resize(18);
    count.sure = true;
    const Coil& t1 = *kit().coil("T1");
    PictureCountView v = pictureCountView(kit(), build, "T1", count, false, false);
    CHECK(v.now == QStringLiteral("Open a picture of T1."));
    CHECK(valueOf(v.facts, "In the picture") == QStringLiteral("none yet"));
    count.marks.resize(std::size_t(t1.windings[0].turns));
    v = pictureCountView(kit(), build, "T1", count, true, true);
    CHECK(v.now.contains(QStringLiteral("by your marks")));
    CHECK(v.facts[1].state == VerdictState::doubtful);  // nothing is counted yet
    CHECK(v.facts[2].state == VerdictState::pass);
    CHECK(pictureCountView(kit(), build, "", count, false, false).facts.empty());
}

TEST_CASE("a delivery: what came short is first, and only what is not known of is marked") {
    Build build;
    CHECK(deliveryView({kit(), build}, {}, 5).lines.empty());
    CHECK(deliveryView({kit(), build}, {}, 5).title == QStringLiteral("What it needs"));
    PackingLine line;
    line.description = "resistor 10k";
    line.ordered = 4;
    line.shipped = 0;
    const DeliveryView v = deliveryView({kit(), build}, {line}, 99);
    REQUIRE_FALSE(v.lines.empty());
    CHECK(v.row == v.lines.size() - 1);
    CHECK(v.rows.size() == v.lines.size());
    CHECK(std::is_sorted(v.rows.begin(), v.rows.end(), [](const StateLine& a, const StateLine& b) {
        return a.state == VerdictState::fail && b.state == VerdictState::pass;
    }));
}

TEST_CASE("start: builds before kits, and a kit that cannot be read is said") {
    const StartEntry entry = startEntry(kit(), QStringLiteral("a.kit.json"));
    CHECK(entry.title.startsWith(qs(kit().name)));
    StartView v = startView({}, {entry}, QString(), false, -4);
    CHECK(v.at == 0);
    CHECK(v.now.startsWith(QStringLiteral("Begin")));
    v = startView({{3, "Tiny", 100}}, {entry}, QString(), true, 99);
    CHECK(v.at == 1);
    CHECK(v.entries[0].build == 3);
    CHECK(v.lines[0].state == VerdictState::pass);
    CHECK(startView({}, {}, QStringLiteral("It has no parts."), false, 0)
              .why.startsWith(QStringLiteral("It has no parts.")));
    CHECK(startView({}, {}, QString(), false, 0).lines.empty());
}
