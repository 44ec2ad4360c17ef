#include <QTcpSocket>

#include "instruments/cable.h"

namespace ombrek {
namespace {

constexpr qint64 kCableAtOnce = 65536;  ///< of a flood that is taken in one turn [bytes]

class TcpCable : public Cable {
 public:
    TcpCable(QString host, quint16 port) : host_(std::move(host)), port_(port) {
        socket_.setReadBufferSize(kCableAtOnce);
        connect(&socket_, &QTcpSocket::connected, this, &Cable::opened);
        connect(&socket_, &QTcpSocket::readyRead, this, [this] { emit heard(socket_.read(kCableAtOnce)); });
        connect(&socket_, &QTcpSocket::errorOccurred, this, [this](QAbstractSocket::SocketError error) {
            const bool refused = error == QAbstractSocket::ConnectionRefusedError;
            emit lost(
                refused ? QStringLiteral("nothing listens at %1:%2.").arg(host_).arg(port_)
                        : QStringLiteral("the connection to %1 broke; is it switched on, and on the network?")
                              .arg(host_));
        });
    }
    void open() override {
        socket_.abort();
        socket_.connectToHost(host_, port_);
    }
    void close() override {
        const QSignalBlocker quiet(socket_);
        socket_.abort();
    }
    bool isOpen() const override { return socket_.state() == QAbstractSocket::ConnectedState; }
    void write(const QByteArray& bytes) override { socket_.write(bytes); }

 private:
    QString host_;
    quint16 port_;
    QTcpSocket socket_;
};

}  // namespace

Result<std::unique_ptr<Cable>> tcpCable(const QString& address) {
    const QString text = address.trimmed();
    const int colon = int(text.lastIndexOf(QChar(':')));
    bool number = false;
    const int port = text.mid(colon + 1).toInt(&number);
    QString host = text.left(colon);
    if (host.startsWith(QChar('[')) && host.endsWith(QChar(']'))) host = host.mid(1, host.size() - 2);
    if (colon < 1 || !number || port < 1 || port > 65535 || host.isEmpty() || host.contains(QChar(' ')))
        return problem("", "Write the address as 192.168.1.20:5025, host and port.");
    return std::make_unique<TcpCable>(host, quint16(port));
}

}  // namespace ombrek
