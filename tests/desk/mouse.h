#pragma once

#include <QClipboard>

#include "desk/pieces/key_cap.h"
#include "desk/wire.h"
#include "window_fixture.h"

namespace ombrek {

/// The mouse alone: caps, rows, the wire, the sheet of all keys.
class Mouse {
 public:
    explicit Mouse(Desk& desk) : desk_(desk) {}

    void station(int number) {
        auto* wire = desk_.window().findChild<WireRail*>();
        const double pitch = std::min(84.0, (wire->height() - 130.0) / 7);
        press(wire, QPoint(80, int(104 + number * pitch + 20)));
        REQUIRE(desk_.window().station() == number);
    }
    /// A cap at the foot; where it stands only on the sheet, through that.
    void cap(const char* act) {
        for (KeyCap* cap : desk_.window().page()->findChildren<KeyCap*>()) {
            if (cap->act()->objectName() != QLatin1String(act) || !cap->isVisible()) continue;
            press(cap, cap->rect().center());
            return;
        }
        for (KeyCap* cap : desk_.window().page()->findChildren<KeyCap*>()) {
            if (cap->act()->objectName() == QLatin1String("keys")) press(cap, cap->rect().center());
        }
        for (KeyCap* cap : desk_.window().findChildren<KeyCap*>()) {
            if (cap->act()->objectName() != QLatin1String(act) || !cap->isVisible()) continue;
            INFO(act);
            press(cap, cap->rect().center());
            return;
        }
        FAIL("no cap for " << act);
    }
    void paste(const char* text) {
        QApplication::clipboard()->setText(QString::fromUtf8(text));
        const bool paper = desk_.window().page()->act(QStringLiteral("paste-from-the-paper")) != nullptr;
        cap(paper ? "paste-from-the-paper" : "paste");
        REQUIRE(desk_.waitFor([&] { return !desk_.window().page()->working(); }));
        desk_.settle();
    }
    void press(QWidget* widget, QPoint at) {
        QTest::mouseClick(widget, Qt::LeftButton, Qt::NoModifier, at);
        desk_.settle();
        ++acts_;
    }
    int acts() const { return acts_; }

 private:
    Desk& desk_;
    int acts_ = 0;
};

}  // namespace ombrek
