#include "desk/pieces/state_list.h"

#include <QContextMenuEvent>
#include <QPainter>
#include <QScrollBar>
#include <QStyledItemDelegate>
#include <algorithm>

#include "look/verdict_mark.h"

namespace ombrek {
namespace {

class StateDelegate : public QStyledItemDelegate {
 public:
    using QStyledItemDelegate::QStyledItemDelegate;

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override {
        return {200, withText(30)};
    }

    void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const StateLine line = static_cast<const StateListModel*>(index.model())->line(index.row());
        const Colours& c = coloursOf(*option.widget);
        const QRectF r = option.rect;
        p->save();
        p->setRenderHint(QPainter::Antialiasing);
        if (line.current) {
            p->setPen(Qt::NoPen);
            p->setBrush(c.copper);
            p->drawEllipse(QPointF(r.left() + 10, r.center().y()), 7, 7);
        } else if (!line.plain) {
            drawVerdictMark(*p, QRectF(r.left() + 3, r.center().y() - 7, 14, 14), line.state, c);
        }
        if (line.barred) {
            p->setPen(QPen(c.copper, 2.5));
            p->drawLine(QPointF(r.left() + 23, r.top() + 7), QPointF(r.left() + 23, r.bottom() - 7));
        }
        p->setFont(benchFont(14));
        p->setPen(c.soft);
        const QFontMetrics metrics(p->font());
        const QString right = metrics.elidedText(line.right, Qt::ElideRight, int(r.width() / 2));
        const int rightWidth = metrics.horizontalAdvance(right);
        p->drawText(r.adjusted(0, 0, -6, 0), Qt::AlignRight | Qt::AlignVCenter, right);
        p->setFont(benchFont(15, line.current));
        p->setPen(c.ink);
        const QRectF room = r.adjusted(30, 0, -rightWidth - 14.0, 0);
        p->drawText(room, Qt::AlignLeft | Qt::AlignVCenter,
                    QFontMetrics(p->font()).elidedText(line.text, Qt::ElideRight, int(room.width())));
        p->restore();
    }
};

}  // namespace

void StateListModel::setLines(int count, std::function<StateLine(int)> line) {
    beginResetModel();
    count_ = count;
    line_ = std::move(line);
    endResetModel();
}

int StateListModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : count_; }

QVariant StateListModel::data(const QModelIndex& index, int role) const {
    const StateLine l = line(index.row());
    if (role == Qt::DisplayRole) return l.text;
    if (role == Qt::AccessibleTextRole)
        return l.plain ? QStringLiteral("%1, %2").arg(l.text, l.right)
                       : QStringLiteral("%1, %2, %3").arg(l.text, wordOf(l.state), l.right);
    if (role == Qt::ToolTipRole) return l.right.isEmpty() ? l.text : l.text + QStringLiteral("\n") + l.right;
    return {};
}

StateList::StateList(QWidget* parent) : QListView(parent), model_(new StateListModel(this)) {
    setModel(model_);
    setItemDelegate(new StateDelegate(this));
    setUniformItemSizes(true);
    setSelectionMode(QAbstractItemView::NoSelection);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFocusPolicy(Qt::NoFocus);
    connect(this, &QListView::clicked, this, [this](const QModelIndex& index) { emit picked(index.row()); });
}

void StateList::setLines(std::vector<StateLine> lines) {
    const auto current =
        std::find_if(lines.begin(), lines.end(), [](const StateLine& l) { return l.current; });
    const int row = current == lines.end() ? -1 : int(current - lines.begin());
    if (!lines.empty() && lines == shown_) {
        if (row >= 0) scrollTo(model_->index(row), QAbstractItemView::PositionAtCenter);
        return;
    }
    const int count = int(lines.size());
    setLines(
        count, [lines](int i) { return lines[std::size_t(i)]; }, row);
    shown_ = std::move(lines);
}

void StateList::setLines(int count, std::function<StateLine(int)> line, int current) {
    shown_.clear();
    const int kept = verticalScrollBar()->value();
    if (count != model_->rowCount()) updateGeometry();
    model_->setLines(count, std::move(line));
    current_ = current;
    endWithWholeRow();
    if (current >= 0) {
        scrollTo(model_->index(current), QAbstractItemView::PositionAtCenter);
    } else {
        verticalScrollBar()->setValue(kept);
    }
}

/// The last row that is seen is whole.
void StateList::endWithWholeRow() {
    const int row = sizeHintForRow(0), room = height() - 2 * frameWidth();
    const int rest = row > 0 && room > row && room < row * model_->rowCount() ? room % row : 0;
    if (viewportMargins().bottom() != rest) setViewportMargins(0, 0, 0, rest);
}

std::optional<StateLine> StateList::inHand() const {
    if (current_ < 0 || current_ >= model_->rowCount()) return std::nullopt;
    return model_->line(current_);
}

/// The row under the mouse is in hand first; the page then shows what can be done with it.
void StateList::contextMenuEvent(QContextMenuEvent* event) {
    const QModelIndex index = indexAt(viewport()->mapFromGlobal(event->globalPos()));
    if (index.isValid()) emit picked(index.row());
    event->ignore();
}

/// The line in hand stays in sight when the list is given other room.
void StateList::resizeEvent(QResizeEvent* event) {
    QListView::resizeEvent(event);
    endWithWholeRow();
    if (current_ >= 0) scrollTo(model_->index(current_), QAbstractItemView::PositionAtCenter);
}

}  // namespace ombrek
