#include "instruments/scpi_device.h"

#include <cmath>

#include "core/meter/display_words.h"
#include "core/quantity/shown.h"
#include "instruments/scpi.h"

namespace ombrek {
namespace {

constexpr int kLongest = 1000;  ///< of an answer [bytes]
constexpr const char* kWho = "*IDN?";
constexpr int kQuiet = 15;  ///< in which an answer may turn out to be two [ms]

/// What stands between the commas of an answer.
std::string_view partOf(std::string_view line, int place) {
    for (; place > 0; --place) {
        const auto comma = line.find(',');
        if (comma == std::string_view::npos) return {};
        line.remove_prefix(comma + 1);
    }
    return line.substr(0, line.find(','));
}

/// "1,50E-10", "4,7": figures, a comma and figures, as an instrument writes that was set to a comma. Two
/// readings of SCPI bear a point or an exponent each.
bool commaIsDecimal(std::string_view line) {
    while (!line.empty() && (line.back() == ' ' || line.back() == '\r' || line.back() == '\n'))
        line.remove_suffix(1);
    if (line.starts_with('+') || line.starts_with('-')) line.remove_prefix(1);
    const auto comma = line.find(',');
    if (comma == std::string_view::npos || comma == 0 || line.find(',', comma + 1) != std::string_view::npos)
        return false;
    const std::string_view whole = line.substr(0, comma), rest = line.substr(comma + 1);
    return whole.find_first_not_of("0123456789") == std::string_view::npos && !rest.empty() &&
           rest[0] >= '0' && rest[0] <= '9' && rest.find('.') == std::string_view::npos &&
           rest.find_first_not_of("0123456789eE+-") == std::string_view::npos;
}

}  // namespace

Sample readScpiReply(std::string_view line, Unit asked, Flow flow, int place) {
    if (commaIsDecimal(line))
        return noSample(
            "it answered \"" + std::string(line.substr(0, 24)) +
            "\": whether the comma is a decimal mark cannot be told. Set the instrument to a point.");
    const std::string_view part = partOf(line, place);
    const auto words = displayWords(part);
    double factor = 1;
    if (words.size() == 2) {
        const auto unit = readUnitWord(words[1]);
        if (!unit || unit->unit != asked)
            return noSample("it answered in another unit: \"" + std::string(part.substr(0, 24)) + "\".");
        factor = unit->factor;
    }
    Sample out;
    out.unit = asked;
    out.ac = flow == Flow::ac;
    out.dc = flow == Flow::dc;
    out.peakToPeak = flow == Flow::peakToPeak;
    const auto value = readReply(words.size() == 2 ? std::string_view(words[0]) : part);
    if (!value) {
        out.why = value.error().sentence;
        if (out.why.find("finds nothing") != std::string::npos) out.kind = Sample::Kind::blank;
        return out;
    }
    out.kind = std::isinf(*value) ? Sample::Kind::overload : Sample::Kind::reading;
    out.value = *value == 0 ? 0 : *value * factor;
    return out;
}

std::string identityOf(const QString& answer) {
    const QStringList words = answer.trimmed().split(QChar(','));
    return words.size() < 3 ? std::string() : words.mid(0, 3).join(QChar(',')).toStdString();
}

ScpiDevice::ScpiDevice(std::unique_ptr<Cable> cable, CommandSet set, std::string identity, QObject* parent)
    : Device(parent), cable_(std::move(cable)), set_(std::move(set)), identity_(std::move(identity)) {
    connect(cable_.get(), &Cable::opened, this, [this] {
        opening_ = false;
        ready_ = true;
        talk().note(QStringLiteral("connected"));
        // It may talk unasked for a moment.
        QTimer::singleShot(2 * kQuiet, this, [this] {
            if (!ready_) return;
            unread_.clear();
            for (const std::string& line : set_.setup) write(line);
            // A supply that is to be set, too; only the question who it is wants any answer.
            const bool asksWho = !lines_.empty() && lines_.front().line == kWho;
            if (!identity_.empty() && !asksWho) lines_.push_front(whoFirst());
            next();
        });
    });
    connect(cable_.get(), &Cable::heard, this, [this](const QByteArray& bytes) { take(bytes); });
    connect(cable_.get(), &Cable::lost, this, [this](const QString& why) { gone(why); });
    quiet_.setSingleShot(true);
    quiet_.setInterval(kQuiet);
    connect(&quiet_, &QTimer::timeout, this, [this] {
        if (!waiting_ || lines_.empty()) return;
        waiting_ = false;
        const Say asked = std::move(lines_.front());
        lines_.pop_front();
        asked.use(std::exchange(reply_, {}));
        next();
    });
}

/// Ports change their numbers when they are plugged in anew: whoever answers is held against the list.
ScpiDevice::Say ScpiDevice::whoFirst() {
    return {kWho, [this](const QByteArray& line) {
                const std::string who = identityOf(QString::fromUtf8(line));
                if (who != identity_)
                    fail("another instrument answers there, " + line.left(60).toStdString() +
                         "; try it on Instruments (Ctrl+R) to take it as this one.");
            }};
}

void ScpiDevice::write(const std::string& line) {
    talk().said(QByteArray::fromStdString(line));
    cable_->write(QByteArray::fromStdString(line + set_.end));
}

void ScpiDevice::say(std::vector<Say> lines) {
    answerWithin(set_.answers);
    lines_.assign(lines.begin(), lines.end());
    waiting_ = false;
    reply_.clear();
    if (ready_ && cable_->isOpen()) return next();
    if (opening_) return;
    opening_ = true;
    ready_ = false;
    prepared_.clear();
    cable_->open();
}

void ScpiDevice::next() {
    if (!ready_) return;
    while (!waiting_ && !lines_.empty()) {
        waiting_ = bool(lines_.front().use);
        if (waiting_) unread_.clear();
        write(lines_.front().line);
        if (!waiting_) lines_.pop_front();
    }
}

void ScpiDevice::take(const QByteArray& bytes) {
    if (!waiting_) {
        if (!asking()) talk().heard(bytes);
        return;  // said before it was asked
    }
    unread_ += bytes;
    qsizetype from = 0;
    for (qsizetype i = 0; i < unread_.size(); ++i) {
        if (unread_[i] != '\n' && unread_[i] != '\r') continue;
        const QByteArray line = unread_.mid(from, i - from).trimmed();
        from = i + 1;
        if (line.isEmpty()) continue;
        talk().heard(line);
        if (quiet_.isActive()) return fail("it said more than was asked; ask it again, or type the reading.");
        reply_ = line;
        quiet_.start();
    }
    unread_.remove(0, from);
    if (unread_.size() <= kLongest) return;
    talk().heard(unread_.left(100));
    fail("it talks without end and says no number.");
}

/// The cable is put on anew with the next question.
void ScpiDevice::giveUp() {
    lines_.clear();
    waiting_ = ready_ = opening_ = false;
    quiet_.stop();
    unread_.clear();
    reply_.clear();
    cable_->close();
}

void ScpiDevice::stopAsking() {
    if (asking()) giveUp();
}

void ScpiDevice::gone(const QString& why) {
    talk().note(why);
    fail(why.toStdString());
}

void ScpiDevice::fail(const std::string& why) {
    giveUp();
    answer(noSample(why, true));
    answerWords(problem("", why));
}

/// An instrument that did not understand says so in its queue: that is asked once.
void ScpiDevice::tooLate() {
    if (!waiting_ || set_.errors.empty() || askedErrors_) {
        giveUp();
        return Device::tooLate();
    }
    talk().note(QStringLiteral("no answer in time"));
    askedErrors_ = true;
    say({{set_.errors, [this](const QByteArray& line) {
              const bool told = line.contains(',') && !line.startsWith('0') && !line.startsWith("+0");
              if (!told) {
                  giveUp();
                  return Device::tooLate();
              }
              fail("it does not understand the question: " + line.left(80).toStdString());
          }}});
}

int ScpiDevice::settle(const Probe& probe) const {
    const auto* query = set_.query(probe.unit, probe.flow);
    return query == nullptr ? 0 : query->settle;
}

void ScpiDevice::startAsking(const Probe& probe) {
    askedErrors_ = false;
    const auto* query = set_.query(probe.unit, probe.flow);
    if (query == nullptr) {
        QTimer::singleShot(0, this,
                           [this] { answer(noSample("its command set asks for no such reading.", true)); });
        return;
    }
    std::vector<Say> lines;
    const bool prepared = ready_ && prepared_ == query->ask + query->range;
    for (const std::string& line : query->before) {
        if (!prepared) lines.push_back({line, {}});
    }
    lines.push_back({query->ask, [this, query](const QByteArray& line) {
                         Sample sample =
                             readScpiReply(std::string_view(line.constData(), std::size_t(line.size())),
                                           query->unit, query->flow, query->place);
                         prepared_ = query->ask + query->range;
                         const bool ranged =
                             sample.kind == Sample::Kind::reading || sample.kind == Sample::Kind::overload;
                         if (query->range.empty() || !ranged) return answer(sample);
                         lines_.push_back({query->range, [this, sample](const QByteArray& said) mutable {
                                               const auto range = readReply(said.toStdString());
                                               const bool over = sample.kind == Sample::Kind::overload;
                                               if (range && std::isfinite(*range) && *range > 0 &&
                                                   (over || *range >= std::fabs(sample.value)))
                                                   sample.range = *range;
                                               answer(sample);
                                           }});
                     }});
    say(std::move(lines));
}

void ScpiDevice::startIdentifying() {
    askedErrors_ = false;
    say({{kWho, [this](const QByteArray& line) { answerWords(QString::fromUtf8(line)); }}});
}

void ScpiDevice::setSupply(double volts, double amperes, Words then) {
    if (!set_.supply) return Device::setSupply(volts, amperes, std::move(then));
    words_ = std::move(then);
    askedErrors_ = false;
    const CommandSet::Supply& s = *set_.supply;
    const auto filled = [](std::string line, double value) {
        return line.replace(line.find('#'), 1, plainNumber(value));
    };
    say({{s.output, [this, s, filled, volts, amperes](const QByteArray& state) {
              if (state.trimmed() != "0" && state.trimmed().toUpper() != "OFF") {
                  lines_.clear();
                  return answerWords(problem("",
                                             "its output is on, or it does not say; switch it off on the "
                                             "supply, and set it again."));
              }
              auto set = std::make_shared<double>(NAN);
              const std::vector<Say> lines{
                  {filled(s.amperes, amperes), {}},
                  {filled(s.volts, volts), {}},
                  {s.voltsAsked,
                   [set](const QByteArray& line) { *set = readReply(line.toStdString()).value_or(NAN); }},
                  {s.amperesAsked, [this, set, volts, amperes](const QByteArray& line) {
                       const double limit = readReply(line.toStdString()).value_or(NAN);
                       const bool so =
                           std::fabs(*set - volts) <= 0.01 * volts + 0.01 && limit <= 1.02 * amperes + 0.001;
                       if (!so)
                           return answerWords(problem("",
                                                      "it did not take what it was told; look at its display "
                                                      "before anything is switched on."));
                       answerWords(QString::fromStdString(formatQuantity(*set, Unit::volt, 4) + ", " +
                                                          formatQuantity(limit, Unit::ampere, 3)));
                   }}};
              lines_.insert(lines_.end(), lines.begin(), lines.end());
          }}});
}

}  // namespace ombrek
