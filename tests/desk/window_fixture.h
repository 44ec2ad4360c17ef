#pragma once

#include <QApplication>
#include <QElapsedTimer>
#include <QFileDialog>
#include <QSettings>
#include <QTest>
#include <QThread>
#include <functional>
#include <memory>

#include "at_end.h"
#include "bench_fixture.h"
#include "desk/pages.h"
#include "desk/window.h"
#include "judged/before_plug.h"
#include "look/colours.h"
#include "practice/bench_server.h"
#include "station/first_light/key_down.h"

namespace ombrek {

inline QApplication& application() {
    static int argc = 1;
    static char name[] = "desk_tests";
    static char* argv[] = {name, nullptr};
    static auto* app = new QApplication(argc, argv);
    static const bool dressed = [] {
        atEnd().push_back([] { delete app; });
        // What Ombrek remembers of a person goes nowhere near the one who runs the tests.
        static const Folder person;
        QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope,
                           QString::fromStdString((person / "").string()));
        installStyle();
        installFonts();
        setNight(false);
        return true;
    }();
    (void)dressed;
    return *app;
}

/// How long to wait for what must come, however slow the machine, or the sanitizers, are [ms].
inline constexpr int kLongWork = 600000;

/// Books for a Desk to open: a kit just begun, one part-way, one finished.
inline void fresh(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    REQUIRE((*book)->startBuild(practiceKit().kit.name, practiceKit().text));
}
inline void partWay(const std::filesystem::path& file) {
    practiceBook(file, practiceKit(), PracticeStage::partWay);
}
inline void finished(const std::filesystem::path& file) {
    practiceBook(file, practiceKit(), PracticeStage::finished);
}

/// The hold on the load is done and the load is on: the key may go down.
inline void loadOn(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    REQUIRE((*book)->doStep("last-look", true, "for this test"));
    REQUIRE((*book)->passGate(kLoadOn, "on"));
}

/// The real window on a book of its own, with a practice bench on free ports behind it.
class Desk {
 public:
    /// @param prepare  makes the book before it is opened; nothing: an empty book
    /// @param rig      what the practice bench is on
    explicit Desk(std::function<void(const std::filesystem::path&)> prepare = {},
                  const PracticeKit& rig = practiceKit())
        : rig_(rig) {
        application();
        QSettings(QStringLiteral("ombrek"), QStringLiteral("ombrek")).clear();  // a person new to it
        file_ = folder_ / "desk.ombrek";
        if (prepare) prepare(file_);
        openWindow();
    }

    void openWindow() {
        auto book = Book::open(file_);
        if (!book) FAIL(book.error().text());
        session_ = std::make_unique<Session>(Tables(shippedTables()), std::move(*book));
        useBench();
        window_ = std::make_unique<Window>(*session_);
        window_->show();
        window_->activateWindow();
        REQUIRE(QTest::qWaitForWindowExposed(window_.get()));
    }

    /// Close everything and open the same book again, as after a crash or a power cut.
    void reopen() {
        window_.reset();
        session_.reset();
        openWindow();
    }

    /// The first of four ports in a row that are all free, with the practice bench on them.
    void useBench() {
        for (quint16 port = 20000; !server_ && port < 60000; port = quint16(port + 8)) {
            auto server = std::make_unique<BenchServer>(
                PracticeInstruments(PracticeTruth(rig_.kit, rig_.bag), practiceMark(rig_.text)));
            if (server->listen(port)) {
                server_ = std::move(server);
                port_ = port;
            }
        }
        REQUIRE(server_);
        session_->practice().setAddress(QStringLiteral("127.0.0.1"), port_);
    }

