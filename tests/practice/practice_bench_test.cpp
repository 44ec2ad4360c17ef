#include <QCoreApplication>
#include <QElapsedTimer>
#include <QFile>
#include <QStandardPaths>
#include <QTcpServer>
#include <QTcpSocket>
#include <cmath>
#include <functional>

#include "at_end.h"
#include "bench_fixture.h"
#include "book/book.h"
#include "instruments/bench_client.h"
#include "instruments/scpi.h"
#include "judged/bag.h"
#include "judged/judged.h"
#include "judged/sign_off.h"
#include "practice/bench_server.h"
#include "station/parts_in/bag_story.h"
#include "station/parts_in/parts_in.h"

using namespace ombrek;

namespace {

PracticeInstruments instruments() {
    return PracticeInstruments(PracticeTruth(practiceKit().kit, practiceKit().bag));
}

double ask(PracticeInstruments& bench, InstrumentRole role, const std::string& probe,
           const std::string& query) {
    bench.answer(role, "SIM:PROB " + probe);
    const auto line = bench.answer(role, query);
    REQUIRE(line);
    return readReply(*line).value_or(NAN);
}

QCoreApplication& application() {
    static int argc = 1;
    static char name[] = "bench_tests";
    static char* argv[] = {name, nullptr};
    static auto* app = new QCoreApplication(argc, argv);
    static const bool put = [] {
        atEnd().push_back([] { delete app; });
        return true;
    }();
    (void)put;
    return *app;
}

/// Run the event loop until `done`, at most five seconds.
bool waitFor(const std::function<bool()>& done) {
    QElapsedTimer timer;
    timer.start();
    while (!done() && timer.elapsed() < 5000) application().processEvents(QEventLoop::AllEvents, 20);
    return done();
}

/// An instrument that proves itself the practice bench's and then says what it is told to, whatever it is
/// asked; an empty text: nothing.
struct OddInstrument {
    explicit OddInstrument(QByteArray text) : text(std::move(text)) {
        application();
        QObject::connect(&server, &QTcpServer::newConnection, [this] {
            QTcpSocket* socket = server.nextPendingConnection();
            QObject::connect(socket, &QTcpSocket::readyRead, [this, socket] {
                const QByteArray line = socket->readAll();
                if (line.contains("IDN")) return void(socket->write("Ombrek,practice multimeter,0,2\n"));
                if (line.contains(kKeyQuestion)) return void(socket->write(key.word() + '\n'));
                if (hangUp) return socket->abort();
                if (!this->text.isEmpty()) socket->write(this->text);
            });
        });
        REQUIRE(server.listen(QHostAddress::LocalHost));
        REQUIRE(key.drawFor(server.serverPort()));
    }
    QTcpServer server;
    BenchKey key;
    QByteArray text;
    bool hangUp = false;
};

/// What a client makes of an odd instrument standing where the multimeter should be.
Result<double> takeFrom(quint16 port, int timeout = 400) {
    application();
    BenchClient client;
    client.setAddress(QStringLiteral("127.0.0.1"), port);
    client.setTimeout(timeout);
    std::optional<Result<double>> got;
    int calls = 0;
    client.take(Unit::volt, Subject::check("rail5"), -1, [&](Result<double> value) {
        got = std::move(value);
        ++calls;
    });
    REQUIRE(waitFor([&] { return got.has_value(); }));
    waitFor([timer = QElapsedTimer(), started = false]() mutable {
        if (!started) timer.start();
        started = true;
        return timer.elapsed() > 30;
    });
    CHECK(calls == 1);
    return *got;
}

}  // namespace

