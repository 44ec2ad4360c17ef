#include "instruments/device.h"

namespace ombrek {

Device::Device(QObject* parent) : QObject(parent) {
    late_.setSingleShot(true);
    connect(&late_, &QTimer::timeout, this, [this] { tooLate(); });
}

Device::~Device() = default;

void Device::ask(const Probe& probe, Answer answer) {
    answer_ = std::move(answer);
    startAsking(probe);
}

void Device::identify(Words answer) {
    words_ = std::move(answer);
    startIdentifying();
}

void Device::callOff() {
    stopAsking();
    answer(noSample("it was called off.", true));
    answerWords(problem("", "it was called off."));
}

void Device::setSupply(double, double, Words answer) {
    answer(problem("", "this instrument is no supply that can be set."));
}

void Device::answer(Sample sample) {
    if (!answer_) return;
    late_.stop();
    std::exchange(answer_, nullptr)(std::move(sample));
}

void Device::answerWords(Result<QString> words) {
    if (!words_) return;
    late_.stop();
    std::exchange(words_, nullptr)(std::move(words));
}

void Device::tooLate() {
    const std::string why = "no answer in time; is it switched on and connected?";
    talk_.note(QStringLiteral("no answer in time"));
    answer(noSample(why, true));
    answerWords(problem("", why));
}

}  // namespace ombrek
