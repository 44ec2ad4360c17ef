#pragma once

#include <QString>

namespace ombrek {

/// What a file under /dev must be before a byte is sent to it.
enum class DeviceFile { serial, usbInstrument };

/// Why the file at a path is not such a device, as words behind its name: "is no serial port". Empty when it
/// is one: a character device of the kernel's class for it (Linux: /sys/dev/char), or a pseudo-terminal, by
/// which stand-ins and adapters are reached. A disk, a pipe, a screen or a plain file is none.
QString whyNoDevice(const QString& path, DeviceFile wanted);

}  // namespace ombrek