TEST_CASE("SCPI headers match short and long forms in any case", "[reference]") {
    // Source: SCPI-1999, volume 1, 6.2.1: the short form is the capitals; nothing between short and long is
    // accepted.
    CHECK(headerMatches("MEASure:VOLTage?", "MEAS:VOLT?"));
    CHECK(headerMatches("MEASure:VOLTage?", "measure:voltage?"));
    CHECK(headerMatches("MEASure:VOLTage?", ":Meas:Voltage?"));
    CHECK_FALSE(headerMatches("MEASure:VOLTage?", "MEASU:VOLT?"));
    CHECK_FALSE(headerMatches("MEASure:VOLTage?", "MEAS:VOLT"));
    CHECK_FALSE(headerMatches("MEASure:VOLTage?", "MEAS?"));
    CHECK_FALSE(headerMatches("MEASure?", "MEAS:VOLT?"));
    CHECK(headerMatches("*IDN?", "*idn?"));
    CHECK_FALSE(headerMatches("*IDN?", ""));
}

TEST_CASE("replies are numbers, overload, nothing, or rubbish", "[reference]") {
    // Source: SCPI-1999, volume 1, 7.2.1.4: 9.9E37 is infinity, 9.91E37 not a number; NR1, NR2 and NR3 are
    // numbers.
    CHECK(readReply("+4.982E+00").value() == Approx(4.982));
    CHECK(readReply(" 12\r\n").value() == 12);
    CHECK(readReply("-1.5e-9").value() == Approx(-1.5e-9));
    CHECK(std::isinf(readReply("9.9E37").value()));
    CHECK(std::isinf(readReply("+9.900000E+37").value()));
    CHECK(readReply("9.8E37").error().sentence.find("no reading") != std::string::npos);
    CHECK(readReply("1e31").error().sentence.find("no reading") != std::string::npos);
    CHECK(readReply("-9.9E+37").error().sentence.find("overload") != std::string::npos);
    CHECK(readReply("9.91E37").error().sentence.find("nothing to measure") != std::string::npos);
    for (const char* rubbish :
         {"", "hello", "1.2.3", "1,2", "12 V", "nan", "inf", "0x12", "\xff\xfe\x01", "1e999", "--5"}) {
        INFO(rubbish);
        const auto value = readReply(rubbish);
        REQUIRE_FALSE(value);
        CHECK(value.error().sentence.find("no number") != std::string::npos);
    }
}

TEST_CASE("SCPI words keep quotes together") {
    CHECK(scpiWords("SIM:PROB \"part:R1\",0.5") == std::vector<std::string>{"SIM:PROB", "part:R1", "0.5"});
    CHECK(scpiWords("SIM:PROB 'a b', 2") == std::vector<std::string>{"SIM:PROB", "a b", "2"});
    CHECK(scpiWords("  ").empty());
}

TEST_CASE("each instrument answers for itself and refuses what it cannot do") {
    PracticeInstruments bench = instruments();
    for (const InstrumentRole role : kInstrumentRoles) {
        const auto who = bench.answer(role, "*IDN?");
        REQUIRE(who);
        CHECK(who->find(word(role)) != std::string::npos);
    }
    CHECK_FALSE(bench.answer(InstrumentRole::multimeter, "*RST"));
    CHECK_FALSE(bench.answer(InstrumentRole::multimeter, ""));
    CHECK_FALSE(bench.answer(InstrumentRole::multimeter, "MAKE:COFFEE"));
    CHECK(bench.answer(InstrumentRole::multimeter, "SYST:ERR?") == "-113,\"Undefined header\"");
    CHECK(bench.answer(InstrumentRole::multimeter, "SYST:ERR?") == "0,\"No error\"");
    CHECK(std::isnan(ask(bench, InstrumentRole::multimeter, "part:C11",
                         "MEAS:CAP?")));  // a multimeter has no capacitance here
    CHECK(std::isnan(ask(bench, InstrumentRole::lcMeter, "part:R1", "MEAS:CAP?")));
    CHECK(std::isnan(ask(bench, InstrumentRole::multimeter, "nowhere", "MEAS:VOLT?")));
}

