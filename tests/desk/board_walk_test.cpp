#include <unistd.h>
#include <QFile>
#include <QImage>
#include <fstream>
#include <nlohmann/json.hpp>

#include "desk/board/board_model.h"
#include "desk/board/free_evenings.h"
#include "report/build_sheet.h"
#include "station/board/board.h"
#include "station/board/loupe.h"
#include "station/board/sitting.h"
#include "window_fixture.h"

using namespace ombrek;

// The third station and the pages beside it, worked with keys in the real window.

TEST_CASE("the demo board through two sittings: a hold passed, a bridge found, the school changed") {
    // The first sitting was four days ago: its ten steps are in the book when the window opens.
    Desk desk([](const std::filesystem::path& file) {
        std::int64_t now = wallClock() - 4 * 86400;
        auto book = Book::open(file, [&now] { return now; }).value();
        REQUIRE(book->startBuild(practiceKit().kit.name, practiceKit().text));
        for (std::size_t i = 0; i < 10; ++i) {
            now += std::int64_t(practiceKit().kit.steps[i].minutes * 90);
            REQUIRE(book->doStep(practiceKit().kit.steps[i].id));
        }
        REQUIRE(book->remark("u1", "it sits a little high"));
    });
    CHECK(eveningsOf(desk.kit(), desk.build()).size() == 1);
    desk.key(Qt::Key_F3);
    CHECK(desk.now().startsWith(QStringLiteral("Look ahead first")));
    desk.key(Qt::Key_Return);
    CHECK_FALSE(desk.build().done("look-supply"));  // Enter shows what is ahead and does no step
    CHECK(desk.now().startsWith(QStringLiteral("This sitting: ")));
    CHECK(whereOneWas(desk.kit(), desk.build())->odd.front().find("a little high") != std::string::npos);
    desk.key(Qt::Key_Return);

    // The second: inspection, then a hold that is not earned.
    CHECK(desk.now().startsWith(QStringLiteral("Inspect every joint of the supply")));
    desk.key(Qt::Key_Return);
    CHECK(eveningsOf(desk.kit(), desk.build()).size() == 2);
    REQUIRE(desk.now().startsWith(QStringLiteral("Hold point")));
    desk.key(Qt::Key_Return);
    CHECK_FALSE(desk.build().done("hold-supply"));
    desk.key(Qt::Key_K);
    desk.answer(QStringLiteral("the supply is proved on another meter"));
    REQUIRE(desk.build().done("hold-supply"));
    CHECK(desk.build().steps.at("hold-supply").knowingly);
    CHECK(desk.build().steps.at("hold-supply").reason == "the supply is proved on another meter");

    // Another school in the middle: what is done stays done, and the next step is another.
    const QString before = desk.now();
    const auto done = desk.build().steps.size();
    for (int i = 0; i < 4; ++i) desk.key(Qt::Key_O);
    CHECK(desk.build().order == Order::hardestFirst);
    CHECK(desk.now() != before);
    CHECK(desk.build().steps.size() == done);
    desk.key(Qt::Key_O);
    CHECK(desk.build().order == Order::manual);
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().done("r-front"));

    // Under the loupe: R3 and R4 were soldered in this sitting; one has a bridge.
    desk.key(Qt::Key_N);
    CHECK(desk.window().page()->name() == QStringLiteral("Loupe"));
    REQUIRE(jointsToLookAt(desk.kit(), desk.build()).size() == 2);
    const std::string ref = jointsToLookAt(desk.kit(), desk.build()).front()->ref;
    desk.key(Qt::Key_1);
    REQUIRE(openFindings(desk.build()).size() == 1);
    desk.key(Qt::Key_Return);
    CHECK(desk.now().contains(QStringLiteral("No joint of this sitting is left")));
    desk.key(Qt::Key_Escape);
    for (int i = 0; i < 80 && !desk.now().startsWith(QStringLiteral("Mend")); ++i) desk.key(Qt::Key_Up);
    CHECK(desk.now() == QStringLiteral("Mend %1: bridge.").arg(QString::fromStdString(ref)));
    desk.reopen();
    CHECK(openFindings(desk.build()).size() == 1);
    desk.key(Qt::Key_F3);
    for (int i = 0; i < 80 && !desk.now().startsWith(QStringLiteral("Mend")); ++i) desk.key(Qt::Key_Up);
    desk.key(Qt::Key_X);
    CHECK(openFindings(desk.build()).empty());
    desk.key(Qt::Key_Z);
    CHECK(openFindings(desk.build()).size() == 1);
}

