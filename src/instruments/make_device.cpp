#include "instruments/folder_device.h"
#include "instruments/practice_device.h"
#include "instruments/scpi_device.h"
#include "instruments/sigrok_device.h"

namespace ombrek {
namespace {

Result<std::unique_ptr<Cable>> cableOf(const Instrument& instrument) {
    const QString address = QString::fromStdString(instrument.address);
    switch (instrument.way) {
        case Way::tcp:
            return tcpCable(address);
        case Way::serial:
            return serialCable(address);
        default:
            return usbtmcCable(address);
    }
}

}  // namespace

Result<std::unique_ptr<Device>> makeDevice(const Instrument& instrument, const std::vector<CommandSet>& sets,
                                           BenchClient& practice) {
    const QString address = QString::fromStdString(instrument.address);
    if (instrument.way == Way::practice) return std::make_unique<PracticeDevice>(practice);
    if (instrument.way == Way::sigrok) {
        if (address.trimmed().isEmpty() || address.startsWith(QChar('-')))
            return problem("", "Write the driver of libsigrok, as driver:conn=/dev/ttyUSB0.");
        return std::make_unique<SigrokDevice>(address);
    }
    if (instrument.way == Way::folder) return std::make_unique<FolderDevice>(address);
    auto cable = cableOf(instrument);
    if (!cable) return tl::make_unexpected(cable.error());
    if (instrument.speaks == "lines") {
        // Before anybody has shown where its number stands it is listened to all the same.
        return std::make_unique<LineDevice>(std::move(*cable),
                                            readLinePattern(instrument.pattern).value_or(LinePattern()));
    }
    for (const CommandSet& set : sets) {
        if (set.id == instrument.speaks)
            return std::make_unique<ScpiDevice>(std::move(*cable), set, instrument.identity);
    }
    return problem("", "no command set is chosen for it: S.");
}

}  // namespace ombrek
