#include <QFile>

#include "desk/bench/line_words.h"
#include "instruments/bench.h"
#include "instruments/stand_ins.h"
#include "judged/bag.h"
#include "station/parts_in/parts_in.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

/// An L/C meter at the end of a serial lead: prints what is on its clips.
class LcMeter {
 public:
    LcMeter() {
        timer_.setInterval(20);
        QObject::connect(&timer_, &QTimer::timeout, [this] { port.send(line); });
        timer_.start();
    }
    void shows(double farads) { line = "C= " + QByteArray::number(farads * 1e12, 'f', 1) + " pF Q= 85\r\n"; }
    PortStandIn port;
    QByteArray line = "C= 101.3 pF Q= 85\r\n";

 private:
    QTimer timer_;
};

/// What must come is waited for a minute: a busy machine is no fault.
bool comes(Desk& desk, const std::function<bool()>& done) { return desk.waitFor(done, kLongWork); }

/// From the list: A, the way, its address, Enter.
void addBy(Desk& desk, const QString& way, const QString& address) {
    desk.window().open(QStringLiteral("add-instrument"));
    auto* list = desk.window().page()->findChild<QListView*>();
    REQUIRE(list != nullptr);
    for (int i = 0; i < 40; ++i) {
        const auto* model = list->model();
        QString current;
        for (int row = 0; row < model->rowCount(); ++row) {
            if (model->index(row, 0).data(Qt::AccessibleTextRole).toString().startsWith(way) && row == i)
                current = way;
        }
        if (!current.isEmpty()) break;
        desk.key(Qt::Key_Down);
    }
    desk.key(Qt::Key_Return);
    desk.answer(address);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("bench"));
}

const Instrument* named(Desk& desk, const std::string& name) {
    for (const Instrument& one : desk.session().bench().instruments()) {
        if (one.name == name) return &one;
    }
    return nullptr;
}

/// The line at the page's foot.
QString noted(Desk& desk) {
    const auto* note = desk.window().page()->findChild<QWidget*>(QStringLiteral("note"));
    return note == nullptr ? QString() : note->accessibleName();
}

void answered(Desk& desk) {
    REQUIRE(comes(desk, [&] { return !desk.session().waiting(); }));
    desk.settle();
}

/// The link by which a port keeps its name whatever is plugged in.
class Socket {
 public:
    void plug(const LcMeter& meter) {
        std::filesystem::remove(link_);
        std::filesystem::create_symlink(meter.port.path().toStdString(), link_);
    }
    QString address() const { return QStringLiteral("/dev/..") + QString::fromStdString(link_.string()); }

 private:
    Folder folder_;
    std::filesystem::path link_ = folder_ / "ttyUSB0";
};

}  // namespace

