#include <QRegularExpression>

#include "bench_of.h"
#include "instruments/scpi_device.h"

using namespace ombrek;

// Replies by SCPI-1999, volume 1, 7.2.1, and IEEE 488.2.

namespace {

/// A bench multimeter that reads 4.987 V DC in its 10 V range.
QByteArray multimeter(const QByteArray& line) {
    if (line == "*IDN?") return "Somebody,bench meter,1,1\n";
    if (line == "MEAS:VOLT:DC?") return "+4.98700000E+00\n";
    if (line == "VOLT:DC:RANG?") return "+1.00000000E+01\n";
    if (line == "RES:RANG?") return "+1.00000000E+08\n";
    if (line == "MEAS:RES?") return "+9.90000000E+37\n";
    if (line == "MEAS:CAP?") return "+9.91000000E+37\n";
    if (line == "SYST:ERR?") return "-113,\"Undefined header\"\n";
    return {};
}

}  // namespace

TEST_CASE("a reply is a number, an overload, nothing, or none") {
    const auto read = [](const char* line, int place = 0) {
        return readScpiReply(line, Unit::volt, Flow::dc, place);
    };
    CHECK(read("+1.2345E-03").value == Approx(1.2345e-3));
    CHECK(read("-0.0").value == 0);
    CHECK_FALSE(std::signbit(read("-0.0").value));
    CHECK(read("9.9E37").kind == Sample::Kind::overload);
    CHECK(read("9.91E37").kind == Sample::Kind::blank);
    CHECK(read("1.5 mV").value == Approx(1.5e-3));
    CHECK(read("1.5 kOhm").kind == Sample::Kind::none);
    CHECK(read("1E-9,0.02,+0").value == 1e-9);
    CHECK(read("1E-9,0.02,+0", 1).value == 0.02);
    CHECK(read("1E-9", 3).kind == Sample::Kind::none);
    for (const char* line :
         {"", "abc", "1,5", "1,50E-10", "-4,7", "+0,001", "1.2.3", "--1", "\"1\"", "#H10", "1e400", "nan"}) {
        INFO(line);
        CHECK(read(line).kind == Sample::Kind::none);
    }
}

TEST_CASE("a multimeter on the network is read when it stands, with the range it was in") {
    SocketStandIn meter(multimeter);
    OneBench one(instrumentAt(Way::tcp, meter.address(), "V Ω F", "bench-multimeter"), hastySets());
    const auto reading = one.take(Unit::volt, Flow::dc);
    REQUIRE(reading);
    CHECK(reading->value == 4.987);
    CHECK(reading->on.range == 10);
    CHECK(reading->on.instrument == "mine");
    CHECK(std::count(meter.heard.begin(), meter.heard.end(), "MEAS:VOLT:DC?") ==
          3);  // not the first that comes
    CHECK(one.bench.state("mine").is == BenchState::Is::there);
    const auto open = one.take(Unit::ohm);
    REQUIRE(open);
    CHECK(open->value == INFINITY);
    CHECK(open->on.range == 1e8);
    one.bench.setPatience(200);
    CHECK(contains(one.refused(Unit::farad), "nothing to measure"));
    CHECK(contains(one.refused(Unit::henry), "No instrument in use measures"));
    REQUIRE(one.identify());
    const auto talk = one.bench.talk("mine")->text();
    CHECK(talk.contains(QStringLiteral("< MEAS:VOLT:DC?")));
    CHECK(talk.contains(QStringLiteral("> +4.98700000E+00")));
}

TEST_CASE("what an instrument does not understand is told in its own words") {
    SocketStandIn meter(multimeter);
    OneBench one(instrumentAt(Way::tcp, meter.address(), "V A", "bench-multimeter"), hastySets());
    CHECK(contains(one.refused(Unit::ampere, Flow::dc), "-113,\"Undefined header\""));
    CHECK(one.bench.state("mine").is == BenchState::Is::silent);
    REQUIRE(one.take(Unit::volt, Flow::dc));  // and it is asked again as if nothing had been
}

