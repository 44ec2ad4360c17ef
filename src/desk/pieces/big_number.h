#pragma once

#include <QWidget>

namespace ombrek {

/// The one big reading of a page: number and unit in two sizes. Shrinks to fit its width.
class BigNumber : public QWidget {
 public:
    explicit BigNumber(int pixels = 96, QWidget* parent = nullptr);
    /// As large as the room allows.
    void show(const QString& number, const QString& unit);
    /// A word in place of a number (what to look for, or that nothing is read yet), quieter.
    void showWord(const QString& word);
    void setPixels(int pixels);
    QSize sizeHint() const override { return {320, pixels_ + 12}; }
    QSize minimumSizeHint() const override { return {120, pixels_ + 12}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    int pixels_;
    QString number_, unit_;
    bool quiet_ = false;
};

}  // namespace ombrek
