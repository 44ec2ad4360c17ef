#include <QAccessible>
#include <QImage>
#include <QLineEdit>
#include <QTcpServer>
#include <fstream>
#include <random>
#include <set>

#include "desk/pages.h"
#include "desk/pieces/state_list.h"
#include "desk/stations.h"
#include "draws.h"
#include "judged/bag.h"
#include "judged/sign_off.h"
#include "station/board/board.h"
#include "station/parts_in/parts_in.h"
#include "station/proof/proof.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

/// How many different colours a widget shows: an empty page shows one or two.
std::size_t coloursShown(QWidget& widget) {
    const QImage image = widget.grab().toImage();
    std::set<QRgb> colours;
    for (int y = 0; y < image.height(); y += 3) {
        for (int x = 0; x < image.width(); x += 3) colours.insert(image.pixel(x, y));
    }
    return colours.size();
}

}  // namespace

TEST_CASE("the counter goes on at the same turn after a crash") {
    Desk desk(fresh);
    desk.key(Qt::Key_F2);
    for (int i = 0; i < 13; ++i) desk.key(Qt::Key_Space);
    CHECK(desk.now().contains(QStringLiteral("nine passes to go")));
    desk.key(Qt::Key_Backspace);
    CHECK(desk.build().winding("T1", "main").turns == 12);
    desk.reopen();
    desk.key(Qt::Key_F2);
    CHECK(desk.now() == QStringLiteral("Wind T1 main: ten passes to go."));
    desk.key(Qt::Key_Space);
    CHECK(desk.build().winding("T1", "main").turns == 13);
}

TEST_CASE("undo and do again by key, also over a restart") {
    Desk desk(fresh);
    desk.key(Qt::Key_F2);
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_Space);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().winding("T1", "main").turns == 2);
    desk.reopen();
    desk.key(Qt::Key_Z);
    CHECK(desk.build().winding("T1", "main").turns == 1);
    desk.key(Qt::Key_Z, Qt::ShiftModifier);
    CHECK(desk.build().winding("T1", "main").turns == 2);
}

TEST_CASE("a reading is typed with the first digit, and nonsense loses nothing") {
    Desk desk(fresh);
    desk.key(Qt::Key_F1);
    const Part& first = *nextPart(desk.session().judged());
    desk.type(QStringLiteral("9,95k"));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().last(Subject::part(first.ref)));
    CHECK(desk.build().last(Subject::part(first.ref))->value == Approx(9950));
    const auto count = desk.build().readings.size();
    for (const char* nonsense : {"9..9", "10 nF", "1k2k", "--", "9e999"}) {
        desk.type(QString::fromUtf8(nonsense));
        desk.key(Qt::Key_Return);
        CHECK(desk.build().readings.size() == count);
    }
    desk.type(QStringLiteral("47"));
    desk.key(Qt::Key_Escape);  // thought better of it
    CHECK(desk.build().readings.size() == count);
}

TEST_CASE("a bench that is not there gives a line and the page goes on") {
    Desk desk(fresh);
    desk.stopBench();
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_Return);
    CHECK(desk.build().readings.empty());
    CHECK_FALSE(desk.session().waiting());
    desk.type(QStringLiteral("10k"));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().readings.size() == 1);
}

TEST_CASE("an unearned hold is refused, and passed knowingly with a reason") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    while (!nextStep(desk.kit(), desk.session().judged().order(), desk.build())->hold)
        desk.key(Qt::Key_Return);
    const std::string hold = nextStep(desk.kit(), desk.session().judged().order(), desk.build())->id;
    CHECK(desk.now().startsWith(QStringLiteral("Hold point: ")));
    desk.key(Qt::Key_Return);
    CHECK_FALSE(desk.build().done(hold));
    desk.key(Qt::Key_K);
    desk.type(QStringLiteral("rails were proved on another bench"));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().done(hold));
    CHECK(desk.build().steps.at(hold).knowingly);
    CHECK(desk.build().steps.at(hold).reason == "rails were proved on another bench");
}