TEST_CASE("polarised parts are held against the print: a turned one is a task") {
    Desk desk(partWay);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_N);
    desk.key(Qt::Key_S);
    const auto senses = sensesToLookAt(desk.kit(), desk.build());
    REQUIRE(senses.size() >= 3);
    CHECK(desk.now().startsWith(QString::fromStdString(senses.front().part->ref)));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().senses.contains(senses.front().part->ref));
    desk.key(Qt::Key_5);
    REQUIRE(openFindings(desk.build()).size() == 1);
    CHECK(openFindings(desk.build()).front()->what == Finding::What::turned);
    desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Up);
    CHECK(sensesToLookAt(desk.kit(), desk.build()).size() == senses.size() - 2);
}

TEST_CASE("what is laid aside is counted, and nonsense leaves the count") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_Return);
    desk.key(Qt::Key_L);
    desk.answer(QStringLiteral("5"));
    CHECK(desk.build().kept.at("cut leads") == 5);
    desk.key(Qt::Key_L);
    desk.refused(QStringLiteral("-1"));
    CHECK(desk.build().kept.at("cut leads") == 5);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().kept.empty());
}

TEST_CASE("a part is found by typing, the map turned and brought nearer") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    CHECK(findParts(desk.kit(), "d1") == std::vector<std::string>{"D1"});
    CHECK(findParts(desk.kit(), "100n").size() > 3);
    CHECK(findParts(desk.kit(), "unobtainium").empty());
    desk.key(Qt::Key_Slash);
    desk.answer(QStringLiteral("Q4"));
    CHECK(desk.now().startsWith(QStringLiteral("Solder Q4")));
    for (int i = 0; i < 12; ++i) desk.key(Qt::Key_Plus);
    desk.key(Qt::Key_M);
    desk.key(Qt::Key_V);
    for (int i = 0; i < 14; ++i) desk.key(Qt::Key_Minus);
    desk.key(Qt::Key_Home);
    CHECK(desk.now().startsWith(QStringLiteral("Lay out the bench")));
}

TEST_CASE("places come from a table, errata go with the kit file") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    const auto file = desk.path("places.csv");
    std::ofstream(file) << "ref,x,y,rot\nR1,10,10,0\nR2,90,60,90\nZ9,50,50,0\n";
    desk.key(Qt::Key_I);
    desk.answer(QString::fromStdString(file.string()));
    const auto idle = [&] { return !desk.window().page()->working(); };
    REQUIRE(desk.waitFor(idle));
    CHECK(desk.kit().part("R1")->place->x == Approx(6));
    CHECK(desk.kit().part("R2")->place->turn == Approx(270));
    desk.key(Qt::Key_E, Qt::ShiftModifier);
    desk.answer(QStringLiteral("the strap has no ring"));
    CHECK(desk.kit().step("lay-out")->erratum == "the strap has no ring");
    const auto out = desk.path("next.kit.json");
    desk.key(Qt::Key_W);
    desk.answer(QString::fromStdString(out.string()));
    REQUIRE(desk.waitFor([&] { return idle() && std::filesystem::exists(out); }));
    CHECK(readKitFile(out, shippedTables().cores)->kit.step("lay-out")->erratum == "the strap has no ring");
    desk.key(Qt::Key_Escape);  // from the kit's own page back to the board
    desk.key(Qt::Key_Z);
    desk.key(Qt::Key_Z);
    CHECK(desk.kit().part("R1")->place->x == practiceKit().kit.part("R1")->place->x);
    const auto bad = desk.path("bad.csv");
    std::ofstream(bad) << "no,table,here\n";
    desk.key(Qt::Key_I);
    desk.answer(QString::fromStdString(bad.string()));
    REQUIRE(desk.waitFor(idle));
    CHECK(desk.kit().part("R1")->place->x == practiceKit().kit.part("R1")->place->x);
}