TEST_CASE(
    "ten parts and five checks by a libsigrok multimeter, a printing L/C meter and the practice counter") {
    qputenv("OMBREK_SIGROK", OMBREK_SIGROK_PROGRAM);
    Desk desk(fresh);
    auto lc = std::make_unique<LcMeter>();
    Socket socket;
    socket.plug(*lc);
    desk.key(Qt::Key_R, Qt::ControlModifier);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("bench"));
    addBy(desk, QStringLiteral("serial port"), socket.address());
    desk.key(Qt::Key_L);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("teach"));
    REQUIRE(comes(desk, [&] { return desk.now().startsWith(QStringLiteral("Does its display show")); }));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("bench"));
    REQUIRE(named(desk, "ttyUSB0") != nullptr);
    CHECK(named(desk, "ttyUSB0")->pattern == "C # @ Q *");
    CHECK(named(desk, "ttyUSB0")->measures == "F");
    addBy(desk, QStringLiteral("libsigrok"), QStringLiteral("demo:measured_quantity=resistance A0"));
    desk.key(Qt::Key_M);
    desk.answer(QStringLiteral("ohm"));
    addBy(desk, QStringLiteral("libsigrok"), QStringLiteral("demo A0"));
    desk.key(Qt::Key_M);
    desk.answer(QStringLiteral("V"));
    REQUIRE(named(desk, "demo 2") != nullptr);

    // Ten parts, with Enter.
    desk.window().goTo(0);
    const auto readings = [&] { return desk.build().readings.size(); };
    int farads = 0, ohms = 0, unplugged = 0;
    for (int guard = 0; guard < 200 && readings() < 10; ++guard) {
        const Part* part = nextPart(desk.session().judged());
        REQUIRE(part != nullptr);
        if (part->unit == Unit::farad) lc->shows(part->nominal);
        const bool wanted = part->unit == Unit::farad ? farads < 6 : part->unit == Unit::ohm && ohms < 4;
        const std::size_t before = readings();
        if (!wanted) {  // a part of a kind that is had enough of
            REQUIRE(desk.session().book().markPart(part->ref, PartMark::seen));
            desk.settle();
            continue;
        }
        if (part->unit == Unit::farad && farads == 3 && unplugged == 0) {
            ++unplugged;
            lc.reset();
            desk.key(Qt::Key_Return);
            answered(desk);
            CHECK(readings() == before);  // nothing is taken, nothing is lost
            lc = std::make_unique<LcMeter>();
            lc->shows(part->nominal);
            socket.plug(*lc);
        }
        desk.key(Qt::Key_Return);
        answered(desk);
        INFO(part->ref << ": " << noted(desk).toStdString());
        REQUIRE(readings() == before + 1);
        const Reading& taken = desk.build().readings.back();
        CHECK(taken.meter == (part->unit == Unit::farad ? "ttyUSB0" : "demo"));
        CHECK(taken.value == Approx(part->unit == Unit::farad ? part->nominal : 10.0).epsilon(0.01));
        (part->unit == Unit::farad ? farads : ohms)++;
    }
    CHECK(farads == 6);
    CHECK(ohms == 4);
    CHECK(unplugged == 1);

    // Five checks: four voltages by libsigrok, a frequency by the practice counter.
    std::size_t before = readings();
    for (const char* id : {"polarity", "after-d1", "rail8", "rail5"}) {
        desk.session().read({0, Subject::check(id), 0, Unit::volt, 0, {}, "", 0});
        answered(desk);
        REQUIRE(readings() == ++before);
        CHECK(desk.build().readings.back().meter == "demo 2");
        CHECK(std::fabs(desk.build().readings.back().value) == Approx(10).epsilon(0.01));
    }
    desk.session().read({0, Subject::check("vfo-runs"), 0, Unit::hertz, 0, {}, "", 0});
    answered(desk);
    REQUIRE(readings() == ++before);
    CHECK(desk.build().readings.back().value == Approx(5e6).epsilon(0.05));
    CHECK(desk.build().readings.back().meter == "counter");

    // All of it is there after a restart.
    desk.reopen();
    CHECK(desk.build().readings.size() == before);
    CHECK(desk.session().bench().instruments().size() == 4);
    qunsetenv("OMBREK_SIGROK");
}

TEST_CASE("a line is shown with the mouse, and one that says no unit by a typed one") {
    Desk desk(fresh);
    LcMeter lc;
    lc.line = "12 104.20 ok\n";
    addBy(desk, QStringLiteral("serial port"), lc.port.path());
    desk.key(Qt::Key_L);
    REQUIRE(
        comes(desk, [&] { return desk.now().startsWith(QStringLiteral("Which of these is the number")); }));
    auto* words = desk.window().page()->findChild<LineWords*>();
    REQUIRE(words != nullptr);
    QTest::mouseClick(words, Qt::LeftButton, {}, {100, 24});  // the second word
    desk.settle();
    CHECK(desk.now().startsWith(QStringLiteral("And which is its unit")));
    desk.key(Qt::Key_Return);  // not yet
    CHECK(desk.window().page()->objectName() == QStringLiteral("teach"));
    desk.key(Qt::Key_U);
    desk.refused(QStringLiteral("furlong"));
    desk.key(Qt::Key_U);
    desk.answer(QStringLiteral("pF"));
    CHECK(desk.now().startsWith(QStringLiteral("Does its display show")));
    desk.key(Qt::Key_Return);
    const auto& all = desk.session().bench().instruments();
    REQUIRE(all.size() == 2);
    CHECK(all[0].pattern == "* # ok | pF");
    CHECK(all[0].measures == "F");
    desk.key(Qt::Key_Return);  // tried
    answered(desk);
    CHECK(comes(desk, [&] { return desk.session().bench().state(all[0].name).is == BenchState::Is::there; }));
}

TEST_CASE("a line with a letter of another alphabet is shown and learned as it came") {
    Desk desk(fresh);
    LcMeter lc;
    lc.line = GENERATE(QByteArray("C: 4.700 \xc2\xb5"
                                  "F\n"),
                       QByteArray("C: 4.700 \xb5"
                                  "F\n"));
    addBy(desk, QStringLiteral("serial port"), lc.port.path());
    desk.key(Qt::Key_L);
    REQUIRE(comes(desk, [&] { return desk.now().startsWith(QStringLiteral("Does its display show")); }));
    desk.key(Qt::Key_Return);
    CHECK(desk.session().bench().instruments()[0].pattern == "C # @");
    CHECK(desk.session().bench().instruments()[0].measures == "F");
}