TEST_CASE("true values scatter within tolerance, but for the seeded troubles") {
    PracticeTruth truth(practiceKit().kit, practiceKit().bag);
    int wrong = 0, missing = 0;
    for (const Part& part : practiceKit().kit.parts) {
        if (!part.measurable()) continue;
        const double value = truth.at(Subject::part(part.ref));
        if (std::isnan(value)) {
            ++missing;
        } else if (!partLimits(part).holds(value)) {
            ++wrong;
            CHECK(practiceKit().bag.parts.contains(part.ref));
        }
    }
    CHECK(missing == int(practiceKit().bag.missing.size()));
    CHECK(wrong == int(practiceKit().bag.parts.size()));
    CHECK(missing == 2);
    CHECK(wrong == 3);
}

TEST_CASE("the same seed gives the same bench") {
    PracticeTruth one(practiceKit().kit, practiceKit().bag), two(practiceKit().kit, practiceKit().bag);
    for (const Part& part : practiceKit().kit.parts) {
        const double a = one.at(Subject::part(part.ref)), b = two.at(Subject::part(part.ref));
        CHECK((a == b || (std::isnan(a) && std::isnan(b))));
    }
}

TEST_CASE("a coil reads by its turns, and moves when it is bent") {
    PracticeTruth truth(practiceKit().kit, practiceKit().bag);
    const double at26 = truth.at(Subject::coil("L1"), 26), at27 = truth.at(Subject::coil("L1"), 27);
    CHECK(at27 / at26 == Approx(27.0 * 27 / (26.0 * 26)));
    CHECK(at26 == Approx(2.704e-6 * (1 - 0.034)));  // the seeded core is 3.4 % low
    truth.at(Subject::coil("L1"), 26);
    truth.bend("L1", 3.0);
    CHECK(truth.at(Subject::coil("L1")) == Approx(at26 * 1.03));
    for (int i = 0; i < 20; ++i) truth.bend("L1", 5);
    CHECK(truth.at(Subject::coil("L1")) <= at26 * 1.1201);  // squeezing has its end
    CHECK(std::isnan(truth.at(Subject::coil("L1"), 0)));
}

TEST_CASE("the trimmer answers with a true resonance") {
    PracticeTruth truth(practiceKit().kit, practiceKit().bag);
    double best = 0, at = 0;
    for (double x = 0; x <= 1; x += 0.01) {
        const double y = truth.at(Subject::adjustment("rx"), x);
        if (y > best) best = y, at = x;
    }
    CHECK(at > 0.1);
    CHECK(at < 0.9);
    const Coil& t1 = *practiceKit().kit.coil("T1");
    TankCapacitance tank = tankOf(practiceKit().kit, *t1.tune);
    tank.fixed = truth.at(Subject::part("C11"));
    CHECK(resonance(truth.at(Subject::coil("T1")), tank.at(at)) ==
          Approx(practiceKit().kit.ratings.frequency).epsilon(0.003));
}

TEST_CASE("readings over TCP: number in, number out") {
    application();
    BenchServer server(instruments());
    REQUIRE(server.listen(0));
    QTcpSocket socket;
    socket.connectToHost(QStringLiteral("127.0.0.1"), server.port(InstrumentRole::multimeter));
    socket.write("SIM:PROB \"check:rail5\"\nMEASure:VOLTage:DC?\n*IDN?\n");
    QByteArray got;
    REQUIRE(waitFor([&] {
        got += socket.readAll();
        return got.count('\n') == 2;
    }));
    CHECK(readReply(got.split('\n')[0].toStdString()).value() == Approx(5.0).margin(0.2));
    CHECK(got.split('\n')[1].startsWith("Ombrek,practice multimeter"));
}

TEST_CASE("a line that never ends is cut off by the bench") {
    application();
    BenchServer server(instruments());
    REQUIRE(server.listen(0));
    QTcpSocket socket;
    socket.connectToHost(QStringLiteral("127.0.0.1"), server.port(InstrumentRole::counter));
    socket.write(QByteArray(100000, 'x'));
    CHECK(waitFor([&] { return socket.state() == QAbstractSocket::UnconnectedState; }));
}

