#include <random>

#include "judged/history.h"
#include "station/board/sitting.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

// A change re-judges only what it can have touched. Whatever is done, what the session shows is what would be
// judged from the book anew.

using namespace ombrek;

namespace {

bool same(const Verdict& a, const Verdict& b) { return a.state == b.state && a.sentence == b.sentence; }

/// Everything that is judged, asked for once, so that the next change has something to take over.
void compare(Session& session) {
    const Judged& kept = session.judged();
    const std::optional<Build> build = session.book().build();
    REQUIRE(build);
    const Judged fresh(session.kit(), *build, session.tables().profile(build->profile));
    CHECK(kept.order() == fresh.order());
    for (const Part& p : session.kit().parts) {
        INFO(p.ref);
        CHECK(same(kept.part(p), fresh.part(p)));
    }
    CHECK(kept.partsInOrder() == fresh.partsInOrder());
    CHECK(kept.bag().in == fresh.bag().in);
    CHECK(kept.bag().wrong == fresh.bag().wrong);
    CHECK(kept.bag().missing == fresh.bag().missing);
    CHECK(kept.bag().doubtful == fresh.bag().doubtful);
    CHECK(kept.story().troubles.size() == fresh.story().troubles.size());
    for (const Coil& c : session.kit().coils) {
        INFO(c.ref);
        CHECK(same(kept.coil(c), fresh.coil(c)));
    }
    for (const Check& c : session.kit().checks) {
        INFO(c.id);
        CHECK(same(kept.check(c), fresh.check(c)));
    }
    for (const Adjustment& a : session.kit().adjustments) {
        INFO(a.id);
        CHECK(kept.tune(a).state == fresh.tune(a).state);
        CHECK(kept.tune(a).sentence == fresh.tune(a).sentence);
        CHECK(kept.tune(a).nextPosition == fresh.tune(a).nextPosition);
    }
    CHECK(same(kept.proof().powerVerdict, fresh.proof().powerVerdict));
    CHECK(same(kept.proof().frequencyVerdict, fresh.proof().frequencyVerdict));
    CHECK(kept.proof().required == fresh.proof().required);
    CHECK(kept.planTime().spent == fresh.planTime().spent);
    CHECK(kept.planTime().left.middle == fresh.planTime().left.middle);
    REQUIRE(kept.readiness().gates.size() == fresh.readiness().gates.size());
    for (std::size_t i = 0; i < fresh.readiness().gates.size(); ++i) {
        const Gate &a = kept.readiness().gates[i], &b = fresh.readiness().gates[i];
        INFO(b.id);
        CHECK(a.state() == b.state());
        CHECK(a.passedKnowingly == b.passedKnowingly);
        REQUIRE(a.evidence.size() == b.evidence.size());
        for (std::size_t e = 0; e < b.evidence.size(); ++e)
            CHECK(a.evidence[e].sentence == b.evidence[e].sentence);
    }
    CHECK(history(kept).size() == history(fresh).size());
}

}  // namespace

