#include <QClipboard>
#include <QLineEdit>
#include <QTcpServer>
#include <QTcpSocket>

#include "desk/list/list_page.h"
#include "judged/bag.h"
#include "judged/tune_next.h"
#include "station/first_light/first_light.h"
#include "station/parts_in/parts_in.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

/// Every page there is, one after another.
void eachPage(Desk& desk, const std::function<void()>& visit) {
    for (const PageRow& row : pageRows()) {
        if (row.where == PageRow::Where::start) continue;
        desk.open(row);
        desk.settle();
        visit();
        desk.window().leave();
    }
}

QLineEdit* entryOf(Desk& desk) { return qobject_cast<QLineEdit*>(desk.window().focusWidget()); }

/// What the open entry says it would be kept as.
QString meaning(Desk& desk) { return entryOf(desk) ? entryOf(desk)->accessibleDescription() : QString(); }

/// The line at the foot of the page.
QString foot(Desk& desk) {
    QString out;
    for (const QObject* child : desk.window().page()->children()) {
        const auto* widget = qobject_cast<const QWidget*>(child);
        if (widget != nullptr && widget->objectName() == QLatin1String("note"))
            out = widget->accessibleName();
    }
    return out;
}

/// A kit of one's own, as JSON.
std::string kitText(const std::string& parts) {
    return R"({"format":"ombrek-kit","version":1,"id":"own","name":"Own","parts":[)" + parts + "]}";
}
const std::string kMicrofarads = R"({"ref":"C1","kind":"capacitor","value":"47u","tolerance":20})";

std::function<void(const std::filesystem::path&)> begunWith(const std::string& text) {
    return [text](const std::filesystem::path& file) {
        auto book = Book::open(file);
        REQUIRE(book);
        REQUIRE((*book)->startBuild("Own", text));
    };
}

/// A practice bench that takes its time.
struct SlowInstrument {
    explicit SlowInstrument(QByteArray text) : text(std::move(text)) {
        QObject::connect(&server, &QTcpServer::newConnection, [this] {
            QTcpSocket* socket = server.nextPendingConnection();
            QObject::connect(socket, &QTcpSocket::readyRead, socket, [this, socket] {
                const QByteArray line = socket->readAll();
                if (line.contains("IDN"))
                    return void(socket->write("Ombrek,practice meter," + mark + ",2\n"));
                if (line.contains(kKeyQuestion)) return void(socket->write(key.word() + '\n'));
                QTimer::singleShot(300, socket, [this, socket] { socket->write(this->text); });
            });
        });
        REQUIRE(server.listen(QHostAddress::LocalHost));
        REQUIRE(key.drawFor(server.serverPort()));
    }
    QTcpServer server;
    BenchKey key;
    QByteArray text, mark;
};

void useInstrument(Desk& desk, SlowInstrument& slow) {
    slow.mark = QByteArray::fromStdString(practiceMark(desk.build().kitText));
    BenchClient::Ports ports;
    ports.fill(slow.server.serverPort());
    desk.session().practice().setPorts(QStringLiteral("127.0.0.1"), ports);
}

/// Press a key without waiting for the instrument.
void press(Desk& desk, Qt::Key key) {
    QTest::keyClick(desk.window().focusWidget() ? desk.window().focusWidget() : desk.window().page(), key);
}

}  // namespace

TEST_CASE("no key of a page that takes numbers is a digit, a sign or a separator") {
    Desk desk(partWay);
    const QString taken = QStringLiteral("0123456789+-.,>");
    int pages = 0;
    eachPage(desk, [&] {
        const bool types =
            desk.window().page()->takesNumbers() || desk.window().page()->name() == QStringLiteral("Drawers");
        pages += types;
        if (!types) return;
        for (const QAction* action : desk.window().page()->actions()) {
            for (const QKeySequence& keys : action->shortcuts()) {
                INFO(desk.window().page()->name().toStdString() << ": " << keys.toString().toStdString());
                CHECK_FALSE((keys.toString().size() == 1 && taken.contains(keys.toString())));
            }
        }
    });
    CHECK(pages >= 4);
    // Winding at the coil that waits for its reading.
    desk.window().goTo(1);
    for (const QAction* action : desk.window().page()->actions()) {
        for (const QKeySequence& keys : action->shortcuts())
            CHECK_FALSE((keys.toString().size() == 1 && taken.contains(keys.toString())));
    }
}

