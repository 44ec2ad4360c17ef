#include "bench/bench_client.h"

#include <QTcpSocket>
#include <QTimer>
#include <memory>

#include "bench/scpi.h"

namespace ombrek {

void BenchClient::setAddress(const QString& host, quint16 firstPort, bool practice) {
    host_ = host;
    firstPort_ = firstPort;
    practice_ = practice;
}

void BenchClient::converse(InstrumentRole role, const QByteArray& text, LineAnswer answer) {
    const std::string who = "The " + std::string(name(role));
    auto* socket = new QTcpSocket(this);
    auto* timer = new QTimer(socket);
    timer->setSingleShot(true);
    auto once = std::make_shared<LineAnswer>(std::move(answer));
    const auto finish = [socket, once](Result<QString> result) {
        if (!*once) return;
        const LineAnswer call = std::exchange(*once, nullptr);
        socket->disconnect();
        socket->abort();
        socket->deleteLater();
        call(std::move(result));
    };
    connect(timer, &QTimer::timeout, socket,
            [=] { finish(problem(who, "no answer in time; is it switched on and connected?")); });
    connect(socket, &QTcpSocket::connected, socket, [=] { socket->write(text); });
    connect(socket, &QTcpSocket::errorOccurred, socket, [=](QAbstractSocket::SocketError error) {
        const bool refused = error == QAbstractSocket::ConnectionRefusedError;
        finish(problem(who, refused ? "not there; start the practice bench or type the reading."
                                    : "the connection broke; try again or type the reading."));
    });
    connect(socket, &QTcpSocket::readyRead, socket, [=] {
        if (socket->canReadLine()) {
            finish(QString::fromUtf8(socket->readLine(1024)).trimmed());
        } else if (socket->bytesAvailable() > 1024) {
            finish(problem(who, "it talks without end and says no number."));
        }
    });
    timer->start(timeout_);
    socket->connectToHost(host_, static_cast<quint16>(firstPort_ + static_cast<int>(role)));
}

namespace {

Result<double> numberFrom(InstrumentRole role, const Result<QString>& line) {
    if (!line) return tl::make_unexpected(line.error());
    auto value = readReply(line->toStdString());
    if (!value) return problem("The " + std::string(name(role)), value.error().sentence);
    return value;
}

}  // namespace

void BenchClient::take(Unit unit, const QString& subject, double setting, Answer answer) {
    const InstrumentRole role = instrumentFor(unit);
    QByteArray text;
    if (practice_) {
        text += "SIM:PROB \"" + subject.toUtf8() + "\"";
        if (setting >= 0) text += "," + QByteArray::number(setting, 'g', 12);
        text += '\n';
    }
    text += QByteArray::fromStdString(measureQuery(unit));
    if (subject.startsWith("proof:harmonic:")) text += " " + subject.mid(15).toUtf8();
    text += '\n';
    converse(role, text,
             [role, answer = std::move(answer)](Result<QString> line) { answer(numberFrom(role, line)); });
}

void BenchClient::bend(const QString& coil, double percent, Answer answer) {
    const QByteArray text =
        "SIM:BEND \"" + coil.toUtf8() + "\"," + QByteArray::number(percent, 'g', 6) + "\n*OPC?\n";
    converse(InstrumentRole::lcMeter, text, [answer = std::move(answer)](Result<QString> line) {
        answer(numberFrom(InstrumentRole::lcMeter, line));
    });
}

void BenchClient::look(const QString& subject, std::function<void(QString)> answer) {
    if (!practice_) return answer(QString());
    converse(InstrumentRole::multimeter, "SIM:LOOK? \"" + subject.toUtf8() + "\"\n",
             [answer = std::move(answer)](Result<QString> line) {
                 answer(line ? line->remove(QChar('"')).trimmed() : QString());
             });
}

void BenchClient::identify(InstrumentRole role, std::function<void(Result<QString>)> answer) {
    converse(role, "*IDN?\n", std::move(answer));
}

}  // namespace ombrek
