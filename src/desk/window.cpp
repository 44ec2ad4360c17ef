#include "desk/window.h"

#include "formats/trace_csv.h"

#include <QApplication>
#include <QClipboard>
#include <QDropEvent>
#include <QFileInfo>
#include <QMimeData>
#include <QStyle>
#include <QVBoxLayout>

#include "book/daily_copy.h"
#include "desk/files/print.h"
#include "desk/find/find_sheet.h"
#include "desk/help/evening_line.h"
#include "desk/key_sheet.h"
#include "desk/pages.h"
#include "desk/person.h"
#include "desk/stations.h"
#include "instruments/bench.h"
#include "look/colours.h"
#include "station/board/sitting.h"

namespace ombrek {

Window::Window(Session& session, QWidget* parent)
    : Rooms(parent),
      session_(session),
      wire_(new WireRail),
      pages_(new QStackedWidget),
      sums_(new SumsLine(session.tables().cores)),
      strip_(new InstrumentStrip(session)),
      evening_(new EveningLine(*this)) {
    for (const PageRow& row : pageRows()) addPage(row, row.make(session));

    auto* middle = new QWidget;
    auto* column = new QVBoxLayout(middle);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(evening_);
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
    find_ = new FindSheet(*this, session_);
    setAcceptDrops(true);

    connect(wire_, &WireRail::chosen, this, &Window::goTo);
    connect(&session_, &Session::changed, this, &Window::refresh);
    connect(&session_, &Session::said, this, &Window::speak);
    connect(sums_, &SumsLine::left, this, [this] { page()->takeFocus(); });
    connect(sums_, &SumsLine::used, this, [this](const QString& value) {
        if (!page()->offer(value))
            page()->showLine(QStringLiteral("This page wants no value now: %1").arg(value),
                             VerdictState::notDone);
    });
    connect(strip_, &InstrumentStrip::wantsList, this, [this] { open(QStringLiteral("bench")); });
    connect(&session_.bench(), &Bench::fileArrived, this,
            [this](const QString& instrument, const QString& file) {
                arrived_ = file;
                session_.say(QStringLiteral("%1 arrived from %2: Ctrl+T takes it.")
                                 .arg(QFileInfo(file).fileName(), instrument));
            });
    clock_.setInterval(60000);
    connect(&clock_, &QTimer::timeout, this, &Window::refresh);
    clock_.start();
    guard_.setInterval(1000);
    connect(&guard_, &QTimer::timeout, &session_, &Session::lookForBook);
    guard_.start();
    addActs();
    setObjectName(QStringLiteral("window"));
    for (QAction* own : actions()) act::describe(*own);
    menus_ = new Menus(*this);
    connect(menus_, &Menus::wantsBook, this, &Window::wantsBook);
    connect(menus_, &Menus::wantsKit, this, &Window::beginKit);
    refresh();
    if (session_.book().readOnly())
        session_.say(qs(session_.book().readOnlyReason()), VerdictState::doubtful);
}

void Window::addPage(const PageRow& row, Page* page) {
    const QString id = QString::fromUtf8(row.id);
    page->setObjectName(id);
    for (QAction* own : page->actions()) act::describe(*own);
    byId_[id] = page;
    if (row.where == PageRow::Where::station) stations_.push_back(page);
    if (row.where == PageRow::Where::start) start_ = page;
    pages_->addWidget(page);
    connect(page, &Page::wants, this, &Window::open);
    connect(page, &Page::left, this, &Window::leave);
    connect(page, &Page::wantsBook, this, &Window::wantsBook);
    connect(page, &Page::wantsLook, this, &Window::wantsLook);
    if (*row.opener != '\0')
        addAct(row.id, row.opener, {QKeySequence(QString::fromUtf8(row.opener))}, page->name(), [this, id] {
            open(id, id == QStringLiteral("guide") ? guideOf(this->page()->objectName()) : QString());
        });
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

QAction* Window::addAct(const char* id, const char* shown, const QList<QKeySequence>& keys,
                        const QString& does, std::function<void()> done) {
    QAction* action = act::make(this, QString::fromUtf8(id), QString::fromUtf8(shown), keys, does, false);
    connect(action, &QAction::triggered, this, std::move(done));
    addAction(action);
    return action;
}

void Window::addActs() {
    addBookActs();
    addEditActs();
    addViewActs();
    addHelpActs();
    addAct("instruments", "B", {Qt::Key_B}, QStringLiteral("instruments out or in"), [this] {
        showStrip(!strip_->isVisible());
        if (strip_->isVisible()) strip_->look();
        page()->takeFocus();
    });
    addAct("take-arrived", "Ctrl+T", {Qt::CTRL | Qt::Key_T}, QStringLiteral("take the file that arrived"),
           [this] {
               if (arrived_.isEmpty())
                   return session_.say(QStringLiteral(
                       "No file has arrived; a folder that is watched is an instrument: Ctrl+R."));
               takeFile(std::exchange(arrived_, QString()));
           });
    addAct("practice-bench", "Ctrl+B", {Qt::CTRL | Qt::Key_B}, QStringLiteral("start the practice bench"),
           [this] {
               showStrip(true);
               strip_->startPracticeBench();
           });
}

void Window::addBookActs() {
    addAct("another", "Ctrl+N", {Qt::CTRL | Qt::Key_N}, QStringLiteral("another kit or build"),
           [this] { setChoosing(true); });
    addAct("open-book", "Ctrl+O", {Qt::CTRL | Qt::Key_O},
           QStringLiteral("open: a book, a kit, a list, a picture"),
           [this] { askToOpen(this, kAnyFile, [this](const QString& file) { takeFile(file); }); });
    addAct("save-a-copy", "Ctrl+S", {Qt::CTRL | Qt::Key_S}, QStringLiteral("save a copy of the book"),
           [this] { saveCopy(); });
    addAct("print", "Ctrl+P", {Qt::CTRL | Qt::Key_P}, QStringLiteral("print this page's sheet"),
           [this] { print(); });
    addAct("quit", "Ctrl+Q", {Qt::CTRL | Qt::Key_Q}, QStringLiteral("close the book and leave"),
           [this] { close(); });
}

void Window::addEditActs() {
    addAct("undo", "Z", {Qt::Key_Z, QKeySequence(QKeySequence::Undo)},
           QStringLiteral("take the last action back"), [this] { undo(true); });
    addAct("redo", "Shift+Z", {Qt::SHIFT | Qt::Key_Z, Qt::CTRL | Qt::SHIFT | Qt::Key_Z, Qt::CTRL | Qt::Key_Y},
           QStringLiteral("do it again"), [this] { undo(false); });
    addAct("copy", "Ctrl+C", {Qt::CTRL | Qt::Key_C}, QStringLiteral("copy the row in hand"),
           [this] { copy(); });
    addAct("paste", "Ctrl+Shift+V", {Qt::CTRL | Qt::SHIFT | Qt::Key_V},
           QStringLiteral("paste where it belongs"), [this] { paste(); });
    addAct("find", "Ctrl+F", {Qt::CTRL | Qt::Key_F}, QStringLiteral("find anything"),
           [this] { find_->open(); });
    addAct("sums", "Ctrl+K", {Qt::CTRL | Qt::Key_K},
           QStringLiteral("sums; Enter puts the answer on the page"), [this] { sums_->begin(); });
}

void Window::addViewActs() {
    addAct("big", "F11", {Qt::Key_F11}, QStringLiteral("only the big thing, doubled"),
           [this] { toggleBig(); });
    addAct("night", "Ctrl+D", {Qt::CTRL | Qt::Key_D}, QStringLiteral("day bench or night bench"), [this] {
        const bool night = coloursOf(*this).paper == dayBench().paper;
        person::set(QStringLiteral("bench"), night ? QStringLiteral("night") : QStringLiteral("day"));
        setNight(night);
    });
    addAct("text-larger", "Ctrl++", {Qt::CTRL | Qt::Key_Plus, Qt::CTRL | Qt::Key_Equal},
           QStringLiteral("larger text"), [this] { scaleText(1); });
    addAct("text-smaller", "Ctrl+\u2212", {Qt::CTRL | Qt::Key_Minus}, QStringLiteral("smaller text"),
           [this] { scaleText(-1); });
    addAct("text-usual", "Ctrl+0", {Qt::CTRL | Qt::Key_0}, QStringLiteral("text of the usual size"),
           [this] { scaleText(0); });
    addAct("menu-bar", "Ctrl+M", {Qt::CTRL | Qt::Key_M}, QStringLiteral("menu bar shown or hidden"), [this] {
        menus_->setShown(!menus_->shown());
        if (!menus_->shown()) session_.say(QStringLiteral("The menu bar is hidden; Alt shows it."));
    });
}

void Window::addHelpActs() {
    QAction* keys = addAct("keys", "?", {QKeySequence(QStringLiteral("?"))}, QStringLiteral("every key"),
                           [this] { showKeys(); });
    addAct("words", "Shift+F1", {Qt::SHIFT | Qt::Key_F1}, QStringLiteral("words on this page"),
           [this] { open(QStringLiteral("guide"), QStringLiteral("words ") + wordsShown()); });
    addAct("first-evening", "Ctrl+E", {Qt::CTRL | Qt::Key_E}, QStringLiteral("first evening: be led"),
           [this] { evening_->begin(); });
    addAct("about", "Ctrl+I", {Qt::CTRL | Qt::Key_I}, QStringLiteral("about Ombrek"),
           [this] { open(QStringLiteral("guide"), QStringLiteral("about")); });
    keys->setProperty(act::kCommon, true);
    for (const auto& [id, page] : byId_) page->addCap(keys);
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
    nameUndo();
    if (menuOf_ != page()) menus_->followPage();
    menuOf_ = page();
    evening_->follow();
    if (QAction* paper = act(QStringLiteral("print")))
        act::setAble(*paper,
                     page()->prints()
                         ? QString()
                         : QStringLiteral("This page has no sheet to print; Parts in, Winding, Board and "
                                          "Sign-off have."));
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
        for (QWidget* sheet : {static_cast<QWidget*>(keySheet_), static_cast<QWidget*>(find_)})
            if (sheet != nullptr) sheet->hide();
        // What was said on the page that is left is not waited for there any more.
        if (auto* before = qobject_cast<Page*>(pages_->currentWidget());
            before != nullptr && !before->working())
            before->showLine(QString(), VerdictState::notDone);
        pages_->setCurrentWidget(shown);
        shown->showLine(QString(), VerdictState::notDone);
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

void Window::showStrip(bool on) {
    strip_->setVisible(on);
    showRail();
}

/// The rail of stations makes way for the instruments where both would leave the page too little.
void Window::showRail() {
    constexpr int kBoth = 1100;  // px
    wire_->setVisible(!bigOnly_ && (strip_->isHidden() || width() >= kBoth));
}

void Window::toggleBig() {
    bigOnly_ = !bigOnly_;
    showRail();
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

/// Undo and redo say what they would take back.
void Window::nameUndo() {
    const QString back = qs(session_.book().undoName()), again = qs(session_.book().redoName());
    QAction *undo = act(QStringLiteral("undo")), *redo = act(QStringLiteral("redo"));
    act::reword(*undo, back.isEmpty() ? QStringLiteral("take the last action back")
                                      : QStringLiteral("take back: %1").arg(back));
    act::reword(*redo,
                again.isEmpty() ? QStringLiteral("do it again") : QStringLiteral("do again: %1").arg(again));
    act::setAble(*undo, back.isEmpty() ? QStringLiteral("There is nothing to take back.") : QString());
    act::setAble(*redo, again.isEmpty() ? QStringLiteral("There is nothing to do again.") : QString());
}

/// All that can be read on the page now, for its words to be explained.
QString Window::wordsShown() const {
    QStringList out{page()->nowSentence(), page()->accessibleDescription()};
    for (const QWidget* widget : page()->findChildren<QWidget*>()) {
        if (!widget->isVisibleTo(page())) continue;
        if (const auto* label = qobject_cast<const QLabel*>(widget)) out << label->text();
        if (const auto* list = qobject_cast<const QAbstractItemView*>(widget); list && list->model()) {
            for (int i = 0; i < std::min(list->model()->rowCount(), 400); ++i)
                out << list->model()->index(i, 0).data(Qt::AccessibleTextRole).toString();
        }
        out << widget->accessibleName();
    }
    return out.join(QChar(' '));
}

/// A page beside is come to from its station.
void Window::openFrom(const QString& id) {
    for (const PageRow& row : pageRows()) {
        if (id == QLatin1String(row.id) && *row.from != '\0') open(QString::fromUtf8(row.from));
    }
    if (page()->objectName() != id) open(id);
}

Page* Window::pageOf(const QString& id) const { return byId_.at(id); }

void Window::copy() {
    const QString text = page()->copied();
    QGuiApplication::clipboard()->setText(text);
    session_.say(QStringLiteral("Copied: %1").arg(text.simplified().left(80)));
}

void Window::paste() {
    const QMimeData* given = QGuiApplication::clipboard()->mimeData();
    if (given != nullptr && given->hasUrls()) {
        takeFile(given->urls().first().toLocalFile());
    } else if (!page()->offerPasted()) {
        takeText(QGuiApplication::clipboard()->text());
    }
}

void Window::print() {
    if (const auto sheet = page()->sheet()) showBeforePrinting(this, *sheet);
}

void Window::saveCopy() {
    const QFileInfo book(qs(session_.book().path().string()));
    askToSave(
        this, kBookFile, book.completeBaseName() + QStringLiteral("-copy.ombrek"),
        [this](const QString& file) {
            const bool begun = looking_.start<Result<void>>(
                [from = session_.book().path(), to = file.toStdString()](const LongWork::Progress&) {
                    return copyBook(from, to);
                },
                [this, file](Result<void> copied) {
                    session_.say(
                        copied
                            ? QStringLiteral("The copy is written: %1. Work goes on in this book.").arg(file)
                            : qs(copied.error().text()),
                        copied ? VerdictState::pass : VerdictState::fail);
                });
            if (!begun) session_.say(QStringLiteral("Something is still being read."));
        });
}

/// @param by  steps larger, or 0: the usual size
void Window::scaleText(int by) {
    const int now = person::get(QStringLiteral("text"), QStringLiteral("100")).toInt();
    const int wanted = by == 0 ? 100 : std::clamp(now + by * 10, 80, 150);
    if (page()->entryOpen())
        return session_.say(
            QStringLiteral("Finish what is being typed first; then the text changes its size."));
    if (wanted == now) return session_.say(QStringLiteral("Text is at %1\u202f%.").arg(now));
    person::set(QStringLiteral("text"), QString::number(wanted));
    emit wantsLook();
}

void Window::beginKit(const QString& file) {
    session_.beginKit(file);
    person::remember(QStringLiteral("recent/kits"), file);
    if (session_.hasBuild()) goTo(0);
}

void Window::resizeEvent(QResizeEvent* event) {
    QMainWindow::resizeEvent(event);
    showRail();
    sums_->setLow(height() < 760);
    for (QWidget* sheet : {static_cast<QWidget*>(keySheet_), static_cast<QWidget*>(find_)})
        sheet->setGeometry(centralWidget()->rect());
}

void Window::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls() || event->mimeData()->hasText()) event->acceptProposedAction();
}

void Window::dropEvent(QDropEvent* event) {
    const QMimeData* given = event->mimeData();
    event->acceptProposedAction();
    if (!given->hasUrls()) return takeText(given->text());
    const QUrl url = given->urls().first();
    if (!url.isLocalFile())
        return session_.say(QStringLiteral("Only files of this computer can be dropped; nothing is fetched."),
                            VerdictState::cannotTell);
    takeFile(url.toLocalFile());
}

void Window::takeFile(const QString& file) {
    session_.say(QStringLiteral("Looking at %1 …").arg(QFileInfo(file).fileName()));
    const bool begun = looking_.start<Result<Given>>(
        [file](const LongWork::Progress&) { return lookAt(file); },
        [this](Result<Given> given) {
            if (!given) return session_.say(qs(given.error().text()), VerdictState::cannotTell);
            belongs(*given);
        });
    if (!begun) session_.say(QStringLiteral("Something is still being read; drop it again in a moment."));
}

void Window::takeText(const QString& text) {
    const QString trimmed = text.trimmed();
    if (trimmed.isEmpty()) return session_.say(QStringLiteral("There is nothing to paste."));
    const std::string bytes = text.toStdString();
    belongs({givenKind(bytes.substr(0, kGivenHead), ""), QString(), bytes});
}

/// Take it to its page.
void Window::belongs(const Given& given) {
    const QString name =
        given.file.isEmpty() ? QStringLiteral("What was pasted") : QFileInfo(given.file).fileName();
    const QString is = QStringLiteral("%1 is %2").arg(name, qs(word(given.kind)));
    if (given.kind == GivenKind::book && !given.file.isEmpty()) return emit wantsBook(given.file);
    if (given.kind == GivenKind::kit && !given.file.isEmpty()) {
        const bool mine = session_.hasBuild() &&
                          given.text.find("\"id\": \"" + session_.kit().id + "\"") != std::string::npos;
        if (!mine) {
            beginKit(given.file);
            return session_.say(is + QStringLiteral(": begun. Z takes that back."));
        }
        open(QStringLiteral("kit"));
        page()->openFile(given.file);
        return page()->sayWhenDone(is + QStringLiteral(" that is in hand: what differs stands here."));
    }
    if (given.kind == GivenKind::picture) return takePicture(given.file);
    constexpr std::size_t kTraceHead = 20000;  // enough to tell, and little to read
    // On Proof a table of frequencies and levels is a trace; on the counter's page any other file a
    // recording.
    const bool proof = page()->objectName() == QStringLiteral("proof");
    const bool trace = (proof || page()->objectName() == QStringLiteral("spectrum")) &&
                       readTrace(given.text.substr(0, kTraceHead)).has_value();
    if (trace && proof && !given.file.isEmpty()) open(QStringLiteral("spectrum"));
    const bool recording =
        page()->objectName() == QStringLiteral("reference") && given.kind == GivenKind::unknown;
    if (!given.file.isEmpty() && (trace || recording) && page()->openFile(given.file)) return;
    const auto place = placeOf(given);
    if (!place) return session_.say(whyNotTaken(given), VerdictState::cannotTell);
    const bool alone =
        given.kind == GivenKind::partsList || given.kind == GivenKind::stock || given.kind == GivenKind::log;
    if (!session_.hasBuild() && !alone)
        return session_.say(is + QStringLiteral(": begin its kit first, then give it again."),
                            VerdictState::cannotTell);
    if (page()->objectName() != QLatin1String(place->page))  // a band chosen there stays chosen
        open(QString::fromUtf8(place->page), QString::fromUtf8(place->about));
    const bool taken = given.file.isEmpty() ? page()->takeText(qs(given.text)) : page()->openFile(given.file);
    page()->sayWhenDone(taken ? is + QStringLiteral("; it is read here.")
                              : is + QStringLiteral(", which is taken as a file only: drop the file."));
}

/// A picture is counted at Winding and kept with the step at Board.
void Window::takePicture(const QString& file) {
    const bool board = page()->objectName() == QStringLiteral("board");
    if (page()->objectName() == QStringLiteral("winding") || board) {
        if (QAction* room = page()->act(board ? QStringLiteral("photographs-of-this-step")
                                              : QStringLiteral("count-in-a-picture")))
            room->trigger();
    }
    if (!page()->takesPictures() || !page()->openFile(file))
        session_.say(
            QStringLiteral("A picture: drop it on Winding to count its turns, or on Board to keep it with "
                           "the step in hand."),
            VerdictState::cannotTell);
}

}  // namespace ombrek
