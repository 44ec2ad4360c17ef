#include <sys/stat.h>
#include <unistd.h>

#include <QFile>

#include "bench_of.h"
#include "folder.h"
#include "instruments/device_file.h"

using namespace ombrek;

// What a book may name as an instrument's place: the file it stands for is looked at before a byte is sent.

TEST_CASE(
    "a file, a folder, a pipe, a link to one and devices of another class are no port and no instrument") {
    Folder folder;
    const auto file = folder / "ttyUSB0", pipe = folder / "ttyUSB1", link = folder / "ttyUSB2",
               into = folder / "ttyUSB3";
    QFile plain(QString::fromStdString(file.string()));
    REQUIRE(plain.open(QIODevice::WriteOnly));
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    std::filesystem::create_symlink(pipe, link);
    std::filesystem::create_symlink("/dev/null", into);
    for (const std::string& path :
         {file.string(), pipe.string(), link.string(), into.string(), (folder / ".").string(),
          std::string("/dev/null"), std::string("/dev/zero"), std::string("/dev/tty"),
          std::string("/dev/ptmx"), std::string("/dev/../etc/passwd")}) {
        INFO(path);
        const QString at = QString::fromStdString(path);
        CHECK(whyNoDevice(at, DeviceFile::serial).startsWith(QStringLiteral("is ")));
        CHECK(whyNoDevice(at, DeviceFile::usbInstrument).startsWith(QStringLiteral("is ")));
    }
    CHECK(QFile(QString::fromStdString(file.string())).size() == 0);
    CHECK(whyNoDevice(QStringLiteral("/dev/ttyUSB99"), DeviceFile::serial)
              .contains(QStringLiteral("plugged in")));
    CHECK_FALSE(whyNoDevice(QString(), DeviceFile::serial).isEmpty());
}

TEST_CASE("a pseudo-terminal, by which adapters and stand-ins are reached, is taken") {
    PortStandIn port;
    CHECK(whyNoDevice(port.path(), DeviceFile::serial).isEmpty());
}
