#include <fstream>
#include <nlohmann/json.hpp>

#include "desk/person.h"
#include "desk/suspects/exercise_page.h"
#include "desk/suspects/squeeze_page.h"
#include "desk/suspects/suspects_page.h"
#include "practice/bench_server.h"
#include "station/first_light/first_light.h"
#include "window_fixture.h"

using namespace ombrek;

// A fault of the practice rig, from the first reading that is wrong to "mended, measured again"; and the
// exercise.

namespace {

/// The practice book with its rig otherwise than it should be, and a bench behind it that is so, too.
class FaultyDesk : public Desk {
 public:
    explicit FaultyDesk(const std::string& fault)
        : Desk([&](const std::filesystem::path& book) {
              PracticeKit practice = practiceKit();
              if (!fault.empty()) practice.bag.faults = {fault};
              practiceBook(book, practice, PracticeStage::partWay);
          }) {
        setFault(fault);
    }

    /// What is seeded behind the instruments from now on; empty: nothing.
    void setFault(const std::string& fault) {
        PracticeBag bag = practiceKit().bag;
        if (!fault.empty()) bag.faults = {fault};
        bench_.reset();
        for (quint16 port = 40000; !bench_ && port < 60000; port = quint16(port + 8)) {
            auto server = std::make_unique<BenchServer>(
                PracticeInstruments(PracticeTruth(practiceKit().kit, bag), practiceMark(practiceKit().text)));
            if (!server->listen(port)) continue;
            bench_ = std::move(server);
            session().practice().setAddress(QStringLiteral("127.0.0.1"), port);
        }
        REQUIRE(bench_);
    }

    SuspectsPage& suspects() {
        window().goTo(3);
        key(Qt::Key_W);
        auto* page = dynamic_cast<SuspectsPage*>(window().page());
        REQUIRE(page != nullptr);
        REQUIRE(QTest::qWaitFor([&] { return !page->working(); }, kLongWork));
        settle();
        return *page;
    }
    void wait() {
        REQUIRE(QTest::qWaitFor([&] { return !window().page()->working(); }, kLongWork));
        settle();
    }

 private:
    std::unique_ptr<BenchServer> bench_;
};

}  // namespace

TEST_CASE("a capacitor that shorts the 5 V rail: from a current too high to mended and measured again") {
    FaultyDesk desk("C6 short");
    const Check* current = desk.kit().check("first-current");
    REQUIRE(current != nullptr);
    // The builder's own reading is there already, and it is wrong.
    CHECK(desk.session().judged().check(*current).state == VerdictState::fail);
    SuspectsPage& page = desk.suspects();
    REQUIRE(page.isReady());
    const auto amongFirst = [&](const std::string& ref, std::size_t most) {
        const auto& all = page.view().suspects;
        for (std::size_t i = 0; i < std::min(most, all.size()); ++i) {
            if (all[i].ref == ref || all[i].near == ref) return true;
        }
        return false;
    };
    // The advice is followed, Enter by Enter, until nothing would tell more.
    for (int reading = 0; reading < 8 && !page.view().settled; ++reading) {
        if (page.view().next.is(Subject::Kind::unknown)) break;
        desk.key(Qt::Key_Return);
        desk.wait();
        if (page.nowSentence().contains(QStringLiteral("load"))) desk.key(Qt::Key_Return);
    }
    INFO(page.nowSentence().toStdString());
    // C5 and C6 stand on the same two nodes; U2's own output too: no voltage tells them apart.
    CHECK((amongFirst("C6", 4) || amongFirst("C5", 4)));
    // It is taken in hand and mended; what was read before is of another rig.
    while (page.view().suspects[page.view().at].ref != "C6" && page.view().suspects.size() > 1) {
        const std::size_t was = page.view().at;
        desk.key(Qt::Key_Down);
        if (page.view().at <= was) break;
    }
    if (page.view().suspects[page.view().at].ref == "C6") {
        desk.key(Qt::Key_M);
        desk.answer(QStringLiteral("C6 replaced"));
        REQUIRE_FALSE(desk.build().repairs.empty());
        CHECK(desk.build().repairs.back().ref == "C6");
    } else {
        REQUIRE(desk.session().kept(desk.session().book().repaired({0, "C6", "short", "replaced"})));
    }
    desk.setFault("");
    desk.wait();
    CHECK(page.nowSentence().startsWith(QStringLiteral("Nothing is read yet")));
    // Measured again, all of the circuit's checks that the repair opened: sound.
    for (const char* id : {"rail5", "first-current", "rail8"}) {
        desk.session().read({0, Subject::check(id), 0, desk.kit().check(id)->unit, 0, {}, "", 0});
        REQUIRE(QTest::qWaitFor([&] { return !desk.session().waiting(); }, 10000));
        desk.settle();
    }
    CHECK(desk.session().judged().check(*desk.kit().check("rail5")).state == VerdictState::pass);
    CHECK(desk.session().judged().check(*current).state == VerdictState::pass);
    desk.wait();
    REQUIRE(page.isReady());
    CHECK(page.view().suspects.front().ref.empty());
}

