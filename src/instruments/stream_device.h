#pragma once

#include "core/meter/line_pattern.h"
#include "instruments/cable.h"
#include "instruments/device.h"

namespace ombrek {

/// A device that sends what it shows by itself. A question is answered by what comes after it.
class StreamDevice : public Device {
    Q_OBJECT
 public:
    explicit StreamDevice(QObject* parent = nullptr) : Device(parent) {}

 protected:
    void startAsking(const Probe& probe) override;
    void startIdentifying() override;
    /// Opens what is closed.
    virtual void listen() = 0;
    /// One that was sent: the answer of whoever waits; the rest of a flood goes by.
    void shown(const Sample& sample, const QByteArray& line);
    void gone(const QString& why);
};

/// Text lines over a cable, read by the builder's pattern.
class LineDevice : public StreamDevice {
    Q_OBJECT
 public:
    LineDevice(std::unique_ptr<Cable> cable, LinePattern pattern, QObject* parent = nullptr);
    void close() override { cable_->close(); }

 protected:
    void listen() override;
    void tooLate() override;

 private:
    void take(const QByteArray& bytes);
    std::unique_ptr<Cable> cable_;
    LinePattern pattern_;
    QByteArray unread_;
    bool whole_ = false;  ///< a line's beginning was seen: the first may be a half
    bool opening_ = false;
};

}  // namespace ombrek