TEST_CASE("a taken port is told") {
    application();
    QTcpServer blocker;
    REQUIRE(blocker.listen(QHostAddress::LocalHost));
    BenchServer server(instruments());
    const auto result = server.listen(blocker.serverPort());
    REQUIRE_FALSE(result);
    CHECK(result.error().sentence.find("taken") != std::string::npos);
}

TEST_CASE("an instrument that is absent gives a line, not a wait") {
    QTcpServer probe;
    application();
    REQUIRE(probe.listen(QHostAddress::LocalHost));
    const quint16 port = probe.serverPort();
    probe.close();
    const auto value = takeFrom(port);
    REQUIRE_FALSE(value);
    CHECK(value.error().text().find("The multimeter: not there") == 0);
}

TEST_CASE("an instrument that is slow, hangs up or talks rubbish gives a line each") {
    const auto sentence = [](const QByteArray& text, bool hangUp = false) {
        OddInstrument odd(text);
        odd.hangUp = hangUp;
        const auto value = takeFrom(odd.server.serverPort());
        REQUIRE_FALSE(value);
        return value.error().text();
    };
    CHECK(sentence("").find("no answer in time") != std::string::npos);
    CHECK(sentence("", true).find("broke") != std::string::npos);
    CHECK(sentence("rubbish\n").find("\"rubbish\", which is no number") != std::string::npos);
    CHECK(sentence("\n").find("no number") != std::string::npos);
    CHECK(sentence(QByteArray(5000, '7')).find("talks without end") != std::string::npos);
    CHECK(sentence(QByteArray("\xff\xfe\x00\x01\n", 5)).find("no number") != std::string::npos);
    CHECK(sentence("-9.9E37\n").find("overload") != std::string::npos);
    CHECK(sentence("9.91E37\n").find("nothing to measure") != std::string::npos);
    CHECK(sentence("4.98").find("no answer in time") != std::string::npos);  // half a line is no answer
}

TEST_CASE("a good instrument's line is the reading, an overload is infinite") {
    OddInstrument good("+4.98E+00\n"), over("9.9E37\n");
    CHECK(takeFrom(good.server.serverPort()).value() == Approx(4.98));
    CHECK(std::isinf(takeFrom(over.server.serverPort()).value()));
}

TEST_CASE("two lines for one question, or a line that is cut, are no reading") {
    OddInstrument two("+4.98E+00\n17\n");
    const auto both = takeFrom(two.server.serverPort());
    REQUIRE_FALSE(both);
    CHECK(both.error().sentence.find("more than was asked") != std::string::npos);
    // 1 and 1,100 noughts: cut at a thousand bytes it would be some other number.
    OddInstrument cut("1" + QByteArray(1100, '0') + "\n");
    REQUIRE_FALSE(takeFrom(cut.server.serverPort()));
    OddInstrument point("0." + QByteArray(1100, '0') + "1\n");
    REQUIRE_FALSE(takeFrom(point.server.serverPort()));
}

TEST_CASE("what an instrument says before it is asked is no answer") {
    application();
    QTcpServer server;
    BenchKey key;
    int asked = 0;
    QObject::connect(&server, &QTcpServer::newConnection, [&] {
        QTcpSocket* socket = server.nextPendingConnection();
        if (asked < 2) socket->write("READY 7\n42\n");  // a banner at once; the bench itself has none
        QObject::connect(socket, &QTcpSocket::readyRead, [&, socket] {
            const QByteArray line = socket->readAll();
            ++asked;
            socket->write(line.contains("IDN")          ? "Ombrek,practice multimeter,0,2\n"
                          : line.contains(kKeyQuestion) ? key.word() + '\n'
                                                        : QByteArray("+4.98E+00\n"));
        });
    });
    REQUIRE(server.listen(QHostAddress::LocalHost));
    REQUIRE(key.drawFor(server.serverPort()));
    CHECK(takeFrom(server.serverPort()).value() == Approx(4.98));
    CHECK(asked == 3);
}