TEST_CASE("a step waits for those before it") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    for (int i = 0; i < 4; ++i) desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Return);
    CHECK(desk.build().steps.empty());
}

TEST_CASE("the order of work is chosen by key and kept") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_O);
    CHECK(desk.build().order == Order::lowestFirst);
    desk.reopen();
    CHECK(desk.build().order == Order::lowestFirst);
}

TEST_CASE("a failed gate bars the checks after it") {
    Desk desk(fresh);
    desk.key(Qt::Key_F4);
    desk.type(QStringLiteral("20"));  // 20 Ω from supply to ground
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::check("short"))->value == 20);
    desk.key(Qt::Key_Down);
    CHECK(desk.now().startsWith(QStringLiteral("Stop")));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::check("polarity")) == nullptr);
}

TEST_CASE("tuning by typed readings finds an end stop and says the turns") {
    Desk desk(fresh);
    desk.key(Qt::Key_F5);
    for (int i = 0; i < 2; ++i) desk.key(Qt::Key_Down);
    for (const auto& [percent, volts] :
         {std::pair{"60", "0.2"}, std::pair{"80", "0.35"}, std::pair{"100", "0.7"}}) {
        desk.key(Qt::Key_P);
        desk.type(QString::fromUtf8(percent));
        desk.key(Qt::Key_Return);
        desk.type(QString::fromUtf8(volts));
        desk.key(Qt::Key_Return);
    }
    CHECK(desk.build().all(Subject::adjustment("rx")).size() == 3);
    CHECK(desk.now().startsWith(QStringLiteral("Add ")));
    CHECK(desk.now().contains(QStringLiteral("on T1")));
}

TEST_CASE("power by every method, at the supply used") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        loadOn(file);
    });
    desk.key(Qt::Key_F6);
    desk.type(QStringLiteral("11.5"));
    desk.key(Qt::Key_Return);
    const auto watts = [&] { return powerOf(*desk.build().last(Subject::power()), 50).watts; };
    desk.type(QStringLiteral("4.0"));
    desk.key(Qt::Key_Return);
    CHECK(watts() == Approx(2.512).margin(0.001));
    desk.key(Qt::Key_M);  // scope
    desk.type(QStringLiteral("31.6"));
    desk.key(Qt::Key_Return);
    CHECK(watts() == Approx(2.496).margin(0.001));
    desk.key(Qt::Key_M);  // diode probe
    desk.key(Qt::Key_S);
    desk.key(Qt::Key_A, Qt::ControlModifier);
    desk.type(QStringLiteral("0.5"));
    desk.key(Qt::Key_Return);
    desk.type(QStringLiteral("15.3"));
    desk.key(Qt::Key_Return);
    CHECK(watts() == Approx(15.8 * 15.8 / 100).margin(0.001));
    desk.key(Qt::Key_M);  // wattmeter
    desk.type(QStringLiteral("2.5"));
    desk.key(Qt::Key_Return);
    CHECK(watts() == Approx(2.5));
    desk.key(Qt::Key_L);
    CHECK(desk.build().profile == "itu-below-30");
}

TEST_CASE("gates are passed knowingly with a reason, the licence only confirmed") {
    Desk desk(finished);
    desk.key(Qt::Key_F7);
    CHECK(desk.now().contains(QStringLiteral("Every part in")));
    desk.key(Qt::Key_K);
    desk.type(QStringLiteral("two on order"));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().gates.at("parts").reason == "two on order");
    CHECK(desk.now().contains(QStringLiteral("licence")));
    desk.key(Qt::Key_K);
    CHECK_FALSE(desk.build().gates.contains("licence"));
    desk.key(Qt::Key_Return);
    CHECK(desk.now().contains(QStringLiteral("knowingly")));
}