TEST_CASE("an instrument is named, laid aside, moved, taken off and brought back with keys") {
    Desk desk(fresh);
    addBy(desk, QStringLiteral("network"), QStringLiteral("127.0.0.1:1"));
    addBy(desk, QStringLiteral("network"), QStringLiteral("127.0.0.1:2"));
    const auto all = [&]() -> const auto& { return desk.session().bench().instruments(); };
    REQUIRE(all().size() == 3);
    CHECK(all()[1].name == "127.0.0.1 2");
    desk.key(Qt::Key_N);
    desk.refused(QStringLiteral("127.0.0.1"));  // another's
    desk.key(Qt::Key_N);
    desk.answer(QStringLiteral("lab meter"));
    CHECK(all()[1].name == "lab meter");
    desk.key(Qt::Key_S);
    CHECK(all()[1].speaks == "bench-multimeter");
    CHECK(all()[1].does(Unit::volt));
    desk.key(Qt::Key_M);
    desk.refused(QStringLiteral("V and furlongs"));
    desk.key(Qt::Key_V);
    desk.refused(QStringLiteral("0"));
    desk.key(Qt::Key_V);
    desk.answer(QStringLiteral("10"));
    CHECK(all()[1].average == 10);
    desk.key(Qt::Key_W);
    desk.answer(QStringLiteral("nowhere at all"));
    CHECK(desk.session().bench().state("lab meter").is == BenchState::Is::silent);
    desk.key(Qt::Key_Return);
    CHECK(desk.window().page()->objectName() == QStringLiteral("bench"));
    desk.key(Qt::Key_Up, Qt::ShiftModifier);
    CHECK(all()[0].name == "lab meter");
    desk.key(Qt::Key_U);
    CHECK_FALSE(all()[0].used);
    desk.key(Qt::Key_Delete);
    CHECK(all().size() == 2);
    desk.key(Qt::Key_Z);
    CHECK(all().size() == 3);
    // The practice bench stays.
    while (!desk.now().contains(QStringLiteral("practice bench"))) desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Delete);
    CHECK(all().size() == 3);
    desk.key(Qt::Key_U);
    CHECK_FALSE(all()[2].used);
    // Nothing measures now: said, and nothing is taken.
    const std::size_t before = desk.build().readings.size();
    desk.session().read({0, Subject::check("vfo-runs"), 0, Unit::hertz, 0, {}, "", 0});
    answered(desk);
    CHECK(desk.build().readings.size() == before);
}

TEST_CASE("a meter's own sheet, with the most it takes, keeps it from what would harm it") {
    Desk desk(fresh);
    SocketStandIn meter(
        [](const QByteArray& line) -> QByteArray { return line.contains("RANG") ? "100\n" : "12.500\n"; });
    addBy(desk, QStringLiteral("network"), meter.address());
    desk.key(Qt::Key_S);
    const std::string name = desk.session().bench().instruments()[0].name;
    desk.key(Qt::Key_D);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("meters"));
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("0.05 % + 1 digit of 20000"));
    desk.key(Qt::Key_M);
    desk.refused(QStringLiteral("-5"));
    desk.key(Qt::Key_M);
    desk.answer(QStringLiteral("10 V"));
    INFO(noted(desk).toStdString());
    const auto sheet = meterFor(desk.session().book().meters(), Unit::volt, 5, {name});
    REQUIRE(sheet);
    CHECK(sheet->name == name);
    CHECK(sheet->percent == 0.05);
    CHECK(sheet->most == 10);
    const std::size_t asked = meter.heard.size();
    desk.session().read({0, Subject::check("polarity"), 0, Unit::volt, 0, {}, "", 0});  // up to 12.8 V
    answered(desk);
    CHECK(meter.heard.size() == asked);  // it was not even asked
    CHECK(desk.build().readings.empty());
    desk.session().read({0, Subject::check("rail5"), 0, Unit::volt, 0, {}, "", 0});
    answered(desk);
    REQUIRE(desk.build().readings.size() == 1);
    CHECK(desk.build().readings[0].sheet.find("0.05") != std::string::npos);
}

