#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QTemporaryFile>
#include <QVBoxLayout>
#include <array>

#include "desk/session.h"

namespace ombrek {

/// The instruments, folded out at the right: the builder's own with how they stand, who answers on the
/// practice bench, and its address.
class InstrumentStrip : public QFrame {
    Q_OBJECT
 public:
    explicit InstrumentStrip(Session& session, QWidget* parent = nullptr);
    ~InstrumentStrip() override;
    static constexpr int kWidth = 300;
    /// Ask every instrument who it is.
    void look();
    /// Start the practice bench that ships with the application, then look.
    void startPracticeBench();
    bool practiceRuns() const { return bench_.state() != QProcess::NotRunning; }

 signals:
    /// The list of instruments is to be opened.
    void wantsList();

 private:
    void showOwn();
    void useAddress();
    /// What the practice bench prints when it is ready: an instrument and its port a line.
    void readPorts();
    void onKitChange();

    Session& session_;
    QVBoxLayout* own_;  ///< the builder's own
    std::vector<std::pair<QString, QString>> shown_;
    QLabel* practiceTitle_ = nullptr;
    QLineEdit* address_;
    QLabel* note_;
    std::array<QLabel*, 4> who_{};
    QProcess bench_;
    QTemporaryFile kitFile_;  ///< the kit in hand, for the practice bench
    QString benchKit_;        ///< which kit the running bench is on; empty: none runs
};

}  // namespace ombrek