TEST_CASE("a reading typed at a coil is kept whole, its first digit too") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const Winding& w : practiceKit().kit.coil("L2")->windings) {
            REQUIRE(book->setTurns("L2", w.name, w.turns));
            REQUIRE(book->finishWinding("L2", w.name));
        }
    });
    desk.key(Qt::Key_F2);
    const double target = desk.kit().coil("L2")->target;
    for (const double value : {2.9e-6, 3.1e-7, 2.02 * target}) {
        desk.type(qs(plainNumber(value * 1e9) + "n"));
        desk.key(Qt::Key_Return);
        if (entryOf(desk)) desk.key(Qt::Key_Return);  // asked whether it is meant
        REQUIRE(desk.build().last(Subject::coil("L2")));
        CHECK(desk.build().last(Subject::coil("L2"))->value == Approx(value));
    }
}

TEST_CASE("a bare number is what the display shows, and the entry says so before Enter") {
    Desk desk(begunWith(kitText(kMicrofarads)));
    desk.key(Qt::Key_F1);
    desk.type(QStringLiteral("47"));
    CHECK(meaning(desk) == QStringLiteral("= 47\u202f\u00b5F"));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::part("C1"))->value == Approx(47e-6));
    desk.key(Qt::Key_Down);
    desk.type(QStringLiteral("47F"));
    CHECK(meaning(desk).contains(QStringLiteral("no reading")));
    desk.key(Qt::Key_Return);
    REQUIRE(entryOf(desk));  // refused, and nothing is lost
    CHECK(entryOf(desk)->text() == QStringLiteral("47F"));
    CHECK(desk.build().readings.size() == 1);
}

TEST_CASE("what is far from the kit's promise is asked about, and kept when it is meant") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        loadOn(file);
    });
    desk.key(Qt::Key_F6);
    desk.type(QStringLiteral("12.5"));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().last(Subject::supply()));
    for (const char* text : {"4000", "4k7", "1e9", "-5000"}) {  // dBm was wanted
        desk.type(QString::fromLatin1(text));
        desk.key(Qt::Key_Return);
        INFO(text);
        CHECK(desk.build().last(Subject::power()) == nullptr);
        REQUIRE(entryOf(desk));
        desk.key(Qt::Key_Escape);
    }
    for (int i = 0; i < 3; ++i) desk.key(Qt::Key_M);  // a wattmeter
    desk.type(QStringLiteral("4000 W"));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::power()) == nullptr);
    CHECK(foot(desk).contains(QStringLiteral("The kit promises 3")));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.build().last(Subject::power()));
    CHECK(desk.build().last(Subject::power())->value == 4000);
    desk.reopen();
    desk.key(Qt::Key_F6);  // and the page can be seen again
    CHECK_FALSE(desk.now().isEmpty());
}

TEST_CASE("an overload is typed as the meter shows it: the best isolation passes") {
    Desk desk(fresh);
    desk.key(Qt::Key_F4);
    CHECK(desk.now().contains(QStringLiteral("Supply to ground")));
    desk.type(QStringLiteral("OL"));
    CHECK(meaning(desk) == QStringLiteral("= open"));
    desk.key(Qt::Key_Return);
    CHECK(checkVerdict(desk.kit(), *desk.kit().check("short"), desk.build()).state == VerdictState::pass);
    desk.plugIn();
    desk.type(QStringLiteral(">60"));
    desk.key(Qt::Key_Return);
    CHECK(checkVerdict(desk.kit(), *desk.kit().check("polarity"), desk.build()).state == VerdictState::fail);
    desk.reopen();
    CHECK(checkVerdict(desk.kit(), *desk.kit().check("short"), desk.build()).state == VerdictState::pass);
}

