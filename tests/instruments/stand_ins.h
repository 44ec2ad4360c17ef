#pragma once

#include <fcntl.h>
#include <pty.h>
#include <termios.h>
#include <unistd.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QPointer>
#include <QSocketNotifier>
#include <QTcpServer>
#include <QTcpSocket>
#include <catch2/catch.hpp>
#include <functional>
#include <memory>

#include "at_end.h"

namespace ombrek {

/// The event loop, for tests without a window.
inline void eventLoop() {
    if (QCoreApplication::instance() != nullptr) return;
    static int argc = 1;
    static char name[] = "instruments_tests";
    static char* argv[] = {name, nullptr};
    static auto* app = new QApplication(argc, argv);
    atEnd().push_back([] { delete app; });
}

/// Turn the event loop until it is so. The limit is only there for what never comes.
inline bool waitUntil(const std::function<bool()>& done, int milliseconds = 60000) {
    eventLoop();
    QElapsedTimer timer;
    timer.start();
    while (!done() && timer.elapsed() < milliseconds)
        QCoreApplication::processEvents(QEventLoop::AllEvents, 5);
    return done();
}

/// An instrument on a network socket: a line in, what it says out.
class SocketStandIn {
 public:
    using Says = std::function<QByteArray(const QByteArray&)>;
    explicit SocketStandIn(Says says) : says_(std::move(says)) {
        eventLoop();
        QObject::connect(&server_, &QTcpServer::newConnection, [this] {
            QTcpSocket* socket = server_.nextPendingConnection();
            sockets_.push_back(socket);
            if (!greeting.isEmpty()) socket->write(greeting);
            QObject::connect(socket, &QTcpSocket::readyRead, socket, [this, socket] {
                while (socket->canReadLine()) {
                    const QByteArray line = socket->readLine().trimmed();
                    heard.push_back(line);
                    const QByteArray answer = says_(line);
                    if (!answer.isEmpty()) socket->write(answer);
                }
            });
        });
        REQUIRE(server_.listen(QHostAddress::LocalHost));
    }
    QString address() const { return QStringLiteral("127.0.0.1:%1").arg(server_.serverPort()); }
    void hangUp() {
        for (const auto& socket : sockets_) {
            if (socket) socket->abort();
        }
        sockets_.clear();
    }
    QByteArray greeting;
    std::vector<QByteArray> heard;

 private:
    Says says_;
    QTcpServer server_;
    std::vector<QPointer<QTcpSocket>> sockets_;
};

/// A port with a device at its end: a pseudo-terminal. It is unplugged by going.
class PortStandIn {
 public:
    using Says = std::function<QByteArray(const QByteArray&)>;
    explicit PortStandIn(Says says = {}) : says_(std::move(says)) {
        eventLoop();
        char name[128];
        termios raw{};
        cfmakeraw(&raw);
        int slave = -1;
        REQUIRE(openpty(&master_, &slave, name, &raw, nullptr) == 0);
        path_ = QString::fromLocal8Bit(name);
        kept_ = slave;  // held open, so that nothing is lost before the port is opened
        fcntl(master_, F_SETFL, O_NONBLOCK);
        notifier_ = std::make_unique<QSocketNotifier>(master_, QSocketNotifier::Read);
        QObject::connect(notifier_.get(), &QSocketNotifier::activated, [this] { take(); });
    }
    ~PortStandIn() {
        notifier_.reset();
        ::close(kept_);
        ::close(master_);
    }
    QString path() const { return path_; }
    void send(const QByteArray& bytes) {
        // What does not go into a full terminal is lost, as on a line that nobody reads.
        [[maybe_unused]] const auto sent = ::write(master_, bytes.constData(), std::size_t(bytes.size()));
    }
    std::vector<QByteArray> heard;

 private:
    void take() {
        char buffer[4096];
        const auto got = ::read(master_, buffer, sizeof buffer);
        if (got <= 0) return;
        unread_ += QByteArray(buffer, int(got));
        while (unread_.contains('\n')) {
            const auto end = unread_.indexOf('\n');
            const QByteArray line = unread_.left(end).trimmed();
            unread_.remove(0, end + 1);
            heard.push_back(line);
            if (says_) send(says_(line));
        }
    }
    Says says_;
    int master_ = -1, kept_ = -1;
    QString path_;
    QByteArray unread_;
    std::unique_ptr<QSocketNotifier> notifier_;
};

}  // namespace ombrek
