#include "instruments/folder_device.h"

#include <QDir>

namespace ombrek {
namespace {

constexpr int kStill = 400, kNowAndThen = 2000;  ///< [ms]
constexpr qint64 kMost = 100'000'000;            ///< of a trace [bytes]

QFileInfoList tracesIn(const QString& folder) {
    return QDir(folder).entryInfoList(
        {QStringLiteral("*.csv"), QStringLiteral("*.txt"), QStringLiteral("*.s1p"), QStringLiteral("*.s2p"),
         QStringLiteral("*.CSV"), QStringLiteral("*.TXT"), QStringLiteral("*.S1P"), QStringLiteral("*.S2P")},
        QDir::Files | QDir::Readable);
}

}  // namespace

FolderDevice::FolderDevice(const QString& folder, QObject* parent) : Device(parent), folder_(folder) {
    for (const QFileInfo& file : tracesIn(folder_)) known_.insert(file.filePath());
    if (QDir(folder_).exists()) watcher_.addPath(folder_);
    settled_.setSingleShot(true);
    settled_.setInterval(kStill);
    // A folder on a stick or a network tells nobody of its changes, and may come and go.
    now_and_then_.start(kNowAndThen);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, [this] { settled_.start(); });
    connect(&settled_, &QTimer::timeout, this, [this] { look(); });
    connect(&now_and_then_, &QTimer::timeout, this, [this] { look(); });
}

void FolderDevice::look() {
    for (const QFileInfo& file : tracesIn(folder_)) {
        const QString path = file.filePath();
        if (known_.contains(path) || file.size() == 0 || file.size() > kMost) continue;
        const auto before = growing_.constFind(path);
        if (before == growing_.constEnd() || *before != file.size()) {
            growing_[path] = file.size();
            settled_.start();
            continue;
        }
        growing_.remove(path);
        known_.insert(path);
        talk().note(QStringLiteral("%1 arrived, %2 bytes").arg(file.fileName()).arg(file.size()));
        emit arrived(path);
    }
}

void FolderDevice::startAsking(const Probe&) {
    QTimer::singleShot(0, this, [this] { answer(noSample("it writes files, and is asked nothing.", true)); });
}

void FolderDevice::startIdentifying() {
    QTimer::singleShot(0, this, [this] {
        if (!QDir(folder_).exists())
            return answerWords(problem("", "there is no folder " + folder_.toStdString() + "."));
        const auto count = tracesIn(folder_).size();
        answerWords(QStringLiteral("%1 %2 there; new ones are told of")
                        .arg(count)
                        .arg(count == 1 ? QStringLiteral("file is") : QStringLiteral("files are")));
    });
}

}  // namespace ombrek
