#include <QLabel>

#include "desk/pieces/card.h"
#include "layouts.h"
#include "window_fixture.h"

using namespace ombrek;

// What a page shows is laid out, and then nothing moves: no window size, text size or strip beside it has a
// page laid out again and again. And whatever gives way where there is little room, a caution never does.

namespace {

/// Cautions that are due on the page and cannot be read whole.
QStringList cautionsLost(const Page& page) {
    QStringList lost;
    for (const Card* card : page.findChildren<Card*>()) {
        if (!card->wanted() || !card->parentWidget()->isVisible() || card->caution().isEmpty()) continue;
        const QLabel* label = card->cautionLabel();
        const bool whole = label->isVisible() &&
                           label->heightForWidth(label->width()) <= label->height() + 2 &&
                           label->visibleRegion().boundingRect().height() + 2 >= label->height();
        if (!whole) lost << card->caution();
    }
    return lost;
}

struct Look {
    QSize size;
    int text;
    bool strip;
};

/// The sizes of common screens and half screens, each with text of four sizes, the strip in and out.
std::vector<Look> looks(bool all) {
    std::vector<Look> out;
    for (const int text : {80, 100, 110, 140}) {
        for (const bool strip : {false, true}) {
            for (const QSize size :
                 {QSize(960, 540), QSize(1024, 700), QSize(1280, 800), QSize(1366, 768), QSize(1920, 1080)}) {
                const bool usual = text == 100 || (text == 110 && size.width() == 1280);
                if (all || usual) out.push_back({size, text, strip});
            }
        }
    }
    return out;
}

void everyPageRests(const std::function<void(const std::filesystem::path&)>& book, bool all) {
    int text = 0, asked = 0, pages = 0;
    std::unique_ptr<Desk> desk;
    QStringList restless, lost;
    for (const Look& look : looks(all)) {
        if (look.text != text) {
            desk.reset();
            application();
            setTextScale(look.text / 100.0);
            desk = std::make_unique<Desk>(book);
            text = look.text;
        }
        Layouts layouts;
        desk->window().resize(look.size);
        desk->window().showStrip(look.strip);
        desk->settle();
        const auto rests = [&] {
            ++pages;
            const QString where = QStringLiteral("%1 at %2x%3, text %4%5")
                                      .arg(desk->window().page()->name())
                                      .arg(look.size.width())
                                      .arg(look.size.height())
                                      .arg(look.text)
                                      .arg(look.strip ? QStringLiteral(", strip") : QString());
            if (const int more = layouts.stillAsked(); more > 0) {
                asked += more;
                restless << QStringLiteral("%1: %2 by %3").arg(where).arg(more).arg(layouts.last());
            }
            for (const QString& caution : cautionsLost(*desk->window().page()))
                lost << where + ": " + caution;
        };
        for (int i = 0; i < Window::kStations; ++i) {
            desk->window().goTo(i);
            rests();
        }
        for (const PageRow& row : pageRows()) {
            if (row.where != PageRow::Where::beside) continue;
            desk->open(row);
            rests();
            desk->window().leave();
        }
    }
    setTextScale(1);
    CHECK(pages > 300);
    INFO(restless.join(QChar('\n')).toStdString());
    CHECK(asked == 0);
    INFO(lost.join(QChar('\n')).toStdString());
    CHECK(lost.isEmpty());
}

}  // namespace

TEST_CASE("a page that was laid out rests, and its cautions are read: the usual sizes") {
    everyPageRests(partWay, false);
}
TEST_CASE("a page that was laid out rests, and its cautions are read: a finished book at every size",
          "[.long]") {
    everyPageRests(finished, true);
}
TEST_CASE("a page that was laid out rests, and its cautions are read: every size", "[.long]") {
    everyPageRests(partWay, true);
}
