#include <QDir>
#include <QFile>

#include "bench_of.h"
#include "instruments/folder_device.h"
#include "instruments/sigrok_device.h"

using namespace ombrek;

namespace {

const char* kPattern = "C # @ Q *";

/// A port on which lines are sent as long as it lives.
class Sending {
 public:
    explicit Sending(std::function<QByteArray()> line, int every = 20) : line_(std::move(line)) {
        timer_.setInterval(every);
        QObject::connect(&timer_, &QTimer::timeout, [this] { port.send(line_()); });
        timer_.start();
    }
    PortStandIn port;

 private:
    std::function<QByteArray()> line_;
    QTimer timer_;
};

}  // namespace

TEST_CASE("an L/C meter that prints lines is read when it stands") {
    int n = 0;
    Sending lc([&] {
        ++n;
        return n < 4        ? QByteArray("C= 12.0 pF Q= 1\r\n")
               : n % 7 == 0 ? QByteArray("C= 9999 pF Q= 1\r\n")
                            : QByteArray("C= 101.3 pF Q= 85\r\n");
    });
    OneBench one(
        instrumentAt(Way::serial, lc.port.path() + QStringLiteral(" 9600 8N1"), "F", "lines", kPattern));
    const auto reading = one.take(Unit::farad);
    if (!reading) FAIL(reading.error().text());
    CHECK(reading->value == Approx(101.3e-12));
    CHECK(reading->on.count == Approx(0.1e-12));
    const auto words = one.identify();
    REQUIRE(words);
    CHECK(words->startsWith(QStringLiteral("sends C=")));
}

TEST_CASE("a meter on hold, of another quantity, or with a low battery is refused in words") {
    QByteArray line = "C= 101.3 pF Q= 85 HOLD\r\n";
    Sending lc([&] { return line; });
    OneBench one(instrumentAt(Way::serial, lc.port.path(), "F H", "lines", kPattern));
    one.bench.setPatience(1000);
    CHECK(contains(one.refused(Unit::farad), "hold"));
    line = "C= 101.3 pF Q= 85 LOBAT\r\n";
    CHECK(contains(one.refused(Unit::farad), "battery"));
    line = "C= 101.3 pF Q= 85\r\n";
    CHECK(contains(one.refused(Unit::henry), "farads"));
    CHECK(one.bench.state("mine").is == BenchState::Is::disagrees);
    line = "L= 1.013 uH Q= 85\r\n";
    CHECK(contains(one.refused(Unit::henry), "not like the line"));
}

TEST_CASE("a meter that wanders is said to, and taken when it stands") {
    double value = 100;
    bool wanders = true;
    Sending lc([&] {
        if (wanders) value *= 1.05;
        return "C= " + QByteArray::number(value, 'f', 1) + " pF Q= 85\n";
    });
    OneBench one(instrumentAt(Way::serial, lc.port.path(), "F", "lines", kPattern));
    one.bench.setPatience(2000);
    CHECK(contains(one.refused(Unit::farad), "does not stand"));
    wanders = false;
    one.bench.setPatience(12000);
    CHECK(one.take(Unit::farad)->value == Approx(value * 1e-12).epsilon(0.01));
}

TEST_CASE("a lead that is unplugged and plugged in again, under its name, is read again") {
    auto first = std::make_unique<Sending>([] { return QByteArray("C= 101.3 pF Q= 85\n"); });
    Folder folder;
    const auto link = folder / "ttyUSB0";
    std::filesystem::create_symlink(first->port.path().toStdString(), link);
    // A serial port's address begins with /dev/: the way to it is the link's.
    OneBench one(instrumentAt(Way::serial, QStringLiteral("/dev/..") + QString::fromStdString(link.string()),
                              "F", "lines", kPattern));
    REQUIRE(one.take(Unit::farad));
    first.reset();
    CHECK_FALSE(one.refused(Unit::farad).empty());
    Sending second([] { return QByteArray("C= 47.0 pF Q= 85\n"); });
    std::filesystem::remove(link);
    std::filesystem::create_symlink(second.port.path().toStdString(), link);
    const auto again = one.take(Unit::farad);
    if (!again) FAIL(again.error().text());
    CHECK(again->value == Approx(47e-12));
}

TEST_CASE("an instrument taken off the list while it is asked answers that it went") {
    PortStandIn silent;
    OneBench one(instrumentAt(Way::serial, silent.path(), "F", "lines", kPattern));
    std::optional<Result<BenchReading>> out;
    one.bench.take({Unit::farad}, [&](const auto& r) { out = r; });
    one.bench.setInstruments({});
    REQUIRE(waitUntil([&] { return out.has_value(); }));
    CHECK_FALSE(*out);
    // Called off by the builder.
    one.bench.setInstruments({instrumentAt(Way::serial, silent.path(), "F", "lines", kPattern)});
    out.reset();
    one.bench.take({Unit::farad}, [&](const auto& r) { out = r; });
    one.bench.callOff();
    REQUIRE(out);
    CHECK((*out).error().sentence == "It was called off.");
}

