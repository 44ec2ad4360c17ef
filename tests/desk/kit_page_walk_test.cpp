#include <QClipboard>
#include <fstream>

#include "desk/kit_sheet/kit_model.h"
#include "formats/files.h"
#include "formats/kit_edit.h"
#include "judged/evidence.h"
#include "report/report.h"
#include "station/board/board.h"
#include "station/notes.h"
#include "station/subjects.h"
#include "window_fixture.h"

using namespace ombrek;

// The kit itself: where the rig is otherwise than its paper, its variants, an upgrade, another issue, another
// band.

namespace {

void waitIdle(Desk& desk) {
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    desk.settle();
}

void openOther(Desk& desk, const std::filesystem::path& file) {
    desk.key(Qt::Key_O);
    desk.answer(QString::fromStdString(file.string()));
    waitIdle(desk);
}

std::filesystem::path demo(const char* name) {
    return std::filesystem::path(OMBREK_DATA_FOLDER) / "demo" / name;
}

}  // namespace

TEST_CASE("errata and what was done otherwise are noted where one is, and stand on the kit's page") {
    Desk desk(partWay);
    const std::size_t errata = notesOf(desk.kit(), desk.build()).size();  // the practice kit's own
    desk.window().open(QStringLiteral("parts-in"), QStringLiteral("R1"));
    const auto note = [&](Qt::Key station, Qt::Key what, const char* text) {
        desk.key(station);
        desk.key(what, Qt::ShiftModifier);
        desk.answer(QString::fromUtf8(text));
    };
    note(Qt::Key_F1, Qt::Key_E, "its bands are printed in the wrong order");
    note(Qt::Key_F2, Qt::Key_D, "wound with thinner wire, the reel was empty");
    note(Qt::Key_F3, Qt::Key_D, "a socket of my own");
    note(Qt::Key_F4, Qt::Key_E, "the table says 7 V");
    note(Qt::Key_F5, Qt::Key_D, "a larger trimmer");
    CHECK(notesOf(desk.kit(), desk.build()).size() == errata + 5);
    desk.key(Qt::Key_F12);
    CHECK(desk.window().page()->name() == QStringLiteral("The kit"));
    const KitView view = kitView(desk.kit(), desk.build());
    REQUIRE(view.rows.size() == errata + 5);
    desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Return);  // to the coil
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
    desk.key(Qt::Key_F12);
    // What goes out with the kit: errata, not what was done otherwise, nor anything of the person.
    const auto out = desk.path("out.kit.json");
    desk.key(Qt::Key_W);
    desk.answer(QString::fromStdString(out.string()));
    waitIdle(desk);
    const auto text = readFile(out, 1000000);
    REQUIRE(text);
    CHECK(text->find("wrong order") != std::string::npos);
    CHECK(text->find("thinner wire") == std::string::npos);
    const QString html = makeReport(desk.session().judged(), {.now = wallClock()}).html;
    CHECK(html.contains(QStringLiteral("wrong order")));
    CHECK(html.contains(QStringLiteral("thinner wire")));
    // Taken back one by one, and an empty answer takes one out.
    desk.key(Qt::Key_Z);
    CHECK(notesOf(desk.kit(), desk.build()).size() == errata + 4);
    desk.reopen();
    CHECK(notesOf(desk.kit(), desk.build()).size() == errata + 4);
}

TEST_CASE("what lies on the bench is asked once and kept for the next kit") {
    Desk desk(fresh);
    desk.key(Qt::Key_F12);
    desk.key(Qt::Key_T);
    for (const char* said : {"Sn63Pb37 0.7 mm", "350 degrees", "none", "strap on first"})
        desk.answer(QString::fromUtf8(said));
    CHECK(desk.session().book().preference("bench solder") == "Sn63Pb37 0.7 mm");
    CHECK(desk.session().book().preference("bench rules") == "strap on first");
    REQUIRE(desk.session().book().startBuild(practiceKit().kit.name, practiceKit().text));
    CHECK(desk.session().book().preference("bench iron") == "350 degrees");
}

