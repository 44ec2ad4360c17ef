#pragma once

#include <QElapsedTimer>
#include <QObject>
#include <QTimer>

namespace ombrek {

/// How long the key is down, and how long the finals rest after it. Counts, and says when; it holds nobody.
class KeyClock : public QObject {
    Q_OBJECT
 public:
    enum class State { free, down, over, resting };

    explicit KeyClock(QObject* parent = nullptr);
    /// For what is in hand. @param most  that it may be down [s], 0: no limit @param rest  after it [s]
    void limit(double most, double rest);
    /// The key goes down, or comes up.
    void press();
    void release();
    State state() const { return state_; }
    /// Left of the time down, or of the rest [s].
    int left() const;

 signals:
    /// A second more, or the key went up or down.
    void changed();
    /// The time is over, or the rest.
    void rang();

 private:
    void tick();
    void become(State state);

    State state_ = State::free;
    double most_ = 0, rest_ = 0, owed_ = 0;
    QElapsedTimer since_;
    QTimer timer_;
};

}  // namespace ombrek
