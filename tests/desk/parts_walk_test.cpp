#include <QClipboard>
#include <QFile>
#include <QLabel>
#include <fstream>

#include "desk/drawers/drawers_page.h"
#include "desk/list/delivery_page.h"
#include "desk/list/list_page.h"
#include "desk/pieces/band_picker.h"
#include "formats/stock_csv.h"
#include "judged/bag.h"
#include "station/parts_in/bag_story.h"
#include "station/parts_in/parts_in.h"
#include "window_fixture.h"

using namespace ombrek;

// The first station and the pages beside it, worked with keys in the real window.

namespace {

bool shows(Desk& desk, const QString& text) {
    for (const QLabel* label : desk.window().page()->findChildren<QLabel*>()) {
        if (label->isVisible() && label->text().contains(text)) return true;
    }
    return desk.now().contains(text);
}

QString entryText(Desk& desk) {
    const auto* entry = qobject_cast<QLineEdit*>(desk.window().focusWidget());
    return entry != nullptr ? entry->text() : QString();
}

void write(const std::filesystem::path& file, const std::string& text) { std::ofstream(file) << text; }

const BagTrouble* about(const BagStory& story, const std::string& ref) {
    for (const BagTrouble& t : story.troubles) {
        if (t.ref == ref) return &t;
    }
    return nullptr;
}

}  // namespace

TEST_CASE("the seeded troubles are all found by working the station with the practice meter") {
    Desk desk(fresh);
    desk.key(Qt::Key_F9);
    desk.key(Qt::Key_Return);  // the zero of the clips
    CHECK(meterFor(desk.session().book().meters(), Unit::farad, 0)->zero == Approx(0.6e-12));
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Parts in"));
    while (const Part* part = nextPart(desk.session().judged())) {
        const std::string ref = part->ref;
        desk.key(Qt::Key_Return);
        if (partVerdict(*part, desk.build()).state == VerdictState::notDone) desk.key(Qt::Key_N);
        REQUIRE(partVerdict(*part, desk.build()).state != VerdictState::notDone);
    }
    // A builder looks at what is odd, and at every mark: these three are not what the card says.
    for (const auto& [ref, printed] : practiceKit().bag.marks) {
        for (int guard = 0; guard < 300 && !desk.now().contains(QStringLiteral(" %1:").arg(qs(ref))); ++guard)
            desk.key(Qt::Key_Down);
        REQUIRE(desk.waitFor(
            [&] { return shows(desk, QStringLiteral("On the practice part: ") + qs(printed)); }));
        desk.key(Qt::Key_M);
        CHECK(entryText(desk) == qs(printed));
        desk.key(Qt::Key_Return);
        CHECK(desk.build().printed.at(ref) == printed);
    }
    // What is left in the bag: nobody knows what it is.
    desk.key(Qt::Key_U);
    CHECK(desk.window().page()->name() == QStringLiteral("Which part is this?"));
    desk.key(Qt::Key_C);
    desk.key(Qt::Key_M);
    REQUIRE(desk.waitFor([&] { return entryText(desk) == QStringLiteral("472K"); }));
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_Return);  // measure
    REQUIRE(desk.build().loose.size() == 1);
    CHECK(desk.build().loose[0].value == Approx(4.7e-9).epsilon(0.03));
    CHECK(desk.now().contains(QStringLiteral("It is over")));
    desk.key(Qt::Key_Escape);

    using What = BagTrouble::What;
    const std::map<std::string, What> wanted{{"R62", What::anotherValue},
                                             {"R82", What::missing},
                                             {"C13", What::misplaced},
                                             {"C34", What::mismarked},
                                             {"C44", What::anotherValue},
                                             {"C53", What::missing},
                                             {"", What::over}};
    const BagStory story = bagStory(desk.kit(), desk.build());
    CHECK(story.troubles.size() == wanted.size());
    for (const auto& [ref, what] : wanted) {
        INFO(ref);
        const BagTrouble* trouble = about(story, ref);
        REQUIRE(trouble != nullptr);
        CHECK(trouble->what == what);
    }
    desk.reopen();
    CHECK(bagStory(desk.kit(), desk.build()).troubles.size() == wanted.size());
}

