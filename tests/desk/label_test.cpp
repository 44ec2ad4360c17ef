#include <QAbstractScrollArea>
#include <QLabel>
#include <QScrollBar>

#include "desk/pieces/key_cap.h"
#include "desk/winding/picture_page.h"
#include "draws.h"
#include "window_fixture.h"

using namespace ombrek;

// Every label of every page, at the smallest window, at the one that was designed for, and at a large one:
// none is cut.

namespace {

constexpr int kCut = 4;  ///< pixels that are missed

/// How much of a label's text finds no room [px].
int cutOf(const QLabel& label) {
    if (label.text().isEmpty()) return 0;
    const QSize room = label.contentsRect().size();
    int cut = 0;
    if (label.wordWrap()) {
        cut = label.heightForWidth(label.width()) - label.height();
    } else {
        const QFontMetrics metrics(label.font());
        for (const QString& line : label.text().split(QChar('\n')))
            cut = std::max(cut, metrics.horizontalAdvance(line) - room.width());
        cut = std::max(cut, metrics.lineSpacing() - label.height());
    }
    // What a parent cuts off.
    const QRect seen = label.visibleRegion().boundingRect();
    return std::max({cut, label.width() - seen.width(), label.height() - seen.height()});
}

struct Count {
    int labels = 0, cut = 0;
    QStringList which;
};

void measure(Desk& desk, const QString& where, Count& count) {
    for (const QLabel* label : desk.window().findChildren<QLabel*>()) {
        if (!label->isVisible() || label->text().isEmpty()) continue;
        ++count.labels;
        const int cut = cutOf(*label);
        if (cut < kCut) continue;
        ++count.cut;
        count.which << QStringLiteral("%1, %2: \"%3\" by %4 px of %5x%6")
                           .arg(where, desk.window().page()->name(), label->text().left(60))
                           .arg(cut)
                           .arg(label->width())
                           .arg(label->height());
    }
}

void everyPage(Desk& desk, const QString& where, Count& count) {
    const auto look = [&] {  // as it is when the layouts have come to rest
        Count now;
        for (int i = 0; i < 20 && (i < 2 || now.cut > 0); ++i) {
            desk.settle();
            now = {};
            measure(desk, where, now);
        }
        count.labels += now.labels;
        count.cut += now.cut;
        count.which << now.which;
    };
    for (int i = 0; i < Window::kStations; ++i) {
        desk.window().goTo(i);
        look();
    }
    // Every coil and every adjustment: their facts are of different lengths.
    for (const int station : {1, 4}) {
        desk.window().goTo(station);
        for (std::size_t i = 0; i < 9; ++i) {
            desk.key(Qt::Key_Down);
            look();
        }
    }
    const std::string demo = std::string(OMBREK_DATA_FOLDER) + "/demo";
    const std::map<std::string, QString> about{{"which-part", QStringLiteral("1")},
                                               {"list", qs(demo + "/pilot-lamp.list.txt")},
                                               {"delivery", qs(demo + "/lantern-15.packing.csv")},
                                               {"band", QStringLiteral("14M..14.35M")},
                                               {"trimmer", QStringLiteral("T1")},
                                               {"figures", QStringLiteral("L1")},
                                               {"cores", QStringLiteral("L1")},
                                               {"photos", QStringLiteral("r-supply")},
                                               {"picture", QStringLiteral("L2")}};
    for (const PageRow& row : pageRows()) {
        if (row.where != PageRow::Where::beside) continue;
        const auto named = about.find(row.id);
        desk.open(row, named == about.end() ? QString() : named->second);
        desk.waitFor([&] { return !desk.window().page()->working(); });
        look();
        desk.window().leave();
    }
}

}  // namespace

TEST_CASE("no label of any page is cut at any size") {
    for (const auto& [name, prepare] :
         {std::pair{"part-way", &partWay}, std::pair{"finished", &finished}, std::pair{"fresh", &fresh}}) {
        Desk desk(*prepare);
        for (const QSize size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
            if (!longRun() && prepare != &partWay && size.width() != 1024) continue;
            desk.window().resize(size);
            desk.settle();
            REQUIRE(desk.window().size() == size);
            Count count;
            everyPage(
                desk,
                QStringLiteral("%1 at %2x%3").arg(QLatin1String(name)).arg(size.width()).arg(size.height()),
                count);
            CHECK(count.labels > 400);
            INFO(count.which.join(QChar('\n')).toStdString());
            CHECK(count.cut == 0);
        }
    }
}

TEST_CASE("every key of every page finds room on the sheet of keys, in the smallest window") {
    Desk desk(partWay);
    desk.window().resize(1024, 700);
    desk.settle();
    int caps = 0;
    const auto look = [&] {
        desk.window().act(QStringLiteral("keys"))->trigger();
        desk.settle();
        auto* sheet = desk.window().findChild<QWidget*>(QStringLiteral("keys-sheet"));
        REQUIRE(sheet->isVisible());
        for (const KeyCap* cap : sheet->findChildren<KeyCap*>()) {
            ++caps;
            const QRect at(cap->mapTo(sheet, QPoint(0, 0)), cap->sizeHint());
            INFO(desk.window().page()->name().toStdString() << ": " << cap->text().toStdString());
            CHECK(sheet->rect().contains(at));
        }
        QTest::keyClick(sheet, Qt::Key_Escape);
        desk.settle();
        CHECK_FALSE(sheet->isVisible());
    };
    for (int i = 0; i < Window::kStations; ++i) {
        desk.window().goTo(i);
        look();
    }
    for (const PageRow& row : pageRows()) {
        if (row.where != PageRow::Where::beside) continue;
        desk.open(row);
        desk.waitFor([&] { return !desk.window().page()->working(); });
        look();
        desk.window().leave();
    }
    CHECK(caps > 500);
}

TEST_CASE("the instruments beside a page make it narrower, and nothing lies under them") {
    Desk desk(partWay);
    desk.window().resize(1280, 800);
    desk.settle();
    const int before = desk.window().page()->width();
    desk.key(Qt::Key_B);
    desk.settle();
    CHECK(desk.window().instruments().isVisible());
    // With their names, which come a moment later.
    CHECK(desk.waitFor([&] {
        for (const QLabel* label : desk.window().instruments().findChildren<QLabel*>()) {
            if (label->text().startsWith(QStringLiteral("Ombrek practice"))) return true;
        }
        return false;
    }));
    CHECK(desk.window().page()->width() <= before - InstrumentStrip::kWidth);
    Count count;
    for (int i = 0; i < Window::kStations; ++i) {
        desk.window().goTo(i);
        desk.settle();
        desk.settle();
        measure(desk, QStringLiteral("instruments out"), count);
    }
    INFO(count.which.join(QChar('\n')).toStdString());
    CHECK(count.cut == 0);
}

TEST_CASE("the smallest window, twice as large, finds room on a screen of 1920 by 1080") {
    Desk desk(partWay);
    // A screen of that size at 200 % has 960 by 540 of the window's pixels.
    CHECK(desk.window().minimumWidth() <= 960);
    CHECK(desk.window().minimumHeight() <= 540);
    desk.window().resize(960, 540);
    desk.settle();
    CHECK(desk.window().size() == QSize(960, 540));
}
