#include <map>

#include "station/tune/tune_rounds.h"
#include "station/tune/tune_ways.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

using namespace ombrek;

// The practice rig of the Tune station from its contrast to its power, with the keys.

namespace {

void begun(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    REQUIRE((*book)->startBuild(tuningKit().kit.name, tuningKit().text));
    REQUIRE((*book)->doStep("all"));
    REQUIRE((*book)->doStep("load"));
    REQUIRE((*book)->takeReading({0, Subject::check("rail5"), 5.01, Unit::volt, 0, {}, "typed", 0}));
}

std::string inHand(Desk& desk) { return desk.window().page()->about().toStdString(); }

VerdictState stateOf(Desk& desk, const std::string& id) {
    return desk.session().judged().tune(*desk.kit().adjustment(id)).state;
}

int settled(Desk& desk) {
    int out = 0;
    for (const Adjustment& a : desk.kit().adjustments)
        out += desk.session().judged().tune(a).state == VerdictState::pass;
    return out;
}

/// What the remedy says is wound at the coil. @return turns changed
int rewound(Desk& desk) {
    const TuneState state = desk.session().judged().tune(*desk.kit().adjustment(inHand(desk)));
    REQUIRE_FALSE(state.remedy.empty());
    const bool add = state.remedy.starts_with("Add ");
    const int turns = std::stoi(state.remedy.substr(add ? 4 : 7)) * (add ? 1 : -1);
    const int now = mainTurns(*desk.kit().coil("T1"), desk.build());
    REQUIRE(desk.session().book().setTurns("T1", "main", now + turns));
    desk.settle();
    return turns;
}

/// Enter until everything is settled, as the line at the top says. @return key presses
int tuneAll(Desk& desk, std::map<std::string, int>* readings = nullptr) {
    desk.window().open(QStringLiteral("tune"));
    int presses = 0;
    for (; presses < 700 && !desk.now().isEmpty(); ++presses) {
        const bool done = settled(desk) == int(desk.kit().adjustments.size());
        if (done) break;
        const std::size_t before = desk.build().readings.size();
        const std::string id = inHand(desk);
        if (desk.now().startsWith(QStringLiteral("It warms up")) ||
            desk.now().startsWith(QStringLiteral("Let it rest")))
            desk.key(Qt::Key_R);
        else if (desk.now().startsWith(QStringLiteral("Add ")) ||
                 desk.now().startsWith(QStringLiteral("Remove ")))
            rewound(desk);
        else
            desk.key(Qt::Key_Return);
        desk.waitFor([&] { return !desk.session().waiting(); });
        QTest::qWait(2);
        desk.settle();
        if (readings != nullptr && desk.build().readings.size() > before) ++(*readings)[id];
    }
    return presses;
}

}  // namespace

TEST_CASE("those who back off leave the power just below its peak, and the receiver at it") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"), QStringLiteral("tx"));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("-2"));
    CHECK(backOffOf(desk.build()).share == Approx(0.02));
    CHECK_FALSE(backOffOf(desk.build()).toMore);
    tuneAll(desk);
    CHECK(settled(desk) == int(desk.kit().adjustments.size()));
    const TuneState tx = desk.session().judged().tune(*desk.kit().adjustment("tx"));
    CHECK(tx.sentence.find("backed off") != std::string::npos);
    const Reading* left = desk.build().last(Subject::adjustment("tx"));
    REQUIRE(left != nullptr);
    double most = 0;
    for (const Reading& r : desk.build().all(Subject::adjustment("tx"))) most = std::max(most, r.value);
    CHECK(left->value < most);
    CHECK(left->value > 0.95 * most);
    CHECK(left->setting(kPosition) < tx.bestPosition);  // towards less, as was chosen
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("40"));  // nobody backs off so far
    CHECK(backOffOf(desk.build()).share == Approx(0.02));
}

TEST_CASE("the practice rig is tuned from its contrast to its power, left at the peak") {
    Desk desk(begun, tuningKit());
    std::map<std::string, int> readings;
    const int presses = tuneAll(desk, &readings);
    INFO("presses " << presses);
    for (const Adjustment& a : desk.kit().adjustments) {
        INFO(a.id << " " << readings[a.id] << ": " << desk.session().judged().tune(a).sentence);
        CHECK(stateOf(desk, a.id) == VerdictState::pass);
    }
    // The receive coil was far too small: its bar was longest at an end, it was wound on, and converged.
    CHECK(mainTurns(*desk.kit().coil("T1"), desk.build()) > 31);
    // The bias stayed below what must never be reached.
    for (const Reading& r : desk.build().all(Subject::adjustment("bias"), -1)) CHECK(r.value < 0.25);
    // The nulls took two rounds or more, and each round is told.
    const auto nulls = partnersOf(desk.kit(), *desk.kit().adjustment("phase"));
    CHECK(nulls.size() == 3);
    const auto rounds = roundsOf(desk.build(), nulls);
    int turned = 0;
    for (const Round& round : rounds)
        for (const RoundTurn& turn : round.turns) turned += turn.readings;
    CAPTURE(rounds.size(), turned, desk.build().readings.size());
    CHECK(rounds.size() >= 2);
    desk.reopen();
    CHECK(settled(desk) == int(desk.kit().adjustments.size()));
}

TEST_CASE("an IF can is peaked by the practice rig's ears") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"), QStringLiteral("if3"));
    int heard = 0;
    for (; heard < 60 && stateOf(desk, "if3") != VerdictState::pass; ++heard) {
        if (heard == 0) {
            desk.key(Qt::Key_P);
            desk.answer(QStringLiteral("62 %"));
        }
        const std::size_t before = desk.build().readings.size();
        desk.key(Qt::Key_H);
        REQUIRE(desk.waitFor([&] { return desk.build().readings.size() > before; }));
        desk.settle();
    }
    CHECK(stateOf(desk, "if3") == VerdictState::pass);
    const double stands = desk.build().last(Subject::adjustment("if3"))->setting(kPosition);
    PracticeTruth rig(tuningKit().kit, tuningKit().bag);
    double most = 0;
    for (int i = 0; i <= 1000; ++i) most = std::max(most, rig.at(Subject::adjustment("if3"), i / 1000.0));
    CHECK(20 * std::log10(most / rig.at(Subject::adjustment("if3"), stands)) < 0.6);
}