TEST_CASE("what is taken over from before a change is what would be judged anew") {
    Desk desk(fresh);
    Book& book = desk.session().book();
    const Kit kit = desk.kit();
    std::mt19937 engine(7);
    const auto any = [&](const auto& list) -> const auto& { return list[engine() % list.size()]; };
    // Few parts, so that what is done to one meets what was done to it before.
    const auto part = [&] { return kit.parts[engine() % 6].ref; };
    const auto reading = [&](const Subject& subject, double value, Unit unit, Settings settings = {}) {
        return book.takeReading(
            {0, subject, value, unit, std::fabs(value) / 100, std::move(settings), "typed", 0});
    };
    const std::vector<std::function<Result<void>()>> acts{
        [&] {
            const Part& p = *kit.part(part());
            return reading(Subject::part(p.ref), p.nominal * (engine() % 4 == 0 ? 1.3 : 1.0), p.unit);
        },
        [&] { return reading(Subject::coil(any(kit.coils).ref), any(kit.coils).target, Unit::henry); },
        [&] {
            const Check& c = any(kit.checks);
            return reading(Subject::check(c.id), engine() % 3 ? (c.limits.low + c.limits.high) / 2 : 1e3,
                           c.unit);
        },
        [&] {
            const Adjustment& a = any(kit.adjustments);
            return reading(Subject::adjustment(a.id), a.target > 0 ? a.target : double(engine() % 10), a.unit,
                           {{"position", double(engine() % 100) / 100}});
        },
        [&] { return reading(Subject::supply(), 12 + double(engine() % 3), Unit::volt); },
        [&] {
            return reading(Subject::power(), 4.8, Unit::dbm, {{"attenuation", 30}});
        },
        [&] { return reading(Subject::frequency(), kit.ratings.frequency, Unit::hertz); },
        [&] { return reading(Subject::harmonic(2), -55, Unit::decibel); },
        [&] { return book.markPart(part(), PartMark(engine() % 3)); },
        [&] { return book.readMark(part(), "103", engine() % 2 == 0); },
        [&] {
            return book.keepLoose({0, PartKind::capacitor, "", 22e-9, 1e-10});
        },
        [&] { return book.movePart(part(), part(), PartKind::resistor); },
        [&] {
            return book.decide(part(), {Remedy::How(engine() % 4), "note"});
        },
        [&] { return book.undecide(part()); },
        [&] {
            return book.repaired({0, engine() % 2 ? part() : any(kit.coils).ref, "found", "done"});
        },
        [&] {
            const Coil& c = any(kit.coils);
            return book.countTurn(c.ref, c.windings.front().name);
        },
        [&] {
            const Coil& c = any(kit.coils);
            return book.setTurns(c.ref, c.windings.front().name, c.windings.front().turns);
        },
        [&] {
            const Coil& c = any(kit.coils);
            return book.finishWinding(c.ref, c.windings.front().name, engine() % 3 != 0);
        },
        [&] { return book.bent(any(kit.coils).ref, 1.02); },
        [&] { return book.checkCoil(any(kit.coils).ref + "/trust", engine() % 2 ? "so" : ""); },
        [&] { return book.doStep(any(kit.steps).id, engine() % 2 == 0, "because"); },
        [&] { return book.remark(any(kit.steps).id, "a remark"); },
        [&] { return book.passGate(any(desk.session().judged().readiness().gates).id, "reason"); },
        [&] { return book.passGate("load", "on"); },
        [&] { return book.choose(Choice(engine() % 4), engine() % 2 ? "SSB" : "2 %"); },
        [&] { return book.lookedAt(part(), Book::Look(engine() % 2)); },
        [&] { return book.found(part(), Finding::What(engine() % 6)); },
        [&] { return book.closeFinding(1); },
        [&] { return book.keepAside("cut leads", 3); },
        [&] {
            return book.countAway({1000, 5000});
        },
        [&] { return book.chooseOrder(Order(engine() % 5)); },
        [&] { return book.chooseRule(VerdictRule(engine() % 2)); },
        [&] { return book.chooseWay(BagWay(engine() % 3)); },
        [&] { return book.chooseDepth(BagDepth(engine() % 3)); },
        [&] { return book.chooseProfile(""); },
        [&] { return book.prefer("hand", "left"); },
        [&] { return book.changeKit(desk.build().kitText + " ", "places"); },
        [&] {
            return book.addStock({{0, "A1", PartKind::capacitor, 22e-9, Unit::farad, 5, 50, 0, "", 3}});
        },
        [&] { return book.promise(part(), {1}, "from A1"); },
        [&] { return book.takePromised(part(), PartKind::other); },
        [&] { return book.undo() ? Result<void>() : Result<void>(); },
        [&] { return book.redo() ? Result<void>() : Result<void>(); }};
    compare(desk.session());
    for (const auto& act : acts) {  // each once, then any
        REQUIRE(act());
        compare(desk.session());
    }
    for (int i = 0; i < 250; ++i) {
        REQUIRE(any(acts)());
        compare(desk.session());
    }
    while (book.undo()) {
    }
}