TEST_CASE("what was typed stays while one looks elsewhere, and goes where it was meant for") {
    Desk desk(fresh);
    desk.key(Qt::Key_F1);
    const std::string ref = nextPart(desk.session().judged())->ref;
    desk.type(QStringLiteral("10"));
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_F9);
    desk.key(Qt::Key_F1);
    REQUIRE(entryOf(desk));
    CHECK(entryOf(desk)->text() == QStringLiteral("10"));
    // Meanwhile the part was seen to another way; the entry still belongs to the one it was opened for.
    REQUIRE(desk.session().book().markPart(ref, PartMark::trusted));
    desk.type(QStringLiteral("0"));
    desk.key(Qt::Key_Return);
    if (desk.build().readings.empty()) desk.key(Qt::Key_Return);
    REQUIRE_FALSE(desk.build().readings.empty());
    CHECK(desk.build().readings.back().subject == Subject::part(ref));
}

TEST_CASE("an answer goes to what was asked about, wherever the builder is by then") {
    Desk desk(fresh);
    SlowInstrument slow("+3.000E-01\n");
    useInstrument(desk, slow);
    desk.key(Qt::Key_F9);
    while (desk.window().page()->nowSentence().isEmpty()) desk.settle();
    // Resistance: its zero is asked for, then another quantity is chosen before the answer comes.
    const auto zero = [&](Unit unit) { return meterFor(desk.session().book().meters(), unit, 0)->zero; };
    for (int i = 0; i < 10; ++i) {
        desk.key(Qt::Key_Down);
        bool ohms = false;
        for (const QLabel* label : desk.window().page()->findChildren<QLabel*>())
            ohms = ohms || label->text().startsWith(QStringLiteral("Resistance,"));
        if (ohms) break;
    }
    press(desk, Qt::Key_Return);
    press(desk, Qt::Key_Up);
    press(desk, Qt::Key_Up);
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    CHECK(zero(Unit::ohm) == Approx(0.3));
    CHECK(zero(Unit::farad) == 0);
    CHECK(zero(Unit::volt) == 0);
    CHECK(foot(desk).contains(QStringLiteral("Resistance")));
}

TEST_CASE("a part in hand that is called another kind before the answer does not get it") {
    Desk desk(fresh);
    SlowInstrument slow("+4.700E+03\n");
    useInstrument(desk, slow);
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_U);
    desk.key(Qt::Key_R);
    press(desk, Qt::Key_Return);
    press(desk, Qt::Key_C);  // a capacitor, now
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    for (const LoosePart& part : desk.build().loose) {
        if (std::isfinite(part.value)) CHECK(part.kind == PartKind::resistor);
    }
}

TEST_CASE("a coil is asked about by name: another chosen meanwhile does not get its reading") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const char* ref : {"L1", "L2"}) {
            for (const Winding& w : practiceKit().kit.coil(ref)->windings) {
                REQUIRE(book->setTurns(ref, w.name, w.turns));
                REQUIRE(book->finishWinding(ref, w.name));
            }
        }
    });
    SlowInstrument slow("+2.700E-06\n");
    useInstrument(desk, slow);
    desk.key(Qt::Key_F2);
    const bool first = desk.now().contains(QStringLiteral("L1"));
    press(desk, Qt::Key_Return);
    press(desk, Qt::Key_Down);
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    CHECK((desk.build().last(Subject::coil("L1")) != nullptr) == first);
    CHECK((desk.build().last(Subject::coil("L2")) != nullptr) == !first);
}

TEST_CASE("S on a coil that was only trusted asks for a measurement") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        for (const Winding& w : practiceKit().kit.coil("L2")->windings) {
            REQUIRE(book->setTurns("L2", w.name, w.turns));
            REQUIRE(book->finishWinding("L2", w.name));
        }
    });
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_T);
    desk.key(Qt::Key_S);
    CHECK(foot(desk).contains(QStringLiteral("Measure it first")));
}

