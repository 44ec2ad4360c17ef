#pragma once

#include <QAbstractListModel>
#include <QListView>
#include <functional>
#include <optional>
#include <vector>

#include "desk/pieces/lines.h"

namespace ombrek {

class StateListModel : public QAbstractListModel {
    Q_OBJECT
 public:
    using QAbstractListModel::QAbstractListModel;
    /// `line` is asked for what is to be seen, so that a list may be very long.
    void setLines(int count, std::function<StateLine(int)> line);
    StateLine line(int row) const { return line_(row); }
    int rowCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;

 private:
    int count_ = 0;
    std::function<StateLine(int)> line_;
};

/// A quiet list with verdict marks; follows the line in hand. Takes no part in the tab order: the page's keys
/// move it.
class StateList : public QListView {
    Q_OBJECT
 public:
    explicit StateList(QWidget* parent = nullptr);
    /// All lines anew; what is the same is not drawn again.
    void setLines(std::vector<StateLine> lines);
    /// A long list, made as it is looked at. @param current  row in hand; −1: none
    void setLines(int count, std::function<StateLine(int)> line, int current);

    /// Three lines at least; what stands about it gives it more.
    QSize sizeHint() const override { return {200, 92}; }
    QSize minimumSizeHint() const override { return {100, 62}; }

    /// Height of all its rows [px].
    int wholeHeight() const { return model_->rowCount() * sizeHintForRow(0) + 2 * frameWidth(); }
    /// The line in hand; nothing when there is none.
    std::optional<StateLine> inHand() const;

 signals:
    /// A row was clicked.
    void picked(int row);

 protected:
    void resizeEvent(QResizeEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;

 private:
    void endWithWholeRow();

    StateListModel* model_;
    int current_ = -1;              ///< row in hand
    std::vector<StateLine> shown_;  ///< when they were given whole
};

}  // namespace ombrek