TEST_CASE("a kit in twelve variants: one is begun, another is built later") {
    Desk desk;
    desk.key(Qt::Key_L);
    QApplication::clipboard()->setText(QStringLiteral(
        "Ref;Value;80m;40m;30m;20m;17m;15m;12m;10m;160m;60m;6m;11m\n"
        "R1;10k;;;;;;;;;;;;\n"
        "C5;;820p;390p;220p;180p;120p;100p;82p;68p;1n8;470p;33p;75p\n"
        "L1;;T50-2, 30 turns #26;T50-2, 22 turns #26;T50-6, 20 turns #26;T50-6, 18 turns "
        "#26;T50-6, 15 turns #26;T50-6, 13 turns #26;T50-6, 12 turns #26;T50-6, 11 turns "
        "#26;T50-2, 44 turns #26;T50-2, 25 turns #26;T50-6, 8 turns #26;T50-6, 11 turns #26\n"));
    desk.key(Qt::Key_V, Qt::ControlModifier);
    waitIdle(desk);
    desk.key(Qt::Key_V);
    waitIdle(desk);
    desk.key(Qt::Key_V);
    waitIdle(desk);
    CHECK(desk.window().page()->nowSentence().contains(QStringLiteral("understood")));
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild(); }));
    CHECK(desk.kit().variant == "40m");
    CHECK(desk.kit().variants.size() == 12);
    CHECK(desk.kit().part("C5")->nominal == Approx(390e-12));
    // It was measured and wound when the builder thinks better of it.
    REQUIRE(
        desk.session().book().takeReading({0, Subject::part("C5"), 391e-12, Unit::farad, 1e-12, {}, "t", 0}));
    REQUIRE(desk.session().book().takeReading({0, Subject::part("R1"), 1e4, Unit::ohm, 1, {}, "t", 0}));
    REQUIRE(desk.session().book().countTurn("L1", "main", 7));
    desk.key(Qt::Key_F12);
    desk.key(Qt::Key_V);
    desk.answer(QStringLiteral("moss"));
    CHECK(desk.kit().variant == "40m");
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_F12);
    desk.key(Qt::Key_V);
    desk.answer(QStringLiteral("160m"));
    CHECK(desk.kit().variant == "160m");
    CHECK(desk.kit().part("C5")->nominal == Approx(1800e-12));
    CHECK(desk.kit().coil("L1")->windings.front().turns == 44);
    CHECK(desk.build().last(Subject::part("C5")) == nullptr);  // that was another part
    CHECK(desk.build().last(Subject::part("R1")) != nullptr);
    CHECK(desk.build().winding("L1", "main").turns == 0);
    desk.key(Qt::Key_Z);
    CHECK(desk.kit().variant == "40m");
    CHECK(desk.build().last(Subject::part("C5")) != nullptr);
    CHECK(desk.build().winding("L1", "main").turns == 7);
}

TEST_CASE("an upgrade on a finished rig: on the plan, the right things open again, one history") {
    Desk desk(finished);
    const std::size_t steps = desk.kit().steps.size(), readings = desk.build().readings.size();
    const auto state = [&](const char* subject) {
        return evidenceOf(readSubject(subject), desk.session().judged()).state;
    };
    REQUIRE(state("check:u5-feed") == VerdictState::pass);
    const VerdictState power = state("proof:power");
    desk.key(Qt::Key_F12);
    openOther(desk, demo("lantern-15.upgrade.json"));
    desk.answer(QStringLiteral("no"));
    CHECK(desk.kit().steps.size() == steps);
    openOther(desk, demo("lantern-15.upgrade.json"));
    desk.key(Qt::Key_Return);
    CHECK(desk.kit().upgrades == std::vector<std::string>{"Night ear"});
    CHECK(desk.kit().steps.size() == steps + 5);
    CHECK(desk.build().readings.size() == readings);  // nothing is thrown away
    CHECK(state("check:u5-feed") == VerdictState::notDone);
    CHECK(state("part:C44") == VerdictState::notDone);  // another one comes
    CHECK(state("part:C90") == VerdictState::notDone);
    CHECK(state("proof:power") == power);  // the upgrade says what it touches
    CHECK(state("check:rail8") == VerdictState::pass);
    desk.key(Qt::Key_F3);
    CHECK(desk.now().contains(QStringLiteral("R51")));
    CHECK(makeReport(desk.session().judged(), {.now = wallClock()})
              .html.contains(QStringLiteral("Upgrade: Night ear.")));
    desk.key(Qt::Key_Z);
    CHECK(desk.kit().part("R51") != nullptr);
    CHECK(state("check:u5-feed") == VerdictState::pass);
}

