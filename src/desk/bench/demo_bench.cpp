#include "desk/bench/demo_bench.h"

#include <QDir>
#include <QTcpSocket>

namespace ombrek {
namespace {

QByteArray supplySays(const QByteArray& line) {
    if (line == "*IDN?") return "Lantern Club,bench supply,7,1.2\n";
    if (line == "OUTP?") return "0\n";
    if (line == "MEAS:CURR?") return "0.0312\n";
    return {};
}

std::string at(const QTcpServer& server) { return "127.0.0.1:" + std::to_string(server.serverPort()); }

}  // namespace

DemoBench::DemoBench(Session& session) {
    lines_.listen(QHostAddress::LocalHost);
    supply_.listen(QHostAddress::LocalHost);
    connect(&timer_, &QTimer::timeout, this, [this] {
        static int n = 0;
        for (QTcpSocket* socket : lines_.findChildren<QTcpSocket*>())
            socket->write("C= " + QByteArray::number(101.3 + 0.1 * (n++ % 2), 'f', 1) + " pF  Q= 85\r\n");
    });
    timer_.start(120);
    connect(&supply_, &QTcpServer::newConnection, this, [this] {
        QTcpSocket* socket = supply_.nextPendingConnection();
        connect(socket, &QTcpSocket::readyRead, socket,
                [socket] { socket->write(supplySays(socket->readAll().trimmed())); });
    });
    const Instrument all[] = {
        {0, "L/C meter", Way::tcp, at(lines_), "lines", "C # @ Q *", "F", 1, true, "", 1},
        {0, "grey multimeter", Way::sigrok, "demo A0", "", "", "V Ω", 1, true, "", 2},
        {0, "bench supply", Way::tcp, at(supply_), "supply", "", "A", 1, true, "", 3},
        {0, "analyser's files", Way::folder, QDir::tempPath().toStdString(), "", "", "", 1, true, "", 4}};
    for (const Instrument& one : all)
        session.kept([&]() -> Result<void> {
            const auto kept = session.keepInstrument(one);
            if (!kept) return tl::make_unexpected(kept.error());
            return {};
        }());
    MeterLine sheet;
    sheet.name = "L/C meter";
    sheet.unit = Unit::farad;
    sheet.percent = 1;
    sheet.floor = 0.3e-12;
    session.kept(session.book().setMeter(sheet));
}

}  // namespace ombrek
