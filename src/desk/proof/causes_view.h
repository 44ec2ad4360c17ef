#pragma once

#include <QWidget>
#include <vector>

namespace ombrek {

struct Colours;

/// Causes, the likeliest first, each with a bar as long as its odds and the readings that speak for it and
/// against it.
class CausesView : public QWidget {
    Q_OBJECT
 public:
    struct Row {
        QString name, odds;  ///< "One of the finals does not work", "78 %"
        double share = 0;    ///< 0 … 1
        QString words;       ///< "Speaks for it: …"
    };
    explicit CausesView(QWidget* parent = nullptr);
    /// The causes with their odds. @param inHand  −1: none
    void show(std::vector<Row> rows, int inHand);
    QSize sizeHint() const override;
    /// Two of them at least; so many are drawn as there is room for.
    QSize minimumSizeHint() const override;

 signals:
    /// A row was clicked.
    void picked(int row);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    std::vector<int> tops() const;
    void paintRow(QPainter& painter, const Row& row, int i, int top, const Colours& colours) const;

    std::vector<Row> rows_;
    int inHand_ = 0;
};

}  // namespace ombrek