TEST_CASE("only what knows this user's word is the practice bench; nobody else is read or told more") {
    application();
    QByteArray heard;
    QTcpServer server;
    BenchKey key;
    QByteArray who = "Somebody,meter,1,1\n", said = "guessed";
    QObject::connect(&server, &QTcpServer::newConnection, [&] {
        QTcpSocket* socket = server.nextPendingConnection();
        QObject::connect(socket, &QTcpSocket::readyRead, [&, socket] {
            const QByteArray line = socket->readAll();
            heard += line;
            socket->write(line.contains("IDN")          ? who
                          : line.contains(kKeyQuestion) ? said + '\n'
                                                        : QByteArray("+4.98E+00\n"));
        });
    });
    REQUIRE(server.listen(QHostAddress::LocalHost));
    const auto refused = [&] {
        heard.clear();
        const auto value = takeFrom(server.serverPort());
        CHECK_FALSE(heard.contains("MEAS"));
        CHECK_FALSE(heard.contains("PROB"));
        return !value && value.error().sentence.find("not the practice bench") != std::string::npos;
    };
    CHECK(refused());  // on 127.0.0.1, and a stranger all the same
    who = "Ombrek,practice multimeter,kit-a,2\n";
    CHECK(refused());  // no bench has begun here
    said = "";
    CHECK(refused());
    REQUIRE(key.drawFor(server.serverPort()));
    said = "guessed";
    CHECK(refused());
    said = key.word();
    CHECK(takeFrom(server.serverPort()).value() == Approx(4.98));
    CHECK(heard.contains("SIM:PROB"));
    BenchClient client;
    client.setAddress(QStringLiteral("127.0.0.1"), server.serverPort());
    client.setPractice(QStringLiteral("kit-b"), [] { return QByteArray(); });
    std::optional<Result<double>> got;
    heard.clear();
    client.take(Unit::volt, Subject::check("rail5"), -1,
                [&](Result<double> value) { got = std::move(value); });
    REQUIRE(waitFor([&] { return got.has_value(); }));
    REQUIRE_FALSE(*got);
    CHECK(got->error().sentence.find("another kit") != std::string::npos);
    CHECK_FALSE(heard.contains("PROB"));
}

TEST_CASE("a bench's word is for this user's eyes, differs each time, and goes with its bench") {
    application();
    QByteArray first;
    {
        BenchKey key;
        REQUIRE(key.drawFor(1));
        first = key.word();
        CHECK(first.size() == 32);
        CHECK(benchKeyAt(1) == first);
        CHECK(QFile::permissions(QStandardPaths::writableLocation(QStandardPaths::RuntimeLocation) +
                                 QStringLiteral("/ombrek-bench-1")) ==
              (QFile::ReadOwner | QFile::WriteOwner | QFile::ReadUser | QFile::WriteUser));
    }
    CHECK(benchKeyAt(1).isEmpty());
    BenchKey key;
    REQUIRE(key.drawFor(1));
    CHECK(key.word() != first);
}

TEST_CASE("the practice bench takes any argument without a word too many") {
    PracticeInstruments bench = instruments();
    const auto power = [&](const std::string& line) {
        return bench.answer(InstrumentRole::powerMeter, line);
    };
    for (const char* order : {"0", "1", "-1", "100", "nan", "1e9", "", "x"})
        CHECK(power("MEAS:POW:HARM? " + std::string(order)) == "9.91E37");
    CHECK(readReply(*power("MEAS:POW:HARM? 12")).has_value());  // two digits
    for (const char* line :
         {"SIM:BEND \"T1\",nan", "SIM:BEND \"T1\",inf", "SIM:BEND T1", "SIM:BENT \"T1\",-1e300",
          "SIM:PROB \"coil:T1\",0", "SIM:PROB \"coil:T1\",1e300", "SIM:PROB \"adjust:rx\",nan",
          "SIM:PROB \"adjust:rx\",1e300", "SIM:ATT -5", "SIM:ATT nan", "SIM:LOOK? \"\"", "\"", "?"}) {
        bench.answer(InstrumentRole::lcMeter, line);
        for (const char* subject : {"coil:T1", "adjust:rx", "adjust:tx", "proof:power", "proof:frequency",
                                    "proof:harmonic:2", "check:rail5"}) {
            INFO(line << ", then " << subject);
            bench.answer(InstrumentRole::multimeter, std::string("SIM:PROB ") + subject);
            for (const char* query : {"MEAS:VOLT?", "MEAS:POW?", "MEAS:IND?", "MEAS:FREQ?"}) {
                for (const InstrumentRole role : kInstrumentRoles) bench.answer(role, query);
            }
        }
    }
    CHECK(std::isnan(ask(bench, InstrumentRole::lcMeter, "coil:T1\",0", "MEAS:IND?")) == true);
}