TEST_CASE("another issue of the kit is compared, and taken over without losing work") {
    Desk desk(partWay);
    const auto other = desk.path("next.kit.json");
    std::ofstream(other) << withErratum(practiceKit().text, Subject::part("R1"), "is 12 k, says the club");
    const auto readings = desk.build().readings.size();
    const auto done = desk.build().steps.size();
    desk.key(Qt::Key_F12);
    desk.key(Qt::Key_M);  // nothing is open yet
    CHECK(desk.kit().part("R1")->erratum.empty());
    openOther(desk, other);
    CHECK(desk.now() == QStringLiteral("1 erratum differs."));
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("The kit"));
    openOther(desk, other);
    desk.key(Qt::Key_M);
    CHECK(desk.kit().part("R1")->erratum == "is 12 k, says the club");
    CHECK(desk.build().readings.size() == readings);
    CHECK(desk.build().steps.size() == done);
    // What is no kit is said.
    const auto bad = desk.path("bad.json");
    std::ofstream(bad) << "{}";
    openOther(desk, bad);
    openOther(desk, desk.path("not-there.json"));
    CHECK(desk.window().page()->name() == QStringLiteral("The kit"));
}

TEST_CASE("a band that was not supplied becomes a variant, and the supplied one comes back") {
    Desk desk(partWay);
    const auto before = desk.kit().coil("L2")->target;
    desk.key(Qt::Key_F12);
    desk.key(Qt::Key_N);
    desk.refused(QStringLiteral("yesterday"));
    desk.key(Qt::Key_N);
    desk.answer(QStringLiteral("14 to 14.35 MHz"));
    CHECK(desk.now().contains(QStringLiteral("14 to 14.35")));
    desk.key(Qt::Key_P);  // from the prototype, and back
    desk.key(Qt::Key_P);
    desk.key(Qt::Key_Return);
    CHECK(desk.window().page()->name() == QStringLiteral("The kit"));
    CHECK(desk.kit().variants.size() == 2);
    CHECK(desk.kit().coil("L2")->target > before);
    CHECK(desk.build().last(Subject::coil("T1")) == nullptr);  // wound for the other band
    desk.key(Qt::Key_V);
    desk.key(Qt::Key_Return);
    CHECK(desk.kit().coil("L2")->target == before);
}

TEST_CASE("what is seen or heard at First light: Enter for yes, N for no, and no digit is a reading") {
    const std::string kit =
        R"({"format":"ombrek-kit","version":1,"id":"lamp","name":"Lamp","parts":[{"ref":"R1","kind":"resistor",
        "value":"47","tolerance":5}],"checks":[{"id":"lamp","do":"lamp","quantity":"seen","seen":"the lamp lights",
        "gate":true},{"id":"rail","do":"5 V rail","at":"U2","quantity":"voltage","low":"4.8","high":"5.2"}]})";
    Desk desk([&](const std::filesystem::path& file) {
        auto book = Book::open(file);
        REQUIRE((*book)->startBuild("Lamp", kit));
    });
    desk.key(Qt::Key_F4);
    desk.plugIn();
    CHECK(desk.now() == QStringLiteral("Is it so? the lamp lights."));
    desk.type(QStringLiteral("5"));
    CHECK(desk.build().readings.empty());
    desk.key(Qt::Key_N);
    const auto state = [&] { return desk.session().judged().check(*desk.kit().check("lamp")).state; };
    CHECK(state() == VerdictState::fail);
    desk.key(Qt::Key_Return);
    CHECK(state() == VerdictState::pass);
    CHECK(desk.now().startsWith(QStringLiteral("5 V rail")));
    desk.key(Qt::Key_N);  // of a reading there is no "not so"
    CHECK(desk.build().last(Subject::check("rail")) == nullptr);
}

TEST_CASE("a no to what is heard with the key down is no word for the load") {
    const std::string kit =
        R"({"format":"ombrek-kit","version":1,"id":"tone","name":"Tone","parts":[{"ref":"R1","kind":"resistor",
        "value":"47","tolerance":5}],"checks":[{"id":"tone","do":"tone","quantity":"seen","seen":"a tone is heard",
        "condition":"key down"}]})";
    Desk desk([&](const std::filesystem::path& file) {
        auto book = Book::open(file);
        REQUIRE((*book)->startBuild("Tone", kit));
    });
    desk.key(Qt::Key_F4);
    desk.plugIn();
    CHECK(desk.now().contains(QStringLiteral("dummy load")));
    desk.key(Qt::Key_N);
    CHECK_FALSE(desk.build().gates.contains(kLoadOn));
    CHECK(desk.build().readings.empty());
    desk.key(Qt::Key_Return);
    CHECK(desk.build().gates.contains(kLoadOn));
    desk.key(Qt::Key_N);
    CHECK(desk.build().readings.size() == 1);
}
