#pragma once

#include <QApplication>
#include <QEvent>
#include <QPointer>
#include <algorithm>

namespace ombrek {

/// Counts the requests for a layout of every widget.
class Layouts : public QObject {
 public:
    Layouts() { qApp->installEventFilter(this); }
    bool eventFilter(QObject* on, QEvent* event) override {
        if (event->type() == QEvent::LayoutRequest) {
            ++count_;
            last_ = on;
        }
        return false;
    }
    /// Waits until eight passes of the event loop ask for none.
    /// @return 0, or how many the last pass still asked for when that does not come
    int stillAsked() {
        constexpr int kQuiet = 8, kMost = 400;
        for (int pass = 0, quiet = 0; pass < kMost; ++pass) {
            count_ = 0;
            QApplication::processEvents();
            quiet = count_ == 0 ? quiet + 1 : 0;
            if (quiet == kQuiet) return 0;
        }
        return std::max(count_, 1);
    }
    QString last() const { return last_ ? QString::fromLatin1(last_->metaObject()->className()) : QString(); }

 private:
    int count_ = 0;
    QPointer<QObject> last_;
};

}  // namespace ombrek
