#pragma once

#include <QFileSystemWatcher>
#include <QSet>

#include "instruments/device.h"

namespace ombrek {

/// A folder in which an instrument leaves its traces and Touchstone files. It answers no question: a file
/// that is new, and has not grown for a moment, is told of.
class FolderDevice : public Device {
    Q_OBJECT
 public:
    explicit FolderDevice(const QString& folder, QObject* parent = nullptr);

 signals:
    /// A file is there and grows no more.
    void arrived(const QString& file);

 protected:
    void startAsking(const Probe& probe) override;
    void startIdentifying() override;

 private:
    void look();
    QString folder_;
    QFileSystemWatcher watcher_;
    QTimer settled_, now_and_then_;
    QSet<QString> known_;
    QHash<QString, qint64> growing_;  ///< file and its size when it was seen last
};

}  // namespace ombrek