TEST_CASE("a wrong part is replaced from the drawers: kept back, taken out, measured") {
    Desk desk(partWay);
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_W);
    CHECK(desk.now().contains(QStringLiteral("R62")));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.session().book().promises().size() == 2);  // 2.2 kΩ and 1.8 kΩ in parallel
    const auto before = desk.session().book().stock();
    CHECK(desk.now().startsWith(QStringLiteral("Take it out of the drawer")));
    desk.key(Qt::Key_Return);
    CHECK(desk.session().book().promises().empty());
    int taken = 0;
    const auto after = desk.session().book().stock();
    for (std::size_t i = 0; i < before.size(); ++i) taken += before[i].count - after[i].count;
    CHECK(taken == 2);
    CHECK(desk.window().page()->name() == QStringLiteral("Parts in"));
    CHECK(desk.now().contains(QStringLiteral("Measure R62")));
    desk.type(QStringLiteral("992"));
    desk.key(Qt::Key_Return);
    CHECK(partVerdict(*desk.kit().part("R62"), desk.build()).state == VerdictState::pass);
    CHECK(about(bagStory(desk.kit(), desk.build()), "R62") == nullptr);
}

TEST_CASE("a part in another's place goes where it belongs, and what lay there is without a line") {
    Desk desk(partWay);
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_W);
    for (int i = 0; i < 8 && !desk.now().contains(QStringLiteral("belongs: C44")); ++i)
        desk.key(Qt::Key_Right);
    REQUIRE(desk.now().contains(QStringLiteral("belongs: C44")));
    desk.key(Qt::Key_Return);
    CHECK(partVerdict(*desk.kit().part("C44"), desk.build()).state == VerdictState::pass);
    CHECK(partVerdict(*desk.kit().part("C13"), desk.build()).state == VerdictState::notDone);
    CHECK(desk.build().loose.size() == 2);
    desk.key(Qt::Key_Z);
    CHECK(desk.build().loose.size() == 1);
}

TEST_CASE("shopping list and letter are written, and what they are about is settled") {
    Desk desk(partWay);
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_W);
    const QString csv = QString::fromStdString(desk.path("buy.csv").string());
    desk.key(Qt::Key_S);
    desk.answer(csv);
    REQUIRE(desk.waitFor([&] { return QFile::exists(csv) && !desk.window().page()->working(); }));
    QFile file(csv);
    REQUIRE(file.open(QIODevice::ReadOnly));
    const QByteArray text = file.readAll();
    CHECK(text.startsWith("quantity,kind,value"));
    CHECK(text.contains("R82"));
    CHECK(desk.build().remedies.at("R82").how == Remedy::How::shopping);
    const QString letter = QString::fromStdString(desk.path("letter.txt").string());
    desk.key(Qt::Key_L);
    desk.answer(letter);
    REQUIRE(desk.waitFor([&] { return QFile::exists(letter) && !desk.window().page()->working(); }));
    CHECK(desk.build().remedies.at("R82").how == Remedy::How::shopping);  // the earlier decision stands
    desk.key(Qt::Key_L);
    desk.answer(QStringLiteral("/nowhere/letter.txt"));
    CHECK(desk.waitFor([&] { return !desk.window().page()->working(); }));
}

TEST_CASE("another type is accepted with its gain group and the reason") {
    Desk desk(fresh);
    for (int guard = 0; guard < 300 && !desk.now().contains(QStringLiteral("Find Q2")); ++guard)
        desk.key(Qt::Key_Up);
    desk.key(Qt::Key_E);
    desk.answer(QStringLiteral("NPN, general purpose"));
    desk.answer(QStringLiteral("B"));
    desk.answer(QStringLiteral("same pins, more gain"));
    CHECK(desk.build().remedies.at("Q2").note == "NPN, general purpose, gain group B: same pins, more gain");
    CHECK(partVerdict(*desk.kit().part("Q2"), desk.build()).state == VerdictState::pass);
}

TEST_CASE("ways and depths change what is asked next, and survive a restart") {
    Desk desk(fresh);
    desk.key(Qt::Key_Y);
    CHECK(desk.build().way == BagWay::byPlan);
    CHECK(desk.now().contains(QStringLiteral("R1:")));  // the plan's first solder step
    desk.key(Qt::Key_H);
    CHECK(desk.build().depth == BagDepth::measureDoubtful);
    desk.key(Qt::Key_H);
    desk.key(Qt::Key_Y);
    desk.reopen();
    CHECK(desk.build().way == BagWay::beforeFitting);
    CHECK(desk.build().depth == BagDepth::trustBag);
    int steps = 0;
    while (nextPart(desk.session().judged()) != nullptr && ++steps < 20) desk.key(Qt::Key_Return);
    CHECK(desk.now().contains(QStringLiteral("fit it")));
    CHECK(desk.build().parts.at("R1") == PartMark::trusted);
    CHECK(countBag(desk.session().judged()).waiting > 0);
}

