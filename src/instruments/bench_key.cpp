#include "instruments/bench_key.h"

#include <QDir>
#include <QFile>
#include <QRandomGenerator>
#include <QSaveFile>
#include <QStandardPaths>

namespace ombrek {
namespace {

constexpr int kBytes = 16;

QString fileOf(quint16 firstPort) {
    const QString folder = QStandardPaths::writableLocation(QStandardPaths::RuntimeLocation);
    return folder.isEmpty() ? QString() : folder + QStringLiteral("/ombrek-bench-%1").arg(firstPort);
}

}  // namespace

bool BenchKey::drawFor(quint16 firstPort) {
    QByteArray drawn(kBytes, '\0');
    for (char& byte : drawn) byte = char(QRandomGenerator::system()->bounded(256));
    QSaveFile file(fileOf(firstPort));
    if (!file.open(QIODevice::WriteOnly)) return false;
    file.setPermissions(QFile::ReadOwner | QFile::WriteOwner);
    file.write(drawn.toHex());
    if (!file.commit()) return false;
    word_ = drawn.toHex();
    file_ = file.fileName();
    return true;
}

BenchKey::~BenchKey() {
    QFile file(file_);
    // Another bench may have begun at this port since.
    if (!file_.isEmpty() && file.open(QIODevice::ReadOnly) && file.read(2 * kBytes) == word_) file.remove();
}

QByteArray benchKeyAt(quint16 firstPort) {
    QFile file(fileOf(firstPort));
    return file.open(QIODevice::ReadOnly) ? file.read(2 * kBytes) : QByteArray();
}

}  // namespace ombrek
