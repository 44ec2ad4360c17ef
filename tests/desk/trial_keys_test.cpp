#include <QMenu>
#include <QTcpServer>
#include <QTcpSocket>
#include <QTimer>
#include <cstdio>
#include <random>

#include "instruments/bench_key.h"
#include "layouts.h"
#include "trial.h"
#include "window_fixture.h"

using namespace ombrek;

// The reliability trial in the window: keys and clicks without sense, and a bench that lies. See
// scripts/trial.

namespace {

constexpr qint64 kHang = 2000;  ///< an event that takes longer hangs the window [ms]

/// Closes what waits for an answer outside the window: menus, dialogs.
class Dismiss : public QObject {
 public:
    Dismiss() {
        connect(&timer_, &QTimer::timeout, this, [] {
            if (QWidget* popup = QApplication::activePopupWidget()) popup->close();
            if (QWidget* modal = QApplication::activeModalWidget()) modal->close();
            if (QFileDialog* dialog = Desk::fileDialog()) dialog->reject();
        });
        timer_.start(5);
    }

 private:
    QTimer timer_;
};

class Monkey {
 public:
    explicit Monkey(unsigned seed) : draw_(seed) {}

    /// One key or click. @return what it was, to be told where it broke
    QString act(Window& window) {
        if (chance(25)) return click(window);
        static constexpr Qt::Key usual[] = {
            Qt::Key_Return, Qt::Key_Escape, Qt::Key_Up,   Qt::Key_Down, Qt::Key_Left,   Qt::Key_Right,
            Qt::Key_Space,  Qt::Key_Tab,    Qt::Key_Home, Qt::Key_End,  Qt::Key_Delete, Qt::Key_Backspace};
        int key = usual[below(int(std::size(usual)))];
        Qt::KeyboardModifiers with;
        if (chance(12)) {
            key = Qt::Key_F1 + below(7);
        } else if (chance(45)) {
            key = Qt::Key_A + below(26);
        } else if (chance(30)) {
            key = Qt::Key_0 + below(10);
        } else if (chance(10)) {
            static constexpr char signs[] = "+-.,?>/%";
            key = signs[below(8)];
        }
        // Not what ends the program.
        if (chance(6) && key != Qt::Key_Q && key != Qt::Key_W) with = Qt::ControlModifier;
        if (chance(4)) with |= Qt::ShiftModifier;
        QWidget* target = window.focusWidget() ? window.focusWidget() : window.page();
        const QString said =
            QStringLiteral("%1 on %2").arg(QKeySequence(key | int(with)).toString(), window.page()->name());
        QTest::keyClick(target, Qt::Key(key), with);
        return said;
    }

 private:
    QString click(Window& window) {
        const QPoint at(below(window.width()), below(window.height()));
        QWidget* target = window.childAt(at) ? window.childAt(at) : &window;
        const QString said =
            QStringLiteral("click at %1,%2 on %3").arg(at.x()).arg(at.y()).arg(window.page()->name());
        const auto button = chance(15) ? Qt::RightButton : Qt::LeftButton;
        QTest::mouseClick(target, button, {}, target->mapFrom(&window, at));
        return said;
    }
    int below(int most) { return std::uniform_int_distribution<int>(0, most - 1)(draw_); }
    bool chance(int percent) { return below(100) < percent; }

    std::mt19937 draw_;
};

}  // namespace

TEST_CASE(
    "keys and clicks without sense: nothing hangs, nothing is laid out for ever, the book stays whole") {
    const int all = trials(400);
    const int each = std::min(all, 4000);  // then another book
    Monkey monkey(trialSeed());
    int done = 0, hangs = 0, restless = 0, books = 0;
    qint64 longest = 0;
    QString slowest;
    while (done < all) {
        const auto prepare = books % 3 == 0 ? &partWay : books % 3 == 1 ? &finished : &fresh;
        Desk desk(*prepare);
        Dismiss dismiss;
        Layouts layouts;
        ++books;
        for (int i = 0; i < each && done < all; ++i, ++done) {
            QElapsedTimer timer;
            timer.start();
            const QString was = monkey.act(desk.window());
            QApplication::processEvents(QEventLoop::AllEvents, 20);
            const qint64 took = timer.elapsed();
            if (took > longest) longest = took, slowest = was;
            hangs += took > kHang;
            if (!desk.window().isVisible()) break;
            if (i % 200 != 199) continue;
            desk.settle();
            desk.waitFor([&] { return !desk.window().page()->working(); }, 20000);
            restless += layouts.stillAsked() > 0;
        }
        desk.settle();
        REQUIRE(desk.session().book().readOnlyReason().empty());
        desk.reopen();  // it can be opened again, and is sound
    }
    std::printf("%d keys and clicks in %d books: longest %lld ms (%s), %d over %lld ms, %d restless\n", done,
                books, longest, slowest.toUtf8().constData(), hangs, kHang, restless);
    CHECK(hangs == 0);
    CHECK(restless == 0);
}

