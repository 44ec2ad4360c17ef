#include <QProcess>
#include <sstream>

#include "bench_of.h"

using namespace ombrek;

// PyVISA with PyVISA-py (Debian) is a client that knows nothing of Ombrek.

TEST_CASE("a stranger's VISA client reads the practice bench") {
    eventLoop();
    QProcess bench;
    bench.start(QStringLiteral(OMBREK_BENCH),
                {QStringLiteral("--port"), QStringLiteral("0"), QStringLiteral("--until-stdin-closes")});
    QByteArray told;
    REQUIRE(waitUntil([&] {
        told += bench.readAllStandardOutput();
        return told.count('\n') >= 4;
    }));
    QStringList arguments{QStringLiteral(OMBREK_TESTS "/instruments/visa_client.py")};
    for (const QByteArray& line : told.trimmed().split('\n'))
        arguments << QString::fromUtf8(line.mid(line.lastIndexOf(':') + 1));
    QProcess client;
    client.start(QStringLiteral("/usr/bin/python3"), arguments);
    REQUIRE(waitUntil([&] { return client.state() == QProcess::NotRunning; }, 120000));
    std::istringstream said(client.readAllStandardOutput().toStdString());
    std::map<std::string, std::string> answers;
    std::string word, rest;
    while (said >> word && std::getline(said >> std::ws, rest)) answers[word] = rest;
    const auto number = [&](const char* name) {  // with a point, in every locale
        bool read = false;
        const double value = QByteArray::fromStdString(answers[name]).toDouble(&read);
        CHECK(read);
        return value;
    };
    INFO(client.readAllStandardError().toStdString());
    CHECK(answers["idn"].starts_with("Ombrek,practice multimeter,"));
    CHECK(number("volts") == Approx(5).epsilon(0.04));  // the kit: 4.8 to 5.2 V
    CHECK(answers["error"] == "-113,\"Undefined header\"");
    CHECK(number("farads") == Approx(100e-9).epsilon(0.2));
    CHECK(number("hertz") == Approx(21.06e6).epsilon(1e-4));
    CHECK(std::isfinite(number("dbm")));
    bench.closeWriteChannel();
    bench.waitForFinished(5000);
}
