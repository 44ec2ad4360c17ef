#include "instruments/look_around.h"

#include <QDir>
#include <QSerialPortInfo>

namespace ombrek {

std::vector<Found> lookAround() {
    std::vector<Found> out;
    for (const QSerialPortInfo& port : QSerialPortInfo::availablePorts()) {
        const QString what =
            QStringList{port.manufacturer(), port.description()}.join(QChar(' ')).simplified();
        out.push_back({Way::serial, port.systemLocation().toStdString(),
                       what.isEmpty() ? "a serial port" : what.left(60).toStdString()});
    }
    for (const QString& name :
         QDir(QStringLiteral("/dev")).entryList({QStringLiteral("usbtmc*")}, QDir::System))
        out.push_back({Way::usbtmc, "/dev/" + name.toStdString(), "a USB instrument"});
    return out;
}

}  // namespace ombrek
