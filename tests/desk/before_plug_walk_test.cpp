#include "judged/before_plug.h"
#include "station/first_light/symptoms.h"
#include "window_fixture.h"

using namespace ombrek;

// Before the first power each thing is asked for; and what is no voltage has a page of its own.

TEST_CASE("the plug does not go in before everything was seen, by key, and it is not asked again") {
    Desk desk(fresh);
    desk.window().goTo(3);
    desk.settle();
    // The first check is an ohmmeter's, without power.
    desk.type(QStringLiteral("5k"));
    desk.key(Qt::Key_Return);
    const auto items = beforePlug(desk.session().judged());
    const auto left = std::count_if(items.begin(), items.end(), [](const PlugItem& i) { return !i.seen; });
    REQUIRE(left >= 2);
    for (const PlugItem& item : items) {
        if (item.seen) continue;
        INFO(item.gate);
        CHECK(desk.now() == QString::fromStdString(item.now));
        // A no is no answer to it, and nothing is measured.
        desk.key(Qt::Key_N);
        CHECK_FALSE(desk.session().build().gates.contains(item.gate));
        desk.key(Qt::Key_Return);
        CHECK(desk.session().build().gates.contains(item.gate));
        CHECK_FALSE(powerWasOn(desk.session().judged()));
    }
    CHECK(desk.now().contains(QStringLiteral("Supply voltage")));
    desk.type(QStringLiteral("12.5"));
    desk.key(Qt::Key_Return);
    CHECK(powerWasOn(desk.session().judged()));
    desk.reopen();
    desk.window().goTo(3);
    CHECK(desk.now().contains(QStringLiteral("Current at first power")));
}

TEST_CASE("a symptom that is no voltage: tests one after another, then the part that it was") {
    Desk desk(partWay);
    desk.window().goTo(3);
    desk.key(Qt::Key_D);
    REQUIRE(desk.window().page()->name() == QStringLiteral("It is no voltage"));
    const auto symptoms = symptomsOf(desk.kit(), desk.session().tables().symptoms);
    const auto first = causesNow(desk.kit(), desk.session().build(), symptoms.front());
    CHECK(desk.now() == QString::fromStdString(first[0].cause.test));
    desk.key(Qt::Key_Return);
    CHECK(desk.now() == QString::fromStdString(first[1].cause.test));
    CHECK(causesNow(desk.kit(), desk.session().build(), symptoms.front()).back().ruledOut);
    desk.key(Qt::Key_Right);
    CHECK(desk.now() == QString::fromStdString(first[2].cause.test));
    desk.key(Qt::Key_Down);
    const auto second = causesNow(desk.kit(), desk.session().build(), symptoms[1]);
    CHECK(desk.now() == QString::fromStdString(second[0].cause.test));
    const std::size_t repairs = desk.session().build().repairs.size();
    desk.key(Qt::Key_M);
    if (second[0].refs.empty()) {
        desk.answer(QStringLiteral("nothing there"));
        CHECK(desk.session().build().repairs.size() == repairs);  // no such part
        desk.key(Qt::Key_M);
        desk.answer(QStringLiteral("r1 soldered again"));
        CHECK(desk.session().build().repairs.back().ref == "R1");
    } else {
        desk.key(Qt::Key_Return);
        CHECK(desk.session().build().repairs.back().ref == second[0].refs.front());
    }
    CHECK(desk.session().build().repairs.size() == repairs + 1);
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("First light"));
}
