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
    desk.key(Qt::Key_R);  // to the repairs
    desk.key(Qt::Key_M);
    desk.refused(QStringLiteral("u99"));
    CHECK(desk.build().repairs.empty());
    CHECK(said.contains(QStringLiteral("no part or coil u99")));
    desk.key(Qt::Key_M);
    desk.answer(QStringLiteral("u2"));
    desk.answer(QStringLiteral("turned round; \"hot\""));
    desk.answer(QStringLiteral("a new one"));
    desk.answer(QStringLiteral("-"));
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
    const auto alone = std::find_if(desk.kit().parts.begin(), desk.kit().parts.end(),
                                    [&](const Part& p) { return shownAgain(desk.kit(), p.ref).empty(); });
    REQUIRE(alone != desk.kit().parts.end());
    CHECK(repairTold(desk.kit(), {0, alone->ref, "", ""})
              .endsWith(QStringLiteral("Nothing that is read rests on it.")));
    const QString told = repairTold(desk.kit(), {0, "L3", "", ""});
    CHECK(
        told.startsWith(QStringLiteral("L3 is mended. To be measured again: L3 low-pass, middle, Power at "
                                       "the rated supply, Harmonic 2, 1 more")));
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