TEST_CASE("the practice power meter is behind the attenuator that is said") {
    PracticeInstruments bench = instruments();
    bench.answer(InstrumentRole::powerMeter, "SIM:PROB proof:power");
    const double at30 = readReply(*bench.answer(InstrumentRole::powerMeter, "MEAS:POW?")).value();
    bench.answer(InstrumentRole::powerMeter, "SIM:ATT 40");
    CHECK(readReply(*bench.answer(InstrumentRole::powerMeter, "MEAS:POW?")).value() ==
          Approx(at30 - 10).margin(0.01));
}

TEST_CASE("a bench that asks and never listens is put out, and who is silent longest makes way") {
    application();
    BenchServer server(instruments());
    REQUIRE(server.listen(0));
    QTcpSocket deaf;
    deaf.setReadBufferSize(1);
    deaf.connectToHost(QStringLiteral("127.0.0.1"), server.port(InstrumentRole::multimeter));
    REQUIRE(waitFor([&] { return deaf.state() == QAbstractSocket::ConnectedState; }));
    for (int i = 0; i < 400 && deaf.state() == QAbstractSocket::ConnectedState; ++i) {
        for (int k = 0; k < 500; ++k) deaf.write("*IDN?\n");
        application().processEvents(QEventLoop::AllEvents, 2);
    }
    CHECK(waitFor([&] { return deaf.state() == QAbstractSocket::UnconnectedState; }));
    std::vector<std::unique_ptr<QTcpSocket>> many;
    for (int i = 0; i < 60; ++i) {
        many.push_back(std::make_unique<QTcpSocket>());
        many.back()->connectToHost(QStringLiteral("127.0.0.1"), server.port(InstrumentRole::counter));
    }
    waitFor([&] { return many.front()->state() == QAbstractSocket::ConnectedState; });
    QTcpSocket next;  // though nobody hangs up
    next.connectToHost(QStringLiteral("127.0.0.1"), server.port(InstrumentRole::counter));
    next.write("*IDN?\n");
    CHECK(waitFor([&] { return next.canReadLine(); }));
}

TEST_CASE("a kit of one's own is answered for from its own text, not the practice kit's") {
    Kit kit;
    kit.id = "own";
    kit.name = "own";
    Part c2;
    c2.ref = "C2";
    c2.kind = PartKind::capacitor;
    c2.unit = Unit::farad;
    c2.nominal = 47e-12;
    c2.tolerance = 5;
    kit.parts = {c2};
    PracticeInstruments bench(PracticeTruth(kit, honestBag("own text")), practiceMark("own text"));
    CHECK(ask(bench, InstrumentRole::lcMeter, "part:C2", "MEAS:CAP?") == Approx(47e-12).epsilon(0.07));
    CHECK(std::isnan(ask(bench, InstrumentRole::powerMeter, "proof:power", "MEAS:POW?")));
    CHECK(bench.answer(InstrumentRole::counter, "*IDN?")->find(practiceMark("own text")) !=
          std::string::npos);
    CHECK(practiceMark("own text") != practiceMark("own text "));
}