TEST_CASE("attenuation, drop, way of measuring and the instruments' address outlive a restart") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        loadOn(file);
    });
    desk.key(Qt::Key_F6);
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("40"));
    desk.key(Qt::Key_M);
    desk.key(Qt::Key_M);
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("0.55"));
    REQUIRE(desk.session().book().prefer("instruments", "127.0.0.1:7001"));
    desk.reopen();
    CHECK(desk.session().powerWay().id == "diode-probe");
    CHECK(desk.session().powerSetting(powerMethod("diode-probe")) == 0.55);
    CHECK(desk.session().powerSetting(powerMethod("attenuator")) == 40);
    auto book = Book::open(desk.path("other.ombrek"));
    REQUIRE(book);
    REQUIRE((*book)->prefer("instruments", "127.0.0.1:7001"));
    Session session(Tables(shippedTables()), std::move(*book));
    CHECK(session.practice().firstPort() == 7001);
}

TEST_CASE("after a restart Tune reads where its headline says") {
    Desk desk([](const std::filesystem::path& file) { partWay(file); });
    desk.key(Qt::Key_F5);
    const Adjustment* a = nextAdjustment(desk.session().judged());
    REQUIRE(a != nullptr);
    const double next = tuneState(desk.kit(), *a, desk.build()).nextPosition;
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::adjustment(a->id))->setting(kPosition) ==
          Approx(std::round(next * 1000) / 1000));
}

TEST_CASE("with the load not on, the key does not go down") {
    Desk desk(partWay);
    desk.key(Qt::Key_F6);
    CHECK(desk.now().contains(QStringLiteral("Before the key goes down")));
    desk.type(QStringLiteral("12.5"));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::supply()) == nullptr);
    REQUIRE(desk.session().book().doStep("last-look", true, "for this test"));
    desk.settle();
    CHECK(desk.now().contains(QStringLiteral("dummy load")));
    desk.key(Qt::Key_Return);  // yes, it is on
    CHECK(desk.now().contains(QStringLiteral("read the supply")));
    desk.key(Qt::Key_Return);
    CHECK(desk.build().last(Subject::supply()) != nullptr);
}

TEST_CASE(
    "a stale line goes: a refusal when the next action is kept, a question with the page that asked it") {
    Desk desk(fresh);
    desk.key(Qt::Key_F1);
    desk.session().kept(problem("", "The disk is full: this was not written."));
    CHECK(foot(desk).contains(QStringLiteral("disk is full")));
    desk.session().kept(desk.session().book().countTurn("L2", "coil"));
    CHECK_FALSE(foot(desk).contains(QStringLiteral("disk is full")));
    SlowInstrument slow("+1.000E+03\n");
    useInstrument(desk, slow);
    press(desk, Qt::Key_Return);
    CHECK(foot(desk).contains(QStringLiteral("Asking")));
    press(desk, Qt::Key_F3);
    REQUIRE(desk.waitFor([&] { return !desk.session().waiting(); }));
    desk.key(Qt::Key_F1);
    CHECK_FALSE(foot(desk).contains(QStringLiteral("Asking")));
}