TEST_CASE("over its range is no pass where nobody knows the range, and no more than it where it is known") {
    Desk desk(fresh);
    QByteArray range = "1000\n";
    SocketStandIn meter(
        [&](const QByteArray& line) -> QByteArray { return line.contains("RANG") ? range : "9.9E37\n"; });
    addBy(desk, QStringLiteral("network"), meter.address());
    desk.key(Qt::Key_S);
    const auto read = [&] {
        desk.session().read(
            {0, Subject::check("isolated"), 0, Unit::ohm, 0, {}, "", 0});  // 100 kOhm at least
        answered(desk);
    };
    const auto state = [&] { return desk.session().judged().check(*desk.kit().check("isolated")).state; };
    read();
    REQUIRE(desk.build().readings.size() == 1);
    CHECK(desk.build().readings[0].beyond);
    CHECK(desk.build().readings[0].value == 1000);
    CHECK(state() != VerdictState::pass);
    range = "no range\n";
    read();
    CHECK(desk.build().readings.size() == 1);
    CHECK(noted(desk).contains(QStringLiteral("over its range")));
    range = "1E8\n";
    read();
    REQUIRE(desk.build().readings.size() == 2);
    CHECK(state() == VerdictState::pass);
}

TEST_CASE(
    "a supply is set on First light by the builder's word, never over the kit's voltage, and never "
    "switched") {
    Desk desk(fresh);
    QByteArray volts = "0", amperes = "0";
    SocketStandIn supply([&](const QByteArray& line) -> QByteArray {
        if (line.startsWith("VOLT ")) volts = line.mid(5);
        if (line.startsWith("CURR ")) amperes = line.mid(5);
        return line == "OUTP?"   ? "0\n"
               : line == "VOLT?" ? volts + "\n"
               : line == "CURR?" ? amperes + "\n"
                                 : QByteArray();
    });
    desk.window().goTo(3);
    desk.key(Qt::Key_U);
    CHECK_FALSE(desk.window().page()->entryOpen());  // there is none
    addBy(desk, QStringLiteral("network"), supply.address());
    for (int i = 0; i < 12 && desk.session().bench().supply() == nullptr; ++i) desk.key(Qt::Key_S);
    REQUIRE(desk.session().bench().supply() != nullptr);
    desk.window().goTo(3);
    desk.key(Qt::Key_U);
    REQUIRE(desk.window().page()->entryOpen());
    CHECK(supply.heard.empty());  // nothing before the word
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_U);
    desk.refused(QStringLiteral("24 V 0.1 A"));
    desk.key(Qt::Key_U);
    desk.refused(QStringLiteral("twelve"));
    CHECK(supply.heard.empty());
    desk.key(Qt::Key_U);
    desk.key(Qt::Key_Return);  // as advised
    REQUIRE(comes(desk, [&] { return amperes != "0" && volts != "0"; }));
    CHECK(volts.toDouble() == Approx(desk.kit().ratings.supply));
    CHECK(amperes.toDouble() > 0);
    CHECK(amperes.toDouble() < 0.2);  // with the key up
    for (const QByteArray& line : supply.heard) CHECK((!line.contains("OUT") || line.endsWith('?')));
}

TEST_CASE("a trace that an instrument leaves in its folder is taken with one key") {
    Desk desk(partWay);
    Folder folder;
    addBy(desk, QStringLiteral("folder"), qs((folder / "").string()));
    desk.window().goTo(5);
    std::filesystem::copy_file(std::filesystem::path(OMBREK_DATA_FOLDER) / "demo" / "night-ferry-20m.csv",
                               folder / "sweep.csv");
    const auto arrived = [&] { return noted(desk).contains(QStringLiteral("sweep.csv arrived")); };
    REQUIRE(comes(desk, arrived));
    desk.key(Qt::Key_T, Qt::ControlModifier);
    CHECK(comes(desk, [&] { return desk.window().page()->objectName() == QStringLiteral("spectrum"); }));
}

TEST_CASE("what was said can be seen live and saved") {
    Desk desk(fresh);
    SocketStandIn meter([](const QByteArray&) { return QByteArray("Somebody,meter,1,1\n"); });
    addBy(desk, QStringLiteral("network"), meter.address());
    desk.key(Qt::Key_S);
    const QString name = qs(desk.session().bench().instruments()[0].name);
    desk.key(Qt::Key_Return);
    REQUIRE(comes(desk, [&] {
        return desk.session().bench().state(name.toStdString()).is == BenchState::Is::there ||
               !meter.heard.empty();
    }));
    desk.key(Qt::Key_T);
    REQUIRE(desk.window().page()->objectName() == QStringLiteral("talk"));
    desk.key(Qt::Key_Return);
    const QString file = qs(desk.path("said.txt").string());
    desk.giveFile(file);
    REQUIRE(comes(desk, [&] { return QFile::exists(file) && QFileInfo(file).size() > 0; }));
    QFile saved(file);
    REQUIRE(saved.open(QIODevice::ReadOnly));
    const QByteArray text = saved.readAll();
    CHECK(text.contains("< *IDN?"));
    CHECK(text.contains("> Somebody,meter,1,1"));
    CHECK(text.startsWith("Ombrek "));
}
