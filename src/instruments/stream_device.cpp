#include "instruments/stream_device.h"

namespace ombrek {
namespace {

constexpr int kBetween = 3000;  ///< the slowest display sends within [ms]
constexpr int kLongest = 400;   ///< of a line [bytes]
constexpr int kAtOnce = 64;     ///< lines of a flood that are looked at in one turn

}  // namespace

void StreamDevice::startAsking(const Probe&) {
    answerWithin(kBetween);
    listen();
}

void StreamDevice::startIdentifying() {
    answerWithin(kBetween);
    listen();
}

void StreamDevice::shown(const Sample& sample, const QByteArray& line) {
    answer(sample);
    answerWords(QStringLiteral("sends %1").arg(QString::fromUtf8(line.left(60))));
}

void StreamDevice::gone(const QString& why) {
    talk().note(why);
    answer(noSample(why.toStdString(), true));
    answerWords(problem("", why.toStdString()));
}

LineDevice::LineDevice(std::unique_ptr<Cable> cable, LinePattern pattern, QObject* parent)
    : StreamDevice(parent), cable_(std::move(cable)), pattern_(std::move(pattern)) {
    connect(cable_.get(), &Cable::opened, this, [this] {
        opening_ = false;
        unread_.clear();
        whole_ = false;
        talk().note(QStringLiteral("connected"));
    });
    connect(cable_.get(), &Cable::heard, this, [this](const QByteArray& bytes) { take(bytes); });
    connect(cable_.get(), &Cable::lost, this, [this](const QString& why) {
        opening_ = false;
        gone(why);
    });
}

void LineDevice::listen() {
    if (cable_->isOpen() || opening_) return;
    opening_ = true;
    cable_->open();
}

/// What is silent may be unplugged without anybody knowing: the next question opens it anew.
void LineDevice::tooLate() {
    cable_->close();
    opening_ = false;
    StreamDevice::tooLate();
}

/// Lines end in a line feed, a carriage return or both.
void LineDevice::take(const QByteArray& bytes) {
    unread_ += bytes;
    int looked = 0;
    qsizetype from = 0;
    for (qsizetype i = 0; i < unread_.size(); ++i) {
        if (unread_[i] != '\n' && unread_[i] != '\r') continue;
        const QByteArray line = unread_.mid(from, i - from).trimmed();
        from = i + 1;
        const bool whole = std::exchange(whole_, true);
        if (line.isEmpty() || !whole || ++looked > kAtOnce) continue;
        talk().heard(line);
        if (!asking()) continue;
        shown(readLine(pattern_, std::string_view(line.constData(), std::size_t(line.size()))), line);
    }
    unread_.remove(0, from);
    if (unread_.size() <= kLongest) return;
    unread_.clear();
    whole_ = false;
    talk().note(QStringLiteral("it talks without end"));
    shown(noSample("it talks without end and says no number; are baud rate and parity right?", true), {});
}

}  // namespace ombrek
