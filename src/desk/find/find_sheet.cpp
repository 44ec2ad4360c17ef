#include "desk/find/find_sheet.h"

#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

#include "desk/board/board_map.h"
#include "desk/help/guide.h"
#include "desk/pages.h"
#include "desk/pieces/card.h"
#include "desk/pieces/find_field.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "desk/page.h"
#include "desk/rooms.h"
#include "desk/settings/settings_rows.h"

namespace ombrek {

FindSheet::FindSheet(Rooms& rooms, Session& session)
    : QWidget(rooms.centralWidget()),
      rooms_(rooms),
      session_(session),
      field_(new FindField(QStringLiteral("Find"), QStringLiteral("C5, 100n, relay, print …"))),
      count_(textLabel(14, false, "soft")),
      list_(new StateList),
      map_(new BoardMap),
      board_(new Card) {
    setObjectName(QStringLiteral("find"));
    setAccessibleName(QStringLiteral("Find"));
    auto* all = new QVBoxLayout(this);
    all->setContentsMargins(60, 34, 40, 22);
    all->setSpacing(10);
    auto* head = textLabel(24, true);
    head->setText(QStringLiteral("Find anything"));
    all->addWidget(head);
    all->addWidget(field_);
    all->addWidget(count_);
    auto* row = new QHBoxLayout;
    row->setSpacing(24);
    auto* found = new Card;
    found->addBody(list_, 1);
    found->fillWithBody();
    row->addWidget(found, 3);
    board_->setTitle(QStringLiteral("Where it sits"));
    board_->addBody(map_, 1);
    board_->fillWithBody();
    row->addWidget(board_, 2);
    all->addLayout(row, 1);
    auto* keys = textLabel(14, false, "soft");
    keys->setText(QStringLiteral("Enter goes there or does it · Up and Down choose · Esc leaves"));
    all->addWidget(keys);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, [this] { narrow(); });
    connect(list_, &StateList::picked, this, [this](int at) {
        choose(at);
        go();
    });
    hide();
}

void FindSheet::open() {
    gather();
    setGeometry(rooms_.centralWidget()->rect());
    show();
    raise();
    field_->setFocus();
    field_->selectAll();
    narrow();
}

void FindSheet::gather() {
    all_.clear();
    if (session_.hasBuild()) all_ = findablesOf(session_.kit());
    const auto add = [&](const QString& kind, const QAction& act, const QString& page) {
        all_.push_back({kind,
                        act.text(),
                        act::tip(act),
                        act.property(act::kKey).toString(),
                        page,
                        {},
                        act.objectName(),
                        {}});
    };
    for (const SettingRow& row : settingRows())
        all_.push_back({QStringLiteral("setting"),
                        qs(std::string_view(row.name)),
                        qs(std::string_view(row.says)),
                        QStringLiteral("settings preferences"),
                        QStringLiteral("settings"),
                        qs(std::string_view(row.key)),
                        {},
                        {}});
    for (const QAction* act : rooms_.actions()) add(QStringLiteral("act"), *act, QString());
    for (const PageRow& row : pageRows()) {
        const QString id = QString::fromUtf8(row.id);
        const Page* page = rooms_.pageOf(id);
        all_.push_back({QStringLiteral("page"), page->name(), QString(), id, id, {}, {}, {}});
        for (const QAction* act : page->actions()) add(QStringLiteral("on %1").arg(page->name()), *act, id);
    }
    for (const GuideEntry& entry : guideEntries())
        all_.push_back({entry.word ? QStringLiteral("word") : QStringLiteral("guide"),
                        entry.title,
                        entry.says,
                        QString(),
                        QStringLiteral("guide"),
                        entry.about,
                        {},
                        {}});
}

void FindSheet::narrow() {
    rows_ = narrowed(all_, field_->text());
    count_->setText(rows_.empty() ? QStringLiteral("Nothing is called that; fewer letters find more.")
                                  : QStringLiteral("%1 of %2").arg(rows_.size()).arg(all_.size()));
    choose(0);
}

void FindSheet::choose(int row) {
    at_ = rows_.empty() ? 0 : std::clamp(row, 0, int(rows_.size()) - 1);
    list_->setLines(
        int(rows_.size()),
        [this](int i) {
            const Findable& f = all_[rows_[std::size_t(i)]];
            return StateLine{VerdictState::notDone,
                             f.detail.isEmpty() ? f.title : f.title + QStringLiteral(" · ") + f.detail,
                             f.kind,
                             i == at_,
                             false,
                             true};
        },
        rows_.empty() ? -1 : at_);
    BoardDrawing drawing;
    drawing.board = session_.kit().board;
    std::vector<const Part*> ringed;
    const Findable* chosen = rows_.empty() ? nullptr : &all_[rows_[std::size_t(at_)]];
    for (const Part& part : session_.kit().parts) {
        const bool hit = chosen != nullptr &&
                         std::find(chosen->refs.begin(), chosen->refs.end(), part.ref) != chosen->refs.end();
        if (hit) ringed.push_back(&part);
        if (part.place)
            drawing.pieces.push_back(
                {&part, hit ? BoardPiece::Fitting::now : BoardPiece::Fitting::waits, false, false});
    }
    board_->setVisible(!ringed.empty());
    map_->show(std::move(drawing), ringed);
}

void FindSheet::go() {
    if (rows_.empty()) return;
    const Findable f = all_[rows_[std::size_t(at_)]];
    leave();
    if (f.act.isEmpty()) return rooms_.open(f.page, f.about);
    if (!f.page.isEmpty() && rooms_.page()->objectName() != f.page) {
        // An act of another page is shown there, not done from afar.
        rooms_.openFrom(f.page);
        if (const QAction* act = rooms_.page()->act(f.act))
            session_.say(QStringLiteral("%1 does it here: %2.")
                             .arg(act->property(act::kKey).toString(), act->iconText()));
        return;
    }
    QAction* act = f.page.isEmpty() ? rooms_.act(f.act) : rooms_.page()->act(f.act);
    if (act == nullptr) return;
    if (!act->isEnabled()) return session_.say(act->property(act::kWhyNot).toString());
    act->trigger();
}

void FindSheet::leave() {
    hide();
    rooms_.page()->takeFocus();
}

bool FindSheet::eventFilter(QObject*, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return false;
    switch (static_cast<QKeyEvent*>(event)->key()) {
        case Qt::Key_Escape:
            leave();
            return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            go();
            return true;
        case Qt::Key_Down:
        case Qt::Key_Up:
            choose(at_ + (static_cast<QKeyEvent*>(event)->key() == Qt::Key_Down ? 1 : -1));
            return true;
        case Qt::Key_PageDown:
        case Qt::Key_PageUp:
            choose(at_ + (static_cast<QKeyEvent*>(event)->key() == Qt::Key_PageDown ? 10 : -10));
            return true;
        default:
            return false;
    }
}

void FindSheet::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.fillRect(rect(), coloursOf(*this).paper);
}

}  // namespace ombrek