TEST_CASE("the whole bag on trust takes one Enter a line") {
    Desk desk(fresh);
    desk.key(Qt::Key_H);
    desk.key(Qt::Key_H);
    int enters = 0;
    while (nextPart(desk.session().judged()) != nullptr && ++enters < 200) desk.key(Qt::Key_Return);
    CHECK(countBag(desk.session().judged()).in == int(desk.kit().parts.size()));
    CHECK(enters < int(desk.kit().parts.size()) * 2 / 3);
    desk.key(Qt::Key_Z);
    CHECK(nextPart(desk.session().judged()) != nullptr);
}

TEST_CASE("bands are entered by digit, by letter and by picking, and belong to the picker alone") {
    Desk desk(fresh);
    desk.key(Qt::Key_H);  // marks settle a line in this depth
    for (int guard = 0; guard < 300 && !desk.now().contains(QStringLiteral("R61")); ++guard)
        desk.key(Qt::Key_Down);
    desk.key(Qt::Key_K);
    auto* picker = desk.window().page()->findChild<BandPicker*>();
    REQUIRE(picker->isVisible());
    for (const Qt::Key key :
         {Qt::Key_4, Qt::Key_7, Qt::Key_9, Qt::Key_Backspace, Qt::Key_2, Qt::Key_N, Qt::Key_G})
        desk.key(key);
    CHECK(picker->bands().join(QChar(' ')) == QStringLiteral("yellow violet red gold"));
    desk.key(Qt::Key_Return);
    CHECK_FALSE(picker->isVisible());
    CHECK(desk.build().printed.at("R61") == "yellow violet red gold");
    CHECK(desk.build().parts.at("R61") == PartMark::seen);
    for (int guard = 0; guard < 300 && !desk.now().contains(QStringLiteral("R71")); ++guard)
        desk.key(Qt::Key_Down);
    desk.key(Qt::Key_K);
    desk.key(Qt::Key_Space);  // the swatch in hand is brown
    desk.key(Qt::Key_Left);
    desk.key(Qt::Key_Space);
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Space);
    CHECK(picker->bands() == QStringList{"brown", "black", "red"});
    desk.key(Qt::Key_Escape);
    CHECK_FALSE(desk.build().printed.contains("R71"));
}

TEST_CASE("a list pasted from a manual becomes a kit one can build") {
    Desk desk;
    desk.key(Qt::Key_L);
    CHECK(desk.window().page()->name() == QStringLiteral("Parts list"));
    QApplication::clipboard()->setText(
        QStringLiteral("BEACON LAMP parts list page 3\nResistors 1/4 W 5 %\nR1, R2  4k7  (yellow violet red "
                       "gold)  2\nR3-R5  100  3\n"
                       "C1, C2, C4-C6   100nF 50V ceramic (marked 104)   6\nC3  22  1\nQ1  NPN, small "
                       "signal\nIC1  audio amplifier, 8 "
                       "pins\n"));
    desk.key(Qt::Key_V, Qt::ControlModifier);
    auto& page = pageOf<ListPage>(desk);
    REQUIRE(desk.waitFor([&] { return !page.working() && !page.model().empty(); }));
    CHECK(page.model().parts() == 13);
    CHECK(page.model().doubtful() == 2);  // 6 for five designators, 22 of what
    desk.key(Qt::Key_A);
    CHECK_FALSE(desk.session().hasBuild());  // doubts first
    while (page.model().refused() > 0) desk.key(Qt::Key_Delete);
    desk.key(Qt::Key_Y);  // five it is
    CHECK(page.model().doubtful() == 1);
    desk.key(Qt::Key_Return);
    CHECK(entryText(desk).contains(QStringLiteral("C3")));
    desk.answer(QStringLiteral("nonsense"));
    CHECK(page.model().doubtful() == 1);
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("C3 22pF 5%"));
    CHECK(page.model().doubtful() == 0);
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("Beacon lamp"));
    REQUIRE(desk.session().hasBuild());
    CHECK(desk.kit().name == "Beacon lamp");
    CHECK(desk.kit().parts.size() == 13);
    CHECK(desk.kit().part("C5")->volts == 50);
    CHECK(desk.window().page()->name() == QStringLiteral("Parts in"));
    CHECK(nextPart(desk.session().judged()) != nullptr);
    CHECK_FALSE(desk.kit().steps.empty());
    desk.key(Qt::Key_Z);  // the import is one action
    CHECK_FALSE(desk.session().hasBuild());
}

