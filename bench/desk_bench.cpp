#include <QApplication>
#include <QElapsedTimer>
#include <QTest>
#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "book/book.h"
#include "desk/pieces/state_list.h"
#include "desk/window.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "look/colours.h"
#include "practice/practice_kit.h"
#include "report/build_sheet.h"
#include "report/report.h"

// How long the window takes: to be usable, to answer a key, to show a long list. Times depend on the machine,
// so each is given beside another from the same run.

using namespace ombrek;

namespace {

constexpr double kFrame = 1000.0 / 60;

struct Times {
    std::vector<double> ms;
    double middle() {
        std::sort(ms.begin(), ms.end());
        return ms[ms.size() / 2];
    }
    double worst() { return *std::max_element(ms.begin(), ms.end()); }
};

/// The practice kit's text with its parts list cut or repeated to a number of parts (repeats are not placed).
std::string kitOf(const std::string& text, std::size_t parts) {
    auto kit = nlohmann::json::parse(text);
    const auto all = kit["parts"];
    auto repeated = nlohmann::json::array();  // what has a value to measure
    for (const auto& part : all) {
        const std::string kind = part.value("kind", "");
        if (kind == "resistor" || kind == "capacitor") repeated.push_back(part);
    }
    for (std::size_t i = all.size(); i < parts; ++i) {
        auto more = repeated[i % repeated.size()];
        more["ref"] = "X" + std::to_string(i);
        more.erase("place");
        kit["parts"].push_back(more);
        if (parts < 1000) continue;
        if (i % 10 == 0)
            kit["steps"].push_back({{"id", "more-" + std::to_string(i)},
                                    {"do", "Solder ten more"},
                                    {"fits", nlohmann::json::array()},
                                    {"minutes", 3}});
        if (auto& last = kit["steps"].back(); last["id"].get<std::string>().starts_with("more-"))
            last["fits"].push_back(more["ref"]);
    }
    if (parts < all.size()) {  // a small kit: parts only
        kit["parts"] = nlohmann::json::array();
        for (std::size_t i = 0; i < parts; ++i) kit["parts"].push_back(all[i]);
        for (const char* name : {"coils", "steps", "look_aheads", "checks", "adjustments", "low_pass"})
            kit.erase(name);
    }
    return kit.dump();
}

std::filesystem::path bookOf(const std::filesystem::path& folder, const std::string& kit, const char* name) {
    const auto file = folder / name;
    auto book = Book::open(file).value();
    (void)book->startBuild(name, kit);
    return file;
}

/// From nothing to a painted, answering window.
double startUp(const Tables& tables, const std::filesystem::path& file) {
    QElapsedTimer timer;
    timer.start();
    Session session(Tables(tables), Book::open(file).value());
    Window window(session);
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    window.grab();
    return double(timer.nsecsElapsed()) / 1e6;
}

/// Notes when the coil's picture is painted.
class PaintWatch : public QObject {
 public:
    bool painted = false;
    bool eventFilter(QObject*, QEvent* event) override {
        painted = painted || event->type() == QEvent::Paint;
        return false;
    }
};

/// From a key to the painted picture it changes: the event loop paints what has changed.
Times keyToPaint(Window& window, QWidget* picture, Qt::Key one, Qt::Key other, int keys) {
    QApplication::processEvents();
    PaintWatch watch;
    picture->installEventFilter(&watch);
    Times times;
    for (int i = 0; i < keys; ++i) {
        QApplication::processEvents();
        watch.painted = false;
        QElapsedTimer timer;
        timer.start();
        QTest::keyClick(window.page(), i % 2 ? other : one);
        while (!watch.painted) QApplication::processEvents();
        times.ms.push_back(double(timer.nsecsElapsed()) / 1e6);
    }
    return times;
}

void tellKeys(const char* what, Times times, double middle, double worst) {
    std::printf("%s median %6.2f ms of %.3g, worst of %zu %6.2f ms of %.3g; of a frame %.2f and %.2f\n", what,
                times.middle(), middle, times.ms.size(), times.worst(), worst, times.middle() / kFrame,
                times.worst() / kFrame);
}

/// A turn on the disk and on the screen; and every figure of a coil after a turn more or less.
void keysToScreen(const Tables& tables, const std::filesystem::path& file) {
    Session session(Tables(tables), Book::open(file).value());
    Window window(session);
    window.show();
    window.activateWindow();
    (void)QTest::qWaitForWindowActive(&window);
    window.goTo(1);
    tellKeys("turn to screen:",
             keyToPaint(window, window.page()->findChild<QWidget*>("coil"), Qt::Key_Space, Qt::Key_Backspace,
                        1000),
             16, 50);
    window.open(QStringLiteral("figures"), QStringLiteral("L1"));
    tellKeys("figures follow: ",
             keyToPaint(window, window.page()->findChild<QWidget*>("plot"), Qt::Key_Plus, Qt::Key_Minus, 200),
             kFrame, 2 * kFrame);
}

/// A large kit, most of it measured.
std::filesystem::path measuredBook(const std::filesystem::path& folder, const std::string& kitText,
                                   int readings) {
    const auto file = bookOf(folder, kitText, "measured.ombrek");
    auto book = Book::open(file).value();
    const Kit kit = Session(readTables(dataFolder()).value(), Book::open(file).value()).kit();
    int kept = 0;
    for (const Part& part : kit.parts) {
        if (!part.measurable() || kept == readings) continue;
        const double off = 1 + part.tolerance / 300 * ((kept * 37 % 11) - 5) / 5;
        (void)book->takeReading({0,
                                 Subject::part(part.ref),
                                 part.nominal * off,
                                 part.unit,
                                 part.nominal * 0.005,
                                 {},
                                 "typed",
                                 kept++});
    }
    std::printf("5,000 parts, %d readings\n", kept);
    return file;
}

/// A key of a page, until the window has nothing left to do.
Times keyDone(Window& window, Qt::Key one, Qt::Key other, int keys) {
    Times times;
    for (int i = 0; i < keys; ++i) {
        QApplication::processEvents();
        QElapsedTimer timer;
        timer.start();
        QTest::keyClick(window.page(), i % 2 ? other : one);
        window.grab();
        times.ms.push_back(double(timer.nsecsElapsed()) / 1e6);
    }
    return times;
}

void largeKit(const Tables& tables, const std::filesystem::path& file) {
    Session session(Tables(tables), Book::open(file).value());
    Window window(session);
    window.show();
    (void)QTest::qWaitForWindowExposed(&window);
    for (int i = 0; i < Window::kStations; ++i) {
        window.goTo(i);
        const QString what = QStringLiteral("5,000 parts, %1 Down:").arg(window.page()->name());
        tellKeys(qPrintable(what.leftJustified(40)), keyDone(window, Qt::Key_Down, Qt::Key_Up, 11), 50, 100);
    }
    window.goTo(0);
    Times readings;
    const std::vector<const Part*> parts = session.judged().partsInOrder();
    for (const Part* part : parts) {
        if (!part->measurable() || session.build().last(Subject::part(part->ref)) != nullptr) continue;
        QElapsedTimer timer;
        timer.start();
        session.type({0, Subject::part(part->ref), 0, part->unit, 0, {}, "", 0},
                     QString::number(part->nominal, 'g', 4));
        window.grab();
        readings.ms.push_back(double(timer.nsecsElapsed()) / 1e6);
        if (readings.ms.size() == 11) break;
    }
    tellKeys("5,000 parts, a part's reading:        ", readings, 50, 100);
    window.goTo(1);
    tellKeys("5,000 parts, a turn:                   ", keyDone(window, Qt::Key_Space, Qt::Key_Backspace, 11),
             50, 100);
    QElapsedTimer timer;
    timer.start();
    window.open(QStringLiteral("trimmer"), QStringLiteral("T1"));
    window.grab();
    std::printf("5,000 parts, will the trimmer reach: %.0f ms of 500\n", double(timer.nsecsElapsed()) / 1e6);
    window.goTo(0);
    timer.start();
    QTest::keyClick(window.page(), Qt::Key_W);
    window.grab();
    std::printf("5,000 parts, W at Parts in: %.0f ms of 500, %s\n", double(timer.nsecsElapsed()) / 1e6,
                qPrintable(window.page()->name()));
    timer.start();
    const Report report = makeReport(session.judged(), 0);
    const double made = double(timer.nsecsElapsed()) / 1e6;
    const auto html = reportAsHtml(report).size();
    const double written = double(timer.nsecsElapsed()) / 1e6;
    const auto pdf = reportAsPdf(report).size();
    std::printf(
        "5,000 parts, the report: made %.0f ms, HTML %.0f ms (%lld bytes), PDF %.0f ms (%lld bytes) of "
        "5,000\n",
        made, written - made, static_cast<long long>(html), double(timer.nsecsElapsed()) / 1e6 - written,
        static_cast<long long>(pdf));
    timer.start();
    const auto sheet = buildSheetAsPdf(session.kit(), session.build(), session.judged().order()).size();
    std::printf("5,000 parts, the build sheet: %.0f ms of 5,000 (%lld bytes)\n",
                double(timer.nsecsElapsed()) / 1e6, static_cast<long long>(sheet));
}

/// A season at the bench: so many builds, with photographs and readings in all of them, the most in the last.
std::filesystem::path seasonBook(const std::filesystem::path& folder, const std::string& kitText, int builds,
                                 int readings, int photos) {
    const auto file = folder / "season.ombrek";
    auto book = Book::open(file).value();
    const std::string jpeg(300'000, 'j');
    const Kit kit = readKit(kitText, readTables(dataFolder()).value().cores).value();
    for (int b = 0; b < builds; ++b) {
        (void)book->startBuild("Build " + std::to_string(b), kitText);
        const bool last = b + 1 == builds;
        const int share = last ? readings / 2 : readings / 2 / (builds - 1);
        for (int i = 0; i < share; ++i) {
            const Part& part = kit.parts[std::size_t(i) % kit.parts.size()];
            (void)book->takeReading(
                {0, Subject::part(part.ref), part.nominal, part.unit, part.nominal * 0.005, {}, "typed", 0});
        }
        for (int i = 0; i < photos / builds; ++i)
            (void)book->keepPhoto(kit.steps[std::size_t(i)].id, true, jpeg);
    }
    return file;
}

/// Everyday work in such a book.
void season(const Tables& tables, const std::filesystem::path& file) {
    const double usable = startUp(tables, file);
    std::printf("20,000 readings, 300 photographs, 50 builds: window usable %.0f ms of 300\n", usable);
    Session session(Tables(tables), Book::open(file).value());
    Window window(session);
    window.show();
    window.activateWindow();
    (void)QTest::qWaitForWindowActive(&window);
    window.goTo(1);
    tellKeys("  turn to durable and drawn:",
             keyToPaint(window, window.page()->findChild<QWidget*>("coil"), Qt::Key_Space, Qt::Key_Backspace,
                        1000),
             8, 25);
    QElapsedTimer timer;
    timer.start();
    window.open(QStringLiteral("history"));
    window.grab();
    std::printf("  history of %zu readings: %.0f ms of 100\n", session.build().readings.size(),
                double(timer.nsecsElapsed()) / 1e6);
    std::vector<StockLine> lines(100'000);
    for (StockLine& line : lines) line.count = 1;
    (void)session.book().importStock(lines, {});
    timer.start();
    (void)session.book().undo();
    const double back = double(timer.nsecsElapsed()) / 1e6;
    timer.start();
    (void)session.book().redo();
    std::printf("  import of 100,000 lines: taken back %.0f ms of 300, done again %.0f ms of 300\n", back,
                double(timer.nsecsElapsed()) / 1e6);
}

double listOf(int lines) {
    std::vector<StateLine> made;
    for (int i = 0; i < lines; ++i)
        made.push_back({VerdictState::pass, QStringLiteral("Line %1").arg(i), QStringLiteral("value"),
                        i == lines / 2, false});
    StateList list;
    list.resize(340, 500);
    list.show();
    QElapsedTimer timer;
    timer.start();
    list.setLines(std::move(made));
    list.grab();
    return double(timer.nsecsElapsed()) / 1e6;
}

}  // namespace

int main(int argc, char** argv) {
    const bool seasonOnly = argc > 1 && std::string(argv[1]) == "season";
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    installFonts();
    Window::setNight(false);
    const Tables tables = readTables(dataFolder()).value();
    const PracticeKit practice = readPracticeKit(dataFolder(), tables).value();
    std::string name = (std::filesystem::temp_directory_path() / "ombrek-bench-XXXXXX").string();
    const std::filesystem::path folder = mkdtemp(name.data());
    if (seasonOnly) {
        season(tables, seasonBook(folder, kitOf(practice.text, 200), 50, 20'000, 300));
        std::filesystem::remove_all(folder);
        return 0;
    }
    const auto small = bookOf(folder, kitOf(practice.text, 10), "small.ombrek");
    const auto large = bookOf(folder, kitOf(practice.text, 200), "large.ombrek");

    startUp(tables, small);  // fonts and styles are loaded once
    const double ten = startUp(tables, small), twoHundred = startUp(tables, large);
    std::printf(
        "window usable:  10 parts %6.1f ms, 200 parts %6.1f ms, ratio %.2f, of the 500 ms wanted %.2f\n", ten,
        twoHundred, twoHundred / ten, twoHundred / 500);
    keysToScreen(tables, large);
    const double hundred = listOf(100), tenThousand = listOf(10000);
    std::printf("list shown:     100 lines %6.2f ms, 10,000 lines %6.2f ms, ratio %.1f\n", hundred,
                tenThousand, tenThousand / hundred);
    largeKit(tables, measuredBook(folder, kitOf(practice.text, 5000), 4500));
    season(tables, seasonBook(folder, kitOf(practice.text, 200), 50, 20'000, 300));
    std::filesystem::remove_all(folder);
    return 0;
}
