#include "desk/pieces/find_field.h"

#include <QKeyEvent>

#include "look/colours.h"

namespace ombrek {

FindField::FindField(const QString& name, const QString& example, QWidget* parent) : QLineEdit(parent) {
    setFont(benchFont(22));
    setPlaceholderText(example);
    setAccessibleName(name);
}

bool FindField::event(QEvent* event) {
    if (event->type() == QEvent::ShortcutOverride) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool own = !key->text().isEmpty() || key->key() == Qt::Key_Down;
        if (own && !(key->modifiers() & (Qt::ControlModifier | Qt::AltModifier))) {
            event->accept();
            return true;
        }
    }
    return QLineEdit::event(event);
}

void FindField::keyPressEvent(QKeyEvent* event) {
    const int key = event->key();
    if (key == Qt::Key_Escape || key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_Down) {
        emit left();
    } else {
        QLineEdit::keyPressEvent(event);
    }
}

}  // namespace ombrek
