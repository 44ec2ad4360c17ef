#pragma once

#include <QLineEdit>

namespace ombrek {

/// A field that filters what is below it as one types. Its letters are not the page's keys; Enter, Esc and
/// Down go back to those, and what was typed stays.
class FindField : public QLineEdit {
    Q_OBJECT
 public:
    FindField(const QString& name, const QString& example, QWidget* parent = nullptr);

 signals:
    /// Esc, or Down into the list.
    void left();

 protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
};

}  // namespace ombrek