TEST_CASE(
    "corrections of a list hold: over a turned column, a later correction, another station and a restart") {
    Desk desk;
    const QString list = QStringLiteral(
        "Pos.;Wert;Bemerkung\nR1;4k7;5%\nR2;10k;1%\nC1;22;\nC2;100n;104\nR1;1k;again\nX;no part;\n");
    QApplication::clipboard()->setText(list);
    desk.key(Qt::Key_L);
    desk.key(Qt::Key_V, Qt::ControlModifier);
    const auto page = [&]() -> ListPage& { return dynamic_cast<ListPage&>(*desk.window().page()); };
    REQUIRE(desk.waitFor([&] { return !page().working() && !page().model().empty(); }));
    // A row by its designator and its value, as they stand in the source.
    const auto isRow = [](const QString& source, const QString& text) {
        const QStringList words = text.split(QChar(';'));
        return source.startsWith(words[0]) && source.contains(words[1]);
    };
    const auto row = [&](const QString& text) {
        for (std::size_t i = 0; i < page().model().rows().size(); ++i) {
            if (isRow(qs(page().model().rows()[i].source), text)) return int(i);
        }
        return -1;
    };
    const auto goTo = [&](const QString& text) {
        const int wanted = row(text);
        REQUIRE(wanted >= 0);
        for (int i = 0; i < 20; ++i) {
            bool there = false;
            for (const QLabel* label : page().findChildren<QLabel*>())
                there = there || isRow(label->text(), text);
            if (there) return;
            desk.key(Qt::Key_Down);
        }
        FAIL("no row " << text.toStdString());
    };
    const std::size_t all = page().model().rows().size();
    // A row is left out, one is said again, one is right as read.
    goTo(QStringLiteral("R1;1k"));
    desk.key(Qt::Key_Delete);
    CHECK(page().model().rows().size() == all - 1);
    goTo(QStringLiteral("C1;22"));
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("C1 22pF 5%"));
    CHECK(page().model().rows()[std::size_t(row(QStringLiteral("C1;22")))].state == VerdictState::pass);
    const auto c1 = [&] { return page().model().rows()[std::size_t(row(QStringLiteral("C1;22")))]; };
    // The row that was corrected is still in hand: Enter shows it again, not another.
    desk.key(Qt::Key_Return);
    CHECK(entryOf(desk)->text().startsWith(QStringLiteral("C1")));
    desk.key(Qt::Key_Escape);
    // A column turned: what was left out stays out, what was said stays said.
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_C);
    CHECK(row(QStringLiteral("R1;1k")) == -1);
    CHECK(c1().state == VerdictState::pass);
    // Another station, and a restart.
    desk.key(Qt::Key_F9);
    desk.reopen();
    desk.key(Qt::Key_L);
    REQUIRE(desk.waitFor([&] { return !page().working() && !page().model().empty(); }));
    CHECK(row(QStringLiteral("R1;1k")) == -1);
    CHECK(c1().state == VerdictState::pass);
    CHECK(c1().text.find("22") != std::string::npos);
    // Taken back, one by one.
    desk.key(Qt::Key_Z);  // the column
    desk.key(Qt::Key_Z);
    desk.key(Qt::Key_Z);
    CHECK(c1().state != VerdictState::pass);
}

TEST_CASE("variants that are typed in a correction are there to be chosen") {
    const auto source = readPartsList("R1 10k\nC5 100p\n").value();
    ListModel model;
    model.take(source);
    const auto at = [&](const char* text) {
        for (std::size_t i = 0; i < model.rows().size(); ++i) {
            if (model.rows()[i].source.starts_with(text)) return i;
        }
        return std::size_t(99);
    };
    const auto edit = model.correct(at("C5"), "C5 100p (40 m), 47p (20 m)");
    REQUIRE(edit);
    CHECK(model.source().list.variants == std::vector<std::string>{"40 m", "20 m"});
    model.take(source, {*edit}, "20 m");
    CHECK(model.rows()[at("C5")].text.find("47") != std::string::npos);
    CHECK(model.source().list.variants.size() == 2);
}

TEST_CASE("a second list over the first is asked about, and may go below it") {
    Desk desk;
    desk.window().open(QStringLiteral("list"));
    const auto page = [&]() -> ListPage& { return dynamic_cast<ListPage&>(*desk.window().page()); };
    const auto paste = [&](const char* text, auto... key) {
        QGuiApplication::clipboard()->setText(QString::fromUtf8(text));
        desk.key(key...);
        REQUIRE(desk.waitFor([&] { return !page().working(); }));
    };
    paste("R1 10k\nR2 4k7\n", Qt::Key_V, Qt::ControlModifier);
    CHECK(page().model().parts() == 2);
    paste("C1 100n\nC2 22p\n", Qt::Key_V, Qt::ControlModifier);
    CHECK(page().model().rows()[0].source.starts_with("R"));
    paste("C1 100n\nC2 22p\n", Qt::Key_V, Qt::ShiftModifier);
    CHECK(page().model().parts() == 4);
    paste("C3 1n\n", Qt::Key_V, Qt::ControlModifier);
    CHECK(page().model().parts() == 4);
    paste("C3 1n\n", Qt::Key_V, Qt::ControlModifier);
    CHECK(page().model().parts() == 1);
}

