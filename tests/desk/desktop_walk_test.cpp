#include <catch2/catch.hpp>

#include <QClipboard>
#include <QMenuBar>
#include <QMimeData>
#include <QPrintPreviewDialog>
#include <QTextBrowser>
#include <fstream>

#include <sys/stat.h>

#include "book/daily_copy.h"
#include "desk/find/find_sheet.h"
#include "desk/help/evening_line.h"
#include "desk/help/guide.h"
#include "desk/list/list_page.h"
#include "desk/person.h"
#include "desk/pieces/key_cap.h"
#include "desk/pieces/spoken.h"
#include "desk/settings/settings_rows.h"
#include "desk/shack.h"
#include "report/report_words.h"
#include "window_fixture.h"

using namespace ombrek;

// At home on a desktop: menu, caps, Find, standard keys, files given, copies, settings, help.

namespace {

/// Every page, as a builder comes to it; the start page first.
void eachPageOf(Desk& desk, const std::function<void(const PageRow&, Page&)>& look) {
    for (const PageRow& row : pageRows()) {
        if (row.where == PageRow::Where::start) {
            desk.window().act(QStringLiteral("another"))->trigger();
        } else {
            desk.open(row);
        }
        desk.settle();
        REQUIRE(desk.window().page()->objectName() == QLatin1String(row.id));
        look(row, *desk.window().page());
    }
}

QList<QAction*> menuActs(const QMenu& menu) {
    QList<QAction*> out;
    for (QAction* action : menu.actions()) {
        if (action->menu() != nullptr) {
            out << menuActs(*action->menu());
        } else if (!action->isSeparator()) {
            out << action;
        }
    }
    return out;
}

QList<QAction*> menuActs(Window& window) {
    QList<QAction*> out;
    for (QAction* action : window.menuBar()->actions()) out << menuActs(*action->menu());
    return out;
}

FindSheet& findSheet(Desk& desk) {
    auto* sheet = desk.window().findChild<FindSheet*>(QStringLiteral("find"));
    REQUIRE(sheet != nullptr);
    return *sheet;
}

void find(Desk& desk, const char* what) {
    desk.key(Qt::Key_F, Qt::ControlModifier);
    desk.key(Qt::Key_A, Qt::ControlModifier);
    desk.type(QString::fromUtf8(what));
}

/// The same where only what is found matters: the words go in at once, as pasted ones do.
void findAtOnce(Desk& desk, const QString& what) {
    if (!findSheet(desk).isVisible()) desk.key(Qt::Key_F, Qt::ControlModifier);
    auto* field = findSheet(desk).findChild<QLineEdit*>();
    REQUIRE(field != nullptr);
    field->setText(what);
}

QString said(Desk& desk) {
    return desk.window().page()->findChild<QWidget*>(QStringLiteral("note"))->accessibleName();
}

/// @param taken  what tells that it was; nothing: the line does not say any more that it is looked at
void drop(Desk& desk, const QString& file, std::function<bool()> taken = {}) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&desk.window(), &enter);
    CHECK(enter.isAccepted());
    QDropEvent event(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&desk.window(), &event);
    if (!taken) taken = [&] { return !said(desk).startsWith(QStringLiteral("Looking at")); };
    CHECK(desk.waitFor(taken));
    desk.waitFor([&] { return !desk.window().page()->working(); });
    desk.settle();
}

void put(const std::filesystem::path& file, const std::string& text) { std::ofstream(file) << text; }

QString demo(const char* name) { return QStringLiteral(OMBREK_DATA_FOLDER "/demo/") + QLatin1String(name); }

}  // namespace

