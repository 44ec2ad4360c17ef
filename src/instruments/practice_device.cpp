#include "instruments/practice_device.h"

#include <QPointer>
#include <cmath>

namespace ombrek {

PracticeDevice::PracticeDevice(BenchClient& bench, QObject* parent) : Device(parent), bench_(bench) {}

void PracticeDevice::startAsking(const Probe& probe) {
    talk().said(QByteArray::fromStdString(probe.subject.text() + " in " + std::string(plural(probe.unit))));
    bench_.take(probe.unit, probe.subject, probe.setting,
                [self = QPointer<PracticeDevice>(this), question = ++question_, probe](Result<double> value) {
                    if (!self || self->question_ != question) return;
                    Sample out;
                    out.unit = probe.unit;
                    out.ac = probe.flow == Flow::ac;  // it is always switched to what is wanted
                    out.peakToPeak = probe.flow == Flow::peakToPeak;
                    if (!value) {
                        out = noSample(value.error().text());
                        self->talk().note(QString::fromStdString(out.why));
                    } else {
                        self->talk().heard(QByteArray::number(*value, 'g', 10));
                        out.kind = std::isinf(*value) ? Sample::Kind::overload : Sample::Kind::reading;
                        out.value = *value == 0 ? 0 : *value;
                    }
                    self->answer(std::move(out));
                });
}

void PracticeDevice::startIdentifying() {
    bench_.identify(InstrumentRole::multimeter,
                    [self = QPointer<PracticeDevice>(this)](Result<QString> line) {
                        if (self) self->answerWords(std::move(line));
                    });
}

}  // namespace ombrek
