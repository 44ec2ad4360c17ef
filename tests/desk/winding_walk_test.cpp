#include <QFile>
#include <QImage>
#include <fstream>

#include "desk/winding/picture_page.h"
#include "desk/winding/trimmer_model.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

using namespace ombrek;

// The second station and the pages beside it, worked with keys in the real window.

TEST_CASE("a coil is wound from cutting to continuity with Enter alone and one typed reading") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    const Coil& coil = *desk.kit().coil("L2");
    REQUIRE(desk.now() == QStringLiteral("Wind L2: five passes to go."));
    for (int i = 0; i < 5; ++i) desk.key(Qt::Key_Return);
    CHECK(desk.now().contains(QStringLiteral("recount")));
    desk.key(Qt::Key_Return);
    CHECK(desk.now().startsWith(QStringLiteral("Measure L2")));
    desk.type(QStringLiteral("435n"));
    desk.key(Qt::Key_Return);
    CHECK(desk.now().startsWith(QStringLiteral("Strip the tails")));
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Return);
    CHECK(coilStage(coil, desk.build()) == CoilStage::ready);
    CHECK(desk.build().coilChecks.at("L2/strip") == "scrape");
    CHECK(desk.build().coilChecks.at("L2/coil/continuity") == "ok");
    desk.reopen();
    CHECK(coilStage(*desk.kit().coil("L2"), desk.build()) == CoilStage::ready);
}

TEST_CASE("a tail that is not through is stripped again: windings that touch are not passed") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const Winding& w : practiceKit().kit.coil("T1")->windings) {
            REQUIRE(book->setTurns("T1", w.name, w.turns));
            REQUIRE(book->finishWinding("T1", w.name));
        }
        REQUIRE(book->checkCoil("T1/trust", "yes"));
    });
    const Coil& coil = *desk.kit().coil("T1");
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_H);
    CHECK(desk.build().coilChecks.at("T1/strip") == "blob");
    desk.key(Qt::Key_N);
    CHECK(coilStage(coil, desk.build()) == CoilStage::strip);
    desk.key(Qt::Key_E);
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_Return);
    CHECK(coilStage(coil, desk.build()) == CoilStage::isolation);
    desk.key(Qt::Key_N);
    CHECK(coilStage(coil, desk.build()) == CoilStage::isolation);
    desk.key(Qt::Key_Return);
    CHECK(coilStage(coil, desk.build()) == CoilStage::ready);
    desk.key(Qt::Key_Z);
    CHECK(coilStage(coil, desk.build()) == CoilStage::isolation);
}

TEST_CASE("a lost count is set again, and nonsense leaves it") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_X);
    desk.answer(QStringLiteral("9"));
    CHECK(desk.build().winding("L2", "coil").turns == 9);
    for (const char* nonsense : {"-3", "many", "99999", "2.5"}) {
        desk.key(Qt::Key_X);
        desk.refused(QString::fromUtf8(nonsense));
        CHECK(desk.build().winding("L2", "coil").turns == 9);
    }
    desk.key(Qt::Key_J);
    CHECK(desk.session().book().preference("hand") == "left");
    desk.key(Qt::Key_Z);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().winding("L2", "coil").turns == 7);
}

TEST_CASE("the trimmer page says whether it reaches, and tries turns without touching the book") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_W);
    CHECK(desk.window().page()->name() == QStringLiteral("Trimmer"));
    CHECK(desk.now().contains(QStringLiteral("will reach its band")));
    const auto before = desk.session().book().undoName();
    for (int i = 0; i < 6; ++i) desk.key(Qt::Key_Plus);
    CHECK(desk.now().contains(QStringLiteral("does not reach")));
    for (int i = 0; i < 12; ++i) desk.key(Qt::Key_Minus);
    CHECK(desk.now().contains(QStringLiteral("does not reach")));
    desk.key(Qt::Key_Right);
    CHECK(desk.now().contains(QStringLiteral("will reach")));
    CHECK(desk.session().book().undoName() == before);
    const auto stray = [&] { return tunedCoils(desk.kit())[1]->tune->stray; };
    const double was = stray();
    for (const char* nonsense : {"-5p", "many", "5 V", "3"}) {
        desk.key(Qt::Key_S);
        desk.refused(QString::fromUtf8(nonsense));
        CHECK(stray() == was);
    }
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("9p"));
    CHECK(stray() == Approx(9e-12));
    CHECK(desk.session().book().undoName().starts_with("The strays of"));
    desk.key(Qt::Key_Z);
    CHECK(stray() == was);
    desk.key(Qt::Key_Return);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
}

TEST_CASE("turns are counted in a picture, marks struck and added, and the counter set") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_P);
    auto* page = dynamic_cast<PicturePage*>(desk.window().page());
    REQUIRE(page != nullptr);
    desk.key(Qt::Key_O);
    desk.answer(QStringLiteral(OMBREK_DATA_FOLDER "/demo/coil-l2.jpg"));
    REQUIRE(desk.waitFor([&] { return !page->working() && page->count().count > 0; }));
    CHECK(page->count().count == 7);
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_Delete);
    CHECK(desk.now().startsWith(QStringLiteral("8 turns in the picture, by your marks")));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().winding("L2", "coil").turns == 8);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
}

