#include "desk/window.h"

#include <QApplication>
#include <QShortcut>
#include <QStyle>
#include <QVBoxLayout>

#include "desk/board/board_page.h"
#include "desk/board/inspection_page.h"
#include "desk/board/photos_page.h"
#include "desk/board/sitting_page.h"
#include "desk/drawers/drawers_page.h"
#include "desk/first_light/first_light_page.h"
#include "desk/key_sheet.h"
#include "desk/list/delivery_page.h"
#include "desk/list/list_page.h"
#include "desk/meters/meters_page.h"
#include "desk/parts_in/parts_in_page.h"
#include "desk/proof/proof_page.h"
#include "desk/remedy/remedy_page.h"
#include "desk/sign_off/sign_off_page.h"
#include "desk/start/start_page.h"
#include "desk/tune/tune_page.h"
#include "desk/which_part/which_part_page.h"
#include "desk/winding/cores_page.h"
#include "desk/winding/figures_page.h"
#include "desk/winding/picture_page.h"
#include "desk/winding/trimmer_page.h"
#include "desk/winding/winding_page.h"
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
    stationPages_ = {new PartsInPage(session),    new WindingPage(session), new BoardPage(session),
                     new FirstLightPage(session), new TunePage(session),    new ProofPage(session),
                     new SignOffPage(session)};
    auto* start = new StartPage(session);
    start_ = start;
    connect(start, &StartPage::begun, this, [this] { setChoosing(false); });
    connect(static_cast<SignOffPage*>(stationPages_.back()), &SignOffPage::wantsStation, this,
            [this](const QString& name) {
                for (int i = 0; i < kStations; ++i) {
                    if (stationPages_[std::size_t(i)]->name() == name) goTo(i);
                }
            });
    rooms_ = {{Room::drawers, new DrawersPage(session)},     {Room::meters, new MetersPage(session)},
              {Room::whichPart, new WhichPartPage(session)}, {Room::remedy, new RemedyPage(session)},
              {Room::list, new ListPage(session)},           {Room::delivery, new DeliveryPage(session)},
              {Room::trimmer, new TrimmerPage(session)},     {Room::picture, new PicturePage(session)},
              {Room::cores, new CoresPage(session)},         {Room::figures, new FiguresPage(session)},
              {Room::sitting, new SittingPage(session)},     {Room::inspection, new InspectionPage(session)},
              {Room::photos, new PhotosPage(session)}};
    for (Page* page : stationPages_) addPage(page);
    addPage(start_);
    for (const auto& [room, page] : rooms_) addPage(page);

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
    addKeys();
    refresh();
    if (session_.book().readOnly())
        session_.say(qs(session_.book().readOnlyReason()), VerdictState::doubtful);
}

void Window::addPage(Page* page) {
    pages_->addWidget(page);
    connect(page, &Page::wants, this, &Window::openRoom);
    connect(page, &Page::left, this, &Window::leaveRoom);
}

void Window::openRoom(Room room, const QString& about) {
    if (room == Room::station) {
        goTo(0);  // every room that sends back to a station is one of Parts in
        page()->begin(about);
        return;
    }
    room_ = rooms_.at(room);
    refresh();
    room_->takeFocus();
    try {
        room_->begin(about);
    } catch (const std::exception& error) {
        pageFailed(*room_, error.what());
    }
}

void Window::leaveRoom() {
    if (room_ == nullptr) return;
    room_ = nullptr;
    refresh();
    page()->takeFocus();
}

void Window::addKeys() {
    const auto key = [this](const QKeySequence& sequence, auto act) {
        auto* shortcut = new QShortcut(sequence, this);
        shortcut->setAutoRepeat(false);
        connect(shortcut, &QShortcut::activated, this, act);
    };
    for (int i = 0; i < kStations; ++i) key(QKeySequence(Qt::Key_F1 + i), [this, i] { goTo(i); });
    key(QKeySequence(Qt::Key_F8), [this] { openRoom(Room::drawers); });
    key(QKeySequence(Qt::Key_F9), [this] { openRoom(Room::meters); });
    key(QKeySequence(Qt::Key_F11), [this] { toggleBig(); });
    key(QKeySequence(Qt::CTRL | Qt::Key_K), [this] { sums_->begin(); });
    key(QKeySequence(QStringLiteral("?")), [this] { showKeys(); });
    key(QKeySequence(QStringLiteral("Z")), [this] { undo(true); });
    key(QKeySequence(QStringLiteral("Shift+Z")), [this] { undo(false); });
    key(QKeySequence(QStringLiteral("B")), [this] {
        strip_->setVisible(!strip_->isVisible());
        if (strip_->isVisible()) strip_->look();
        page()->takeFocus();
    });
    key(QKeySequence(Qt::CTRL | Qt::Key_P), [this] {
        strip_->show();
        strip_->startPracticeBench();
    });
    key(QKeySequence(Qt::CTRL | Qt::Key_N), [this] { setChoosing(true); });
    key(QKeySequence(Qt::CTRL | Qt::Key_D), [this] { setNight(coloursOf(*this).paper == dayBench().paper); });
}

void Window::setChoosing(bool choosing) {
    choosing_ = choosing;
    room_ = nullptr;
    refresh();
}

Page* Window::page() const {
    if (room_ != nullptr) return room_;
    return session_.hasBuild() && !choosing_ ? stationPages_[std::size_t(station_)] : start_;
}

void Window::goTo(int station) {
    choosing_ = false;
    room_ = nullptr;
    station_ = std::clamp(station, 0, kStations - 1);
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

void Window::showKeys() {
    keySheet_->setGeometry(centralWidget()->geometry());
    keySheet_->show();
    keySheet_->raise();
    keySheet_->setFocus();
}

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
