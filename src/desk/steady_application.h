#pragma once

#include <QApplication>
#include <cstdio>
#include <exception>

namespace ombrek {

/// An application whose window stays when something is thrown on the way through an event: it is said on
/// standard error, and the book is as it was, since every action is one transaction.
class SteadyApplication : public QApplication {
 public:
    using QApplication::QApplication;

    bool notify(QObject* receiver, QEvent* event) override {
        try {
            return QApplication::notify(receiver, event);
        } catch (const std::exception& error) {
            std::fprintf(stderr, "ombrek: an event was left undone: %s\n", error.what());
            return false;
        }
    }
};

}  // namespace ombrek
