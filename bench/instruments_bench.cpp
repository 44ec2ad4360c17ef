#include <pty.h>
#include <sys/socket.h>
#include <termios.h>
#include <unistd.h>

#include <QApplication>
#include <QElapsedTimer>
#include <QTcpServer>
#include <QTcpSocket>
#include <QThread>
#include <QTimer>
#include <atomic>
#include <cstring>
#include <filesystem>
#include <thread>

#include "desk/window.h"
#include "formats/files.h"
#include "instruments/bench.h"
#include "look/colours.h"
#include "practice/practice_kit.h"
#include "timing.h"

// How long the window is away at most: with a calm L/C meter alone, and with a port that floods, a socket
// that floods, one that never answers, one that hangs in the kernel's place and one that vanishes, all being
// read.

using namespace ombrek;

namespace {

struct Pty {
    Pty() {
        termios raw{};
        cfmakeraw(&raw);
        char path[128];
        if (openpty(&master, &slave, path, &raw, nullptr) == 0) name = path;
    }
    int master = -1, slave = -1;
    std::string name;
};

/// Writes a line for as long as the program runs.
void feed(int file, const char* line, int pause, const std::atomic<bool>& ended) {
    const std::size_t size = std::strlen(line);
    while (!ended) {
        if (::write(file, line, size) < 0) return;
        if (pause > 0) ::usleep(useconds_t(pause) * 1000);
    }
}

Instrument instrument(const char* name, Way way, const std::string& address, const char* speaks,
                      const char* measures) {
    Instrument out;
    out.name = name;
    out.way = way;
    out.address = address;
    out.speaks = speaks;
    out.pattern = "C # @";
    out.measures = measures;
    return out;
}

/// The longest the event loop was away in so many seconds of asking everything again and again [ms].
double away(Session& session, int seconds, int& readings) {
    QElapsedTimer all, since;
    all.start();
    double worst = 0;
    const auto ask = [&](Unit unit) {
        session.bench().take({unit}, [&](const Result<BenchReading>& r) { readings += r.has_value(); });
    };
    QTimer asking;
    QObject::connect(&asking, &QTimer::timeout, [&] {
        for (const Unit unit : {Unit::farad, Unit::volt, Unit::ohm, Unit::hertz, Unit::ampere}) ask(unit);
    });
    asking.start(100);
    while (all.elapsed() < seconds * 1000) {
        since.start();
        QApplication::processEvents();
        worst = std::max(worst, double(since.nsecsElapsed()) / 1e6);
        QThread::usleep(200);
    }
    session.bench().callOff();
    return worst;
}

}  // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    installStyle();
    installFonts();
    const auto tables = readTables(dataFolder());
    if (!tables) return 1;
    const auto practice = readPracticeKit(dataFolder(), *tables);
    const auto file = std::filesystem::temp_directory_path() / "instruments-bench.ombrek";
    std::filesystem::remove(file);
    if (!practice || !writePracticeBook(file, *practice, PracticeStage::partWay)) return 1;
    std::atomic<bool> ended = false;
    Pty calm, flood, deaf;
    std::thread(feed, calm.master, "C= 101.3 pF\n", 100, std::cref(ended)).detach();
    QTcpServer silent;
    silent.listen(QHostAddress::LocalHost);
    const quint16 port = silent.serverPort();
    QTcpServer babble;
    babble.listen(QHostAddress::LocalHost);
    const int babbling = int(babble.socketDescriptor());
    std::thread([babbling, &ended] {
        while (!ended) {
            const int socket = ::accept(babbling, nullptr, nullptr);
            if (socket >= 0) std::thread(feed, socket, "1.0000\n", 0, std::cref(ended)).detach();
            ::usleep(10000);
        }
    }).detach();
    Session session(Tables(*tables), std::move(*Book::open(file)));
    Window window(session);
    window.resize(1280, 800);
    window.show();
    window.open(QStringLiteral("bench"));
    window.instruments().show();
    session.bench().setInstruments({instrument("calm", Way::serial, calm.name, "lines", "F")});
    int few = 0, many = 0;
    away(session, 1, few);
    few = 0;
    const double quiet = away(session, 5, few);
    std::thread(feed, flood.master, "C= 101.3 pF\nC= 101.3 pF\nC= 101.3 pF\nC= 101.3 pF\n", 0,
                std::cref(ended))
        .detach();
    session.bench().setInstruments(
        {instrument("calm", Way::serial, calm.name, "lines", "F"),
         instrument("flood", Way::serial, flood.name, "lines", "V"),
         instrument("babble", Way::tcp, "127.0.0.1:" + std::to_string(babble.serverPort()),
                    "bench-multimeter", "Ω"),
         instrument("silent", Way::tcp, "127.0.0.1:" + std::to_string(port), "counter", "Hz"),
         instrument("deaf", Way::usbtmc, deaf.name, "bench-multimeter", "A")});
    const double loud = away(session, 5, many);
    tell("the window away: one calm meter; five, two of them flood", quiet, loud, 50);
    std::printf("readings that stood in 5 s: %d and %d\n", few, many);
    ended = true;
    std::filesystem::remove(file);
    std::fflush(stdout);
    std::_Exit(0);  // the threads that write are left where they are
}
