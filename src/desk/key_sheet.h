#pragma once

#include <QWidget>

namespace ombrek {

class Window;

/// The keys of the page in hand and of the window, over the page until any key is pressed.
class KeySheet : public QWidget {
 public:
    explicit KeySheet(Window& window);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    void leave();
    Window& window_;
};

}  // namespace ombrek