TEST_CASE("photographs are kept small, before and after: what is none is refused") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_H);
    QImage image(4000, 3000, QImage::Format_RGB32);
    image.fill(Qt::darkGreen);
    const QString file = QString::fromStdString(desk.path("large.png").string());
    image.save(file);
    desk.key(Qt::Key_V);
    desk.answer(file);
    REQUIRE(desk.waitFor([&] { return !desk.build().photos.empty(); }));
    const std::string bytes = desk.session().book().photo(desk.build().photos.front().id);
    const QImage kept = QImage::fromData(QByteArray::fromStdString(bytes));
    CHECK(kept.width() == 1600);
    // The page shows it: dark green beside an empty frame.
    const QImage shown = desk.window().page()->grab().toImage();
    const auto greenAt = [&](double x, double y) {
        const QColor at = shown.pixelColor(int(x * shown.width()), int(y * shown.height()));
        return at.green() > at.red() + 60 && at.green() > at.blue() + 60;
    };
    CHECK(greenAt(0.25, 0.3));
    CHECK_FALSE(greenAt(0.75, 0.3));
    const QString none = QString::fromStdString(desk.path("none.jpg").string());
    std::ofstream(none.toStdString()) << "no picture";
    desk.key(Qt::Key_A);
    desk.answer(none);
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    CHECK(desk.build().photos.size() == 1);
    desk.key(Qt::Key_Delete);
    CHECK(desk.build().photos.empty());
    desk.key(Qt::Key_Z);
    CHECK(desk.session().book().photo(desk.build().photos.front().id) == bytes);
}

TEST_CASE("free evenings give a finishing date with odds, and a calendar") {
    Desk desk(partWay);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_G);
    const std::string before = desk.session().book().preference("evenings");
    desk.key(Qt::Key_D);
    desk.answer(QStringLiteral("Moonday 20:00"));
    CHECK(desk.session().book().preference("evenings") == before);
    desk.key(Qt::Key_D);
    desk.answer(QStringLiteral("Tue Thu 20:00 2h, Sat 14:00 3h"));
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    const auto file = desk.path("bench.ics");
    desk.key(Qt::Key_C);
    desk.answer(QString::fromStdString(file.string()));
    REQUIRE(desk.waitFor([&] { return std::filesystem::exists(file) && !desk.window().page()->working(); }));
    std::ifstream in(file);
    const std::string text((std::istreambuf_iterator<char>(in)), {});
    CHECK(text.find("BEGIN:VEVENT") != std::string::npos);
}

TEST_CASE("an evening keeps its hour over the night when the clocks change") {
    qputenv("TZ", "Europe/Berlin");
    tzset();
    // From 20 October 2026; the clocks go back on the 25th.
    const auto evenings = freeEvenings(QStringLiteral("Sat Mon 20:00 2h"), 1792454400, 2);
    REQUIRE(evenings);
    REQUIRE(evenings->size() >= 2);
    CHECK((*evenings)[0].start == 1792864800 - 86400 * 0 + 0);        // Sat 24 October 20:00 is 18:00 UTC
    CHECK((*evenings)[1].start - (*evenings)[0].start == 49 * 3600);  // Monday at 20:00, one hour more
    qunsetenv("TZ");
    tzset();
    for (const char* bad : {"", "20:00 2h", "Tue", "Tue 25:00 2h", "Tue 20:00 99h", "Tue 20:00 2parsec"})
        CHECK_FALSE(freeEvenings(QString::fromUtf8(bad), 1792454400, 2));
}

