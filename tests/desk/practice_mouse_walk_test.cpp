#include <QMenuBar>

#include "judged/bag.h"
#include "judged/checks.h"
#include "judged/sign_off.h"
#include "judged/tune_next.h"
#include "mouse.h"
#include "station/board/board.h"
#include "station/first_light/first_light.h"
#include "station/parts_in/parts_in.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

using namespace ombrek;

// The practice kit with the mouse alone, through all seven stations: caps, the coil, the wire, the menu.

namespace {

/// An entry of a menu, clicked.
void chooseInMenu(Desk& desk, const char* menu, const char* entry) {
    QMenuBar* bar = desk.window().menuBar();
    for (QAction* title : bar->actions()) {
        if (title->text().remove(QChar('&')) != QLatin1String(menu)) continue;
        QTest::mouseClick(bar, Qt::LeftButton, Qt::NoModifier, bar->actionGeometry(title).center());
        desk.settle();
        QMenu* open = title->menu();
        REQUIRE(open->isVisible());
        for (QAction* action : open->actions()) {
            if (action->objectName() != QLatin1String(entry)) continue;
            QTest::mouseClick(open, Qt::LeftButton, Qt::NoModifier, open->actionGeometry(action).center());
            desk.settle();
            return;
        }
    }
    FAIL("no " << entry << " in the menu " << menu);
}

void bag(Desk& desk, Mouse& mouse) {
    chooseInMenu(desk, "Go", "meters");
    mouse.cap("take-the-zero");
    mouse.cap("back");
    while (const Part* part = nextPart(desk.session().judged())) {
        mouse.cap("take-it");
        if (desk.build().last(Subject::part(part->ref)) == nullptr &&
            desk.build().parts.count(part->ref) == 0)
            mouse.cap("not-here");
        REQUIRE(partVerdict(*part, desk.build()).state != VerdictState::notDone);
    }
    CHECK(countBag(desk.session().judged()).waiting == 0);
}

void coils(Desk& desk, Mouse& mouse) {
    mouse.station(1);
    int guard = 0;
    while (const Coil* next = nextCoil(desk.kit(), desk.build())) {
        REQUIRE(++guard < 40);
        const Coil& coil = *next;
        mouse.cap("do-it-and-on");  // cut
        while (const auto winding = windingInHand(coil, desk.build())) {
            const Winding& w = coil.windings[*winding];
            for (int i = desk.build().winding(coil.ref, w.name).turns; i < w.turns; ++i) mouse.cap("a-pass");
            mouse.cap("do-it-and-on");
        }
        mouse.cap("do-it-and-on");  // measured
        for (int tries = 0; tries < 5 && coilAdvice(coil, desk.build())->act != TrimAdvice::Act::leave;
             ++tries) {
            mouse.cap("squeezed-or-spread");
            desk.waitFor(
                [&] { return !desk.session().waiting() && coilAdvice(coil, desk.build()).has_value(); });
            desk.settle();
        }
        for (int i = 0; i < 14 && coilStage(coil, desk.build()) != CoilStage::ready; ++i)
            mouse.cap("do-it-and-on");
        mouse.cap("do-it-and-on");
        CHECK(coilVerdict(coil, desk.build()).state == VerdictState::pass);
    }
}

}  // namespace

TEST_CASE("the practice kit with the mouse alone goes through all seven stations") {
    Desk desk;
    Mouse mouse(desk);
    mouse.cap("begin-it");
    REQUIRE(desk.kit().id == "lantern-15");
    bag(desk, mouse);
    coils(desk, mouse);
    mouse.station(3);
    for (int i = 0; i < 60 && nextCheck(desk.session().judged()) != nullptr; ++i) mouse.cap("take-it");
    for (const Check& check : desk.kit().checks) {
        INFO(check.title);
        CHECK(desk.session().judged().check(check).state == VerdictState::pass);
    }
    mouse.station(2);
    const auto left = [&] { return nextStep(desk.kit(), desk.session().judged().order(), desk.build()); };
    for (int i = 0; i < 200 && left() != nullptr; ++i) mouse.cap("done");
    INFO((left() ? left()->title : std::string()));
    CHECK(left() == nullptr);
    mouse.station(4);
    for (int i = 0; i < 100 && nextAdjustment(desk.session().judged()) != nullptr; ++i)
        mouse.cap("read-it-here-or-go");
    CHECK(nextAdjustment(desk.session().judged()) == nullptr);
    mouse.station(5);
    for (int i = 0; i < 2 + desk.kit().ratings.harmonics; ++i) mouse.cap("take-it");
    CHECK(desk.now().startsWith(QStringLiteral("Proved")));
    mouse.station(6);
    // The bag's troubles are still open, and the page says so: nothing else is.
    for (const Gate& gate : desk.session().judged().readiness().gates) {
        INFO(gate.id);
        const bool open = gate.id == "parts" || gate.id == "licence";
        CHECK((open || gate.state() == VerdictState::pass));
    }
    mouse.cap("gate");
    // Take the last action back by the menu, and again.
    const std::string last = desk.session().book().undoName();
    chooseInMenu(desk, "Edit", "undo");
    CHECK(desk.session().book().undoName() != last);
    chooseInMenu(desk, "Edit", "redo");
    CHECK(desk.session().book().undoName() == last);
}
