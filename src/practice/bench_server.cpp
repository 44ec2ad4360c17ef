#include "practice/bench_server.h"

#include <QTcpSocket>

namespace ombrek {
namespace {

constexpr int kBacklog = 8;

}  // namespace

BenchServer::BenchServer(PracticeInstruments instruments, QObject* parent)
    : QObject(parent), instruments_(std::move(instruments)) {
    for (const InstrumentRole role : kInstrumentRoles) {
        servers_[static_cast<std::size_t>(role)].setMaxPendingConnections(kBacklog);
        connect(&servers_[static_cast<std::size_t>(role)], &QTcpServer::newConnection, this,
                [this, role] { serve(role); });
    }
}

/// Conversations that are still open end with their server, and tell nobody any more.
BenchServer::~BenchServer() {
    for (QTcpServer& server : servers_) {
        for (QTcpSocket* socket : server.findChildren<QTcpSocket*>()) socket->disconnect();
    }
}

Result<void> BenchServer::listen(quint16 firstPort) {
    for (std::size_t i = 0; i < servers_.size(); ++i) {
        const quint16 port = firstPort == 0 ? 0 : static_cast<quint16>(firstPort + i);
        if (!servers_[i].listen(QHostAddress::LocalHost, port)) {
            return problem("port " + std::to_string(port), "This port is taken; give another with --port.");
        }
    }
    if (!key_.drawFor(servers_.front().serverPort()))
        return problem(
            "", "No file could be written to the user's runtime folder; by it the window knows its bench.");
    return {};
}

quint16 BenchServer::port(InstrumentRole role) const {
    return servers_[static_cast<std::size_t>(role)].serverPort();
}

namespace {

constexpr std::size_t kMostOpen =
    32;  ///< conversations at one instrument; the next ends the one that is silent longest
constexpr qint64 kMostUnread = 8192;  ///< of answers that nobody reads [bytes]

}  // namespace

void BenchServer::serve(InstrumentRole role) {
    QTcpServer& server = servers_[static_cast<std::size_t>(role)];
    std::list<QTcpSocket*>& open = open_[static_cast<std::size_t>(role)];  // who spoke last stands last
    while (QTcpSocket* socket = server.nextPendingConnection()) {
        if (open.size() >= kMostOpen) open.front()->abort();
        open.push_back(socket);
        socket->setReadBufferSize(4096);
        connect(socket, &QTcpSocket::disconnected, this, [&open, socket] {
            open.remove(socket);
            socket->deleteLater();
        });
        connect(socket, &QTcpSocket::readyRead, this, [this, &open, socket, role] {
            open.remove(socket);
            open.push_back(socket);
            while (socket->canReadLine()) {
                if (socket->bytesToWrite() > kMostUnread) return socket->abort();  // asks and never listens
                const QByteArray line = socket->readLine(4096);
                if (line.trimmed().toUpper() == kKeyQuestion) {
                    socket->write(key_.word() + '\n');
                    continue;
                }
                const auto reply = instruments_.answer(role, line.trimmed().toStdString());
                if (reply) socket->write(QByteArray::fromStdString(*reply) + '\n');
            }
            if (socket->bytesAvailable() >= 4096) socket->abort();  // a line that never ends
        });
    }
}

}  // namespace ombrek
