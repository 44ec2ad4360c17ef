#include "instruments/bench_client.h"

#include <QTcpSocket>
#include <QTimer>
#include <memory>

#include "instruments/bench_key.h"
#include "instruments/scpi.h"
#include "log/log.h"

namespace ombrek {
namespace {

constexpr int kLongestLine = 1000;  ///< of an answer [bytes]
constexpr int kSettle = 30;         ///< in which a stranger may say what nobody asked for [ms]

std::size_t at(InstrumentRole role) { return static_cast<std::size_t>(role); }
std::string theRole(InstrumentRole role) { return "The " + std::string(word(role)); }

}  // namespace

void BenchClient::setAddress(const QString& host, quint16 firstPort) {
    Ports ports;
    for (std::size_t i = 0; i < ports.size(); ++i) ports[i] = quint16(firstPort + i);
    setPorts(host, ports);
}

void BenchClient::setPorts(const QString& host, const Ports& ports) {
    host_ = host;
    ports_ = ports;
    identities_ = {};
}

void BenchClient::setPractice(const QString& kitMark, std::function<QByteArray()> state) {
    kitMark_ = kitMark;
    state_ = std::move(state);
}

bool BenchClient::isPractice(InstrumentRole role) const { return identities_[at(role)].proved; }

void BenchClient::converse(InstrumentRole role, const QByteArray& text, LineAnswer answer) {
    const std::string who = theRole(role);
    const int settle = isPractice(role) ? 0 : kSettle;
    auto* socket = new QTcpSocket(this);
    auto* timer = new QTimer(socket);
    timer->setSingleShot(true);
    auto asked = std::make_shared<bool>(false);
    auto once = std::make_shared<LineAnswer>(std::move(answer));
    const auto finish = [socket, once, who, text](Result<QString> result) {
        if (!*once) return;
        logLine(LogLevel::debug, who + ": " + text.trimmed().replace('\n', "; ").toStdString() + " -> " +
                                     (result ? result->toStdString() : result.error().sentence));
        const LineAnswer call = std::exchange(*once, nullptr);
        socket->disconnect();
        socket->abort();
        socket->deleteLater();
        call(std::move(result));
    };
    connect(timer, &QTimer::timeout, socket,
            [=] { finish(problem(who, "no answer in time; is it switched on and connected?")); });
    connect(socket, &QTcpSocket::connected, socket, [=] {
        QTimer::singleShot(settle, socket, [=] {
            if (socket->state() != QAbstractSocket::ConnectedState) return;
            socket->readAll();  // said before it was asked: no answer
            *asked = true;
            socket->write(text);
        });
    });
    connect(socket, &QTcpSocket::errorOccurred, socket, [=](QAbstractSocket::SocketError error) {
        const bool refused = error == QAbstractSocket::ConnectionRefusedError;
        finish(problem(who, refused ? "not there; start the practice bench or type the reading."
                                    : "the connection broke; try again or type the reading."));
    });
    connect(socket, &QTcpSocket::readyRead, socket, [=] {
        if (!*asked) {
            socket->readAll();
        } else if (socket->canReadLine()) {
            const QByteArray line = socket->readLine(kLongestLine);
            if (!line.endsWith('\n')) return finish(problem(who, "it talks without end and says no number."));
            if (socket->canReadLine())
                return finish(
                    problem(who, "it said more than was asked; ask it again, or type the reading."));
            finish(QString::fromUtf8(line).trimmed());
        } else if (socket->bytesAvailable() > kLongestLine) {
            finish(problem(who, "it talks without end and says no number."));
        }
    });
    timer->start(timeout_);
    socket->connectToHost(host_, ports_[at(role)]);
}

/// Ask who it is, once an address.
void BenchClient::whenKnown(InstrumentRole role, std::function<void(Result<void>)> then) {
    const auto judge = [this, role, then] {
        if (identities_[at(role)].proved) return then({});
        then(problem(
            theRole(role),
            "what listens there is not the practice bench of this computer; your own instruments are added "
            "on the page Instruments."));
    };
    if (identities_[at(role)].state == Identity::State::known) return judge();
    identify(role, [judge, then](Result<QString> line) {
        if (line) return judge();
        then(tl::make_unexpected(line.error()));
    });
}

/// Whether what answers at the place knows the word that the bench left for this user.
void BenchClient::prove(InstrumentRole role, std::function<void(bool)> then) {
    converse(role, QByteArray(kKeyQuestion) + '\n',
             [this, then = std::move(then)](const Result<QString>& word) {
                 const QByteArray key = benchKeyAt(ports_[0]);
                 then(word && !key.isEmpty() && word->toLatin1() == key);
             });
}

/// The practice bench must be on the kit in hand.
Result<void> BenchClient::onThisKit(InstrumentRole role) const {
    const QString line = identities_[at(role)].line;
    if (!isPractice(role) || kitMark_.isEmpty() || line.section(QChar(','), 2, 2) == kitMark_) return {};
    return problem(
        theRole(role),
        "this practice bench is on another kit, or of another version; start the practice bench anew.");
}

namespace {

Result<double> numberFrom(InstrumentRole role, const Result<QString>& line) {
    if (!line) return tl::make_unexpected(line.error());
    auto value = readReply(line->toStdString());
    if (!value) return problem(theRole(role), value.error().sentence);
    return value;
}

}  // namespace

void BenchClient::take(Unit unit, const Subject& subject, double setting, const Answer& answer) {
    const InstrumentRole role = instrumentFor(unit);
    whenKnown(role, [=, this](Result<void> known) {
        if (known) known = onThisKit(role);
        if (!known) return answer(tl::make_unexpected(known.error()));
        QByteArray text;
        if (isPractice(role)) {
            if (state_) text += state_();
            text += "SIM:PROB \"" + QByteArray::fromStdString(subject.text()) + "\"";
            if (setting >= 0) text += "," + QByteArray::fromStdString(plainNumber(setting));
            text += '\n';
        }
        text += QByteArray::fromStdString(measureQuery(unit));
        if (subject.is(Subject::Kind::harmonic)) text += " " + QByteArray::fromStdString(subject.id);
        text += '\n';
        converse(role, text, [role, answer](const Result<QString>& line) { answer(numberFrom(role, line)); });
    });
}

void BenchClient::look(const Subject& subject, const std::function<void(QString)>& answer, double setting,
                       double before) {
    constexpr InstrumentRole role = InstrumentRole::multimeter;
    // Nobody but a bench on this machine is asked unasked.
    const bool here = host_.startsWith(QLatin1String("127.")) || host_ == QLatin1String("localhost");
    if (!here || identities_[at(role)].state == Identity::State::absent) return answer(QString());
    whenKnown(role, [=, this](const Result<void>& known) {
        if (!known || !isPractice(role) || !onThisKit(role)) return answer(QString());
        const QByteArray name = " \"" + QByteArray::fromStdString(subject.text()) + "\"";
        QByteArray text;
        if (setting >= 0) {
            if (state_) text += state_();
            text += "SIM:PROB" + name + "," + QByteArray::fromStdString(plainNumber(setting)) + "\n";
        }
        text += "SIM:LOOK?" + name;
        if (!std::isnan(before)) text += "," + QByteArray::fromStdString(plainNumber(before));
        converse(role, text + "\n", [answer](const Result<QString>& line) {
            answer(line ? QString(*line).remove(QChar('"')).trimmed() : QString());
        });
    });
}

void BenchClient::identify(InstrumentRole role, std::function<void(Result<QString>)> answer) {
    const auto port = ports_[at(role)];
    converse(role, "*IDN?\n", [this, role, port, answer = std::move(answer)](Result<QString> line) {
        const bool gone = !line && line.error().sentence.starts_with("not there");
        Identity found{line   ? Identity::State::known
                       : gone ? Identity::State::absent
                              : Identity::State::silent,
                       line ? *line : QString(), false};
        // What is known of it changes at once and when all is known: others may be asking meanwhile.
        const auto keep = [this, role, port](const Identity& identity) {
            if (ports_[at(role)] == port) identities_[at(role)] = identity;
        };
        // Only what calls itself the bench is asked for its word.
        if (found.line.startsWith(QLatin1String("Ombrek,practice ")))
            return prove(role, [=](bool proved) mutable {
                found.proved = proved;
                keep(found);
                answer(line);
            });
        keep(found);
        answer(std::move(line));
    });
}

}  // namespace ombrek
