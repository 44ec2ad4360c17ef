#pragma once

#include <QWidget>

namespace ombrek {

class Window;

/// The acts of the page in hand and of the window with their keys, to be clicked; over the page until any key
/// is pressed.
class KeySheet : public QWidget {
 public:
    explicit KeySheet(Window& window);
    /// Over the whole window, with the acts that there are now.
    void open();

 protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    void leave();
    void fill(class QVBoxLayout* column, const QString& title, const QList<QAction*>& acts);

    Window& window_;
    QWidget* columns_ = nullptr;
};

}  // namespace ombrek
