#include <QAction>
#include <QLineEdit>

#include "draws.h"
#include "window_fixture.h"

using namespace ombrek;

// Every page with readings that nobody should type, on kits that nobody should write. Nothing may be thrown,
// nothing that the book holds may be lost, and the window must be there afterwards.

namespace {

std::string kitOf(const std::string& parts, const std::string& more = "") {
    return R"({"format":"ombrek-kit","version":1,"id":"own","name":"Own","parts":[)" + parts + "]" + more +
           "}";
}

const std::string kOnePart = R"({"ref":"R1","kind":"resistor","value":"47","tolerance":5})";

std::string manyParts(int count) {
    std::string out;
    for (int i = 1; i <= count; ++i) {
        static const char* values[] = {"10", "47", "1k", "4k7", "10k", "220k"};
        out += (i > 1 ? "," : "") + std::string(R"({"ref":"R)") + std::to_string(i) +
               R"(","kind":"resistor","value":")" + values[i % 6] + R"(","tolerance":5})";
    }
    return out;
}

std::function<void(const std::filesystem::path&)> begun(const std::string& text) {
    return [text](const std::filesystem::path& file) {
        auto book = Book::open(file);
        REQUIRE(book);
        REQUIRE((*book)->startBuild("Own", text));
    };
}

QLineEdit* entryOf(Desk& desk) { return qobject_cast<QLineEdit*>(desk.window().focusWidget()); }

/// Type a text as a reading, insist on it, and leave whatever is open.
void insist(Desk& desk, const QString& text) {
    desk.type(text);
    for (int i = 0; i < 3 && entryOf(desk); ++i) desk.key(Qt::Key_Return);
    for (int i = 0; i < 2 && entryOf(desk); ++i) desk.key(Qt::Key_Escape);
}

const QStringList kAbsurd{QStringLiteral("0"),      QStringLiteral("-1"),  QStringLiteral("1e-15"),
                          QStringLiteral("1e15"),   QStringLiteral("nan"), QStringLiteral("OL"),
                          QStringLiteral(">1"),     QStringLiteral("1f"),  QStringLiteral("10n"),
                          QStringLiteral("4000"),   QStringLiteral("4k7"), QStringLiteral("1e-20"),
                          QStringLiteral("9.9E37"), QStringLiteral(",")};

/// Every act of the page by its action, none that only asks.
void actOut(Desk& desk) {
    const QString name = desk.window().page()->name();
    for (QAction* action : desk.window().page()->actions()) {
        if (desk.window().page()->name() != name) break;
        action->trigger();
        desk.settle();
        for (int i = 0; i < 2 && entryOf(desk); ++i) desk.key(Qt::Key_Escape);
        if (desk.window().page()->name() != name) desk.window().leave();
        desk.settle();
    }
}

/// @param every  which of the absurd texts are tried: all, or each so many
void walk(Desk& desk, bool insistent, int every = 1) {
    for (int station = 0; station < Window::kStations; ++station) {
        desk.window().goTo(station);
        desk.settle();
        INFO(desk.window().page()->name().toStdString());
        if (insistent) {
            for (int i = station % every; i < kAbsurd.size(); i += every) {
                desk.window().goTo(station);
                insist(desk, kAbsurd[i]);
            }
        }
        desk.window().goTo(station);
        REQUIRE_NOTHROW(actOut(desk));
        CHECK_FALSE(desk.window().page()->nowSentence().isEmpty());
        CHECK_FALSE(desk.window().page()->nowSentence().contains(QStringLiteral("could not be shown")));
    }
    for (const PageRow& row : pageRows()) {
        if (row.where != PageRow::Where::beside) continue;
        desk.open(row);
        desk.settle();
        INFO(desk.window().page()->name().toStdString());
        if (insistent) insist(desk, QStringLiteral("1e15"));
        REQUIRE_NOTHROW(actOut(desk));
        CHECK_FALSE(desk.window().page()->nowSentence().isEmpty());
    }
}

/// Walk, close, and walk again on what is in the book.
void walkTwice(Desk& desk, int every = 1) {
    desk.stopBench();
    walk(desk, true, every);
    desk.reopen();
    desk.stopBench();
    walk(desk, false);
}

}  // namespace

