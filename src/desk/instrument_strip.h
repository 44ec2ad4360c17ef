#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QProcess>
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

 private:
    void useAddress();

    Session& session_;
    QLineEdit* address_;
    QLabel* note_;
    std::array<QLabel*, 4> who_{};
    QProcess bench_;
};

}  // namespace ombrek
