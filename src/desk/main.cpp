#include <CLI/CLI.hpp>
#include <QDir>
#include <QEventLoop>
#include <QFileInfo>
#include <QLabel>
#include <QMenu>
#include <QMenuBar>
#include <QPainter>
#include <QStandardPaths>
#include <QTimer>
#include <cstdio>
#include <utility>

#include "book/left_behind.h"
#include "desk/bench/demo_bench.h"
#include "desk/pages.h"
#include "desk/person.h"
#include "desk/settings/settings_rows.h"
#include "desk/shack.h"
#include "desk/start/refusal.h"
#include "desk/steady_application.h"
#include "desk/suspects/exercise_page.h"
#include "desk/window.h"
#include "formats/files.h"
#include "log/log.h"
#include "look/colours.h"
#include "practice/practice_kit.h"

using namespace ombrek;

namespace {

int refuse(const Problem& problem) {
    logLine(LogLevel::warning, "refused: " + problem.text());
    std::fprintf(stderr, "ombrek: %s\n", problem.text().c_str());
    return 1;
}

/// A start from the desktop has no terminal to read: it is also said in a window, with the ways out.
/// @return the file to open instead; empty to leave
std::string askWhatElse(const Problem& problem, const std::string& path) {
    refuse(problem);
    if (QGuiApplication::platformName() == QLatin1String("offscreen")) return {};
    return Refusal(problem, path).ask().toStdString();
}

/// The book that was open last, or the builder's own, or the practice book in the user's data folder.
QString usualBook(bool practice) {
    const QString last = person::get(QStringLiteral("book"));
    if (!practice && QFileInfo(last).isFile()) return last;
    const QDir folder(QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
                      QStringLiteral("/ombrek"));
    folder.mkpath(QStringLiteral("."));
    return folder.filePath(practice ? QStringLiteral("practice.ombrek") : QStringLiteral("book.ombrek"));
}

/// A picture with the page's menu open.
bool takeMenu(Window& window, const QString& file) {
    QMenu* menu = window.menus().menu(QStringLiteral("Page"));
    menu->popup(window.mapToGlobal(QPoint(168, window.menuBar()->height())));
    QApplication::processEvents();
    QPixmap picture = window.grab();
    QPainter(&picture).drawPixmap(QPoint(168, window.menuBar()->height()), menu->grab());
    menu->close();
    return picture.save(file);
}

/// Whether work of the page's own still runs, silently.
bool reckons(const QWidget* page) {
    const auto works = page->findChildren<LongWork*>(Qt::FindDirectChildrenOnly);
    return std::any_of(works.begin(), works.end(), [](const LongWork* work) { return work->running(); });
}

/// A game of "find the fault", played as the hints say, to its end.
bool takeGame(Window& window, const std::function<bool(const char*)>& take) {
    auto* game = dynamic_cast<ExercisePage*>(window.page());
    if (game == nullptr) return false;
    game->handOut(15, 2);
    while (game->working()) QApplication::processEvents(QEventLoop::AllEvents, 50);
    if (game->exercise() == nullptr) return take("");  // without the simulator
    for (int reading = 0; reading < 5 && !game->bestPoint().empty(); ++reading) {
        game->point(qs(game->bestPoint()));
        game->measure();
    }
    const std::string answer = game->exercise()->answer();
    game->name(qs(answer.substr(0, answer.find(' '))));
    return take("");
}

/// The list of instruments, a trial, the lines of a device, what was said, and the strip.
bool takeBench(Window& window, Session& session, const std::function<bool(const char*)>& take) {
    const DemoBench demo(session);
    const auto wait = [&](int milliseconds) {
        QEventLoop loop;
        QTimer::singleShot(milliseconds, &loop, &QEventLoop::quit);
        loop.exec();
    };
    bool saved = true;
    window.open(QStringLiteral("add-instrument"));
    saved = take("") && saved;
    for (const char* name : {"bench supply", "L/C meter"}) {
        window.open(QStringLiteral("bench"), QString::fromUtf8(name));
        window.page()->act(QStringLiteral("try-it"))->trigger();
        wait(3000);
    }
    window.act(QStringLiteral("instruments"))->trigger();
    wait(3000);
    saved = take("-strip") && saved;
    window.act(QStringLiteral("instruments"))->trigger();
    window.page()->act(QStringLiteral("try-it"))->trigger();
    wait(3000);
    saved = take("") && saved;
    window.open(QStringLiteral("talk"), QStringLiteral("bench supply"));
    saved = take("") && saved;
    window.open(QStringLiteral("teach"), QStringLiteral("L/C meter"));
    wait(2000);
    return take("") && saved;
}

/// Save pictures of the stations and of the rooms beside them, as the guide and the README show them, and
/// leave.
int takePictures(Window& window, Session& session, const QString& folder) {
    QDir().mkpath(folder);
    const auto take = [&](const char* more = "") {
        do {
            QApplication::processEvents(QEventLoop::AllEvents, 200);
        } while (window.page()->working() || reckons(window.page()));
        QApplication::processEvents();
        const QString name =
            window.page()->name().toLower().remove(QChar('?')).replace(QChar(' '), QChar('-'));
        return window.grab().save(folder + QStringLiteral("/") + name + QString::fromUtf8(more) +
                                  QStringLiteral(".png"));
    };
    const auto press = [&](const char* act) {
        if (QAction* found = window.page()->act(QString::fromUtf8(act))) found->trigger();
    };
    bool saved = true;
    for (int i = 0; i < Window::kStations; ++i) {
        window.goTo(i);
        press("this-sitting");  // looked ahead: the board shows its step
        window.goTo(i);
        saved = take() && saved;
    }
    window.goTo(1);  // a coil that is measured
    for (int i = 0; i < 40 && !window.page()->nowSentence().startsWith(QStringLiteral("T1")); ++i)
        press("the-coil-before");
    saved = take("-measured") && saved;
    window.goTo(2);
    press("other-side");
    saved = take("-underside") && saved;
    press("other-side");
    const QString demo = QString::fromStdString((dataFolder() / "demo").string());
    const struct {
        const char *id, *about, *file;
    } pages[] = {{"which-part", "1", ""},
                 {"remedy", "", ""},
                 {"drawers", "", ""},
                 {"suspects", "", ""},
                 {"compare", "", ""},
                 {"squeeze", "", ""},
                 {"symptoms", "", ""},
                 {"live", "if3", ""},
                 {"reference", "", ""},
                 {"crystals", "", ""},
                 {"dial", "", ""},
                 {"powers", "30m", ""},
                 {"spectrum", "20m", "night-ferry-20m.csv"},
                 {"filter", "20m", ""},
                 {"why-less", "30m", ""},
                 {"coupler", "", ""},
                 {"licence", "", ""},
                 {"air", "", ""},
                 {"log", "", ""},
                 {"repairs", "", ""},
                 {"meters", "", ""},
                 {"trimmer", "T1", ""},
                 {"figures", "L1", ""},
                 {"sitting", "", ""},
                 {"history", "", ""},
                 {"kit", "", ""},
                 {"band", "14M..14.35M", ""},
                 {"loupe", "", ""},
                 {"list", "", "pilot-lamp.list.txt"},
                 {"paper", "checks", "pilot-lamp.voltages.txt"},
                 {"delivery", "", "lantern-15.packing.csv"},
                 {"picture", "L2", "coil-l2.jpg"}};
    saved = takeMenu(window, folder + QStringLiteral("/menu.png")) && saved;
    window.act(QStringLiteral("another"))->trigger();
    saved = take() && saved;
    window.goTo(0);
    window.open(QStringLiteral("settings"));
    saved = take() && saved;
    window.open(QStringLiteral("guide"), QStringLiteral("winding.md"));
    saved = take() && saved;
    window.goTo(0);
    window.act(QStringLiteral("find"))->trigger();
    if (auto* field = qobject_cast<QLineEdit*>(window.focusWidget()))
        field->setText(QStringLiteral("100 nF"));
    saved = take("-found") && saved;
    window.goTo(2);
    for (const auto& shown : pages) {
        for (const PageRow& row : pageRows()) {
            if (row.id == std::string_view(shown.id) && *row.from != '\0')
                window.open(QString::fromUtf8(row.from));
        }
        window.open(QString::fromUtf8(shown.id), QString::fromUtf8(shown.about));
        if (*shown.file != '\0') window.page()->openFile(demo + QChar('/') + QString::fromUtf8(shown.file));
        saved = take() && saved;
    }
    window.goTo(3);
    window.open(QStringLiteral("exercise"));
    saved = takeGame(window, take) && saved;
    window.goTo(0);
    return takeBench(window, session, take) && saved ? 0 : 1;
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App options{"Ombrek: from the bag of parts to the signed-off rig."};
    std::string bookFile, pictures, size, level = "info";
    bool practice = false, night = false, day = false;
    int station = 1;
    options.add_option("BOOK", bookFile, "the book to open; made if it is not there");
    options.add_flag("--practice", practice,
                     "open the practice book, half-way through a kit, with the practice bench");
    options.add_option("--station", station, "station to begin at, 1 to 7")->check(CLI::Range(1, 7));
    options.add_flag("--night", night, "night bench (dark), whatever the desktop says");
    options.add_flag("--day", day, "day bench (light), whatever the desktop says");
    options.add_option("--pictures", pictures, "save a PNG of every station to this folder and leave");
    options.add_option("--size", size, "size of the window, as 1280x800");
    options.add_option("--log-level", level, "what goes into the log: debug, info, warning or off")
        ->check(CLI::IsMember({"debug", "info", "warning", "off"}))
        ->capture_default_str();
    CLI11_PARSE(options, argc, argv);
    if (const auto begun = startLog(usualLogFile(), *logLevel(level)); !begun) refuse(begun.error());
    logLine(LogLevel::info, "start");
    std::error_code none;
    removeLeftBehind(std::filesystem::temp_directory_path(none));

    SteadyApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("Ombrek"));
    QApplication::setApplicationVersion(QStringLiteral(OMBREK_VERSION));
    QApplication::setDesktopFileName(QStringLiteral("ombrek"));
    rememberDesktop(coloursOf(QApplication::palette()).paper == nightBench().paper);
    installStyle();
    installFonts();
    overrideBench(night ? QStringLiteral("night") : day ? QStringLiteral("day") : QString());
    applyPerson();

    auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error());
    // A desktop may give a kit or a list: it is taken into the usual book.
    QString given;
    if (const auto looked = lookAt(QString::fromStdString(bookFile));
        looked && looked->kind != GivenKind::book)
        given = QString::fromStdString(std::exchange(bookFile, std::string()));
    const std::string path = bookFile.empty() ? usualBook(practice).toStdString() : bookFile;
    if (practice && !std::filesystem::exists(path)) {
        const auto kit = readPracticeKit(dataFolder(), *tables);
        if (!kit) return refuse(kit.error());
        const auto made = writePracticeBook(path, *kit, PracticeStage::partWay);
        if (!made && !std::filesystem::exists(path))
            return refuse(made.error());  // unless another start made it
    }
    Shack shack(std::move(*tables));
    bool first = true;
    QObject::connect(&shack, &Shack::refused, &application, [&](const Problem& problem, const QString& book) {
        const std::string other = askWhatElse(problem, book.toStdString());
        if (other.empty()) return QApplication::exit(1);
        shack.open(other);
    });
    QObject::connect(&shack, &Shack::opened, &application, [&] {
        const Book& book = shack.session()->book();
        logLine(LogLevel::info, "book " + book.path().string() + (book.readOnly() ? ", read only" : ""));
        if (!std::exchange(first, false)) return;
        shack.window()->goTo(station - 1);
        const QStringList sides = QString::fromStdString(size).split(QChar('x'));
        if (sides.size() == 2) shack.window()->resize(sides[0].toInt(), sides[1].toInt());
        if (!pictures.empty())
            QTimer::singleShot(0, &application, [&] {
                QApplication::exit(
                    takePictures(*shack.window(), *shack.session(), QString::fromStdString(pictures)));
            });
        if (!given.isEmpty()) shack.window()->takeFile(given);
        if (practice && pictures.empty()) shack.window()->instruments().startPracticeBench();
    });
    shack.open(path);
    return QApplication::exec();
}