TEST_CASE("a row that was confirmed stays confirmed when another is corrected") {
    ListModel model;
    model.take(readPartsList("C1  22  1\nR1-R3  100  4\nC2  33  1\n").value());
    const auto at = [&](const char* text) {
        for (std::size_t i = 0; i < model.rows().size(); ++i) {
            if (model.rows()[i].source.starts_with(text)) return i;
        }
        return std::size_t(99);
    };
    REQUIRE(model.rows()[at("R1")].state == VerdictState::doubtful);
    REQUIRE(model.confirm(at("R1")));
    CHECK(model.rows()[at("R1")].state == VerdictState::pass);
    REQUIRE(model.correct(at("C1"), "C1 22pF 5%"));
    CHECK(model.rows()[at("R1")].state == VerdictState::pass);
    // A new doubt about it is told: another row now claims one of its designators.
    REQUIRE(model.correct(at("C2"), "R2 33 ohm 5%"));
    CHECK(model.doubtful() == 1);
    REQUIRE(model.correct(at("C2"), "C2 33pF 5%"));
    CHECK(model.doubtful() == 0);
}

TEST_CASE("several things to keep are each asked for") {
    Desk desk([](const std::filesystem::path& file) {
        Kit kit = practiceKit().kit;
        auto text = practiceKit().text;
        const std::string keep = R"("what": "cut leads")";
        const auto at = text.find(keep);
        REQUIRE(at != std::string::npos);
        const auto open = text.rfind('{', at), close = text.find('}', at);
        std::string second = text.substr(open, close - open + 1);
        second.replace(second.find("cut leads"), 9, "washers");
        text.insert(close + 1, ", " + second);
        auto book = Book::open(file);
        REQUIRE(book);
        REQUIRE((*book)->startBuild("Two keeps", text));
    });
    REQUIRE(desk.session().hasBuild());
    desk.key(Qt::Key_F3);
    for (int i = 0; i < 40 && !desk.now().contains(qs(desk.kit().step("r-supply")->title)); ++i)
        desk.key(Qt::Key_Down);
    desk.key(Qt::Key_L);
    desk.answer(QStringLiteral("4"));
    desk.answer(QStringLiteral("2"));
    CHECK(desk.build().kept.at("cut leads") == 4);
    CHECK(desk.build().kept.at("washers") == 2);
}

TEST_CASE("lines are settled when their list is written, not before") {
    Desk desk([](const std::filesystem::path& file) {
        fresh(file);
        auto book = Book::open(file).value();
        REQUIRE(book->markPart("R82", PartMark::missing));
    });
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_W);
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("/nowhere/at/all/list.csv"));
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    desk.settle();
    CHECK(desk.build().remedies.empty());
    desk.key(Qt::Key_S);
    desk.answer(qs(desk.path("list.csv").string()));
    REQUIRE(desk.waitFor([&] { return !desk.build().remedies.empty(); }));
}

TEST_CASE("an erratum that is too long is refused, and the kit can still be read") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    desk.key(Qt::Key_E, Qt::ShiftModifier);
    entryOf(desk)->setMaxLength(100000);
    entryOf(desk)->setText(QString(4500, QChar('x')));
    desk.key(Qt::Key_Return);
    CHECK(foot(desk).contains(QStringLiteral("4000")));
    desk.reopen();
    CHECK(desk.session().hasBuild());
}

TEST_CASE("a build whose kit cannot be read is said to be that, not an empty book") {
    Desk desk(begunWith("{\"format\":\"ombrek-kit\", \"parts\": 7"));
    CHECK_FALSE(desk.session().hasBuild());
    CHECK_FALSE(desk.session().kitTrouble().isEmpty());
    CHECK(desk.now().contains(QStringLiteral("cannot be read")));
    for (int i = 0; i < Window::kStations; ++i) desk.window().goTo(i);
    desk.key(Qt::Key_F8);
    desk.key(Qt::Key_F9);
    CHECK_FALSE(desk.now().isEmpty());
}

TEST_CASE("a book that is moved away is noticed within a second or two, and said") {
    Desk desk(fresh);
    std::filesystem::rename(desk.path("desk.ombrek"), desk.path("away.ombrek"));
    REQUIRE(desk.waitFor([&] { return foot(desk).contains(QStringLiteral("deleted or moved")); }, 3000));
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Space);
    const std::filesystem::path copy = desk.session().book().path();
    CHECK(copy.string().find("rescued") != std::string::npos);
    CHECK_FALSE(desk.build().windings.empty());
}