namespace {

/// A bench that knows the word and says anything.
class Liar : public QObject {
 public:
    Liar(unsigned seed, QByteArray mark) : draw_(seed), mark_(std::move(mark)) {
        connect(&server_, &QTcpServer::newConnection, this, [this] {
            QTcpSocket* socket = server_.nextPendingConnection();
            connect(socket, &QTcpSocket::readyRead, socket,
                    [this, socket] { answer(*socket, socket->readAll()); });
        });
        REQUIRE(server_.listen(QHostAddress::LocalHost));
        REQUIRE(key_.drawFor(server_.serverPort()));
    }
    quint16 port() const { return server_.serverPort(); }
    /// Numbers that were said as an instrument says them.
    std::vector<double> honest;

 private:
    void answer(QTcpSocket& socket, const QByteArray& asked) {
        if (asked.contains("*IDN?")) return void(socket.write("Ombrek,practice liar," + mark_ + ",2\n"));
        if (asked.contains(kKeyQuestion)) return void(socket.write(key_.word() + '\n'));
        if (!asked.contains('?')) return;
        const auto number = [&] {
            const double value = std::ldexp(1 + double(draw_() % 1000) / 1000, int(draw_() % 60) - 30);
            const QByteArray text = QByteArray::number(value, 'E', 4);
            return text;
        };
        // Half of the time it says the same again, which is asked about and then believed.
        const QByteArray one = draw_() % 2 == 0 || last_.isEmpty() ? number() : last_;
        last_ = one;
        switch (draw_() % 12) {
            case 0:
                return void(socket.write("rubbish\n"));
            case 1:
                return void(socket.write("1,50E-10\n"));
            case 2:
                return socket.abort();
            case 3:
                return void(socket.write(one + "\n" + number() + "\n"));
            case 4:
                return void(socket.write("nan\n"));
            case 5:
                honest.push_back(-one.toDouble());
                return void(socket.write("-" + one + "\n"));
            case 6:
                return void(socket.write("9.9E37\n"));
            case 7:
                return void(socket.write(QByteArray(5000, '7')));
            case 8:
                return void(socket.write("\xff\xfe\n"));
            case 9:
                return void(socket.write("\"" + one + "\"\n"));
            default:
                honest.push_back(one.toDouble());
                socket.write(one + "\n");
        }
    }
    std::mt19937 draw_;
    QByteArray mark_, last_;
    QTcpServer server_;
    BenchKey key_;
};

}  // namespace

TEST_CASE("a bench that lies: only what it said as a number is kept, and what is kept is finite") {
    const int all = trials(60);
    Desk desk(fresh);
    Liar liar(trialSeed(), QByteArray::fromStdString(practiceMark(desk.build().kitText)));
    BenchClient::Ports ports;
    ports.fill(liar.port());
    desk.session().practice().setPorts(QStringLiteral("127.0.0.1"), ports);
    desk.session().practice().setTimeout(300);
    Dismiss dismiss;
    std::mt19937 draw(trialSeed());
    for (int i = 0; i < all; ++i) {
        desk.window().goTo(draw() % 3 == 0 ? 3 : 0);
        for (int down = int(draw() % 9); down > 0; --down) desk.key(Qt::Key_Down);
        desk.key(Qt::Key_Return);
        desk.settle();
    }
    int kept = 0, passed = 0;
    for (const Reading& reading : desk.build().readings) {
        if (reading.unit == Unit::none) continue;
        ++kept;
        INFO(reading.subject.text() << " " << reading.value << " " << reading.method);
        CHECK(std::isfinite(reading.uncertainty));
        const bool overload = std::isinf(reading.value);
        const bool said = std::any_of(liar.honest.begin(), liar.honest.end(), [&](double one) {
            // A zero may have been taken off, and a power turned into watts.
            return std::abs(one - reading.value) <= 1e-6 * std::abs(one) + 1e-12;
        });
        CHECK((overload || said || reading.unit == Unit::watt));
        passed += said;
    }
    std::printf("%d questions to a liar, %zu honest numbers, %d readings kept\n", all, liar.honest.size(),
                kept);
}
