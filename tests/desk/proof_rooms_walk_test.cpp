#include <fstream>

#include "desk/proof/coupler_page.h"
#include "desk/proof/power_grid.h"
#include "desk/proof/why_less_page.h"
#include "formats/touchstone.h"
#include "mouse.h"
#include "station/proof/filter.h"
#include "station/proof/power_table.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

/// The three-band rig, soldered, with the load on.
void soldered(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    REQUIRE((*book)->startBuild(provingKit().kit.name, provingKit().text));
    REQUIRE((*book)->doStep("all"));
    REQUIRE((*book)->doStep("load"));
    REQUIRE((*book)->passGate(kLoadOn, "on"));
}
void proving(const std::filesystem::path& file) {
    practiceBook(file, provingKit(), PracticeStage::proving);
    auto book = Book::open(file);
    REQUIRE((*book)->passGate(kLoadOn, "on"));
}

PowerTable tableOf(Desk& desk) { return powerTable(desk.kit(), desk.build()); }

template <class P>
P& pageOf(Desk& desk, const char* id) {
    auto* page = qobject_cast<P*>(desk.window().pageOf(QString::fromUtf8(id)));
    REQUIRE(page != nullptr);
    return *page;
}

}  // namespace

TEST_CASE("three bands at three supplies, none above the rated one, with Enter alone") {
    Desk desk(soldered, provingKit());
    desk.key(Qt::Key_F6);
    desk.key(Qt::Key_G);
    CHECK(desk.window().page()->name() == QStringLiteral("Bands and supplies"));
    CHECK(desk.now().contains(QStringLiteral("13.8")));
    int presses = 0;
    for (; presses < 120 && tableOf(desk).next; ++presses) desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Return);
    const PowerTable table = tableOf(desk);
    CHECK_FALSE(table.next);
    REQUIRE(table.supplies.size() == 3);
    for (std::size_t b = 0; b < 3; ++b) {
        for (std::size_t s = 0; s < table.supplies.size(); ++s) {
            INFO(table.bands[b] << " at " << table.supplies[s]);
            REQUIRE(table.at(b, s).reading);
            // The practice rig's finals follow their supply as its square.
            CHECK(table.at(b, s).power.watts ==
                  Approx(table.at(b, table.rated).power.watts *
                         std::pow(table.at(b, s).supply / table.at(b, table.rated).supply, 2))
                      .epsilon(0.02));
        }
    }
    CHECK(std::isfinite(table.at(0, table.rated).current));
    // Three supplies set but for the way back, nine powers, nine currents.
    CHECK(presses < 60);
}

TEST_CASE("a power is typed with its current behind it, a click is a field, nonsense changes nothing") {
    Desk desk(soldered, provingKit());
    desk.window().open(QStringLiteral("proof"));
    desk.window().open(QStringLiteral("powers"));
    desk.type(QStringLiteral("13.7"));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().last(Subject::supply()) != nullptr);
    CHECK(desk.build().last(Subject::supply())->value == Approx(13.7));
    desk.type(QStringLiteral(
        "36 0.62 A"));  // dBm behind no attenuator would be absurd: the way is the attenuator's
    desk.key(Qt::Key_Return);
    if (desk.build().last(Subject::power("40m")) == nullptr)
        desk.key(Qt::Key_Return);  // asked whether it is meant
    if (desk.window().page()->entryOpen()) desk.key(Qt::Key_Escape);
    const std::size_t readings = desk.build().readings.size();
    auto* grid = desk.window().page()->findChild<PowerGrid*>();
    REQUIRE(grid != nullptr);
    QTest::mouseClick(grid, Qt::LeftButton, {}, QPoint(grid->width() - 30, grid->height() - 30));
    desk.settle();
    CHECK(desk.now().contains(QStringLiteral("13.8")));
    desk.key(Qt::Key_K);
    desk.refused(QStringLiteral("pad 30 apples"));
    desk.key(Qt::Key_D);
    desk.refused(QStringLiteral("300"));
    CHECK(desk.build().readings.size() == readings);
}

