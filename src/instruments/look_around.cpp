#include "instruments/look_around.h"

#include <QDir>
#include <QSerialPortInfo>

namespace ombrek {

namespace {

/// The name that a port keeps however often it is plugged in: a link of /dev/serial/by-id. Empty: it has
/// none.
QString lastingName(const QString& port) {
    for (const QFileInfo& link :
         QDir(QStringLiteral("/dev/serial/by-id")).entryInfoList(QDir::Files | QDir::System)) {
        if (link.canonicalFilePath() == port && !link.filePath().contains(QChar(' '))) return link.filePath();
    }
    return {};
}

}  // namespace

std::vector<Found> lookAround() {
    std::vector<Found> out;
    for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) {
        const QString lasting = lastingName(port.systemLocation());
        const QString what =
            QStringList{port.manufacturer(), port.description()}.join(QChar(' ')).simplified();
        out.push_back({Way::serial, (lasting.isEmpty() ? port.systemLocation() : lasting).toStdString(),
                       what.isEmpty() ? "a serial port" : what.left(60).toStdString()});
    }
    for (const QString& name :
         QDir(QStringLiteral("/dev")).entryList({QStringLiteral("usbtmc*")}, QDir::System))
        out.push_back({Way::usbtmc, "/dev/" + name.toStdString(), "a USB instrument"});
    return out;
}

}  // namespace ombrek
