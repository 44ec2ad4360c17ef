#pragma once

#include <QVBoxLayout>
#include <QWidget>

namespace ombrek {

/// A column of cards. What finds no room is set closer, then the last cards are left out, so that
/// no line is ever cut in half.
class FittedColumn : public QWidget {
 public:
    explicit FittedColumn(int spacing, QWidget* parent = nullptr);
    QVBoxLayout* column() const { return column_; }

 protected:
    bool event(QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

 private:
    void fit();
    void share();
    int needed() const;
    int heightOf(const QWidget& card) const;
    void setClose(bool on);
    int closeSaves() const;

    QVBoxLayout* column_;
    bool close_ = false, fitting_ = false;
    std::vector<QWidget*> leftOut_;
};

}  // namespace ombrek
