#include "desk/menus.h"

#include <QApplication>
#include <QFileInfo>
#include <QKeyEvent>
#include <QMenu>

#include "desk/pages.h"
#include "desk/person.h"
#include "desk/page.h"
#include "desk/rooms.h"

namespace ombrek {
namespace {

constexpr const char* kShown = "menu bar";

/// What stands in each menu, by the id of the act; "" is a line. Pages are named by their own ids.
struct MenuRow {
    const char* title;
    QList<const char*> acts;
};
const MenuRow kMenus[] = {
    {"&Book", {"open-book", "another", "", "save-a-copy", "", "print", "", "settings", "quit"}},
    {"&Edit", {"undo", "redo", "", "copy", "paste", "", "find", "sums"}},
    {"&Go",
     {"parts-in", "winding", "board", "first-light", "tune", "proof", "sign-off", "", "drawers", "meters",
      "history", "log", "kit"}},
    {"&Page", {}},
    {"&Instruments", {"bench", "instruments", "", "practice-bench", "take-arrived"}},
    {"&View", {"big", "night", "", "text-larger", "text-smaller", "text-usual", "", "menu-bar"}},
    {"&Help", {"guide", "first-evening", "words", "keys", "", "about"}}};

}  // namespace

Menus::Menus(Rooms& rooms) : QObject(&rooms), rooms_(rooms), bar_(rooms.menuBar()) {
    bar_->setNativeMenuBar(false);
    for (const MenuRow& row : kMenus) {
        QMenu* menu = add(QString::fromUtf8(row.title), row.acts);
        if (row.acts.isEmpty()) page_ = menu;
        if (menu->title() == QStringLiteral("&Book")) {
            recent(menu, QStringLiteral("Recent books"), QStringLiteral("recent/books"),
                   [this](const QString& file) { emit wantsBook(file); });
            recent(menu, QStringLiteral("Recent kits"), QStringLiteral("recent/kits"),
                   [this](const QString& file) { emit wantsKit(file); });
        }
    }
    shown_ = person::get(QString::fromUtf8(kShown)) != QStringLiteral("hidden");
    bar_->setVisible(shown_);
    qApp->installEventFilter(this);
}

QMenu* Menus::add(const QString& title, const QList<const char*>& acts) {
    QMenu* menu = bar_->addMenu(title);
    menu->setToolTipsVisible(true);
    for (const char* id : acts) {
        if (*id == '\0') {
            menu->addSeparator();
        } else if (QAction* act = rooms_.act(QString::fromUtf8(id))) {
            menu->addAction(act);
        }
    }
    return menu;
}

QMenu* Menus::recent(QMenu* menu, const QString& title, const QString& key,
                     std::function<void(const QString&)> open) {
    auto* out = new QMenu(title, menu);
    menu->insertMenu(rooms_.act(QStringLiteral("save-a-copy")), out);
    const auto fill = [out, key, open] {
        out->clear();
        for (const QString& file : person::recent(key)) {
            QAction* entry =
                out->addAction(QFileInfo(file).fileName().replace(QChar('&'), QStringLiteral("&&")));
            entry->setToolTip(file);
            connect(entry, &QAction::triggered, out, [open, file] { open(file); });
        }
        out->menuAction()->setEnabled(!out->isEmpty());
    };
    out->setToolTipsVisible(true);
    connect(menu, &QMenu::aboutToShow, out, fill);
    fill();
    return out;
}

QMenu* Menus::menu(const QString& title) const {
    for (QAction* action : bar_->actions()) {
        if (action->text().remove(QChar('&')) == title) return action->menu();
    }
    return nullptr;
}

void Menus::followPage() {
    page_->clear();
    delete more_;
    more_ = new QMenu(QStringLiteral("More"), page_);
    more_->setToolTipsVisible(true);
    for (QAction* act : rooms_.page()->actions())
        (act->property(act::kCommon).toBool() ? page_ : more_.data())->addAction(act);
    page_->addSeparator();
    page_->addMenu(more_);
    more_->menuAction()->setEnabled(!more_->isEmpty());
}

void Menus::setShown(bool shown) {
    shown_ = shown;
    bar_->setVisible(shown);
    person::set(QString::fromUtf8(kShown), shown ? QStringLiteral("shown") : QStringLiteral("hidden"));
}

void Menus::show() {
    bar_->show();
    bar_->setFocus(Qt::MenuBarFocusReason);
    bar_->setActiveAction(bar_->actions().value(0));
}

/// Alt pressed and let go alone shows a hidden bar; it goes when the focus is elsewhere again.
bool Menus::eventFilter(QObject* watched, QEvent* event) {
    if (shown_) return false;
    if (event->type() == QEvent::KeyPress) {
        const auto& key = static_cast<QKeyEvent&>(*event);
        altAlone_ = key.key() == Qt::Key_Alt && !key.isAutoRepeat();
        if (altAlone_) bar_->show();  // so that Alt with a letter opens its menu
    } else if (event->type() == QEvent::KeyRelease && static_cast<QKeyEvent&>(*event).key() == Qt::Key_Alt) {
        if (altAlone_ && rooms_.isActiveWindow()) {
            show();
        } else if (QApplication::activePopupWidget() == nullptr) {
            bar_->hide();
        }
        altAlone_ = false;
    } else if (event->type() == QEvent::FocusIn && watched != bar_ &&
               qobject_cast<QMenu*>(watched) == nullptr && watched->isWidgetType() &&
               QApplication::activePopupWidget() == nullptr) {
        bar_->hide();
    }
    return false;
}

}  // namespace ombrek