TEST_CASE("a late answer is not taken for the next question") {
    int asked = 0;
    SocketStandIn* self = nullptr;
    std::function<QByteArray(const QByteArray&)> says = [&](const QByteArray& line) -> QByteArray {
        if (line == "SYST:ERR?") return {};
        if (line.startsWith("VOLT") || line.startsWith("RES")) return "100\n";
        // The first question is never answered but with the answer of another.
        if (++asked == 1) return {};
        return line == "MEAS:RES?" ? "4700\n" : "5.0\n";
    };
    SocketStandIn meter(says);
    self = &meter;
    (void)self;
    OneBench one(instrumentAt(Way::tcp, meter.address(), "V Ω", "bench-multimeter"), hastySets());
    meter.greeting = "1.000\n";  // said before it was asked, at every connection
    CHECK(contains(one.refused(Unit::volt, Flow::dc), "no answer in time"));
    CHECK(one.take(Unit::ohm)->value == 4700);
    CHECK(one.take(Unit::volt, Flow::dc)->value == 5);
}

TEST_CASE(
    "one that says more than was asked, talks without end, or is not there, gives a sentence and no "
    "reading") {
    SocketStandIn twice([](const QByteArray&) { return QByteArray("5.0\n6.0\n"); });
    OneBench a(instrumentAt(Way::tcp, twice.address(), "V", "bench-multimeter"), hastySets());
    CHECK(contains(a.refused(Unit::volt), "more than was asked"));
    SocketStandIn endless([](const QByteArray&) { return QByteArray(5000, '7'); });
    OneBench b(instrumentAt(Way::tcp, endless.address(), "V", "bench-multimeter"), hastySets());
    CHECK(contains(b.refused(Unit::volt), "without end"));
    OneBench c(instrumentAt(Way::tcp, QStringLiteral("127.0.0.1:1"), "V", "bench-multimeter"), hastySets());
    CHECK(contains(c.refused(Unit::volt), "nothing listens"));
    OneBench d(instrumentAt(Way::tcp, QStringLiteral("nonsense"), "V", "bench-multimeter"), hastySets());
    CHECK(contains(d.refused(Unit::volt), "Write the address"));
    OneBench e(instrumentAt(Way::tcp, twice.address(), "V", "no such set"), hastySets());
    CHECK(contains(e.refused(Unit::volt), "command set"));
    OneBench f(instrumentAt(Way::serial, QStringLiteral("/dev/no-such-port"), "V", "bench-multimeter"),
               hastySets());
    CHECK(contains(f.refused(Unit::volt), "/dev/no-such-port"));
    OneBench g(instrumentAt(Way::usbtmc, QStringLiteral("/dev/no-such-usbtmc"), "V", "bench-multimeter"),
               hastySets());
    CHECK(contains(g.refused(Unit::volt), "is not there"));
}

TEST_CASE("an instrument that hangs up is asked again at its next reading") {
    SocketStandIn meter(multimeter);
    OneBench one(instrumentAt(Way::tcp, meter.address(), "V", "bench-multimeter"), hastySets());
    REQUIRE(one.take(Unit::volt, Flow::dc));
    meter.hangUp();
    waitUntil([] { return false; }, 30);
    REQUIRE(one.take(Unit::volt, Flow::dc));
}

TEST_CASE("another instrument that answers in its place is refused, whatever it reads") {
    QByteArray who = "Somebody,bench meter,1,1.0";
    SocketStandIn meter(
        [&](const QByteArray& line) { return line == "*IDN?" ? who + "\n" : multimeter(line); });
    Instrument mine = instrumentAt(Way::tcp, meter.address(), "V", "bench-multimeter");
    mine.identity = identityOf(QStringLiteral("Somebody,bench meter,1,1.0\n"));
    CHECK(mine.identity == "Somebody,bench meter,1");
    CHECK(identityOf(QStringLiteral("hello")).empty());
    OneBench one(mine, hastySets());
    REQUIRE(one.take(Unit::volt, Flow::dc));
    who = "Somebody,bench meter,1,2.7";  // new firmware: the same
    meter.hangUp();
    waitUntil([] { return false; }, 30);
    REQUIRE(one.take(Unit::volt, Flow::dc));
    who = "Somebody,bench meter,2,1.0";  // another of the kind
    meter.hangUp();
    waitUntil([] { return false; }, 30);
    CHECK(contains(one.refused(Unit::volt, Flow::dc), "another instrument answers"));
    const auto words = one.identify();  // which can be asked all the same
    REQUIRE(words);
    CHECK(words->contains(QStringLiteral(",2,1.0")));
}

