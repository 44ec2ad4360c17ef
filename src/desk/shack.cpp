#include "desk/shack.h"

#include <QApplication>
#include <QDate>
#include <QFileInfo>

#include "book/daily_copy.h"
#include "desk/person.h"
#include "desk/settings/settings_rows.h"
#include "log/log.h"

namespace ombrek {

using Opened = Result<std::unique_ptr<Book>>;

Shack::~Shack() {
    if (window_)
        person::set(QStringLiteral("window"), QString::fromLatin1(window_->saveGeometry().toBase64()));
}

void Shack::open(const std::filesystem::path& path) {
    const QString name = qs(path.string());
    const bool begun =
        work_.start<Opened>([path](const LongWork::Progress&) -> Opened { return Book::open(path); },
                            [this, path, name](Opened book) {
                                if (book) return take(path, std::move(*book));
                                logLine(LogLevel::warning, "refused: " + book.error().text());
                                if (!session_) {
                                    emit refused(book.error(), name);
                                } else {
                                    session_->say(qs(book.error().text()), VerdictState::fail);
                                }
                            });
    if (session_) {
        session_->say(
            begun ? QStringLiteral("Opening %1 …").arg(name)
                  : QStringLiteral("Another book is still being opened; its folder does not answer yet."));
    }
}

void Shack::take(const std::filesystem::path& path, std::unique_ptr<Book> book) {
    window_.reset();
    session_ = std::make_unique<Session>(Tables(tables_), std::move(book));
    person::remember(QStringLiteral("recent/books"), qs(path.string()));
    person::set(QStringLiteral("book"), QFileInfo(qs(path.string())).absoluteFilePath());
    makeWindow();
    hour_.setInterval(3600 * 1000);
    connect(&hour_, &QTimer::timeout, this, &Shack::copyDaily, Qt::UniqueConnection);
    hour_.start();
    copyDaily();
    emit opened();
}

void Shack::makeWindow() {
    applyPerson();
    QRect where;
    QString page, about;
    int station = 0;
    bool practice = false;
    if (window_) {
        where = window_->geometry();
        page = window_->page()->objectName();
        about = window_->page()->about();
        station = window_->station();
        practice = window_->instruments().practiceRuns();
    }
    window_.reset();
    window_ = std::make_unique<Window>(*session_);
    if (where.isValid()) {
        window_->setGeometry(where);
    } else {
        window_->restoreGeometry(QByteArray::fromBase64(person::get(QStringLiteral("window")).toLatin1()));
    }
    window_->goTo(station);
    if (page == QStringLiteral("settings")) window_->open(page, about);
    if (practice) window_->act(QStringLiteral("practice-bench"))->trigger();
    connect(
        window_.get(), &Window::wantsBook, this, [this](const QString& file) { open(file.toStdString()); },
        Qt::QueuedConnection);
    connect(window_.get(), &Window::wantsLook, this, &Shack::makeWindow, Qt::QueuedConnection);
    window_->show();
}

void Shack::copyDaily() {
    if (!session_ || session_->book().readOnly()) return;
    copying_.start<Result<void>>(
        [path = session_->book().path(), day = QDate::currentDate().toString(Qt::ISODate).toStdString()](
            const LongWork::Progress&) { return ombrek::copyDaily(path, day); },
        [this](Result<void> copied) {
            if (copied) return;
            logLine(LogLevel::warning, "daily copy: " + copied.error().text());
            if (session_) session_->say(qs(copied.error().text()), VerdictState::doubtful);
        });
}

}  // namespace ombrek