TEST_CASE("the sums line answers, and puts its value on the page") {
    Desk desk(fresh);
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_K, Qt::ControlModifier);
    desk.type(QStringLiteral("10.05k"));
    CHECK(desk.window().sums().answerText().contains(QStringLiteral("10.05")));
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Return);
    if (desk.build().readings.empty())
        desk.key(Qt::Key_Return);  // far from the list's value: Enter once more
    REQUIRE_FALSE(desk.build().readings.empty());
    CHECK(desk.build().readings.back().value == Approx(10050));
    desk.key(Qt::Key_K, Qt::ControlModifier);
    desk.key(Qt::Key_A, Qt::ControlModifier);
    desk.type(QStringLiteral("104"));
    const QString first = desk.window().sums().answerText();
    desk.key(Qt::Key_Down);
    CHECK(desk.window().sums().answerText() != first);
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().focusWidget() == desk.window().page());
}

TEST_CASE("every page has something to show, in both benches and in every size") {
    int look = 0;
    Desk desk(partWay);
    for (const bool night : {false, true}) {
        setNight(night);
        for (const QSize size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
            if (!longRun() && look++ % 2 == 1) continue;  // each size and each bench once or more
            desk.window().resize(size);
            for (const PageRow& row : pageRows()) {
                if (row.where == PageRow::Where::start) continue;
                desk.open(row);
                desk.settle();
                INFO("page " << desk.window().page()->name().toStdString()
                             << (night ? ", night, " : ", day, ") << size.width());
                CHECK(coloursShown(*desk.window().page()) > 20);
                CHECK_FALSE(desk.now().isEmpty());
                CHECK(desk.window().size() == size);  // nothing forces the window larger
                const QLabel* tooWide = nullptr;
                for (const QLabel* label : desk.window().page()->findChildren<QLabel*>()) {
                    if (!label->isVisible() || label->text().isEmpty()) continue;
                    const QRect inside(QPoint(0, 0), desk.window().page()->size());
                    const QRect where(label->mapTo(desk.window().page(), QPoint(0, 0)), label->size());
                    if (!inside.contains(where)) tooWide = label;
                }
                INFO((tooWide ? tooWide->text().toStdString() : std::string()));
                CHECK(tooWide == nullptr);
            }
        }
    }
    setNight(false);
}

TEST_CASE("F11 leaves only the big thing, and ? shows the keys") {
    Desk desk(partWay);
    desk.key(Qt::Key_F11);
    CHECK_FALSE(desk.window().sums().isVisible());
    desk.key(Qt::Key_F11);
    CHECK(desk.window().sums().isVisible());
    for (int i = 0; i < Window::kStations; ++i) {
        desk.window().goTo(i);
        CHECK(desk.window().page()->actions().size() >= 3);
    }
    desk.key(Qt::Key_Question);
    CHECK(desk.window().focusWidget()->accessibleName() == QStringLiteral("Keys"));
    desk.key(Qt::Key_Space);
    CHECK(desk.window().focusWidget() == desk.window().page());
}

TEST_CASE("a second window on one book looks and does not write, and says so") {
    Desk desk(partWay);
    auto second = Book::open(desk.session().book().path());
    REQUIRE(second);
    Session session(Tables(shippedTables()), std::move(*second));
    Window window(session);
    window.show();
    CHECK(session.book().readOnly());
    QString line;
    QObject::connect(&session, &Session::said, [&](const QString& text, VerdictState) { line = text; });
    window.goTo(1);
    window.activateWindow();
    REQUIRE(QTest::qWaitForWindowActive(&window));
    QTest::keyClick(window.page(), Qt::Key_Space);
    CHECK(line.contains(QStringLiteral("Another program")));
    // It stands on every page, and none promises to keep anything.
    for (const PageRow& row : pageRows()) {
        window.open(QString::fromUtf8(row.id));
        CAPTURE(row.id);
        const auto* note = window.page()->findChild<QWidget*>(QStringLiteral("note"));
        REQUIRE(note != nullptr);
        CHECK(note->accessibleName().contains(QStringLiteral("look, not write")));
        for (const QLabel* label : window.page()->findChildren<QLabel*>()) {
            CHECK_FALSE(label->text().contains(QStringLiteral("it is kept")));
            CHECK_FALSE(label->text().contains(QStringLiteral("kept at once")));
        }
    }
}

