#include <QFile>
#include <algorithm>

#include "judged/bag.h"
#include "judged/checks.h"
#include "judged/sign_off.h"
#include "judged/tune_next.h"
#include "station/board/board.h"
#include "station/first_light/first_light.h"
#include "station/parts_in/parts_in.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

using namespace ombrek;

// One builder with one clean finger: an empty book to a signed-off report, with keys alone.

namespace {

void bagToList(Desk& desk) {
    desk.key(Qt::Key_F9);
    CHECK(desk.now().contains(QStringLiteral("take the zero")));
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_F1);
    while (const Part* part = nextPart(desk.session().judged())) {
        CHECK(desk.now().contains(qs(part->ref)));
        desk.key(Qt::Key_Return);
        if (desk.build().last(Subject::part(part->ref)) == nullptr &&
            desk.build().parts.count(part->ref) == 0)
            desk.key(Qt::Key_N);  // the clips find nothing
        REQUIRE(partVerdict(*part, desk.build()).state != VerdictState::notDone);
    }
    const BagCount bag = countBag(desk.session().judged());
    CHECK(bag.missing == 2);
    CHECK(bag.wrong == 3);
    // What was missing turns up, what was wrong is replaced: each is chosen with the arrows and typed in.
    for (const Part* part : partsInOrder(desk.session().judged())) {
        if (partVerdict(*part, desk.build()).state == VerdictState::pass) continue;
        for (int guard = 0; guard < 300 && !desk.now().contains(QStringLiteral(" %1:").arg(qs(part->ref)));
             ++guard)
            desk.key(Qt::Key_Down);
        const double shown =
            part->nominal + (part->unit == Unit::farad ? 0.6e-12 : 0);  // the stray is taken off
        desk.type(qs(plainNumber(shown)));
        desk.key(Qt::Key_Return);
        CHECK(partVerdict(*part, desk.build()).state == VerdictState::pass);
    }
    CHECK(countBag(desk.session().judged()).in == int(desk.kit().parts.size()));
}

void windAll(Desk& desk) {
    desk.key(Qt::Key_F2);
    int guard = 0;
    while (nextCoil(desk.kit(), desk.build()) != nullptr && ++guard < 100) {
        const Coil& coil = *nextCoil(desk.kit(), desk.build());
        CHECK(desk.now().startsWith(QStringLiteral("Cut ")));
        desk.key(Qt::Key_Return);
        while (const auto winding = windingInHand(coil, desk.build())) {
            const Winding& w = coil.windings[*winding];
            for (int i = desk.build().winding(coil.ref, w.name).turns; i < w.turns; ++i)
                desk.key(Qt::Key_Space);
            CHECK(desk.now().contains(QStringLiteral("recount")));
            desk.key(Qt::Key_Return);
        }
        desk.key(Qt::Key_Return);  // measure
        REQUIRE(desk.build().last(Subject::coil(coil.ref)));
        for (int tries = 0; tries < 5 && coilAdvice(coil, desk.build())->act != TrimAdvice::Act::leave;
             ++tries) {
            CHECK((desk.now().contains(QStringLiteral("Squeeze")) ||
                   desk.now().contains(QStringLiteral("Spread"))));
            desk.key(Qt::Key_S);
            desk.waitFor(
                [&] { return !desk.session().waiting() && coilAdvice(coil, desk.build()).has_value(); });
            desk.settle();
        }
        CHECK(coilAdvice(coil, desk.build())->act == TrimAdvice::Act::leave);
        CHECK(desk.now().startsWith(QStringLiteral("Strip the tails")));
        for (int i = 0; i < 12 && coilStage(coil, desk.build()) != CoilStage::ready; ++i)
            desk.key(Qt::Key_Return);  // stripped, every winding through, windings apart
        REQUIRE(coilStage(coil, desk.build()) == CoilStage::ready);
        desk.key(Qt::Key_Return);  // on to the next
    }
    for (const Coil& coil : desk.kit().coils) {
        INFO(coil.ref << ": " << coilVerdict(coil, desk.build()).sentence);
        CHECK(coilVerdict(coil, desk.build()).state == VerdictState::pass);
    }
}

/// Make every check that can be made now; they stop at nothing on a sound rig.
void makeChecks(Desk& desk) {
    desk.key(Qt::Key_F4);
    int guard = 0;
    while (nextCheck(Judged(desk.kit(), desk.build())) != nullptr && ++guard < 60) desk.key(Qt::Key_Return);
    for (const Check& check : desk.kit().checks) {
        INFO(check.title << ": " << checkVerdict(desk.kit(), check, desk.build()).sentence);
        CHECK(checkVerdict(desk.kit(), check, desk.build()).state == VerdictState::pass);
    }
}

void solderAll(Desk& desk) {
    desk.key(Qt::Key_F3);
    int guard = 0;
    while (const Step* step = nextStep(desk.kit(), desk.session().judged().order(), desk.build())) {
        REQUIRE(++guard < 200);
        INFO(step->id);
        desk.key(Qt::Key_Return);
        REQUIRE(desk.build().done(step->id));
    }
    CHECK(desk.now().contains(QStringLiteral("The board is done")));
}

void tuneAll(Desk& desk) {
    desk.key(Qt::Key_F5);
    int guard = 0;
    while (const Adjustment* a = nextAdjustment(desk.session().judged())) {
        REQUIRE(++guard < 100);
        INFO(a->title << ": " << tuneState(desk.kit(), *a, desk.build()).sentence);
        desk.key(Qt::Key_Return);
    }
    CHECK(desk.now().contains(QStringLiteral("settled")));
}

void proveBand(Desk& desk) {
    desk.key(Qt::Key_F6);
    for (int i = 0; i < 2 + desk.kit().ratings.harmonics; ++i) desk.key(Qt::Key_Return);
    CHECK(desk.now().startsWith(QStringLiteral("Proved")));
}

void signOff(Desk& desk) {
    desk.key(Qt::Key_F7);
    CHECK(desk.now().contains(QStringLiteral("within your licence")));
    desk.key(Qt::Key_Return);
    CHECK(desk.now() == QStringLiteral("Fit to go on the air: every gate is earned."));
    for (const auto& [key, name] : {std::pair{Qt::Key_H, "r.html"}, std::pair{Qt::Key_P, "r.pdf"}}) {
        const QString file = QString::fromStdString(desk.path(name).string());
        desk.key(key);
        desk.answer(file);
        REQUIRE(desk.waitFor([&] { return QFile::exists(file) && !desk.window().page()->working(); }));
        CHECK(QFile(file).size() > 10000);
    }
}

}  // namespace

TEST_CASE("from an empty book to a signed-off report with keys alone") {
    Desk desk;
    CHECK(desk.now().contains(QStringLiteral("choose a kit")));
    desk.key(Qt::Key_Return);  // the practice kit is the first
    REQUIRE(desk.session().hasBuild());
    CHECK(desk.kit().name == "Lantern 15");
    bagToList(desk);
    windAll(desk);
    makeChecks(desk);
    solderAll(desk);
    tuneAll(desk);
    proveBand(desk);
    signOff(desk);
    const Readiness ready = desk.session().judged().readiness();
    CHECK(ready.fit());
    CHECK(ready.earned() == int(ready.gates.size()));
    desk.reopen();  // and it is all still there
    CHECK(desk.session().judged().readiness().fit());
}
