#include "desk/history/history_model.h"
#include "station/rests_on.h"
#include "window_fixture.h"

using namespace ombrek;

TEST_CASE("a repair is noted with keys alone, says what is to be measured again, and can be taken back") {
    Desk desk(fresh);
    QString said;
    QObject::connect(&desk.session(), &Session::said, [&](const QString& line) { said = line; });
    const Subject rail = Subject::check("rail5");
    REQUIRE(desk.session().book().takeReading({0, rail, 5.0, Unit::volt, 0.01, {}, "typed", 0}));
    REQUIRE(lastStanding(desk.kit(), desk.build(), rail));
    desk.key(Qt::Key_F10);
    desk.key(Qt::Key_R);
    desk.refused(QStringLiteral("u99"));
    CHECK(desk.build().repairs.empty());
    CHECK(said.contains(QStringLiteral("no part or coil u99")));
    desk.key(Qt::Key_R);
    desk.answer(QStringLiteral("u2"));
    desk.answer(QStringLiteral("turned round; \"hot\""));
    desk.answer(QStringLiteral("a new one"));
    REQUIRE(desk.build().repairs.size() == 1);
    CHECK(desk.build().repairs[0].ref == "U2");
    CHECK(desk.build().repairs[0].found == "turned round; \"hot\"");
    CHECK(desk.build().repairs[0].done == "a new one");
    CHECK(said.contains(QStringLiteral("U2 is mended. To be measured again: ")));
    CHECK_FALSE(lastStanding(desk.kit(), desk.build(), rail));
    CHECK(historyView(desk.session().judged(), QStringLiteral("u2 repaired")).rows.size() == 1);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().repairs.empty());
    CHECK(lastStanding(desk.kit(), desk.build(), rail));
}

TEST_CASE("what a repair ends is named: what rests on nothing of it is not") {
    Desk desk(fresh);
    const Repair repair{0, "Q5", "", ""};
    CHECK(repairTold(desk.kit(), desk.build(), repair)
              .endsWith(QStringLiteral("Nothing that was read rests on it.")));
    for (const Subject& s : {Subject::power(), Subject::harmonic(2), Subject::frequency()})
        REQUIRE(desk.session().book().takeReading({0, s, 1, Unit::none, 0, {}, "typed", 0}));
    const QString told = repairTold(desk.kit(), desk.build(), repair);
    CHECK(told ==
          QStringLiteral("Q5 is mended. To be measured again: Power at the rated supply, Harmonic 2."));
    CHECK(refOf(desk.kit(), QStringLiteral(" q5 ")) == "Q5");
    CHECK(refOf(desk.kit(), QString()) == "");
}

TEST_CASE("the history says how far back one can go") {
    Desk desk(fresh);
    CHECK(historyView(desk.session().judged(), {}, Book::Undoable{"turn on T1", 1764150000})
              .reach.contains(QStringLiteral("\"turn on T1\"")));
    CHECK(historyView(desk.session().judged(), {}, std::nullopt).reach ==
          QStringLiteral("There is nothing to take back."));
}