TEST_CASE("a long sentence at a page's foot has the room it needs") {
    Desk desk(partWay);
    desk.window().resize(1024, 700);
    desk.settle();
    const auto* note = desk.window().page()->findChild<QWidget*>(QStringLiteral("note"));
    REQUIRE(note != nullptr);
    const int one = note->height();
    desk.session().say(
        QStringLiteral(
            "You can look, not write: make this book's folder writable, or delete "
            ".a-book-with-a-long-name.ombrek.lock in it. That lock can be neither made nor opened."),
        VerdictState::doubtful);
    desk.settle();
    CHECK(note->height() > one);
    CHECK(desk.window().page()->rect().contains(note->geometry()));
    desk.session().say(QString(), VerdictState::notDone);
    desk.settle();
    CHECK(note->height() == one);
}

TEST_CASE("a kit file with a fault is told on the start page, and nothing begins") {
    Desk desk;
    const auto file = desk.path("bad.kit.json");
    std::ofstream(file) << "{\"format\": \"ombrek-kit\", \"version\": 1, \"id\": \"x\"}";
    QString line;
    QObject::connect(&desk.session(), &Session::said,
                     [&](const QString& text, VerdictState) { line = text; });
    desk.key(Qt::Key_O);
    desk.answer(QString::fromStdString(file.string()));
    CHECK_FALSE(desk.session().hasBuild());
    CHECK(line.contains(QStringLiteral("/name")));
    desk.key(Qt::Key_O);
    desk.answer(QStringLiteral("/no/such/file"));
    CHECK(line.contains(QStringLiteral("no such file")));
}

TEST_CASE("another kit is begun beside the first, and each is gone on with") {
    Desk desk(fresh);
    desk.key(Qt::Key_N, Qt::ControlModifier);
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Return);
    CHECK(desk.kit().name == "Breakwater");
    desk.key(Qt::Key_F2);
    CHECK(desk.now().contains(QStringLiteral("no coils")));
    for (int i = 0; i < Window::kStations; ++i) {
        desk.window().goTo(i);
        CHECK_FALSE(desk.now().isEmpty());
        desk.key(Qt::Key_Return);
        desk.key(Qt::Key_Down);
        desk.key(Qt::Key_Up);
    }
    desk.key(Qt::Key_N, Qt::ControlModifier);
    desk.key(Qt::Key_Up);
    desk.key(Qt::Key_Up);
    desk.key(Qt::Key_Return);
    CHECK(desk.session().book().builds().size() >= 2);
}

TEST_CASE("random keys never break the window, and undo brings all of it back") {
    const Folder home;  // some keys write files there
    qputenv("HOME", QByteArray::fromStdString((home / "").string()));
    Desk desk(fresh);
    desk.stopBench();
    desk.session().practice().setTimeout(20);
    std::mt19937 engine(41);
    const std::vector<Qt::Key> keys{
        Qt::Key_Return, Qt::Key_Space, Qt::Key_Backspace, Qt::Key_Down, Qt::Key_Up,     Qt::Key_Left,
        Qt::Key_Right,  Qt::Key_N,     Qt::Key_T,         Qt::Key_R,    Qt::Key_K,      Qt::Key_M,
        Qt::Key_A,      Qt::Key_G,     Qt::Key_L,         Qt::Key_W,    Qt::Key_Escape, Qt::Key_5,
        Qt::Key_Z,      Qt::Key_F1,    Qt::Key_F2,        Qt::Key_F3,   Qt::Key_F4,     Qt::Key_F5,
        Qt::Key_F6,     Qt::Key_F7,    Qt::Key_F11,       Qt::Key_O,    Qt::Key_F8,     Qt::Key_F9,
        Qt::Key_U,      Qt::Key_M,     Qt::Key_Y,         Qt::Key_H,    Qt::Key_E,      Qt::Key_P,
        Qt::Key_S,      Qt::Key_I,     Qt::Key_X,         Qt::Key_C,    Qt::Key_D,      Qt::Key_V,
        Qt::Key_Delete, Qt::Key_Plus,  Qt::Key_F};
    for (int i = 0; i < 1200; ++i) {
        QWidget* target = desk.window().focusWidget() ? desk.window().focusWidget() : desk.window().page();
        QTest::keyClick(target, keys[engine() % keys.size()]);
    }
    desk.settle();
    while (!desk.session().book().undoName().empty()) REQUIRE(desk.session().book().undo());
    CHECK(desk.session().book().builds().empty());
    CHECK_FALSE(desk.session().hasBuild());
    CHECK(desk.now().contains(QStringLiteral("choose a kit")));
}

