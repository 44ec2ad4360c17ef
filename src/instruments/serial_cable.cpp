#include <QRegularExpression>
#include <QSerialPort>

#include "instruments/cable.h"
#include "instruments/device_file.h"

namespace ombrek {
namespace {

struct Line {
    QString port;
    int baud = 9600;
    QSerialPort::DataBits bits = QSerialPort::Data8;
    QSerialPort::Parity parity = QSerialPort::NoParity;
    QSerialPort::StopBits stops = QSerialPort::OneStop;
    bool dtr = false, rts = false;
};

class SerialCable : public Cable {
 public:
    explicit SerialCable(Line line) : line_(std::move(line)) {
        port_.setReadBufferSize(65536);
        connect(&port_, &QSerialPort::readyRead, this, [this] { emit heard(port_.readAll()); });
        connect(&port_, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
            if (error == QSerialPort::NoError || !port_.isOpen()) return;
            close();
            emit lost(QStringLiteral("%1 is gone; is the lead plugged in?").arg(line_.port));
        });
    }
    ~SerialCable() override { port_.disconnect(this); }

    void open() override {
        close();
        if (const QString why = whyNoDevice(line_.port, DeviceFile::serial); !why.isEmpty()) {
            emit lost(line_.port + QChar(' ') + why);
            return;
        }
        port_.setPortName(line_.port);
        port_.setBaudRate(line_.baud);
        port_.setDataBits(line_.bits);
        port_.setParity(line_.parity);
        port_.setStopBits(line_.stops);
        if (port_.open(QIODevice::ReadWrite)) {
            if (line_.dtr) port_.setDataTerminalReady(true);
            if (line_.rts) port_.setRequestToSend(true);
            emit opened();
            return;
        }
        const auto error = port_.error();
        emit lost(
            error == QSerialPort::PermissionError
                ? QStringLiteral("%1 may not be opened; is it in use, and are you in the group dialout?")
                      .arg(line_.port)
                : QStringLiteral("%1 is not there; is the lead plugged in?").arg(line_.port));
    }
    void close() override {
        const QSignalBlocker quiet(port_);
        if (port_.isOpen()) port_.close();
    }
    bool isOpen() const override { return port_.isOpen(); }
    void write(const QByteArray& bytes) override { port_.write(bytes); }

 private:
    Line line_;
    QSerialPort port_;
};

}  // namespace

Result<std::unique_ptr<Cable>> serialCable(const QString& address) {
    Line line;
    static const QRegularExpression frame(QStringLiteral("^([5-8])([NEO])([12])$"),
                                          QRegularExpression::CaseInsensitiveOption);
    const QStringList words = address.simplified().split(QChar(' '));
    line.port = words.value(0);
    for (const QString& word : words.mid(1)) {
        bool number = false;
        const int baud = word.toInt(&number);
        const auto match = frame.match(word);
        if (number && baud >= 50 && baud <= 4000000) {
            line.baud = baud;
        } else if (match.hasMatch()) {
            const QString parity = match.captured(2).toUpper();
            line.bits = QSerialPort::DataBits(match.captured(1).toInt());
            line.parity = parity == QStringLiteral("E")   ? QSerialPort::EvenParity
                          : parity == QStringLiteral("O") ? QSerialPort::OddParity
                                                          : QSerialPort::NoParity;
            line.stops =
                match.captured(3) == QStringLiteral("2") ? QSerialPort::TwoStop : QSerialPort::OneStop;
        } else if (word == QStringLiteral("dtr")) {
            line.dtr = true;
        } else if (word == QStringLiteral("rts")) {
            line.rts = true;
        } else {
            return problem("", "\"" + word.left(20).toStdString() +
                                   "\" is not understood; write the port as /dev/ttyUSB0 9600 8N1.");
        }
    }
    if (!line.port.startsWith(QStringLiteral("/dev/")))
        return problem("", "Write the port as /dev/ttyUSB0 9600 8N1.");
    return std::make_unique<SerialCable>(std::move(line));
}

}  // namespace ombrek
