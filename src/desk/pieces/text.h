#pragma once

#include <QLabel>

#include "look/colours.h"

namespace ombrek {

/// A label in the bench's type. `tone` is a word of the style sheet: "", "soft", "copper".
inline QLabel* textLabel(int pixels, bool bold = false, const char* tone = "", QWidget* parent = nullptr) {
    auto* label = new QLabel(parent);
    label->setFont(benchFont(pixels, bold));
    label->setTextFormat(Qt::PlainText);
    label->setWordWrap(true);
    if (*tone) label->setProperty("tone", QString::fromLatin1(tone));
    return label;
}

/// Laying text out is dear: a label that says it already is left alone.
inline void say(QLabel* label, const QString& text) {
    if (label->text() != text) label->setText(text);
}

}  // namespace ombrek