TEST_CASE("the finished practice book passes every gate but those the seeded troubles keep shut") {
    const Folder folder;
    REQUIRE(writePracticeBook(folder / "done.ombrek", practiceKit(), PracticeStage::finished));
    const auto book = Book::open(folder / "done.ombrek");
    REQUIRE(book);
    const Build build = *(*book)->build();
    const Readiness ready = readiness({practiceKit().kit, build, shippedTables().profile(build.profile)});
    for (const Gate& gate : ready.gates) {
        INFO(gate.name << ": " << gate.summary());
        for (const Evidence& e : gate.evidence) {
            if (e.state != VerdictState::pass) UNSCOPED_INFO(e.what << ": " << e.sentence);
        }
        if (gate.id == "parts") {
            CHECK(gate.state() == VerdictState::fail);
        } else if (gate.id == "licence") {
            CHECK(gate.state() == VerdictState::notDone);
        } else {
            CHECK(gate.state() == VerdictState::pass);
        }
    }
}

TEST_CASE("working the bag with the practice meter finds every seeded trouble for the right reason") {
    const Folder folder;
    REQUIRE(writePracticeBook(folder / "done.ombrek", practiceKit(), PracticeStage::finished));
    const Build build = *Book::open(folder / "done.ombrek").value()->build();
    const auto verdict = [&](const char* ref) { return partVerdict(*practiceKit().kit.part(ref), build); };
    CHECK(verdict("C13").sentence.find("looks like 22") != std::string::npos);
    CHECK(verdict("R62").sentence.find("looks like 1.2") != std::string::npos);
    CHECK(verdict("C44").state == VerdictState::fail);
    CHECK(verdict("R82").sentence == "Not found in the bag.");
    CHECK(verdict("C53").sentence == "Not found in the bag.");
    const BagCount bag = countBag({practiceKit().kit, build});
    CHECK(bag.in == bag.total - 5);

    // The same troubles as the whole bag tells them, each with its kind and its reason.
    using What = BagTrouble::What;
    const std::map<std::string, std::pair<What, std::string>> wanted{
        {"R62", {What::anotherValue, "Its mark says so too"}},
        {"R82", {What::missing, "No part out of the bag can be it"}},
        {"C13", {What::misplaced, "it belongs to C44"}},  // C44's own part is out of tolerance
        {"C34", {What::mismarked, "mismarked"}},
        {"C44", {What::anotherValue, "Outside"}},
        {"C53", {What::missing, "packed in its place?"}},
        {"", {What::over, "no line that is still open wants such a part"}}};
    const BagStory story = bagStory(practiceKit().kit, build);
    CHECK(story.troubles.size() == wanted.size());
    for (const BagTrouble& t : story.troubles) {
        INFO(t.ref << ": " << t.head << " | " << t.sentence);
        REQUIRE(wanted.contains(t.ref));
        CHECK(t.what == wanted.at(t.ref).first);
        CHECK(t.sentence.find(wanted.at(t.ref).second) != std::string::npos);
    }
}

TEST_CASE("the practice meter shows a stray until its zero is taken, and eyes see what is printed") {
    PracticeInstruments bench = instruments();
    const double shown = ask(bench, InstrumentRole::lcMeter, "part:C11", "MEAS:CAP?");
    const double stray = ask(bench, InstrumentRole::lcMeter, "clips:open", "MEAS:CAP?");
    CHECK(stray == Approx(0.6e-12));
    CHECK(shown - stray == Approx(18e-12).epsilon(0.05));
    CHECK(bench.answer(InstrumentRole::multimeter, "SIM:LOOK? \"part:C34\"") == "\"561J\"");
    CHECK(bench.answer(InstrumentRole::multimeter, "SIM:LOOK? \"part:C11\"") == "\"18J\"");
    CHECK(bench.answer(InstrumentRole::multimeter, "SIM:LOOK? \"part:C53\"") == "\"\"");
    CHECK(bench.answer(InstrumentRole::multimeter, "SIM:LOOK? \"loose:1\"") == "\"472K\"");
    CHECK(bench.answer(InstrumentRole::multimeter, "SIM:LOOK? \"loose:99999999999999999999\"") == "\"\"");
    CHECK(ask(bench, InstrumentRole::lcMeter, "loose:1", "MEAS:CAP?") == Approx(4.7e-9).epsilon(0.03));
    CHECK(std::isnan(ask(bench, InstrumentRole::multimeter, "loose:1", "MEAS:RES?")));
    CHECK(std::isnan(ask(bench, InstrumentRole::lcMeter, "loose:2", "MEAS:CAP?")));
}