TEST_CASE("the build sheet is a PDF of several pages") {
    Desk desk(partWay);
    desk.key(Qt::Key_F3);
    const auto file = desk.path("sheet.pdf");
    desk.key(Qt::Key_P);
    desk.answer(QString::fromStdString(file.string()));
    REQUIRE(desk.waitFor([&] { return std::filesystem::exists(file) && !desk.window().page()->working(); }));
    std::ifstream in(file, std::ios::binary);
    const std::string text((std::istreambuf_iterator<char>(in)), {});
    CHECK(text.starts_with("%PDF"));
    CHECK(text.find("/Count") != std::string::npos);
    CHECK(text.size() > 20000);
}

TEST_CASE("the build sheet prints the paper's own numbers, in the order that is worked in") {
    Kit kit = practiceKit().kit;
    REQUIRE(kit.steps.size() > 4);
    for (std::size_t i = 0; i < kit.steps.size(); ++i) kit.steps[i].number = std::to_string(i + 21) + "b";
    kit.steps[2].number.clear();  // a step that the paper does not number
    std::vector<std::size_t> order;
    for (std::size_t i = kit.steps.size(); i-- > 0;) order.push_back(i);
    const auto file =
        std::filesystem::temp_directory_path() / ("ombrek-sheet-" + std::to_string(::getpid()) + ".pdf");
    const QByteArray pdf = pdfOf(buildSheet(kit, Build{}, order));
    std::ofstream(file, std::ios::binary).write(pdf.data(), pdf.size());
    FILE* printed = popen(("pdftotext -raw '" + file.string() + "' - 2>/dev/null").c_str(), "r");
    REQUIRE(printed != nullptr);
    std::string words;
    for (char line[4000]; std::fgets(line, sizeof line, printed) != nullptr;) words += line;
    pclose(printed);
    std::filesystem::remove(file);
    std::size_t before = 0;
    for (const std::size_t i : order) {
        if (kit.steps[i].number.empty()) continue;
        CAPTURE(i);
        const auto at = words.find(kit.steps[i].number + " " + kit.steps[i].title.substr(0, 12));
        REQUIRE(at != std::string::npos);
        CHECK(at >= before);
        before = at;
    }
    CHECK(words.find(" 3 " + kit.steps[2].title.substr(0, 12)) == std::string::npos);
}

TEST_CASE("a kit without places shows the parts of the step as they look, also under the loupe") {
    Desk desk([](const std::filesystem::path& file) {
        auto kit = nlohmann::json::parse(practiceKit().text);
        kit.erase("board");
        for (auto& part : kit["parts"]) part.erase("place");
        REQUIRE(Book::open(file).value()->startBuild("no places", kit.dump()));
    });
    desk.key(Qt::Key_F3);
    const auto shown = [&] {
        const auto* parts = desk.window().page()->findChild<QWidget*>("step parts");
        REQUIRE(parts != nullptr);
        CHECK(parts->isVisible());
        return parts->accessibleName();
    };
    const auto goTo = [&](const QString& step) {
        desk.key(Qt::Key_Home);
        for (int i = 0; i < 80 && !desk.now().startsWith(step); ++i) desk.key(Qt::Key_Down);
        REQUIRE(desk.now().startsWith(step));
    };
    CHECK(shown() == QStringLiteral("Parts of this step: "));  // the bench is laid out first
    goTo(QStringLiteral("Solder D1"));
    CHECK(shown().contains(QStringLiteral("D1 ")));
    const Part& d1 = *desk.kit().part("D1");
    CHECK(shown().contains(QString::fromStdString(d1.orientation)));
    const QImage one = desk.window().page()->findChild<QWidget*>("step parts")->grab().toImage();
    goTo(QStringLiteral("Solder R80"));
    CHECK(shown().contains(QStringLiteral("R82")));
    CHECK(desk.window().page()->findChild<QWidget*>("step parts")->grab().toImage() != one);

    REQUIRE(desk.session().book().doStep("d1"));
    desk.session().kept({});
    desk.key(Qt::Key_N);
    CHECK(desk.now().startsWith(QStringLiteral("D1, ")));
    CHECK(shown().contains(QStringLiteral("D1 ")));
}