TEST_CASE("a column is corrected, and remembered for the next list with that heading") {
    Desk desk;
    const std::string head = "Pos.;Wert;Bemerkung;Spannung\n";
    write(desk.path("one.csv"), head + "R1;4k7;metal film;\nC1;100n;104;50\nC2;1u;105;16\n");
    desk.key(Qt::Key_L);
    desk.key(Qt::Key_O);
    desk.answer(QString::fromStdString(desk.path("one.csv").string()));
    auto& page = pageOf<ListPage>(desk);
    REQUIRE(desk.waitFor([&] { return !page.working() && !page.model().empty(); }));
    CHECK(page.model().source().table);
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Right);
    const Column before = page.model().source().shape.columns[2];
    while (page.model().source().shape.columns[2] != Column::mark) desk.key(Qt::Key_C);
    CHECK(before != Column::mark);
    CHECK(page.model().source().list.lines[1].mark == "104");
    write(desk.path("two.csv"), head + "C7;10n;103;50\nC8;1n;102;50\n");
    desk.key(Qt::Key_O);
    desk.answer(QString::fromStdString(desk.path("two.csv").string()));
    REQUIRE(desk.waitFor([&] { return !page.working(); }));
    CHECK(page.model().parts() == 3);  // asked about first
    desk.key(Qt::Key_O);
    desk.answer(QString::fromStdString(desk.path("two.csv").string()));
    REQUIRE(desk.waitFor([&] { return !page.working() && page.model().parts() == 2; }));
    CHECK(page.model().source().list.lines[0].mark == "103");
}

TEST_CASE("a list that is none, is missing or is enormous is refused with a sentence") {
    Desk desk;
    desk.key(Qt::Key_L);
    auto& page = pageOf<ListPage>(desk);
    write(desk.path("prose.txt"), "Dear builder,\nthank you for your order.\n");
    write(desk.path("huge.csv"), "");
    std::filesystem::resize_file(desk.path("huge.csv"), 1000000000);
    for (const char* name : {"prose.txt", "huge.csv", "not-there.csv"}) {
        desk.key(Qt::Key_O);
        desk.answer(QString::fromStdString(desk.path(name).string()));
        desk.waitFor([&] { return !page.working(); });
        INFO(name);
        CHECK(page.model().empty());
        CHECK_FALSE(desk.session().hasBuild());
    }
    QApplication::clipboard()->clear();
    desk.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(page.model().empty());
    desk.key(Qt::Key_Escape);
    CHECK(desk.now().contains(QStringLiteral("choose a kit")));
}

TEST_CASE("a packing list is set against the kit, and what did not come is marked in one action") {
    Desk desk(fresh);
    desk.key(Qt::Key_I);
    desk.key(Qt::Key_O);
    desk.answer(QStringLiteral(OMBREK_DATA_FOLDER "/demo/lantern-15.packing.csv"));
    auto& page = pageOf<DeliveryPage>(desk);
    REQUIRE(desk.waitFor([&] { return !page.working() && !page.lines().empty(); }));
    CHECK(desk.now() == QStringLiteral("2 parts did not come: Enter marks them."));
    desk.key(Qt::Key_Return);
    const BagCount bag = countBag(desk.session().judged());
    CHECK(bag.missing == 2);
    CHECK(desk.build().parts.at("R82") == PartMark::missing);
    desk.key(Qt::Key_Z);
    CHECK(countBag(desk.session().judged()).missing == 0);
}

TEST_CASE("drawers: found as one types, counted, added, changed, taken out") {
    Desk desk(partWay);
    desk.key(Qt::Key_F8);
    auto& page = pageOf<DrawersPage>(desk);
    const auto all = desk.session().book().stock().size();
    CHECK(page.shown().size() == all);
    desk.type(QStringLiteral("10n..100n 50V"));
    CHECK(page.shown().size() == 3);
    desk.key(Qt::Key_Return);
    CHECK(desk.window().focusWidget() == &page);
    const int before = desk.session().book().stock()[page.shown()[0]].count;
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Right);
    desk.key(Qt::Key_Left);
    CHECK(desk.session().book().stock()[page.shown()[0]].count == before + 1);
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("B9 33n 5% 100V film x7"));
    CHECK(desk.session().book().stock().back().count == 7);
    CHECK(page.shown().size() == 4);
    desk.key(Qt::Key_A);
    desk.refused(QStringLiteral("what"));
    CHECK(desk.session().book().stock().size() == all + 1);
    desk.key(Qt::Key_Up);
    desk.key(Qt::Key_C);
    CHECK(entryText(desk) == QStringLiteral("B9 33nF 5% 100V film x7"));
    desk.answer(QStringLiteral("B9 33nF 5% 100V film x8"));
    CHECK(desk.session().book().stock().back().count == 8);
    desk.key(Qt::Key_Delete);
    CHECK(desk.session().book().stock().size() == all);
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Parts in"));
}