TEST_CASE("the part-way book has something at every station") {
    const Folder folder;
    REQUIRE(writePracticeBook(folder / "half.ombrek", practiceKit(), PracticeStage::partWay));
    const Build build = *Book::open(folder / "half.ombrek").value()->build();
    CHECK(countBag({practiceKit().kit, build}).waiting > 0);
    CHECK(build.winding("L2", "coil").turns == 7);
    CHECK(build.done("hold-receive"));
    CHECK_FALSE(build.done("lowpass"));
    CHECK(build.all(Subject::adjustment("rx")).size() >= 3);
    CHECK(build.sittings.size() >= 3);
}

TEST_CASE("a bias turned far up kills a final, slowly enough to be turned down in time") {
    const auto& practice = practiceKit();
    PracticeTruth rig(practice.kit, practice.bag);
    const Subject bias = Subject::adjustment("bias");
    const double high = rig.at(bias, 0.9);
    REQUIRE(high > 0.1);
    // Twice more, then down: it lives.
    for (int i = 0; i < 2; ++i) CHECK(rig.at(bias, 0.9) == Approx(high));
    CHECK(rig.at(bias, 0.0) < 0.001);
    CHECK(rig.at(bias, 0.9) == Approx(high));
    // Left there it dies, and no longer follows its bias.
    for (int i = 0; i < 4; ++i) rig.at(bias, 0.9);
    CHECK_FALSE(rig.at(bias, 0.9) > 0.5 * high);
    CHECK_FALSE(rig.at(Subject::power()) > 0.5 * practice.kit.ratings.power);
    rig.reset();
    CHECK(rig.at(bias, 0.9) == Approx(high));
}

TEST_CASE(
    "a part that is mended is a good one: a dead final, a wrong value, a missing part, a seeded fault") {
    const auto& three = provingKit();
    PracticeTruth rig(three.kit, three.bag);
    const double weak = rig.at(Subject::power("40m"));
    rig.mend("Q2");  // which was not dead
    CHECK(rig.at(Subject::power("40m")) == Approx(weak));
    rig.mend("Q3");
    CHECK(rig.at(Subject::power("40m")) > 1.5 * weak);
    rig.reset();
    CHECK(rig.at(Subject::power("40m")) == Approx(weak));

    PracticeBag bag = practiceKit().bag;
    REQUIRE_FALSE(bag.parts.empty());
    REQUIRE_FALSE(bag.missing.empty());
    bag.faults = {"C6 short"};
    PracticeTruth lantern(practiceKit().kit, bag);
    for (const std::string& ref : {bag.parts.begin()->first, *bag.missing.begin()}) {
        const Part& part = *practiceKit().kit.part(ref);
        lantern.mend(ref);
        CHECK(lantern.at(Subject::part(ref)) == Approx(part.nominal).epsilon(part.tolerance / 100));
    }
    CHECK(lantern.at(Subject::check("rail5")) < 1);
    lantern.mend("C6");
    CHECK(lantern.at(Subject::check("rail5")) > 4.5);
    // A final that its bias killed lives again with another, not with a resistor.
    for (int i = 0; i < 8; ++i) lantern.at(Subject::adjustment("bias"), 0.9);
    const double dead = lantern.at(Subject::power());
    lantern.mend("R1");
    CHECK(lantern.at(Subject::power()) == Approx(dead).margin(1e-9));
    lantern.at(Subject::adjustment("bias"), 0.0);
    lantern.mend("Q6");
    CHECK(lantern.at(Subject::power()) > dead);
}
