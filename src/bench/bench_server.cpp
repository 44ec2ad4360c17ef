#include "bench/bench_server.h"

#include <QTcpSocket>

namespace ombrek {

BenchServer::BenchServer(PracticeInstruments instruments, QObject* parent)
    : QObject(parent), instruments_(std::move(instruments)) {
    for (const InstrumentRole role : kInstrumentRoles) {
        connect(&servers_[static_cast<std::size_t>(role)], &QTcpServer::newConnection, this,
                [this, role] { serve(role); });
    }
}

Result<void> BenchServer::listen(quint16 firstPort) {
    for (std::size_t i = 0; i < servers_.size(); ++i) {
        const quint16 port = firstPort == 0 ? 0 : static_cast<quint16>(firstPort + i);
        if (!servers_[i].listen(QHostAddress::LocalHost, port)) {
            return problem("port " + std::to_string(port), "This port is taken; give another with --port.");
        }
    }
    return {};
}

quint16 BenchServer::port(InstrumentRole role) const {
    return servers_[static_cast<std::size_t>(role)].serverPort();
}

void BenchServer::serve(InstrumentRole role) {
    QTcpServer& server = servers_[static_cast<std::size_t>(role)];
    while (QTcpSocket* socket = server.nextPendingConnection()) {
        socket->setReadBufferSize(4096);
        connect(socket, &QTcpSocket::disconnected, socket, &QObject::deleteLater);
        connect(socket, &QTcpSocket::readyRead, this, [this, socket, role] {
            while (socket->canReadLine()) {
                const auto reply = instruments_.answer(role, socket->readLine(1024).trimmed().toStdString());
                if (reply) socket->write(QByteArray::fromStdString(*reply) + '\n');
            }
            if (socket->bytesAvailable() >= 4096) socket->abort();  // a line that never ends
        });
    }
}

}  // namespace ombrek
