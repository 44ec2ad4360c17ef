#include "desk/tune/key_clock.h"

#include <algorithm>
#include <cmath>

namespace ombrek {

KeyClock::KeyClock(QObject* parent) : QObject(parent) {
    timer_.setInterval(250);
    connect(&timer_, &QTimer::timeout, this, &KeyClock::tick);
}

void KeyClock::limit(double most, double rest) {
    most_ = most;
    rest_ = rest;
}

void KeyClock::become(State state) {
    state_ = state;
    since_.start();
    if (state == State::free)
        timer_.stop();
    else
        timer_.start();
    emit changed();
}

void KeyClock::press() { become(State::down); }

void KeyClock::release() {
    if (state_ != State::down && state_ != State::over) return;
    // The rest is owed in full, however short the key was down.
    owed_ = rest_;
    become(owed_ > 0 ? State::resting : State::free);
}

int KeyClock::left() const {
    const double of = state_ == State::down ? most_ : state_ == State::resting ? owed_ : 0;
    return std::max(0, int(std::ceil(of - double(since_.elapsed()) / 1000)));
}

void KeyClock::tick() {
    const double passed = double(since_.elapsed()) / 1000;
    if (state_ == State::down && most_ > 0 && passed >= most_) {
        state_ = State::over;
        emit rang();
    } else if (state_ == State::resting && passed >= owed_) {
        become(State::free);
        emit rang();
        return;
    }
    emit changed();
}

}  // namespace ombrek