TEST_CASE("stations say how far they have come") {
    Desk desk(partWay);
    const auto lines = stationLines(desk.session().judged());
    REQUIRE(lines.size() == 7);
    CHECK(lines[0].state == QStringLiteral("104 of 117, 2 missing"));
    CHECK(lines[1].state == QStringLiteral("5 of 9 coils"));
    for (const auto& line : lines) {
        CHECK(line.wound >= 0);
        CHECK(line.wound <= 1);
    }
    CHECK(hoursAndMinutes(72) == QStringLiteral("1 h 12"));
    CHECK(hoursAndMinutes(40.4) == QStringLiteral("40 min"));
}

TEST_CASE("screen readers hear names and values") {
    Desk desk(partWay);
    desk.window().goTo(1);
    desk.settle();
    QStringList heard;
    for (const QWidget* w : desk.window().findChildren<QWidget*>()) {
        if (w->isVisible() && !w->accessibleName().isEmpty()) heard << w->accessibleName();
    }
    CHECK(heard.contains(QStringLiteral("7 of 12 turns on L2")));
    CHECK(heard.contains(QStringLiteral("Stations")));
    CHECK(heard.contains(QStringLiteral("Sums")));
}

TEST_CASE("every act of every page has an id of its own, a key and words") {
    Desk desk(partWay);
    QStringList pages;
    for (const PageRow& row : pageRows()) {
        if (row.where == PageRow::Where::start) continue;
        desk.open(row);
        const Page& page = *desk.window().page();
        CHECK(page.objectName() == QString::fromUtf8(row.id));
        CHECK_FALSE(pages.contains(page.name()));
        pages << page.name();
        QStringList ids;
        for (const QAction* act : page.actions()) {
            INFO(row.id << ": " << act->objectName().toStdString());
            CHECK_FALSE(act->objectName().isEmpty());
            CHECK_FALSE(ids.contains(act->objectName()));
            CHECK(page.act(act->objectName()) == act);
            CHECK_FALSE(act->text().isEmpty());
            CHECK_FALSE(act->property(act::kKey).toString().isEmpty());
            CHECK_FALSE(act->shortcuts().isEmpty());
            ids << act->objectName();
        }
    }
}

TEST_CASE("a current through a gap: read it, bridge the gap, Enter says so, and Z takes it back") {
    const std::string kit =
        R"({"format":"ombrek-kit","version":1,"id":"gap","name":"Gap","parts":[{"ref":"R1","kind":"resistor",
        "value":"47","tolerance":5}],"checks":[{"id":"gap","do":"Receiver's current","at":"across JP2",
        "quantity":"current","low":"5m","high":"20m","gate":true,"bridge":"JP2"},
        {"id":"rail","do":"5 V rail","at":"U2","quantity":"voltage","low":"4.8","high":"5.2"}]})";
    Desk desk([&](const std::filesystem::path& file) {
        auto book = Book::open(file);
        REQUIRE((*book)->startBuild("Gap", kit));
    });
    desk.window().goTo(3);
    desk.plugIn();
    desk.type(QStringLiteral("10m"));
    desk.key(Qt::Key_Return);
    CHECK(desk.now() == QStringLiteral("Close the gap: JP2."));
    desk.key(Qt::Key_Return);
    CHECK(desk.now().startsWith(QStringLiteral("5 V rail")));
    desk.key(Qt::Key_Z);
    CHECK(desk.now() == QStringLiteral("Close the gap: JP2."));
}
