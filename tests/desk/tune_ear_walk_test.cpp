#include <cmath>

#include "practice/truth.h"
#include "station/tune/tune.h"
#include "window_fixture.h"

using namespace ombrek;

// The receive band-pass by ear alone, with the keys: what is louder is answered by the practice rig.

TEST_CASE("a receiver is peaked by ear: turn, listen, louder, the same or softer") {
    Desk desk(partWay);
    PracticeTruth rig(practiceKit().kit, practiceKit().bag);
    const Subject rx = Subject::adjustment("rx");
    const Adjustment* a = desk.kit().adjustment("rx");
    REQUIRE(a != nullptr);
    desk.window().open(QStringLiteral("tune"), QStringLiteral("rx"));
    desk.settle();
    // Standing still is no comparison.
    const auto state = [&] { return desk.session().judged().tune(*a); };
    const auto last = [&] { return desk.build().last(rx); };
    double stands = last() != nullptr ? last()->setting(kPosition, 0.5) : 0.5;
    const std::size_t before = desk.build().readings.size();
    int taken = 0;
    double next = stands < 0.5 ? stands + 0.2 : stands - 0.2;
    for (; taken < 60; ++taken) {
        desk.key(Qt::Key_P);
        desk.answer(QString::number(next * 100, 'f', 1));
        next = std::round(next * 1000) / 1000;
        const double db = 20 * std::log10(rig.at(rx, next) / rig.at(rx, stands));
        desk.key(db > 0.5 ? Qt::Key_L : db < -0.5 ? Qt::Key_S : Qt::Key_E);
        REQUIRE(desk.build().readings.size() == before + std::size_t(taken) + 1);
        stands = next;
        if (state().state == VerdictState::pass || state().state == VerdictState::fail) break;
        next = state().nextPosition;
    }
    CHECK(state().state == VerdictState::pass);
    CHECK(desk.now().contains(QStringLiteral("settled")));
    double most = 0;
    for (int i = 0; i <= 1000; ++i) most = std::max(most, rig.at(rx, i / 1000.0));
    CHECK(20 * std::log10(most / rig.at(rx, stands)) <= 0.3);
    desk.reopen();
    CHECK(desk.session().judged().tune(*desk.kit().adjustment("rx")).state == VerdictState::pass);
    // A comparison of the same place is refused with a sentence, and where no peak is sought, too.
    desk.window().open(QStringLiteral("tune"), QStringLiteral("rx"));
    const std::size_t kept = desk.build().readings.size();
    desk.window().open(QStringLiteral("tune"), QStringLiteral("bfo"));
    desk.key(Qt::Key_L);
    CHECK(desk.build().readings.size() == kept);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().readings.size() == kept - 1);
}
