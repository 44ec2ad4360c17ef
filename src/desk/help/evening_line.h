#pragma once

#include <QFrame>
#include <QPointer>

class QLabel;

namespace ombrek {

class Rooms;

/// The first evening: a line above the page that leads a novice over the practice kit, an act at a time. The
/// acts are the real ones, in the book; the line goes on when the act is done, "On" goes on without it, and
/// it can be left at any time.
class EveningLine : public QFrame {
    Q_OBJECT
 public:
    explicit EveningLine(Rooms& rooms);
    /// From its first step.
    void begin();
    /// Put it away; Help begins it again.
    void leave();
    /// The page in hand may be another: say where the step is.
    void follow();
    int step() const { return step_; }
    static int steps();

 private:
    void next();
    void listen();
    void show();

    Rooms& rooms_;
    QLabel *where_, *says_;
    int step_ = -1;  ///< −1: not led
    bool listening_ = false;
};

}  // namespace ombrek