TEST_CASE(
    "every act of every page has a menu entry, a cap, an answer in Find and a tooltip: no two share a key") {
    Desk desk(partWay);
    int acts = 0;
    eachPageOf(desk, [&](const PageRow& row, Page& page) {
        const QList<QAction*> inMenu = menuActs(desk.window());
        QList<QAction*> all = page.actions();
        all << desk.window().actions();
        QStringList keys;
        for (QAction* act : all) {
            INFO(row.id << ": " << act->objectName().toStdString());
            ++acts;
            CHECK(inMenu.contains(act));
            CHECK(act->toolTip().size() > 8);
            CHECK(act->toolTip().contains(act->property(act::kKey).toString()));
            for (const QKeySequence& key : act->shortcuts()) {
                const QString shown = key.toString();
                INFO(shown.toStdString());
                // A page's own paste takes the place of none of the window's.
                CHECK_FALSE(keys.contains(shown));
                keys << shown;
                const bool digit = shown.size() == 1 && shown[0].isDigit();
                CHECK_FALSE((digit && page.takesNumbers()));
            }
        }
        for (QAction* act : page.actions()) {
            INFO(row.id << ": " << act->objectName().toStdString());
            const auto caps = page.findChildren<KeyCap*>();
            CHECK(std::any_of(caps.begin(), caps.end(), [&](const KeyCap* c) { return c->act() == act; }));
        }
    });
    CHECK(acts > 600);
    // Find knows each by its words.
    desk.key(Qt::Key_F1);
    for (const PageRow& row : pageRows()) {
        const Page* page = desk.window().pageOf(QString::fromUtf8(row.id));
        for (const QAction* act : page->actions()) {
            INFO(row.id << ": " << act->text().toStdString());
            findAtOnce(desk, act->text() + QChar(' ') + page->name());
            CHECK(findSheet(desk).found() >= 1);
        }
    }
    for (const QAction* act : desk.window().actions()) {
        INFO(act->text().toStdString());
        findAtOnce(desk, act->text());
        CHECK(findSheet(desk).found() >= 1);
    }
}

TEST_CASE("an act that cannot be done says why: in its tooltip, and when its key is pressed") {
    Desk desk;
    QAction* undo = desk.window().act(QStringLiteral("undo"));
    CHECK_FALSE(undo->isEnabled());
    CHECK(undo->toolTip().contains(QStringLiteral("Not now: There is nothing to take back.")));
    desk.key(Qt::Key_Z);
    CHECK(said(desk) == QStringLiteral("There is nothing to take back."));
    desk.key(Qt::Key_P, Qt::ControlModifier);
    CHECK(said(desk).contains(QStringLiteral("no sheet to print")));
    desk.key(Qt::Key_Return);
    CHECK(undo->isEnabled());
    CHECK(undo->text() == QStringLiteral("Take back: start of Lantern 15"));
    desk.key(Qt::Key_Z);
    CHECK(desk.window().act(QStringLiteral("redo"))->text() ==
          QStringLiteral("Do again: start of Lantern 15"));
}

TEST_CASE("standard desktop keys alone: open, undo, find, print, copy, larger text, quit") {
    Desk desk;
    desk.key(Qt::Key_O, Qt::ControlModifier);
    REQUIRE(Desk::fileDialog() != nullptr);
    // Typed in the dialog, as a person does.
    auto* name = Desk::fileDialog()->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
    REQUIRE(name != nullptr);
    QTest::keyClicks(name, demo("breakwater.kit.json"));
    QTest::keyClick(name, Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild() && Desk::fileDialog() == nullptr; }));
    desk.window().activateWindow();
    desk.settle();
    CHECK(desk.kit().id == "breakwater");
    CHECK(person::folder(QStringLiteral("book")) == QStringLiteral(OMBREK_DATA_FOLDER "/demo"));
    CHECK(person::recent(QStringLiteral("recent/kits")).value(0) == demo("breakwater.kit.json"));

    desk.key(Qt::Key_N);
    const auto missing = [&] {
        return std::any_of(desk.build().parts.begin(), desk.build().parts.end(),
                           [](const auto& p) { return p.second == PartMark::missing; });
    };
    CHECK(missing());
    desk.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK_FALSE(missing());
    desk.key(Qt::Key_Y, Qt::ControlModifier);
    CHECK(missing());
    desk.key(Qt::Key_Z, Qt::ControlModifier);

    find(desk, "dummy");
    CHECK(findSheet(desk).found() > 0);
    desk.key(Qt::Key_Escape);
    CHECK_FALSE(findSheet(desk).isVisible());

    desk.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(QApplication::clipboard()->text().contains(desk.now()));

    desk.key(Qt::Key_P, Qt::ControlModifier);
    auto* preview = desk.window().findChild<QPrintPreviewDialog*>();
    REQUIRE(preview != nullptr);
    CHECK(preview->isVisible());
    CHECK(preview->windowTitle().contains(QStringLiteral("Breakwater")));
    preview->reject();
    desk.settle();
    desk.window().activateWindow();
    desk.settle();

    QSignalSpy look(&desk.window(), &Window::wantsLook);
    desk.key(Qt::Key_Plus, Qt::ControlModifier);
    CHECK(look.size() == 1);
    CHECK(person::get(QStringLiteral("text")) == QStringLiteral("110"));
    desk.key(Qt::Key_0, Qt::ControlModifier);
    CHECK(person::get(QStringLiteral("text")) == QStringLiteral("100"));

    desk.key(Qt::Key_Q, Qt::ControlModifier);
    CHECK_FALSE(desk.window().isVisible());
}