TEST_CASE("a meter that would die is refused, and one that ends too early") {
    Desk desk(soldered, provingKit());
    desk.window().open(QStringLiteral("proof"));
    desk.window().open(QStringLiteral("powers"));
    desk.key(Qt::Key_Return);  // the supply
    REQUIRE(desk.build().last(Subject::supply()) != nullptr);
    desk.key(Qt::Key_K);
    desk.answer(QStringLiteral("analyser +20 dBm"));
    CHECK(desk.now() == QStringLiteral("Do not key into what is connected."));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::power("40m")) == nullptr);
    desk.key(Qt::Key_K);
    desk.answer(QStringLiteral("wattmeter 1 W"));
    CHECK(desk.now() == QStringLiteral("Do not key into what is connected."));
    // On Proof itself it is refused as well.
    desk.key(Qt::Key_F6);
    CHECK(desk.now() == QStringLiteral("Do not key into what is connected."));
    const std::size_t readings = desk.build().readings.size();
    desk.key(Qt::Key_Return);
    CHECK(desk.build().readings.size() == readings);
    desk.window().open(QStringLiteral("powers"));
    desk.key(Qt::Key_K);
    desk.answer(QStringLiteral("30 dB pad 10 W, analyser +20 dBm"));
    CHECK(desk.now().startsWith(QStringLiteral("Measure the power")));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::power("40m")) != nullptr);
}

TEST_CASE("a dead final is found, and the power accepted with a reason") {
    Desk desk(proving, provingKit());
    desk.key(Qt::Key_F6);
    desk.key(Qt::Key_C);
    auto& page = pageOf<WhyLessPage>(desk, "why-less");
    REQUIRE_FALSE(page.causes().empty());
    CHECK(page.causes().front().id == "dead-final");
    desk.key(Qt::Key_Return);
    desk.refused(QStringLiteral("warm 7 of 3"));
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("warm 2 of 3"));
    CHECK(page.causes().front().id == "dead-final");
    CHECK(page.causes().front().odds > 0.9);
    CHECK(desk.now().startsWith(QStringLiteral("One of the finals does not work")));
    desk.reopen();
    desk.window().open(QStringLiteral("why-less"), QStringLiteral("40m"));
    CHECK(pageOf<WhyLessPage>(desk, "why-less").causes().front().odds > 0.9);  // what was seen is kept
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("the third final comes by post"));
    const auto gate = desk.build().gates.find("power");
    REQUIRE(gate != desk.build().gates.end());
    CHECK(gate->second.reason == "the third final comes by post");
    CHECK_FALSE(gate->second.basis.empty());
}

TEST_CASE("a low-pass that leaves too much: what is advised does what it promises") {
    Desk desk(proving, provingKit());
    desk.window().open(QStringLiteral("proof"), QStringLiteral("20m"));
    const auto second = [&] { return desk.build().last(Subject::harmonic(2, "20m"))->value; };
    const double before = second();
    CHECK(before < 43);
    desk.key(Qt::Key_F);
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }, 20000));
    const auto filter = filterAsBuilt(desk.kit(), desk.build(), "20m");
    const FilterQuestion q = filterQuestion(desk.kit(), desk.build(), desk.session().profile(), 0, "20m");
    const auto advice = whichToSqueeze(filter, q, SqueezeFor::suppression);
    REQUIRE_FALSE(advice.empty());
    const Squeeze best = advice.front();
    CHECK(desk.now().contains(QString::fromStdString(best.ref)));
    // The builder does as told, on the practice bench; the coil and then the harmonic are read again.
    const auto readCoil = [&] {
        desk.session().read({0, Subject::coil(best.ref), 0, Unit::henry, 0, {}, "", 0});
        REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    };
    readCoil();  // the bench is known from here on
    REQUIRE(desk.session().bent(best.ref, best.percent));
    readCoil();
    desk.session().read({0, Subject::harmonic(2, "20m"), 0, Unit::decibel, 0, {}, "", 0});
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    const double promised = best.after.below.at(0) - best.before.below.at(0);
    CHECK(second() - before == Approx(promised).margin(0.3));
    CHECK(second() > before + 0.3);
    // A turn more on it brings it under the limit.
    const TurnsMore more = turnsToMeet(filter, turnsOf(desk.kit(), filter), q);
    REQUIRE_FALSE(more.coils.empty());
    for (const std::string& ref : more.coils) {
        const int now = desk.kit().coil(ref)->windings.front().turns + 1;
        REQUIRE(desk.session().book().setTurns(ref, "main", now));
        desk.settle();
    }
    desk.session().read({0, Subject::harmonic(2, "20m"), 0, Unit::decibel, 0, {}, "", 0});
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    CHECK(second() > 43);
}