TEST_CASE(
    "a sound rig is called sound, a kit without a circuit says so, and a netlist is attached by its file") {
    FaultyDesk desk("");
    SuspectsPage& page = desk.suspects();
    REQUIRE(page.isReady());
    CHECK(page.view().suspects.front().ref.empty());
    INFO(page.nowSentence().toStdString());
    CHECK(page.nowSentence() == QStringLiteral("What was read is what a sound rig reads."));
    // First light says what a sound rig of these parts reads.
    desk.window().goTo(3);
    const auto says = [&](const char* words) {
        for (const QLabel* label : desk.window().page()->findChildren<QLabel*>()) {
            if (label->isVisible() && label->text().contains(QString::fromUtf8(words))) return true;
        }
        return false;
    };
    CHECK(QTest::qWaitFor([&] { return says("A sound rig of your parts reads"); }, 30000));
    CHECK(says("Supply's limit"));
    // Without its circuit.
    auto kit = nlohmann::json::parse(desk.build().kitText);
    kit.erase("circuit");
    REQUIRE(desk.session().changeKit(kit.dump(1), "without its circuit"));
    desk.suspects();
    CHECK(desk.window().page()->nowSentence() == QStringLiteral("This kit comes without a circuit."));
    const Folder folder;
    const auto file = folder / "mine.cir";
    std::ofstream(file) << "mine\nV1 v5 0 5\nR1 v5 half 10k\nR2 half 0 10k\nR999 half 0 1MEG\n.end\n";
    CHECK(desk.window().page()->openFile(QString::fromStdString(file.string())));
    CHECK(desk.kit().circuit.find("R999") != std::string::npos);
    std::ofstream(file) << "mine\n.include elsewhere.lib\n";
    desk.window().page()->openFile(QString::fromStdString(file.string()));
    CHECK(desk.kit().circuit.find("R999") != std::string::npos);
}

TEST_CASE("the exercise: a rig of a number is measured where it tells most, named, and its game remembered") {
    FaultyDesk desk("");
    desk.window().goTo(3);
    desk.window().page()->act(QStringLiteral("find-the-fault"))->trigger();
    desk.settle();
    auto* page = dynamic_cast<ExercisePage*>(desk.window().page());
    REQUIRE(page != nullptr);
    // Before anything is handed out, every key says what to do.
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_N);
    page->handOut(15, 1);
    desk.wait();
    REQUIRE(page->exercise() != nullptr);
    CHECK(page->exercise()->there());
    // The same number is the same fault, on every machine.
    Exercise same(desk.kit(), 15, 1), other(desk.kit(), 16, 1);
    CHECK(same.answer() == page->exercise()->answer());
    CHECK(same.complaint() == page->exercise()->complaint());
    CHECK((other.answer() != same.answer() || other.complaint() != same.complaint()));
    desk.key(Qt::Key_T);
    for (int i = 0; i < 6 && !page->bestPoint().empty(); ++i) {
        page->point(QString::fromStdString(page->bestPoint()));
        desk.key(Qt::Key_Return);
    }
    page->name(QStringLiteral("no such part"));
    CHECK_FALSE(page->over());
    const std::string ref = same.answer().substr(0, same.answer().find(' '));
    page->name(ref == "R1" ? QStringLiteral("R2") : QStringLiteral("R1"));
    CHECK_FALSE(page->over());
    desk.key(Qt::Key_N);
    desk.answer(QString::fromStdString(ref));
    CHECK(page->over());
    CHECK(page->nowSentence().startsWith(QString::fromStdString(same.answer())));
    CHECK(person::get(QStringLiteral("exercise/record")).contains(QStringLiteral("grade 1, number 15")));
}

TEST_CASE(
    "three dead bands are written down, and what they share is named: a wrong line stays to be mended") {
    FaultyDesk desk("");
    desk.window().goTo(3);
    desk.key(Qt::Key_C);
    Page* page = desk.window().page();
    REQUIRE(page->objectName() == QStringLiteral("compare"));
    for (const char* line :
         {"80m works K1 L1", "40m dead K2 L2", "30m dead K3 L3", "20m works K4 L4", "15m dead K5 L5"}) {
        desk.key(Qt::Key_Return);
        desk.answer(QString::fromUtf8(line));
    }
    CHECK(page->nowSentence().contains(QStringLiteral("share nothing but the kind of part, ")));
    CHECK(page->nowSentence().contains(QStringLiteral("bypass one")));
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("10m K6"));  // does it work?
    CHECK(page->nowSentence().contains(QStringLiteral("bypass one")));
    // The dead one in hand works again: W, W; then two are dead. After a restart it stands as it stood.
    desk.key(Qt::Key_Down);
    desk.reopen();
    desk.window().goTo(3);
    desk.key(Qt::Key_C);
    CHECK(desk.window().page()->nowSentence().contains(QStringLiteral("40m, 30m and 15m")));
    desk.key(Qt::Key_W);
    desk.key(Qt::Key_X);
    CHECK(desk.window().page()->nowSentence().contains(QStringLiteral("40m")));
}

TEST_CASE(
    "an intermittent is found: readings run, places are pressed, and the one that goes with the jumps is "
    "named") {
    FaultyDesk desk("");
    desk.window().goTo(3);
    desk.key(Qt::Key_S);
    auto* page = dynamic_cast<SqueezePage*>(desk.window().page());
    REQUIRE(page != nullptr);
    desk.key(Qt::Key_Space);  // nowhere yet
    for (const char* place : {"J2", "K1"}) {
        desk.key(Qt::Key_A);
        desk.answer(QString::fromUtf8(place));
    }
    desk.type(QStringLiteral("5.01"));
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Space);
    CHECK(page->nowSentence().contains(QStringLiteral("Space at K1")));
    for (int i = 0; i < 60; ++i) {
        const double t = 100 + i;
        if (i % 10 == 5) page->press(t - 0.5, i % 20 == 5 ? QStringLiteral("K1") : QStringLiteral("J2"));
        page->take(t, i % 20 == 5 ? 0.2 : 5.01);
    }
    CHECK(page->odds().front().place == "K1");
    CHECK(page->nowSentence().startsWith(QStringLiteral("K1: it jumps when you press there")));
    desk.key(Qt::Key_X);
    CHECK(page->odds().size() == 1);
}
