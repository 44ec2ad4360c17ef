#pragma once

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

#include "desk/pieces/text.h"
#include "look/verdict_mark.h"

namespace ombrek {

/// A verdict's mark, what it is about in bold, and the sentence under it.
class TroubleLine : public QWidget {
 public:
    TroubleLine(VerdictState state, const QString& head, const QString& sentence) : state_(state) {
        auto* layout = new QVBoxLayout(this);
        layout->setContentsMargins(28, 0, 0, 0);
        layout->setSpacing(1);
        auto* top = textLabel(15, true);
        top->setText(head);
        auto* below = textLabel(13, false, "soft");
        below->setText(sentence);
        layout->addWidget(top);
        layout->addWidget(below);
        setAccessibleName(wordOf(state) + QStringLiteral(": ") + head + QStringLiteral(". ") + sentence);
    }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        drawVerdictMark(p, QRectF(1, 3, 16, 16), state_, coloursOf(*this));
    }

 private:
    VerdictState state_;
};

}  // namespace ombrek