TEST_CASE("an analyser's curve of the low-pass names the coil with a turn too many") {
    Desk desk(soldered, provingKit());
    desk.window().open(QStringLiteral("proof"));
    desk.window().open(QStringLiteral("filter"), QStringLiteral("40m"));
    auto real = filterAsWanted(desk.kit(), "40m");
    const int turns = turnsOf(desk.kit(), real)[3];
    real[3].element.value *= std::pow(double(turns + 1) / turns, 2);
    Touchstone curve;
    curve.twoPort = true;
    curve.frequencies = frequenciesFrom(1e6, 30e6, 201);
    curve.points = scatteringOf(networkOf(real), curve.frequencies, 50, 50).value();
    const auto file = desk.path("measured.s2p");
    std::ofstream(file) << writeTouchstone(curve);
    QString said;
    QObject::connect(&desk.session(), &Session::said, &desk.session(),
                     [&](const QString& line, VerdictState) { said = line.isEmpty() ? said : line; });
    desk.window().takeFile(QString::fromStdString(file.string()));
    REQUIRE(desk.waitFor([&] { return said.contains(QStringLiteral("The curve says")); }, 30000));
    CHECK(said.contains(QString::fromStdString(real[3].ref)));
    CHECK(said.contains(QStringLiteral("a turn too many")));
    const auto broken = desk.path("broken.s2p");
    std::ofstream(broken) << "# MHz S RI\n1 0 0 1\n";
    desk.window().takeFile(QString::fromStdString(broken.string()));
    CHECK(desk.waitFor([&] { return said.contains(QStringLiteral("not whole")); }));
}

TEST_CASE("a coupler's real limit: claimed 20 W, held on paper") {
    Desk desk(soldered, provingKit());
    desk.window().open(QStringLiteral("proof"));
    desk.window().open(QStringLiteral("coupler"));
    CHECK(desk.now() == QStringLiteral("Say the coupler."));
    desk.key(Qt::Key_Return);
    desk.refused(QStringLiteral("T, apples"));
    desk.key(Qt::Key_K);
    desk.answer(QStringLiteral("T, coil 0.1u..12u, rig 10p..260p, antenna 10p..260p, 100 V"));
    CHECK(desk.now() == QStringLiteral("Say what is connected to it."));
    desk.key(Qt::Key_A);
    desk.refused(QStringLiteral("-5+3j"));
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("40m: 12-250j, 20m: 60+10j"));
    desk.key(Qt::Key_P);
    desk.answer(QStringLiteral("20 W"));
    auto& page = pageOf<CouplerPage>(desk, "coupler");
    REQUIRE(desk.waitFor([&] { return page.rows().size() == 2 && !page.working(); }, 20000));
    REQUIRE(desk.waitFor([&] { return page.rows()[0].match.watts == 20; }, 20000));
    CHECK(page.rows()[0].match.reaches);
    CHECK(page.rows()[0].match.flashOver < 20);  // not what it claims
    CHECK(page.rows()[1].match.flashOver > 20);
    CHECK(desk.now().startsWith(QStringLiteral("1 of 2")));
}
