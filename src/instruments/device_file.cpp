#include "instruments/device_file.h"

#include <sys/stat.h>
#include <sys/sysmacros.h>

#include <QFileInfo>
#include <cerrno>

namespace ombrek {
namespace {

/// Majors of Unix98 pseudo-terminals (Linux' own list of devices).
constexpr unsigned kFirstPty = 136, kLastPty = 143;

struct Kind {
    const char *subsystem, *words;
};
constexpr Kind kKinds[] = {{"tty", "is no serial port"}, {"usbmisc", "is no USB instrument"}};

}  // namespace

QString whyNoDevice(const QString& path, DeviceFile wanted) {
    const Kind& kind = kKinds[wanted == DeviceFile::serial ? 0 : 1];
    struct stat status {};
    if (::stat(path.toLocal8Bit().constData(), &status) != 0)
        return errno == EACCES ? QStringLiteral("may not be looked at")
                               : QStringLiteral("is not there; is the lead plugged in?");
    if (!S_ISCHR(status.st_mode)) return QString::fromUtf8(kind.words);
    const unsigned type = major(status.st_rdev);
    if (type >= kFirstPty && type <= kLastPty) return {};
    const QString in = QStringLiteral("/sys/dev/char/%1:%2").arg(type).arg(minor(status.st_rdev));
    const bool right =
        QFileInfo(in + QStringLiteral("/subsystem")).canonicalFilePath().section(QChar('/'), -1) ==
            QString::fromUtf8(kind.subsystem) &&
        QFileInfo::exists(in + QStringLiteral("/device"));  // a console is of the class too, and no port
    return right ? QString() : QString::fromUtf8(kind.words);
}

}  // namespace ombrek