TEST_CASE("Find goes to a part, a coil, a check, an adjustment, a setting, a word: and does an act") {
    Desk desk(partWay);
    const auto went = [&](const char* typed, const char* page) {
        INFO(typed);
        find(desk, typed);
        desk.key(Qt::Key_Return);
        CHECK(desk.window().page()->objectName() == QLatin1String(page));
    };
    went("C74", "parts-in");
    CHECK(desk.now().contains(QStringLiteral("C74")));
    went("mute hold on the board", "board");
    went("T1, ", "winding");
    CHECK(desk.now().contains(QStringLiteral("T1")));
    went("BFO runs near", "first-light");
    went("bias of the finals adjustment", "tune");
    went("decimal sign", "settings");
    CHECK(desk.now().startsWith(QStringLiteral("Decimal sign")));
    went("bifilar", "guide");
    CHECK(desk.window().page()->findChild<QTextBrowser*>()->toPlainText().startsWith(
        QStringLiteral("bifilar")));
    went("other side board", "board");
    CHECK(said(desk).contains(QStringLiteral("M does it here")));
    find(desk, "every key");
    desk.key(Qt::Key_Return);
    CHECK(desk.window().findChild<QWidget*>(QStringLiteral("keys-sheet"))->isVisible());
    desk.key(Qt::Key_Escape);
    find(desk, "zebra crossing");
    CHECK(findSheet(desk).found() == 0);
    desk.key(Qt::Key_Return);  // nothing to go to
    CHECK(findSheet(desk).isVisible());
}

TEST_CASE("what is typed in Find: values in any writing, accents and case left aside, best first") {
    const std::vector<Findable> all{
        {"part", "C5, 100 nF", "buffer bypass", "capacitor", "", "", "", {}},
        {"part", "C50, 10 µF", "", "capacitor", "", "", "", {}},
        {"part", "R5, 4.7 kΩ", "Emitterwiderstand, Höhe", "resistor", "", "", "", {}}};
    const auto first = [&](const char* typed) {
        const auto rows = narrowed(all, QString::fromUtf8(typed));
        return rows.empty() ? QString() : all[rows.front()].title.section(QChar(','), 0, 0);
    };
    CHECK(first("c5") == QStringLiteral("C5"));
    CHECK(first("C50") == QStringLiteral("C50"));
    CHECK(first("100nf") == QStringLiteral("C5"));
    CHECK(first("10uF") == QStringLiteral("C50"));
    CHECK(first("4.7kohm") == QStringLiteral("R5"));
    CHECK(first("hohe") == QStringLiteral("R5"));
    CHECK(first("capacitor buffer") == QStringLiteral("C5"));
    CHECK(first("nothing of the kind").isEmpty());
    CHECK(narrowed(all, QStringLiteral("  ")).size() == all.size());
}

