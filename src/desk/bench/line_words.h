#pragma once

#include <QWidget>
#include <optional>

namespace ombrek {

/// A line's words in boxes, to be clicked: one is the number, one its unit.
class LineWords : public QWidget {
    Q_OBJECT
 public:
    explicit LineWords(QWidget* parent = nullptr);
    /// @param at  the word in hand; −1: none
    void show(const QStringList& words, int at, int number, std::optional<int> unit);
    QSize sizeHint() const override { return {400, 84}; }
    QSize minimumSizeHint() const override { return {200, 84}; }

 signals:
    /// A word of the line was clicked, counted from 0.
    void clicked(int word);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    std::vector<QRect> boxes() const;
    QStringList words_;
    int at_ = -1, number_ = -1;
    std::optional<int> unit_;
};

}  // namespace ombrek
