#pragma once

#include <QVBoxLayout>
#include <QWidget>
#include <vector>

namespace ombrek {

class Card;

/// A column of cards. Where there is little room, things give way in this order, and only as far as is
/// needed: lines are set closer; cards without a caution are left out, the last first; of those with one, the
/// caution alone is left; the first thing of the column shrinks, or goes where a caution needs its room. So a
/// line is not cut in half, and a caution never gives way.
class FittedColumn : public QWidget {
 public:
    explicit FittedColumn(int spacing, QWidget* parent = nullptr);
    QVBoxLayout* column() const { return column_; }

    /// A page takes the room it is given, and so does its column: what comes and goes in it has nobody ask
    /// for more.
    bool hasHeightForWidth() const override { return false; }
    QSize minimumSizeHint() const override { return {0, 0}; }
    QSize sizeHint() const override { return {200, 200}; }

 protected:
    bool event(QEvent* event) override;
    bool eventFilter(QObject* on, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void showEvent(QShowEvent* event) override;

 private:
    void fit();
    void giveWay();
    void share();
    int needed() const;
    bool fits();
    std::vector<Card*> cards() const;
    void leaveOut(QWidget* piece, bool out);
    void rest();

    QVBoxLayout* column_;
    bool fitting_ = false;
    std::vector<QWidget*> leftOut_;  ///< of those that are not cards, which remember it themselves
};

}  // namespace ombrek
