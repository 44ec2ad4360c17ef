#pragma once

#include <QStringList>
#include <QWidget>

namespace ombrek {

/// Colour bands entered by key, by name or by picking: every swatch carries its digit and its colour's name,
/// so that nobody needs to see the colour to enter it.
///
/// Keys: 0 to 9 are black to white, G gold, S silver, P pink; arrows choose a swatch and Space takes it;
/// Backspace takes the last band off; Enter uses the bands, Esc leaves.
class BandPicker : public QWidget {
    Q_OBJECT
 public:
    explicit BandPicker(QWidget* parent = nullptr);
    /// With no band yet.
    void begin();
    const QStringList& bands() const { return bands_; }

 signals:
    /// The colours so far.
    void changed(const QStringList& bands);
    /// Enter: these are the bands.
    void used(const QStringList& bands);
    /// Esc.
    void left();

 protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    QRectF swatch(int colour) const;
    void add(int colour);
    void tell();

    QStringList bands_;
    int at_ = 1;
};

}  // namespace ombrek