TEST_CASE(
    "drawers: a CSV is taken in as one action, its refused rows told: the drawers go out and come back") {
    Desk desk(fresh);
    desk.key(Qt::Key_F8);  // nothing to find yet: the keys are the page's
    auto& page = pageOf<DrawersPage>(desk);
    write(desk.path("in.csv"),
          "drawer;value;volts;count\nA1;47n;63;5\nA2;47n;lots;5\nA3;1u;16;=2\nA4;4k7;;9\n");
    desk.key(Qt::Key_I);
    desk.answer(QString::fromStdString(desk.path("in.csv").string()));
    REQUIRE(desk.waitFor([&] { return !page.working() && !page.shown().empty(); }));
    const auto taken = desk.session().book().stock();
    CHECK(taken.size() == 2);
    const QString out = QString::fromStdString(desk.path("out.csv").string());
    desk.key(Qt::Key_X);
    desk.answer(out);
    REQUIRE(desk.waitFor([&] { return QFile::exists(out) && !page.working(); }));
    QFile file(out);
    REQUIRE(file.open(QIODevice::ReadOnly));
    const auto again = readStock(file.readAll().toStdString());
    REQUIRE(again);
    REQUIRE(again->lines.size() == taken.size());
    CHECK(again->lines[0].value == Approx(taken[0].value));
    desk.key(Qt::Key_Down);  // the last, of which nothing is left after the next key
    desk.key(Qt::Key_Z);
    CHECK(desk.session().book().stock().empty());
    CHECK(page.shown().empty());
    desk.key(Qt::Key_I);
    desk.answer(QStringLiteral("/nowhere/at/all.csv"));
    desk.waitFor([&] { return !page.working(); });
    CHECK(desk.session().book().stock().empty());
}

TEST_CASE("spares of a kit go into a drawer with one key") {
    Desk desk(partWay);
    REQUIRE(desk.build().loose.size() == 1);
    desk.key(Qt::Key_F8);
    desk.key(Qt::Key_Escape);
    desk.key(Qt::Key_S);
    CHECK(desk.build().loose.empty());
    const StockLine spare = desk.session().book().stock().back();
    CHECK(spare.drawer == "spares");
    CHECK(spare.value == Approx(4.7e-9));
    CHECK(spare.what == "from Lantern 15");
    desk.key(Qt::Key_S);
    CHECK(desk.session().book().stock().back() == spare);
}

TEST_CASE("meters: accuracy, range, name and date are typed: nonsense changes nothing") {
    Desk desk(fresh);
    desk.key(Qt::Key_F9);
    const auto farads = [&] { return *meterFor(desk.session().book().meters(), Unit::farad, 1e-9); };
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("0.5 % + 0.2 pF"));
    CHECK(farads().percent == 0.5);
    CHECK(farads().floor == Approx(0.2e-12));
    desk.key(Qt::Key_A);
    desk.refused(QStringLiteral("quite good"));
    CHECK(farads().percent == 0.5);
    desk.key(Qt::Key_N);
    desk.answer(QStringLiteral("blue bridge"));
    CHECK(farads().name == "blue bridge");
    desk.key(Qt::Key_R);
    desk.answer(QStringLiteral("0..1u"));
    CHECK(farads().high == Approx(1e-6));
    desk.key(Qt::Key_R);
    desk.answer(QStringLiteral("1u..1"));
    CHECK(farads().high == Approx(1e-6));
    desk.key(Qt::Key_D);
    desk.refused(QStringLiteral("2024-02-30"));
    CHECK(farads().calibrated == 0);
    desk.key(Qt::Key_D);
    desk.answer(QStringLiteral("2024-02-29"));
    CHECK(calibrationIsOld(farads(), wallClock()));
    CHECK(shows(desk, QStringLiteral("over a year ago")));
    desk.key(Qt::Key_V);
    CHECK(desk.build().rule == VerdictRule::simple);
}

TEST_CASE("each way of working prints its own sheet") {
    Desk desk(fresh);
    for (const char* name : {"trays.pdf", "labels.pdf", "picking.pdf"}) {
        const QString file = QString::fromStdString(desk.path(name).string());
        desk.key(Qt::Key_P);
        desk.answer(file);
        REQUIRE(desk.waitFor([&] { return QFile::exists(file) && !desk.window().page()->working(); }));
        QFile pdf(file);
        REQUIRE(pdf.open(QIODevice::ReadOnly));
        CHECK(pdf.readAll().startsWith("%PDF-"));
        desk.key(Qt::Key_Y);
    }
}