TEST_CASE("absurd readings on the practice kit, on every page, and once more after a restart") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        loadOn(file);
        auto book = Book::open(file).value();
        for (const Coil& coil : practiceKit().kit.coils) {
            for (const Winding& w : coil.windings) {
                REQUIRE(book->setTurns(coil.ref, w.name, w.turns));
                REQUIRE(book->finishWinding(coil.ref, w.name));
            }
        }
    });
    walkTwice(desk, draws(1, 2));
}

TEST_CASE("absurd readings on a kit of one part, one without a value, and an empty book") {
    for (const std::string& text :
         {kitOf(kOnePart), kitOf(R"({"ref":"X1","kind":"other","value":"a thing"})"),
          kitOf(kOnePart, R"(,"steps":[],"checks":[],"coils":[],"adjustments":[])")}) {
        Desk desk(begun(text));
        walkTwice(desk, draws(1, 4));
    }
    Desk empty;
    empty.stopBench();
    walk(empty, true, draws(1, 4));
}

TEST_CASE("absurd readings on a kit of three thousand parts") {
    Desk desk(begun(kitOf(manyParts(3000))));
    desk.stopBench();
    desk.window().goTo(0);
    for (const QString& text : {QStringLiteral("1e-15"), QStringLiteral("47"), QStringLiteral("OL")})
        insist(desk, text);
    for (int station = 0; station < Window::kStations; ++station) {
        desk.window().goTo(station);
        desk.settle();
        CHECK_FALSE(desk.now().isEmpty());
    }
    CHECK(desk.build().readings.size() >= 1);
}

TEST_CASE("what if, without a coil to begin with, asks for what is lacking") {
    Desk desk(begun(kitOf(kOnePart)));
    desk.key(Qt::Key_F2);
    desk.window().open(QStringLiteral("figures"));
    desk.key(Qt::Key_G);
    desk.refused(QStringLiteral("T50-6 26 7M"));
    desk.key(Qt::Key_G);
    desk.answer(QStringLiteral("T50-6 26 7M 28AWG"));
    CHECK(desk.now().contains(QStringLiteral("26 turns")));
}

TEST_CASE("a coil that reads as a short can be looked at on every page, now and after a restart") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const Winding& w : practiceKit().kit.coil("T1")->windings) {
            REQUIRE(book->setTurns("T1", w.name, w.turns));
            REQUIRE(book->finishWinding("T1", w.name));
        }
    });
    desk.key(Qt::Key_F2);
    insist(desk, QStringLiteral("10n"));
    REQUIRE(desk.build().last(Subject::coil("T1")));
    CHECK(desk.now().contains(QStringLiteral("short")));
    CHECK_FALSE(desk.now().contains(QStringLiteral("Add")));
    desk.key(Qt::Key_W);
    CHECK(desk.window().page()->name() == QStringLiteral("Trimmer"));
    desk.reopen();
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_W);
    CHECK_FALSE(desk.now().isEmpty());
}

TEST_CASE("a large bag is weighed beside the window, and the story comes when it is known") {
    Desk desk(begun(kitOf(manyParts(1100))));
    const auto judged = [&]() -> const Judged& { return desk.session().judged(); };
    CHECK(judged().story().troubles.empty());
    desk.session().type({0, Subject::part("R2"), 0, Unit::ohm, 0, {}, "", 0},
                        QStringLiteral("33k"));  // wants 1k
    CHECK(judged().story().weighing);
    CHECK(judged().part(judged().kit().parts[1]).state == VerdictState::fail);  // the reading itself at once
    desk.session().type({0, Subject::part("R3"), 0, Unit::ohm, 0, {}, "", 0},
                        QStringLiteral("33k"));  // while it is weighed
    REQUIRE(QTest::qWaitFor([&] { return !judged().story().weighing; }, 20000));
    CHECK(judged().story().troubles.size() == 2);
    CHECK(judged().story().troubles.size() == bagStory(desk.kit(), desk.build()).troubles.size());
}

TEST_CASE("another kit taken in hand while a large bag is weighed is not told that bag's story") {
    Desk desk(begun(kitOf(manyParts(1100))));
    const auto judged = [&]() -> const Judged& { return desk.session().judged(); };
    desk.session().type({0, Subject::part("R2"), 0, Unit::ohm, 0, {}, "", 0}, QStringLiteral("33k"));
    CHECK(judged().story().weighing);
    REQUIRE(desk.session().kept(desk.session().book().startBuild("Small", kitOf(kOnePart))));
    CHECK_FALSE(judged().story().weighing);
    CHECK_FALSE(QTest::qWaitFor([&] { return !judged().story().troubles.empty(); }, 3000));
}
