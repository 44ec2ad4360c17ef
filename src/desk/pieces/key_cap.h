#pragma once

#include <QAbstractButton>
#include <QAction>
#include <QLayout>
#include <QPointer>

namespace ombrek {

/// An act to be clicked: its key as a cap, and what it does beside it. It does what the QAction does, and is
/// as able as that; the page keeps the focus, so that its keys go on working after a click.
class KeyCap : public QAbstractButton {
    Q_OBJECT
 public:
    /// @param key  as a person reads it, "Enter"
    KeyCap(QAction* act, const QString& key, QWidget* parent = nullptr);
    QAction* act() const { return act_; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return sizeHint(); }

 signals:
    /// Clicked; the act is done next.
    void chosen();

 protected:
    bool event(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void enterEvent(QEnterEvent* event) override;
    void leaveEvent(QEvent* event) override;

 private:
    void follow();
    int capWidth() const;

    QPointer<QAction> act_;
    QString key_;
};

/// Widgets in lines that wrap, as words do.
class FlowLayout : public QLayout {
 public:
    FlowLayout(int across, int down);
    ~FlowLayout() override;
    void addItem(QLayoutItem* item) override { items_.append(item); }
    int count() const override { return int(items_.size()); }
    QLayoutItem* itemAt(int index) const override { return items_.value(index); }
    QLayoutItem* takeAt(int index) override;
    Qt::Orientations expandingDirections() const override { return {}; }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return arrange({0, 0, width, 0}, false); }
    /// No more lines than these, 0: as many as there are; what finds no room is left out, the last thing
    /// never.
    void setMostLines(int lines) {
        if (lines == most_) return;
        most_ = lines;
        invalidate();
    }
    QSize sizeHint() const override { return minimumSize(); }
    QSize minimumSize() const override;
    void setGeometry(const QRect& rect) override;

 private:
    int arrange(const QRect& rect, bool place) const;

    QList<QLayoutItem*> items_;
    int across_, down_, most_ = 0;
};

}  // namespace ombrek