TEST_CASE("another supply that answers in its place is not set") {
    QByteArray who = "Somebody,supply,1,1";
    SocketStandIn supply([&](const QByteArray& line) -> QByteArray {
        if (line == "*IDN?") return who + "\n";
        return line == "OUTP?" ? "0\n" : line == "VOLT?" ? "12\n" : line == "CURR?" ? "0.1\n" : "";
    });
    Instrument mine = instrumentAt(Way::tcp, supply.address(), "A", "supply");
    mine.identity = "Somebody,supply,1";
    OneBench one(mine, hastySets());
    const auto set = [&] {
        std::optional<Result<QString>> out;
        one.bench.setSupply("mine", 12, 0.1, [&](const Result<QString>& words) { out = words; });
        REQUIRE(waitUntil([&] { return out.has_value(); }));
        return *out;
    };
    REQUIRE(set());
    who = "Somebody,supply,2,1";
    supply.hangUp();
    waitUntil([] { return false; }, 30);
    supply.heard.clear();
    const auto refused = set();
    REQUIRE_FALSE(refused);
    CHECK(contains(refused.error().sentence, "another instrument answers"));
    CHECK(supply.heard == std::vector<QByteArray>{"*IDN?"});  // nothing but who it is
}

TEST_CASE("a multimeter over a serial port and one over usbtmc answer the same questions") {
    const Way way = GENERATE(Way::serial, Way::usbtmc);
    PortStandIn port(multimeter);
    OneBench one(
        instrumentAt(way, port.path(), "V", way == Way::serial ? "serial-multimeter" : "bench-multimeter"));
    const auto reading = one.take(Unit::volt, Flow::dc);
    if (!reading) FAIL(reading.error().text());
    CHECK(reading->value == 4.987);
    if (way == Way::serial) CHECK(port.heard.front() == "SYST:REM");
    const auto words = one.identify();
    REQUIRE(words);
    CHECK(words->startsWith(QStringLiteral("Somebody")));
}

TEST_CASE("a usbtmc instrument that never answers keeps nobody waiting, and others are read meanwhile") {
    PortStandIn deaf([](const QByteArray&) { return QByteArray(); });
    SocketStandIn meter(multimeter);
    Bench bench(hastySets());
    Instrument stuck = instrumentAt(Way::usbtmc, deaf.path(), "Hz", "counter");
    stuck.name = "stuck";
    bench.setInstruments({stuck, instrumentAt(Way::tcp, meter.address(), "V", "bench-multimeter")});
    std::optional<Result<BenchReading>> hertz, volts;
    bench.take({Unit::hertz}, [&](const auto& r) { hertz = r; });
    bench.take({Unit::volt, Flow::dc}, [&](const auto& r) { volts = r; });
    REQUIRE(waitUntil([&] { return hertz && volts; }));
    CHECK_FALSE(*hertz);
    CHECK((*volts)->value == 4.987);
}

TEST_CASE("a supply is set with its output off, read back, and left alone when its output is on") {
    QByteArray volts = "0", amperes = "0", output = "0";
    bool obeys = true;
    SocketStandIn supply([&](const QByteArray& line) -> QByteArray {
        if (line == "OUTP?") return output + "\n";
        if (line == "VOLT?") return volts + "\n";
        if (line == "CURR?") return amperes + "\n";
        if (line.startsWith("VOLT ") && obeys) volts = line.mid(5);
        if (line.startsWith("CURR ") && obeys) amperes = line.mid(5);
        if (line == "MEAS:CURR?") return "0.062\n";
        return {};
    });
    OneBench one(instrumentAt(Way::tcp, supply.address(), "A", "supply"), hastySets());
    REQUIRE(one.bench.supply() != nullptr);
    const auto set = [&](double v, double a) {
        std::optional<Result<QString>> out;
        one.bench.setSupply("mine", v, a, [&](const Result<QString>& words) { out = words; });
        REQUIRE(waitUntil([&] { return out.has_value(); }));
        return *out;
    };
    const auto done = set(12, 0.12);
    if (!done) FAIL(done.error().text());
    CHECK(volts == "12");
    CHECK(amperes == "0.12");
    obeys = false;
    CHECK_FALSE(set(13.8, 0.2));
    obeys = true;
    for (const char* state : {"1", "ON", "what?"}) {
        output = state;
        const auto refused = set(5, 0.1);
        REQUIRE_FALSE(refused);
        CHECK(contains(refused.error().sentence, "output is on"));
        CHECK(volts == "12");
    }
    for (const QByteArray& line : supply.heard) {
        INFO(line.toStdString());
        CHECK((!line.toUpper().contains("OUT") || line.endsWith('?')));
    }
    CHECK(one.take(Unit::ampere)->value == 0.062);
}