TEST_CASE("nothing is done or passed before what must come first") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    const auto goTo = [&](const char* id) {
        const QString title = QString::fromStdString(desk.kit().step(id)->title);
        desk.key(Qt::Key_Home);
        for (int i = 0; i < 80 && !desk.now().contains(title); ++i) desk.key(Qt::Key_Down);
        REQUIRE(desk.now().contains(title));
    };
    for (const char* id : {"hold-supply", "look-supply"}) {
        REQUIRE_FALSE(desk.kit().step(id)->after.empty());
        goTo(id);
        desk.key(Qt::Key_Return);
        CHECK_FALSE(desk.build().done(id));
        desk.key(Qt::Key_K);
        CHECK(desk.window().focusWidget() == desk.window().page());  // no reason is asked for
        CHECK_FALSE(desk.build().done(id));
    }
}

TEST_CASE("under the loupe every fault has its number, and all joints can be gone over again") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const char* step : {"lay-out", "look-board", "r-supply", "d1", "c-supply"})
            REQUIRE(book->doStep(step));
    });
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_N);
    const std::size_t all = jointsToLookAt(desk.kit(), desk.build()).size();
    REQUIRE(all >= 7);
    const std::pair<Qt::Key, Finding::What> keys[] = {{Qt::Key_2, Finding::What::dry},
                                                      {Qt::Key_3, Finding::What::missed},
                                                      {Qt::Key_4, Finding::What::flux},
                                                      {Qt::Key_5, Finding::What::turned},
                                                      {Qt::Key_6, Finding::What::other}};
    for (const auto& [key, what] : keys) {
        const std::string ref = jointsToLookAt(desk.kit(), desk.build()).front()->ref;
        desk.key(key);
        CHECK(openFindings(desk.build()).back()->ref == ref);
        CHECK(openFindings(desk.build()).back()->what == what);
    }
    CHECK(jointsToLookAt(desk.kit(), desk.build()).size() == all - 5);
    const QString here = desk.now();
    desk.key(Qt::Key_Down);
    CHECK(desk.now() != here);
    desk.key(Qt::Key_Up);
    CHECK(desk.now() == here);
    while (!jointsToLookAt(desk.kit(), desk.build()).empty()) desk.key(Qt::Key_Return);
    CHECK(desk.now().startsWith(QStringLiteral("No joint")));
    desk.key(Qt::Key_3);  // nothing is looked at: nothing is found
    CHECK(openFindings(desk.build()).size() == 5);
    desk.key(Qt::Key_S);
    desk.key(Qt::Key_S);  // from this sitting's joints over the senses to all joints
    CHECK(desk.now() == QStringLiteral("Every joint of the board has been looked at."));
    desk.key(Qt::Key_Return);
    CHECK(desk.window().page()->name() == QStringLiteral("Board"));
}

TEST_CASE("how long a sitting is to last changes what it will want: nonsense leaves it") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_G);
    const QString two = desk.now();
    desk.key(Qt::Key_T);
    desk.answer(QStringLiteral("30"));
    const QString half = desk.now();
    CHECK(half != two);
    for (const char* bad : {"never", "5", "-60", "17h", "h", "1e9"}) {
        desk.key(Qt::Key_T);
        desk.answer(QString::fromLatin1(bad));
        CHECK(desk.now() == half);
    }
    desk.key(Qt::Key_T);
    desk.answer(QStringLiteral("2h"));
    CHECK(desk.now() == two);
    desk.key(Qt::Key_C);  // no evening is known yet: said, no file asked for
    CHECK(desk.window().focusWidget() == desk.window().page());
    desk.window().resize(1024, 700);  // less room: what finds none is counted, nothing runs out of its card
    desk.settle();
    CHECK(desk.now() == two);
}