    void stopBench() {
        server_.reset();
        session_->practice().setTimeout(300);
    }

    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
        QWidget* target = window_->focusWidget() ? window_->focusWidget() : window_->page();
        QTest::keyClick(target, key, modifiers);
        settle();
    }

    void type(const QString& text) {
        for (const QChar c : text) {
            QWidget* target = window_->focusWidget() ? window_->focusWidget() : window_->page();
            QTest::keyClicks(target, QString(c));
        }
        settle();
    }

    /// Everything that is asked for before the first power is seen: Enter, on First light.
    void plugIn() {
        for (int i = 0; i < 8 && asksBeforePlug(); ++i) key(Qt::Key_Return);
        REQUIRE_FALSE(asksBeforePlug());
    }
    bool asksBeforePlug() const {
        const auto items = beforePlug(session_->judged());
        return std::any_of(items.begin(), items.end(), [&](const PlugItem& item) {
            return !item.seen && QString::fromStdString(item.now) == window_->page()->nowSentence();
        });
    }

    /// Type into the entry that has the focus, over what stands there, and press Enter.
    void answer(const QString& text) {
        if (fileDialog() != nullptr) return giveFile(text);
        key(Qt::Key_A, Qt::ControlModifier);
        type(text);
        key(Qt::Key_Return);
    }

    /// The file dialog that is open; null when there is none.
    static QFileDialog* fileDialog() {
        for (QWidget* widget : QApplication::topLevelWidgets()) {
            if (auto* dialog = qobject_cast<QFileDialog*>(widget); dialog && dialog->isVisible())
                return dialog;
        }
        return nullptr;
    }

    /// Choose a file in the dialog that is open; also one that is gone by then, as a desktop may give it.
    void giveFile(const QString& file) {
        QFileDialog* dialog = fileDialog();
        REQUIRE(dialog != nullptr);
        emit dialog->fileSelected(file);
        dialog->reject();
        window_->activateWindow();
        settle();
    }

    /// An answer that is not understood: it stays in the entry to be mended; Esc leaves it.
    void refused(const QString& text) {
        answer(text);
        const auto* entry = qobject_cast<QLineEdit*>(window_->focusWidget());
        REQUIRE(entry != nullptr);
        CHECK(entry->text() == text);
        key(Qt::Key_Escape);
    }

    /// Let the window do what it has to, and an asked instrument answer.
    /// A page as a builder comes to it: from its station.
    void open(const PageRow& row, const QString& about = QString()) {
        window().open(QString::fromUtf8(*row.from != '\0' ? row.from : "winding"));
        window().open(QString::fromUtf8(row.id), about);
    }
    void settle() {
        QElapsedTimer timer;
        timer.start();
        do {
            QApplication::processEvents(QEventLoop::AllEvents, 5);
            if (session_->waiting()) QThread::msleep(1);
        } while (session_->waiting() && timer.elapsed() < 5000);
        QApplication::processEvents();
    }

    /// What must come is waited for a minute: a busy machine is no fault, nor is one with sanitizers.
    bool waitFor(const std::function<bool()>& done, int milliseconds = 60000) {
#ifdef __SANITIZE_ADDRESS__
        constexpr int kSlower = 5;
#else
        constexpr int kSlower = 1;
#endif
        QElapsedTimer timer;
        timer.start();
        while (!done() && timer.elapsed() < qint64(milliseconds) * kSlower) {
            QApplication::processEvents(QEventLoop::AllEvents, 10);
            QThread::msleep(1);  // what is waited for may want the core
        }
        return done();
    }

    Window& window() { return *window_; }
    Session& session() { return *session_; }
    const Build& build() { return session_->build(); }
    const Kit& kit() { return session_->kit(); }
    QString now() { return window_->page()->nowSentence(); }
    std::filesystem::path path(const std::string& name) { return folder_ / name; }

 private:
    const PracticeKit& rig_;
    Folder folder_;
    std::filesystem::path file_;
    std::unique_ptr<BenchServer> server_;
    quint16 port_ = 0;
    std::unique_ptr<Session> session_;
    std::unique_ptr<Window> window_;
};

/// The page that is shown, which must be of this kind.
template <class P>
P& pageOf(Desk& desk) {
    auto* page = dynamic_cast<P*>(desk.window().page());
    REQUIRE(page != nullptr);
    return *page;
}

}  // namespace ombrek