TEST_CASE("what is no picture, or has no ring, is told and changes nothing") {
    Desk desk(partWay);
    QImage plain(300, 300, QImage::Format_RGB888);
    plain.fill(Qt::lightGray);
    REQUIRE(plain.save(QString::fromStdString(desk.path("plain.png").string())));
    std::ofstream(desk.path("text.png")) << "not a picture";
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_P);
    auto* page = dynamic_cast<PicturePage*>(desk.window().page());
    REQUIRE(page != nullptr);
    for (const char* name : {"plain.png", "text.png", "missing.png"}) {
        desk.key(Qt::Key_O);
        desk.answer(QString::fromStdString(desk.path(name).string()));
        REQUIRE(desk.waitFor([&] { return !page->working(); }));
        CHECK(page->count().marks.empty());
        desk.key(Qt::Key_Return);
        CHECK(desk.build().winding("L2", "coil").turns == 7);
    }
}

TEST_CASE("the cut list is printed") {
    Desk desk(fresh);
    desk.key(Qt::Key_F2);
    const QString file = QString::fromStdString(desk.path("cut.pdf").string());
    desk.key(Qt::Key_L);
    desk.answer(file);
    REQUIRE(desk.waitFor([&] { return QFile::exists(file) && !desk.window().page()->working(); }));
    QFile pdf(file);
    REQUIRE(pdf.open(QIODevice::ReadOnly));
    CHECK(pdf.readAll().startsWith("%PDF-"));
}

TEST_CASE("a click on the coil is a pass, as quick as one clicks: a coil that is wound takes none") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    auto* coil = desk.window().page()->findChild<QWidget*>("coil");
    const int before = desk.build().winding("L2", "coil").turns;
    QTest::mouseClick(coil, Qt::LeftButton);
    QTest::mouseClick(coil, Qt::LeftButton);
    // Pressed again within the desktop's double-click time, the second press comes as a double click.
    QMouseEvent again(QEvent::MouseButtonDblClick, QPointF(40, 40), coil->mapToGlobal(QPointF(40, 40)),
                      Qt::LeftButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(coil, &again);
    desk.settle();
    CHECK(desk.build().winding("L2", "coil").turns == before + 3);
    while (!desk.now().startsWith(QStringLiteral("T1"))) desk.key(Qt::Key_Up);
    const int wound = desk.build().winding("T1", "main").turns;
    QTest::mouseClick(coil, Qt::LeftButton);
    desk.settle();
    CHECK(desk.build().winding("T1", "main").turns == wound);
}

TEST_CASE("another core from the drawers, and an unknown ring known by its size, paint and ten turns") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_C);
    CHECK(desk.now() == QStringLiteral("Another core for L2, T37-6."));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("12.7 7.7 4.8 yellow 0.40u"));
    CHECK(desk.now() == QStringLiteral("It is a T50-6."));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("12.7 7.7 4.8 9.9 1.1"));
    CHECK(desk.now() == QStringLiteral("It is a T50-6."));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("12.7 7.7 4.8"));
    CHECK(desk.now().contains(QStringLiteral("one of these")));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("round and shiny"));  // a sentence; what was found stands
    CHECK(desk.now().contains(QStringLiteral("one of these")));
    desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Up);
    CHECK(desk.now().contains(QStringLiteral("one of these")));
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
}

TEST_CASE("figures of a coil: what if is tried and leaves the book") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_F);
    CHECK(desk.window().page()->name() == QStringLiteral("Figures"));
    CHECK(desk.now().startsWith(QStringLiteral("L2: 12 turns")));
    const auto before = desk.session().book().undoName();
    desk.key(Qt::Key_Plus);
    CHECK(desk.now().startsWith(QStringLiteral("What if: 13 turns")));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("air 8mm 12mm 9"));
    CHECK(desk.now().contains(QStringLiteral("9 turns of 24AWG on air")));
    desk.key(Qt::Key_G);
    desk.refused(QStringLiteral("T50-99"));
    CHECK(desk.now().contains(QStringLiteral("on air")));
    desk.key(Qt::Key_Home);
    CHECK(desk.now().startsWith(QStringLiteral("L2: 12 turns")));
    CHECK(desk.session().book().undoName() == before);
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
}

TEST_CASE("the tens are heard or not, as the builder likes: a machine without a voice says so") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_V);
    CHECK(desk.session().book().preference("sound") == "tens");
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_Space);
    CHECK(desk.build().winding("L2", "coil").turns == 10);
    desk.key(Qt::Key_V);
    const std::string second = desk.session().book().preference("sound");
    CHECK((second == "voice" || second == "off"));
}
