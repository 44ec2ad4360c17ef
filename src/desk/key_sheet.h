#pragma once

#include <QWidget>

namespace ombrek {

class Rooms;

/// The acts of the page in hand and of the window with their keys, to be clicked; over the page until any key
/// is pressed.
class KeySheet : public QWidget {
 public:
    explicit KeySheet(Rooms& rooms);
    /// Over the whole window, with the acts that there are now.
    void open();

 protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    void leave();
    void fill(class QVBoxLayout* column, const QString& title, const QList<QAction*>& acts);

    Rooms& rooms_;
    QWidget* columns_ = nullptr;
};

}  // namespace ombrek
