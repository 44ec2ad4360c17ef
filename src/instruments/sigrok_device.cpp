#include "instruments/sigrok_device.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <array>
#include <cmath>

#include "core/meter/display_words.h"

namespace ombrek {
namespace {

constexpr int kAtOnce = 64;  ///< lines of a flood that are looked at in one turn

}  // namespace

Sample readSigrokLine(const QByteArray& line) {
    const QJsonObject said = QJsonDocument::fromJson(line).object();
    if (said.contains(QStringLiteral("trouble")))
        return noSample(said.value(QStringLiteral("trouble")).toString().left(200).toStdString(), true);
    const auto unit = readUnitWord(said.value(QStringLiteral("unit")).toString().toStdString());
    const QJsonValue value = said.value(QStringLiteral("value"));
    if (!unit || unit->factor != 1 || !(value.isDouble() || value.isNull()) ||
        !said.contains(QStringLiteral("value")))
        return noSample("it shows what is no reading here.");
    Sample out;
    out.unit = unit->unit;
    for (const QJsonValue& flag : said.value(QStringLiteral("flags")).toArray())
        takeFlagWord(flag.toString().toStdString(), out);
    out.kind = value.isNull() ? Sample::Kind::overload : Sample::Kind::reading;
    const bool below = said.value(QStringLiteral("below")).toBool();
    out.value = value.isNull()          ? (below ? -INFINITY : INFINITY)
                : value.toDouble() == 0 ? 0
                                        : value.toDouble();
    const QJsonValue digits = said.value(QStringLiteral("digits"));
    if (digits.isDouble()) out.count = std::pow(10.0, -digits.toInt());
    return out;
}

SigrokDevice::SigrokDevice(const QString& address, QObject* parent)
    : StreamDevice(parent), address_(address) {
    connect(&process_, &QProcess::readyReadStandardOutput, this, [this] { take(); });
    connect(&process_, &QProcess::finished, this,
            [this] { gone(QStringLiteral("libsigrok ended; is the instrument connected and sending?")); });
    connect(&process_, &QProcess::errorOccurred, this, [this](QProcess::ProcessError error) {
        if (error == QProcess::FailedToStart)
            gone(QStringLiteral("ombrek-sigrok did not start; is it installed beside ombrek?"));
    });
}

SigrokDevice::~SigrokDevice() {
    process_.disconnect(this);
    end();
}

QString SigrokDevice::program() {
    return QCoreApplication::applicationDirPath() + QStringLiteral("/ombrek-sigrok");
}

/// A process that hangs in a driver is killed; nobody waits for it longer than a blink.
void SigrokDevice::end() {
    const QSignalBlocker quiet(process_);
    if (process_.state() == QProcess::NotRunning) return;
    process_.closeWriteChannel();
    process_.kill();
    process_.waitForFinished(100);
}

void SigrokDevice::listen() {
    if (process_.state() != QProcess::NotRunning) return;
    const QString override_ = qEnvironmentVariable("OMBREK_SIGROK");
    process_.start(override_.isEmpty() ? program() : override_, {QStringLiteral("--read"), address_});
}

/// The driver may hang: it is begun anew with the next question.
void SigrokDevice::tooLate() {
    end();
    StreamDevice::tooLate();
}

void SigrokDevice::take() {
    int looked = 0;
    while (process_.canReadLine()) {
        const QByteArray line = process_.readLine(1000).trimmed();
        if (line.isEmpty() || ++looked > kAtOnce) continue;
        talk().heard(line);
        if (asking()) shown(readSigrokLine(line), line);
    }
}

}  // namespace ombrek