TEST_CASE("what is dropped is recognised, said, and taken where it belongs") {
    Desk desk(fresh);
    drop(desk, demo("pilot-lamp.list.txt"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("list"));
    INFO(said(desk).toStdString());
    CHECK(said(desk).contains(QStringLiteral("pilot-lamp.list.txt")));
    CHECK_FALSE(dynamic_cast<ListPage*>(desk.window().page())->model().empty());
    drop(desk, demo("pilot-lamp.voltages.txt"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("paper"));
    drop(desk, demo("lantern-15.packing.csv"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("delivery"));
    drop(desk, demo("drawers.csv"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("drawers"));
    drop(desk, demo("lantern-15.upgrade.json"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("kit"));
    drop(desk, demo("lantern-15.kit.json"));
    CHECK(said(desk).contains(QStringLiteral("in hand")));
    CHECK(desk.session().book().builds().size() == 1);
    desk.key(Qt::Key_F2);
    drop(desk, demo("coil-l2.jpg"));
    CHECK(desk.window().page()->objectName() == QStringLiteral("picture"));
    desk.key(Qt::Key_F6);
    drop(desk, demo("coil-l2.jpg"));
    CHECK(said(desk).contains(QStringLiteral("drop it on Winding")));
    drop(desk, demo("breakwater.kit.json"));
    CHECK(desk.kit().id == "breakwater");
    desk.key(Qt::Key_Z);
    CHECK(desk.kit().id == "lantern-15");

    QSignalSpy book(&desk.window(), &Window::wantsBook);
    auto other = Book::open(desk.path("other.ombrek"));
    REQUIRE(other);
    other->reset();
    drop(desk, QString::fromStdString(desk.path("other.ombrek").string()), [&] { return book.size() == 1; });
    CHECK(book.size() == 1);
}

TEST_CASE("what is dropped and is nothing for Ombrek gets a sentence, and nothing changes") {
    Desk desk(fresh);
    const QString before = QString::fromStdString(desk.session().book().undoName());
    put(desk.path("empty.txt"), "");
    put(desk.path("huge.bin"), "");
    std::filesystem::resize_file(desk.path("huge.bin"), 2'000'000'000);
    put(desk.path("letter.txt"), "Dear builder,\nthe weather is fine here.\n");
    put(desk.path("sheet.xlsx"), "PK\x03\x04 and so on");
    put(desk.path("manual.pdf"), "%PDF-1.4 and so on");
    put(desk.path("filter.s2p"),
        "! made up\n# MHz S DB R 50\n1 -20 0 -1 0 -1 0 -20 0\n2 -20 0 -1 0 -1 0 -20 0\n");
    std::filesystem::create_directory(desk.path("folder"));
    REQUIRE(::mkfifo(desk.path("pipe").c_str(), 0600) == 0);
    const std::pair<const char*, const char*> cases[] = {
        {"folder", "a folder"},    {"empty.txt", "empty"},         {"huge.bin", "no book, kit, list"},
        {"gone.csv", "not there"}, {"letter.txt", "no book, kit"}, {"sheet.xlsx", "archive"},
        {"manual.pdf", "PDF"},     {"filter.s2p", "five points"},  {"pipe", "no plain file"}};
    for (const auto& [name, words] : cases) {
        INFO(name);
        drop(desk, QString::fromStdString(desk.path(name).string()));
        INFO(said(desk).toStdString());
        CHECK(said(desk).contains(QLatin1String(words)));
        CHECK(QString::fromStdString(desk.session().book().undoName()) == before);
        CHECK(desk.window().isVisible());
    }
}

TEST_CASE("pasting goes where it belongs: a value into the entry, a list to its page") {
    Desk desk(fresh);
    desk.key(Qt::Key_F1);
    QApplication::clipboard()->setText(QStringLiteral(" 4.7k "));
    desk.key(Qt::Key_V, Qt::ControlModifier);
    auto* entry = qobject_cast<QLineEdit*>(desk.window().focusWidget());
    REQUIRE(entry != nullptr);
    CHECK(entry->text() == QStringLiteral("4.7k"));
    desk.key(Qt::Key_Escape);
    QApplication::clipboard()->setText(QStringLiteral("R1 4k7 5%\nR2 10k 5%\nC1 100n 50V\nD1 1N4148\n"));
    desk.key(Qt::Key_V, Qt::ControlModifier | Qt::ShiftModifier);
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    CHECK(desk.window().page()->objectName() == QStringLiteral("list"));
    QApplication::clipboard()->clear();
    desk.key(Qt::Key_V, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(said(desk) == QStringLiteral("There is nothing to paste."));
}

TEST_CASE("the menu bar can be hidden, and Alt alone shows it") {
    Desk desk(fresh);
    CHECK(desk.window().menuBar()->isVisible());
    desk.key(Qt::Key_M, Qt::ControlModifier);
    CHECK_FALSE(desk.window().menuBar()->isVisible());
    desk.reopen();
    CHECK_FALSE(desk.window().menuBar()->isVisible());
    QTest::keyPress(desk.window().page(), Qt::Key_Alt);
    QTest::keyRelease(desk.window().page(), Qt::Key_Alt);
    desk.settle();
    CHECK(desk.window().menuBar()->isVisible());
    desk.key(Qt::Key_Escape);
    desk.window().page()->setFocus();
    desk.settle();
    CHECK_FALSE(desk.window().menuBar()->isVisible());
    desk.key(Qt::Key_M, Qt::ControlModifier);
    CHECK(desk.window().menuBar()->isVisible());
}

TEST_CASE("the right button takes the row in hand and shows what can be done") {
    Desk desk(partWay);
    desk.key(Qt::Key_F5);
    QContextMenuEvent event(QContextMenuEvent::Mouse, QPoint(300, 300),
                            desk.window().mapToGlobal(QPoint(500, 300)));
    QApplication::sendEvent(desk.window().page(), &event);
    desk.settle();
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    CHECK(menu->actions().contains(desk.window().page()->act(QStringLiteral("read-again"))));
    CHECK(menu->actions().contains(desk.window().act(QStringLiteral("copy"))));
    menu->close();
}

TEST_CASE("settings hold at once, where they say, and rubbish in their file does no harm") {
    Desk desk(fresh);
    desk.key(Qt::Key_Comma, Qt::ControlModifier);
    CHECK(desk.window().page()->objectName() == QStringLiteral("settings"));
    const auto set = [&](const char* key, const char* value) {
        const QString why = changeSetting(*settingRow(key), QString::fromUtf8(value), desk.session());
        INFO(key << ": " << why.toStdString());
        return why.isEmpty();
    };
    CHECK(set("wire", "swg"));
    CHECK(wireName("28AWG", *parseWire("28AWG")) == "30SWG (kit: 28AWG)");
    CHECK(set("wire", "mm"));
    CHECK(wireName("26AWG", *parseWire("26AWG")).starts_with("0"));
    CHECK(set("wire", "kit"));
    CHECK(set("length", "inch"));
    CHECK(lengthName(0.254).starts_with("10"));
    CHECK(set("length", "cm"));
    CHECK(set("decimal", "comma"));
    CHECK(decimals(4.7, 1) == "4,7");
    CHECK(set("decimal", "point"));
    CHECK(decimals(4.7, 1) == "4.7");
    CHECK(set("decimal", "desktop"));
    CHECK(set("bench", "night"));
    CHECK(coloursOf(desk.window()).paper == nightBench().paper);
    CHECK(set("bench", "day"));
    CHECK(set("rule", "simple"));
    CHECK(desk.build().rule == VerdictRule::simple);
    CHECK(set("callsign", "XX0DEMO"));
    CHECK(set("locator", "AB12cd"));
    const ReportWords words = reportWordsOf(desk.session().book(), desk.build(), wallClock());
    CHECK(words.call == QStringLiteral("XX0DEMO"));
    CHECK(words.locator == QStringLiteral("AB12cd"));
    for (const auto& [key, value] : {std::pair{"callsign", "hello there"}, std::pair{"locator", "ZZ99"},
                                     std::pair{"evenings", "whenever"}, std::pair{"instruments", "nowhere"},
                                     std::pair{"folder/sheet", "/no/such/folder"}})
        CHECK_FALSE(set(key, value));
    // A file of rubbish: every setting is a usual one.
    for (const SettingRow& row : settingRows()) {
        if (row.where != SettingRow::Where::person) continue;
        person::set(QString::fromUtf8(row.key), QString(9000, QChar(0x2622)));
        CHECK_FALSE(shownSetting(row, desk.session()).contains(QChar(0x2622)));
    }
    applyPerson();
    desk.reopen();
    CHECK(desk.window().isVisible());
    for (const SettingRow& row : settingRows()) {
        if (row.where == SettingRow::Where::person) person::set(QString::fromUtf8(row.key), QString());
    }
    applyPerson();
}

TEST_CASE("a setting is changed by keys, and the page is drawn anew where it was") {
    Desk desk(fresh);
    desk.key(Qt::Key_Comma, Qt::ControlModifier);
    desk.key(Qt::Key_Down);
    QSignalSpy look(&desk.window(), &Window::wantsLook);
    desk.key(Qt::Key_Right);
    CHECK(look.size() == 1);
    CHECK(desk.now() == QStringLiteral("Text size: 110 %"));
    CHECK(desk.window().page()->about() == QStringLiteral("text"));
    desk.key(Qt::Key_Left);
    CHECK(desk.now() == QStringLiteral("Text size: as drawn"));
    find(desk, "your name");
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("Ada"));
    CHECK(desk.session().book().preference("who") == "Ada");
}

TEST_CASE(
    "the guide opens at the page one is on: words on the page are explained: About says where things are") {
    Desk desk(partWay);
    desk.key(Qt::Key_F2);
    desk.key(Qt::Key_H, Qt::ControlModifier);
    CHECK(desk.now() == QStringLiteral("Winding"));
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_F4);
    desk.key(Qt::Key_F1, Qt::ShiftModifier);
    const auto text = [&] { return desk.window().page()->findChild<QTextBrowser*>()->toPlainText(); };
    CHECK(text().contains(QStringLiteral("gate:")));
    CHECK(text().contains(QStringLiteral("VFO:")));
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_I, Qt::ControlModifier);
    CHECK(text().contains(QStringLiteral(OMBREK_VERSION)));
    CHECK(text().contains(QString::fromStdString(desk.session().book().path().string())));
    CHECK(text().contains(QStringLiteral("LGPL")));
    // Every page of the window has its page of the guide, and every link in it leads somewhere.
    for (const PageRow& row : pageRows())
        CHECK_FALSE(guideText(guideOf(QString::fromUtf8(row.id))).isEmpty());
}

TEST_CASE("the glossary: sixty words and more, two lines each, none twice, found in a text as whole words") {
    QStringList words;
    for (const GuideEntry& entry : guideEntries()) {
        if (!entry.word) continue;
        INFO(entry.title.toStdString());
        CHECK(entry.says.size() >= 30);
        CHECK(entry.says.size() <= 240);
        CHECK_FALSE(words.contains(entry.title));
        words << entry.title;
    }
    CHECK(words.size() >= 60);
    for (const char* word : {"bifilar", "enamel", "IF", "null", "pull", "SWR"})
        CHECK(words.contains(QLatin1String(word)));
    const auto found =
        wordsIn(QStringLiteral("Harmonics behind the low-pass; pulled, iffy, a nullable thing."));
    REQUIRE(found.size() == 2);
    CHECK(found[0].title == QStringLiteral("harmonic"));
    CHECK(found[1].title == QStringLiteral("low-pass"));
}

TEST_CASE("the first evening leads over the practice kit, goes on when the act is done, and can be left") {
    Desk desk;
    auto* line = desk.window().findChild<EveningLine*>(QStringLiteral("evening"));
    REQUIRE(line != nullptr);
    CHECK_FALSE(line->isVisible());
    desk.key(Qt::Key_E, Qt::ControlModifier);
    CHECK(line->isVisible());
    CHECK(line->step() == 0);
    desk.key(Qt::Key_Return);
    CHECK(desk.kit().id == "lantern-15");
    CHECK(line->step() == 1);
    for (QPushButton* button : line->findChildren<QPushButton*>()) {
        if (button->text() == QStringLiteral("On")) button->click();  // without the practice bench
    }
    CHECK(line->step() == 2);
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Down);
    desk.key(Qt::Key_N);
    desk.key(Qt::Key_Z);
    CHECK(line->step() == 6);
    for (const Qt::Key key : {Qt::Key_F2, Qt::Key_Return, Qt::Key_Space, Qt::Key_Backspace, Qt::Key_F3,
                              Qt::Key_M, Qt::Key_F4, Qt::Key_F5, Qt::Key_F6, Qt::Key_F7})
        desk.key(key);
    CHECK(line->step() == EveningLine::steps() - 1);
    desk.key(Qt::Key_F, Qt::ControlModifier);
    CHECK_FALSE(line->isVisible());
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_E, Qt::ControlModifier);
    for (QPushButton* button : line->findChildren<QPushButton*>()) {
        if (button->text() == QStringLiteral("Leave")) button->click();
    }
    CHECK_FALSE(line->isVisible());
}

// Run by tests/voice/says_ten.py, which listens.
TEST_CASE("the voice says the tenth pass", "[.][tenth]") {
    Desk desk(partWay);
    REQUIRE(desk.session().voice().able());
    REQUIRE(desk.session().book().prefer("sound", "voice"));
    desk.key(Qt::Key_F2);
    for (int turns = 7; turns < 10; ++turns) desk.key(Qt::Key_Space);
    CHECK(desk.build().winding("L2", "coil").turns == 10);
    QTest::qWait(2500);
}

TEST_CASE("the focus goes along the caps and back to the page, and is seen on each") {
    Desk desk(partWay);
    desk.key(Qt::Key_F1);
    QStringList order;
    for (int i = 0; i < 30; ++i) {
        QTest::keyClick(desk.window().focusWidget() ? desk.window().focusWidget() : desk.window().page(),
                        Qt::Key_Tab);
        QWidget* now = desk.window().focusWidget();
        REQUIRE(now != nullptr);
        CHECK(now->isVisible());
        if (const auto* cap = qobject_cast<KeyCap*>(now)) {
            if (order.contains(cap->act()->objectName())) break;
            order << cap->act()->objectName();
            CHECK_FALSE(cap->accessibleName().isEmpty());
        }
    }
    // In the order in which they stand at the foot.
    QStringList stands;
    for (const KeyCap* cap : desk.window().page()->findChildren<KeyCap*>()) {
        if (cap->isVisible()) stands << cap->act()->objectName();
    }
    CHECK(order == stands);
}

TEST_CASE("nothing moves by itself: there is no animation to be reduced") {
    Desk desk(partWay);
    for (int station = 0; station < Window::kStations; ++station) {
        desk.window().goTo(station);
        desk.settle();
        for (const QAbstractAnimation* animation : desk.window().findChildren<QAbstractAnimation*>()) {
            INFO(animation->metaObject()->className()
                 << " of " << animation->parent()->metaObject()->className());
            CHECK(animation->totalDuration() == 0);
            CHECK(animation->state() == QAbstractAnimation::Stopped);
        }
    }
    CHECK(QApplication::style()->styleHint(QStyle::SH_Widget_Animation_Duration) == 0);
    CHECK_FALSE(QApplication::isEffectEnabled(Qt::UI_AnimateMenu));
}

TEST_CASE("a person's settings file that is no settings file at all gives a usual start") {
    application();
    const QString file = QSettings(QStringLiteral("ombrek"), QStringLiteral("ombrek")).fileName();
    QDir().mkpath(QFileInfo(file).path());
    Desk desk(fresh);
    QFile out(file);
    REQUIRE(out.open(QIODevice::WriteOnly));
    out.write(QByteArray::fromHex("00ff4d5a900003000000040000ffff5b5b5b3d3d0a25252525"));
    out.close();
    desk.reopen();
    CHECK(desk.window().isVisible());
    CHECK(desk.window().menuBar()->isVisible());
    for (const SettingRow& row : settingRows()) CHECK_FALSE(shownSetting(row, desk.session()).isEmpty());
}

TEST_CASE("counts and verdicts in words for the voice") {
    CHECK(spokenNumber(10) == QStringLiteral("ten"));
    CHECK(spokenNumber(21) == QStringLiteral("twenty-one"));
    CHECK(spokenNumber(100) == QStringLiteral("one hundred"));
    CHECK(spokenNumber(142) == QStringLiteral("one hundred and forty-two"));
    CHECK(spokenNumber(-1) == QStringLiteral("-1"));
    Desk desk(partWay);
    const Judged& judged = desk.session().judged();
    CHECK(spokenVerdict(judged, Subject::part("C82")) == QStringLiteral("C82, pass"));
    CHECK(spokenVerdict(judged, Subject::part("R62")) == QStringLiteral("R62, fail"));
    CHECK(spokenVerdict(judged, Subject::part("nothing")).isEmpty());
    CHECK(spokenVerdict(judged, Subject::power()).isEmpty());
}

TEST_CASE(
    "the shack: a book is opened off the window's thread, another takes its place, a bad one changes "
    "nothing") {
    application();
    const Folder folder;
    partWay(folder / "one.ombrek");
    fresh(folder / "two.ombrek");
    put(folder / "bad.ombrek", "no book at all");
    person::set(QStringLiteral("window"), QStringLiteral("rubbish"));
    const auto settle = [](const std::function<bool()>& done) {
        QElapsedTimer timer;
        timer.start();
        while (!done() && timer.elapsed() < 8000) QApplication::processEvents(QEventLoop::AllEvents, 20);
        QApplication::processEvents();
        return done();
    };
    Shack shack{Tables(shippedTables())};
    QSignalSpy refused(&shack, &Shack::refused);
    shack.open(folder / "bad.ombrek");
    REQUIRE(settle([&] { return refused.size() == 1; }));
    shack.open(folder / "one.ombrek");
    REQUIRE(settle([&] { return shack.window() != nullptr; }));
    CHECK(shack.session()->book().path() == folder / "one.ombrek");
    // Its copy of the day comes by itself.
    REQUIRE(settle([&] { return dailyCopies(folder / "one.ombrek").size() == 1; }));
    // The wish is heard in the next turn of the events: what is waited for is its refusal, not the quiet
    // before.
    QSignalSpy said(shack.session(), &Session::said);
    emit shack.window()->wantsBook(QString::fromStdString((folder / "bad.ombrek").string()));
    REQUIRE(settle([&] {
        return std::any_of(said.begin(), said.end(), [](const QList<QVariant>& line) {
            return line.value(1).value<VerdictState>() == VerdictState::fail;
        });
    }));
    CHECK_FALSE(shack.opening());
    CHECK(shack.session()->book().path() == folder / "one.ombrek");
    emit shack.window()->wantsBook(QString::fromStdString((folder / "two.ombrek").string()));
    REQUIRE(settle([&] { return shack.session()->book().path() == folder / "two.ombrek"; }));
    CHECK(person::recent(QStringLiteral("recent/books")).value(0) ==
          QString::fromStdString((folder / "two.ombrek").string()));
    // Larger text: the window is made anew where it was, and everything on it is larger.
    shack.window()->resize(1400, 900);
    shack.window()->goTo(3);
    const int before = benchFont(15).pixelSize();
    shack.window()->act(QStringLiteral("text-larger"))->trigger();
    settle([&] { return benchFont(15).pixelSize() > before; });
    CHECK(benchFont(15).pixelSize() == int(std::lround(15 * 1.1)));
    CHECK(shack.window()->station() == 3);
    CHECK(shack.window()->width() == 1400);
    shack.window()->act(QStringLiteral("text-usual"))->trigger();
    settle([&] { return benchFont(15).pixelSize() == before; });
    CHECK(benchFont(15).pixelSize() == before);
}
