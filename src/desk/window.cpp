#include "desk/window.h"

#include <QApplication>
#include <QStyle>
#include <QVBoxLayout>

#include "desk/key_sheet.h"
#include "desk/pages.h"
#include "desk/stations.h"
#include "look/colours.h"
#include "station/sitting.h"

namespace ombrek {

Window::Window(Session& session, QWidget* parent)
    : QMainWindow(parent),
      session_(session),
      wire_(new WireRail),
      pages_(new QStackedWidget),
      sums_(new SumsLine(session.tables().cores)),
      strip_(new InstrumentStrip(session)) {
    for (const PageRow& row : pageRows()) addPage(row, row.make(session));

    auto* middle = new QWidget;
    auto* column = new QVBoxLayout(middle);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(pages_, 1);
    column->addWidget(sums_);
    auto* all = new QWidget;
    auto* row = new QHBoxLayout(all);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(wire_);
    row->addWidget(middle, 1);
    row->addWidget(strip_);  // beside the page, which makes room
    setCentralWidget(all);
    strip_->hide();
    setWindowTitle(QStringLiteral("Ombrek"));
    resize(1280, 800);
    setMinimumSize(960, 540);  // half of a common screen, for those who set it twice as large
    keySheet_ = new KeySheet(*this);

    connect(wire_, &WireRail::chosen, this, &Window::goTo);
    connect(&session_, &Session::changed, this, &Window::refresh);
    connect(&session_, &Session::said, this, &Window::speak);
    connect(sums_, &SumsLine::left, this, [this] { page()->takeFocus(); });
    connect(sums_, &SumsLine::used, this, [this](const QString& value) {
        if (!page()->offer(value))
            page()->showLine(QStringLiteral("This page wants no value now: %1").arg(value),
                             VerdictState::notDone);
    });
    clock_.setInterval(60000);
    connect(&clock_, &QTimer::timeout, this, &Window::refresh);
    clock_.start();
    guard_.setInterval(1000);
    connect(&guard_, &QTimer::timeout, &session_, &Session::lookForBook);
    guard_.start();
    addActs();
    refresh();
    if (session_.book().readOnly())
        session_.say(qs(session_.book().readOnlyReason()), VerdictState::doubtful);
}

void Window::addPage(const PageRow& row, Page* page) {
    const QString id = QString::fromUtf8(row.id);
    page->setObjectName(id);
    byId_[id] = page;
    if (row.where == PageRow::Where::station) stations_.push_back(page);
    if (row.where == PageRow::Where::start) start_ = page;
    pages_->addWidget(page);
    connect(page, &Page::wants, this, &Window::open);
    connect(page, &Page::left, this, &Window::leave);
    if (*row.opener != '\0')
        addAct(row.id, row.opener, {QKeySequence(QString::fromUtf8(row.opener))},
               QStringLiteral("go to %1").arg(page->name()), [this, id] { open(id); });
}

void Window::open(const QString& id, const QString& about) {
    Page* page = byId_.at(id);
    const auto station = std::find(stations_.begin(), stations_.end(), page);
    if (station != stations_.end()) {
        goTo(int(station - stations_.begin()));
        if (about.isEmpty()) return;
    } else {
        beside_ = page;
        refresh();
        page->takeFocus();
    }
    try {
        page->begin(about);
    } catch (const std::exception& error) {
        pageFailed(*page, error.what());
    }
}

void Window::leave() {
    if (choosing_) return setChoosing(false);
    if (beside_ == nullptr) return;
    beside_ = nullptr;
    refresh();
    page()->takeFocus();
}

void Window::addAct(const char* id, const char* shown, const QList<QKeySequence>& keys, const QString& does,
                    std::function<void()> act) {
    auto* action = new QAction(does, this);
    action->setObjectName(QString::fromUtf8(id));
    action->setProperty(Page::kKey, QString::fromUtf8(shown));
    action->setShortcuts(keys);
    action->setAutoRepeat(false);
    connect(action, &QAction::triggered, this, std::move(act));
    addAction(action);
}

void Window::addActs() {
    const auto add = [this](const char* id, const char* shown, const QList<QKeySequence>& keys,
                            const char* does, std::function<void()> act) {
        addAct(id, shown, keys, QString::fromUtf8(does), std::move(act));
    };
    add("sums", "Ctrl+K", {Qt::CTRL | Qt::Key_K}, "sums; Enter puts the answer on the page",
        [this] { sums_->begin(); });
    add("undo", "Z", {Qt::Key_Z, QKeySequence(QKeySequence::Undo)}, "take the last action back",
        [this] { undo(true); });
    add("redo", "Shift+Z", {Qt::SHIFT | Qt::Key_Z, Qt::CTRL | Qt::SHIFT | Qt::Key_Z, Qt::CTRL | Qt::Key_Y},
        "do it again", [this] { undo(false); });
    add("instruments", "B", {Qt::Key_B}, "instruments out or in", [this] {
        strip_->setVisible(!strip_->isVisible());
        if (strip_->isVisible()) strip_->look();
        page()->takeFocus();
    });
    add("practice-bench", "Ctrl+P", {Qt::CTRL | Qt::Key_P}, "start the practice bench", [this] {
        strip_->show();
        strip_->startPracticeBench();
    });
    add("another", "Ctrl+N", {Qt::CTRL | Qt::Key_N, Qt::CTRL | Qt::Key_O}, "another kit or build",
        [this] { setChoosing(true); });
    add("big", "F11", {Qt::Key_F11}, "only the big thing, doubled", [this] { toggleBig(); });
    add("night", "Ctrl+D", {Qt::CTRL | Qt::Key_D}, "day bench or night bench",
        [this] { setNight(coloursOf(*this).paper == dayBench().paper); });
    add("keys", "?", {QKeySequence(QStringLiteral("?"))}, "every key", [this] { showKeys(); });
    auto* keys = findChild<QAction*>(QStringLiteral("keys"), Qt::FindDirectChildrenOnly);
    keys->setProperty(Page::kCommon, true);
    for (const auto& [id, page] : byId_) page->addCap(keys);
    add("quit", "Ctrl+Q", {Qt::CTRL | Qt::Key_Q}, "close the book and leave", [this] { close(); });
}

void Window::setChoosing(bool choosing) {
    choosing_ = choosing;
    beside_ = nullptr;
    refresh();
}

Page* Window::page() const {
    if (beside_ != nullptr) return beside_;
    return session_.hasBuild() && !choosing_ ? stations_[std::size_t(station_)] : start_;
}

void Window::goTo(int station) {
    choosing_ = false;
    beside_ = nullptr;
    station_ = std::clamp(station, 0, int(stations_.size()) - 1);
    wire_->setCurrent(station_);
    refresh();
}

void Window::refresh() {
    showPage(page());
    if (!session_.hasBuild()) {
        wire_->show(QString(),
                    session_.kitTrouble().isEmpty() ? QStringLiteral("An empty book")
                                                    : QStringLiteral("A kit that cannot be read"),
                    QString(), {});
        sums_->setSitting(QString(), QString());
        return;
    }
    const Kit& kit = session_.kit();
    const Build& build = session_.build();
    const std::size_t evenings = eveningsOf(kit, build).size();
    const QString sittings =
        evenings <= 1 ? QStringLiteral("first sitting") : QStringLiteral("sitting %1").arg(evenings);
    wire_->show(qs(kit.name), qs(kit.summary), sittings, stationLines(session_.judged()));
    const SittingLine sitting = sittingLine(session_.judged(), wallClock());
    sums_->setSitting(sitting.today, sitting.left);
    setWindowTitle(QStringLiteral("%1 – Ombrek").arg(qs(kit.name)));
}

void Window::showPage(Page* shown) {
    if (pages_->currentWidget() != shown) {
        // What was said on the page that is left is not waited for there any more.
        if (auto* before = qobject_cast<Page*>(pages_->currentWidget());
            before != nullptr && !before->working())
            before->showLine(QString(), VerdictState::notDone);
        pages_->setCurrentWidget(shown);
        shown->setBigOnly(bigOnly_);
    }
    try {
        shown->refresh();
    } catch (const std::exception& error) {
        pageFailed(*shown, error.what());
    }
}

void Window::pageFailed(const Page& page, const char* why) {
    speak(QStringLiteral("%1 could not be shown (%2). The book is as it was; Z takes the last action back.")
              .arg(page.name(), QString::fromUtf8(why)),
          VerdictState::fail);
}

void Window::speak(const QString& line, VerdictState state) {
    Page* here = page();
    if (spoken_ != nullptr && spoken_ != here && !spoken_->working())
        spoken_->showLine(QString(), VerdictState::notDone);
    spoken_ = here;
    here->showLine(line, state);
}

void Window::toggleBig() {
    bigOnly_ = !bigOnly_;
    wire_->setVisible(!bigOnly_);
    sums_->setVisible(!bigOnly_);
    page()->setBigOnly(bigOnly_);
    page()->takeFocus();
}

void Window::showKeys() { keySheet_->open(); }

void Window::undo(bool back) {
    const auto name = back ? session_.book().undo() : session_.book().redo();
    if (!name) {
        session_.say(qs(name.error().sentence), VerdictState::notDone);
    } else {
        session_.say((back ? QStringLiteral("Taken back: %1. Shift+Z does it again.")
                           : QStringLiteral("Done again: %1."))
                         .arg(qs(*name)));
    }
}

void Window::setNight(bool night) {
    const Colours& colours = night ? nightBench() : dayBench();
    QApplication::setPalette(paletteOf(colours));
    qApp->setStyleSheet(styleSheetOf(colours));
}

}  // namespace ombrek
