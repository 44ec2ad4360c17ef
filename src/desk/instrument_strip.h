#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
#include <QTemporaryFile>
#include <array>

#include "desk/session.h"

namespace ombrek {

/// The instruments, folded out at the right: who answers at each place, and the address.
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

 private:
    void useAddress();
    /// What the practice bench prints when it is ready: an instrument and its port a line.
    void readPorts();
    void onKitChange();

    Session& session_;
    QLineEdit* address_;
    QLabel* note_;
    std::array<QLabel*, 4> who_{};
    QProcess bench_;
    QTemporaryFile kitFile_;  ///< the kit in hand, for the practice bench
    QString benchKit_;        ///< which kit the running bench is on; empty: none runs
};

}  // namespace ombrek
