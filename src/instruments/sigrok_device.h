#pragma once

#include <QProcess>

#include "instruments/stream_device.h"

namespace ombrek {

/// What `ombrek-sigrok` prints of one sample, a JSON object a line: {"value": 4.98, "unit": "V", "digits": 3,
/// "flags": ["dc"]}. "value" is null for an overload, with
/// "below": true for one under the range; a line {"trouble": "…"} is none.
Sample readSigrokLine(const QByteArray& line);

/// An instrument by libsigrok, in a process of its own: a driver that hangs or falls over takes nothing with
/// it.
class SigrokDevice : public StreamDevice {
    Q_OBJECT
 public:
    /// @param address  "demo", "driver:conn=/dev/ttyUSB0", and behind a blank the channel to be read
    SigrokDevice(const QString& address, QObject* parent = nullptr);
    ~SigrokDevice() override;
    void close() override { end(); }

    /// The program beside the application.
    static QString program();

 protected:
    void listen() override;
    void tooLate() override;

 private:
    void take();
    void end();
    QString address_;
    QProcess process_;
};

}  // namespace ombrek