TEST_CASE("libsigrok's own demo device is read in a process of its own") {
    qputenv("OMBREK_SIGROK", OMBREK_SIGROK_PROGRAM);
    OneBench one(instrumentAt(Way::sigrok, QStringLiteral("demo A0"), "V", ""));
    const auto reading = one.take(Unit::volt, Flow::dc);
    if (!reading) FAIL(reading.error().text());
    CHECK(std::fabs(reading->value) == Approx(10).epsilon(0.01));  // its square wave is of 10 V
    OneBench ohms(instrumentAt(Way::sigrok, QStringLiteral("demo:measured_quantity=resistance A0"), "Ω", ""));
    CHECK(ohms.take(Unit::ohm)->value == Approx(10).epsilon(0.01));
    OneBench none(instrumentAt(Way::sigrok, QStringLiteral("no-such-driver"), "V", ""));
    CHECK(contains(none.refused(Unit::volt), "no driver"));
    OneBench channel(instrumentAt(Way::sigrok, QStringLiteral("demo Z9"), "V", ""));
    CHECK(contains(channel.refused(Unit::volt), "no channel"));
    OneBench enabled(instrumentAt(Way::sigrok, QStringLiteral("demo:enabled=on A0"), "V", ""));
    CHECK(contains(enabled.refused(Unit::volt), "no setting"));
}

TEST_CASE("a driver that hangs or falls over is told of, and begun again") {
    Folder folder;
    const auto program = folder / "driver";
    const auto write = [&](const char* script) {
        QFile file(QString::fromStdString(program.string()));
        REQUIRE(file.open(QIODevice::WriteOnly | QIODevice::Truncate));
        file.write(script);
        file.setPermissions(QFile::ReadOwner | QFile::WriteOwner | QFile::ExeOwner);
    };
    write("#!/bin/sh\nexit 3\n");
    qputenv("OMBREK_SIGROK", QByteArray::fromStdString(program.string()));
    OneBench one(instrumentAt(Way::sigrok, QStringLiteral("demo"), "V", ""));
    CHECK(contains(one.refused(Unit::volt), "ended"));
    write("#!/bin/sh\nexec sleep 600\n");
    CHECK(contains(one.refused(Unit::volt), "no answer in time"));
    write(
        "#!/bin/sh\nwhile true; do echo '{\"value\": 4.98, \"unit\": \"V\", \"digits\": 2, \"flags\": "
        "[\"dc\"]}'; sleep 0.05; done\n");
    const auto reading = one.take(Unit::volt, Flow::dc);
    if (!reading) FAIL(reading.error().text());
    CHECK(reading->value == 4.98);
    CHECK(reading->on.count == Approx(0.01));
    write("#!/bin/sh\nexec yes '{\"value\": 4.98, \"unit\": \"V\", \"flags\": [\"dc\"]}'\n");  // it floods
    OneBench flood(instrumentAt(Way::sigrok, QStringLiteral("demo"), "V", ""));
    CHECK(flood.take(Unit::volt, Flow::dc)->value == 4.98);
    qunsetenv("OMBREK_SIGROK");
}

TEST_CASE("a sample of libsigrok that is no number is none") {
    CHECK(readSigrokLine(R"({"value": null, "unit": "Ω", "flags": []})").kind == Sample::Kind::overload);
    CHECK(readSigrokLine(R"({"value": null, "unit": "V", "below": true})").value == -INFINITY);
    CHECK(readSigrokLine(R"({"value": 1, "unit": "V", "flags": ["hold"]})").held);
    for (const char* line :
         {"", "{}", "[]", "12", R"({"value": "no number", "unit": "V"})", R"({"value": 1})",
          R"({"value": 1, "unit": "mV"})", R"({"unit": "V"})", R"({"trouble": "gone"})"}) {
        INFO(line);
        CHECK(readSigrokLine(line).kind == Sample::Kind::none);
    }
}

TEST_CASE("a file that an instrument leaves in a folder is told of once, when it grows no more") {
    eventLoop();
    Folder folder;
    const QString place = QString::fromStdString((folder / "").string());
    const auto write = [&](const char* name, const QByteArray& bytes) {
        QFile file(place + QString::fromUtf8(name));
        REQUIRE(file.open(QIODevice::Append));
        file.write(bytes);
    };
    write("old.s2p", "there before");
    Bench bench(shippedSets());
    QStringList arrived;
    QObject::connect(&bench, &Bench::fileArrived,
                     [&](const QString&, const QString& file) { arrived << QFileInfo(file).fileName(); });
    bench.setInstruments({instrumentAt(Way::folder, place, "", "")});
    write("new.s2p", "# MHz S MA R 50\n");
    write("notes.pdf", "no trace");
    REQUIRE(waitUntil([&] { return !arrived.isEmpty(); }));
    waitUntil([] { return false; }, 1200);
    CHECK(arrived == QStringList{QStringLiteral("new.s2p")});
}
