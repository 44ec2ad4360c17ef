#include <QClipboard>
#include <QLabel>

#include "desk/list/list_page.h"
#include "desk/paper/paper_page.h"
#include "judged/sign_off.h"
#include "window_fixture.h"

using namespace ombrek;

// A kit nobody has written a file for: from a pasted list to all seven stations, with keys.

namespace {

const char* kList =
    "Sea Wall 40 receiver and transmitter\nAll resistors 1/4 W\n\nResistors, 5 %\n"
    "R1,2 .... 10k\nR3 ...... 4k7\nR4/5 .... 470\nR6 ...... 1Meg\nR7 ...... 2R2\n\n"
    "Capacitors\nC1..C4 .. 0.1 uF\nC5 ...... 0.01\nC6,7 .... 47 pF NP0\nC8 ...... 1000uF/16V\nC9 ...... 22 "
    "pF\n"
    "C10 ..... trimmer 5-30 pF\nC11 ..... 33 pF\nC12 ..... 100 pF not fitted\n\n"
    "Semiconductors\nD1 ...... 1N4148\nQ1 ...... 2N3904\nIC1 ..... 78L05\nIC2 ..... LM386\nX1 ...... 7.030 "
    "MHz\n\n"
    "Other\nR62 ..... 500 ohm trimpot\nJ1 ...... antenna socket\n\nHardware\n4 M3 x 6 screws\n60 cm RG174 "
    "coax\n";

void paste(Desk& desk, const char* text) {
    QApplication::clipboard()->setText(QString::fromUtf8(text));
    desk.key(Qt::Key_V, Qt::ControlModifier);
    desk.waitFor([&] { return !desk.window().page()->working(); });
}

}  // namespace

TEST_CASE("an own kit: from a pasted list to all seven stations") {
    Desk desk;
    int acts = 0;
    const auto key = [&](Qt::Key k) {
        desk.key(k);
        ++acts;
    };
    key(Qt::Key_L);
    paste(desk, kList);
    REQUIRE(desk.waitFor([&] { return !pageOf<ListPage>(desk).model().empty(); }));
    key(Qt::Key_A);
    if (desk.window().page()->nowSentence().contains(QStringLiteral("doubtful"))) key(Qt::Key_A);
    key(Qt::Key_Return);  // its name
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild(); }));
    CHECK(desk.kit().part("C12") == nullptr);
    CHECK(desk.kit().part("HW1") != nullptr);

    // Nothing is blank: each station says what it could take and how.
    for (const Qt::Key station : {Qt::Key_F2, Qt::Key_F4, Qt::Key_F5, Qt::Key_F6}) {
        key(station);
        bool told = false;
        for (const QLabel* label : desk.window().page()->findChildren<QLabel*>())
            told = told || label->text().contains(QStringLiteral("Ins"));
        CHECK(told);
    }

    key(Qt::Key_F2);
    paste(desk,
          "L1  T50-2 (red), 28 turns #28\nL2  T37-6, 30 turns #28, tap at 7, tunes 7.0 to 7.1 MHz with C10 "
          "and C11\n"
          "T1  FT37-43, 10 turns bifilar, 0.3 mm\n");
    CHECK(pageOf<PaperPage>(desk).model().takable() == 3);
    key(Qt::Key_A);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
    REQUIRE(desk.kit().coils.size() == 3);
    CHECK(desk.kit().coil("L1")->target == Approx(28 * 28 * 4.9e-9));  // AL of the core table
    CHECK(desk.kit().coil("T1")->twisted.size() == 2);
    REQUIRE(desk.kit().coil("L2")->tune);
    CHECK(desk.kit().coil("L2")->tune->trimmer == "C10");

    key(Qt::Key_F3);
    paste(desk,
          "1. Solder R1 to R7. Keep the cut leads, they are needed later.\n2. Fit D1, the band towards the "
          "edge.\n"
          "3. Solder C1 to C4 and C5. Do not fit IC2 yet.\n4. Fit IC1.\n"
          "5. Before you go on measure 5 V at pin 3 of IC1 with a multimeter.\n6. Insert IC2.\n");
    CHECK(pageOf<PaperPage>(desk).model().rows().size() == 7);  // the last: parts in no step
    CHECK(pageOf<PaperPage>(desk).model().rows().back().says.starts_with("In no step: "));
    key(Qt::Key_A);
    key(Qt::Key_A);  // "IC2 is named, and it says not to"
    CHECK(desk.window().page()->name() == QStringLiteral("Board"));
    int fitted = 0;
    for (const Step& step : desk.kit().steps) fitted += int(step.fits.size());
    CHECK(fitted == int(desk.kit().parts.size()));  // every part still in exactly one step
    const auto own = std::find_if(desk.kit().steps.begin(), desk.kit().steps.end(),
                                  [](const Step& s) { return s.id == "own-5"; });
    REQUIRE(own != desk.kit().steps.end());
    CHECK(own->hold);
    CHECK(own->tools == std::vector<std::string>{"multimeter"});
    // The chip still waits for the voltages, whatever the paper forgot.
    CHECK(desk.kit().step("own-6")->after == std::vector<std::string>{"prove-volts"});
    CHECK(desk.kit().step("prove-volts")->after == std::vector<std::string>{"own-5"});

    key(Qt::Key_F4);
    paste(desk,
          "Key up\nIC1 pin 1   12 V\nIC1 pin 3   5.0 V \xC2\xB1"
          "5 %\nSupply current   < 50 mA\n+12 V to ground   no beep\n"
          "Key down\nSupply current   350 to 450 mA\n");
    key(Qt::Key_A);
    CHECK(desk.window().page()->name() == QStringLiteral("First light"));
    REQUIRE(desk.kit().checks.size() == 5);
    CHECK(desk.kit().checks.front().unit == Unit::ohm);  // without power first
    CHECK(desk.kit().checks.front().gate);
    CHECK(desk.kit().checks.back().condition == "key down");

    key(Qt::Key_F5);
    paste(desk,
          "C10: peak the audio at the phones\nR62 bias: 50 mA \xC2\xB1"
          "5 mA\n");
    key(Qt::Key_A);
    REQUIRE(desk.kit().adjustments.size() == 2);
    CHECK(desk.kit().adjustments[0].coil == "L2");
    CHECK(desk.kit().adjustments[1].safe == SafeEnd::low);  // a bias is begun fully down

    key(Qt::Key_F6);
    CHECK(desk.kit().ratings.mayTransmit());
    key(Qt::Key_Insert);
    key(Qt::Key_N);
    desk.type(QStringLiteral("5 W at 13.8 V on 7.03 MHz"));
    key(Qt::Key_Return);
    key(Qt::Key_A);
    if (desk.window().page()->name() != QStringLiteral("Proof")) key(Qt::Key_A);
    CHECK(desk.kit().ratings.power == Approx(5));
    CHECK(desk.kit().ratings.supply == Approx(13.8));
    key(Qt::Key_F7);
    CHECK(acts < 80);

    // All of it is the book's: after a restart, and taken back act by act.
    desk.reopen();
    CHECK(desk.kit().checks.size() == 5);
    desk.key(Qt::Key_Z);
    CHECK(desk.kit().ratings.power == 0);
}

TEST_CASE("what cannot be read from the paper is said, and nothing is lost") {
    Desk desk(fresh);
    const std::string before = desk.session().build().kitText;
    desk.key(Qt::Key_F2);
    QApplication::clipboard()->setText(
        QStringLiteral("a sentence about coils\nL9  T99-77, 12 turns #28\nL8 T50-2 #28\n"));
    desk.key(Qt::Key_V, Qt::ControlModifier);
    auto& page = pageOf<PaperPage>(desk);
    CHECK(page.model().rows().size() == 3);
    CHECK(page.model().takable() == 0);
    desk.key(Qt::Key_A);
    CHECK(desk.session().build().kitText == before);
    // A row said again is read again.
    desk.key(Qt::Key_Delete);
    CHECK(page.model().rows().size() == 2);
    desk.key(Qt::Key_Return);
    desk.key(Qt::Key_A, Qt::ControlModifier);
    desk.type(QStringLiteral("L9  T50-2, 12 turns #28"));
    desk.key(Qt::Key_Return);
    CHECK(page.model().takable() == 1);
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Winding"));
    CHECK(desk.session().build().kitText == before);
}

TEST_CASE("a kit in several variants asks which is built") {
    Desk desk;
    desk.key(Qt::Key_L);
    paste(desk,
          "Ref  Value  40m                  20m\nR1   10k\nC5          100p                 47p\n"
          "L1          T50-2, 30 turns #26  T50-6, 20 turns #26\n");
    auto& page = pageOf<ListPage>(desk);
    REQUIRE(desk.waitFor([&] { return !page.model().empty(); }));
    CHECK(desk.now().contains(QStringLiteral("40m, 20m")));
    desk.key(Qt::Key_V);
    desk.waitFor([&] { return !page.working(); });
    desk.key(Qt::Key_V);
    desk.waitFor([&] { return !page.working(); });
    CHECK(page.model().doubtful() == 0);
    desk.reopen();
    desk.key(Qt::Key_L);
    REQUIRE(desk.waitFor([&] { return !pageOf<ListPage>(desk).model().empty(); }));
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild(); }));
    CHECK(desk.kit().part("C5")->nominal == Approx(47e-12));
    REQUIRE(desk.kit().coil("L1") != nullptr);
    CHECK(desk.kit().coil("L1")->core.designation == "T50-6");
}

TEST_CASE("with the bare board alone: designators as the print has them") {
    Desk desk;
    desk.key(Qt::Key_L);
    const auto write = [&](const char* line) {
        desk.type(QString::fromUtf8(line));
        desk.key(Qt::Key_Return);
        desk.waitFor([&] { return !desk.window().page()->working(); });
    };
    desk.key(Qt::Key_Return);
    write("R1-R4");
    for (const char* line :
         {"R5 10k", "C1 C2 C3", "C4 470u 16V", "D1", "Q1 BC547", "IC1 78L05", "IC2", "L1", "J1"}) {
        desk.key(Qt::Key_N);
        write(line);
    }
    auto& page = pageOf<ListPage>(desk);
    CHECK(page.model().parts() == 15);
    CHECK(page.model().refused() == 0);
    CHECK(page.model().doubtful() >= 6);  // what has no value is asked, never guessed
    desk.reopen();                        // it is the book's
    desk.key(Qt::Key_L);
    REQUIRE(desk.waitFor([&] { return pageOf<ListPage>(desk).model().parts() == 15; }));
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_A);
    desk.key(Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild(); }));
    CHECK(desk.kit().part("R2")->kind == PartKind::resistor);
    CHECK_FALSE(desk.kit().part("R2")->measurable());
    CHECK(desk.kit().part("R5")->nominal == 10e3);
    // The regulator is fitted before the voltages are proven, the other chip after.
    const auto at = [&](const std::string& id) {
        for (std::size_t i = 0; i < desk.kit().steps.size(); ++i) {
            const auto& fits = desk.kit().steps[i].fits;
            if (desk.kit().steps[i].id == id || std::find(fits.begin(), fits.end(), id) != fits.end())
                return int(i);
        }
        return -1;
    };
    CHECK(at("IC1") < at("prove-volts"));
    CHECK(at("IC2") > at("prove-volts"));
    CHECK(at("R1") < at("look-joints"));
}

TEST_CASE("what is pasted and not taken yet is the book's, with its corrections") {
    Desk desk(fresh);
    desk.key(Qt::Key_F4);
    paste(desk, "TP1 5 V\nTP2 moss\n");
    CHECK(pageOf<PaperPage>(desk).model().rows().size() == 2);
    desk.key(Qt::Key_Return);
    desk.answer(QStringLiteral("TP2 3.3 V"));
    CHECK(pageOf<PaperPage>(desk).model().takable() == 2);
    desk.reopen();
    desk.key(Qt::Key_F4);
    desk.key(Qt::Key_Insert);
    CHECK(pageOf<PaperPage>(desk).model().takable() == 2);
    desk.key(Qt::Key_Z);  // the correction is taken back
    CHECK(pageOf<PaperPage>(desk).model().takable() == 1);
    desk.key(Qt::Key_Z, Qt::ShiftModifier);
    desk.key(Qt::Key_A);
    if (desk.window().page()->objectName() == QLatin1String("paper")) desk.key(Qt::Key_A);
    CHECK(desk.kit().checks.back().at == "TP2");
    desk.key(Qt::Key_Insert);
    CHECK(pageOf<PaperPage>(desk).model().rows().empty());
}

TEST_CASE("the plan is the builder's: a step later, split, joined, one more") {
    Desk desk(fresh);
    desk.key(Qt::Key_F3);
    const auto ids = [&] {
        std::vector<std::string> out;
        for (const std::size_t i : desk.session().judged().order()) out.push_back(desk.kit().steps[i].id);
        return out;
    };
    const auto before = ids();
    const auto at = [&](const std::string& id) {
        const auto all = ids();
        return std::find(all.begin(), all.end(), id) - all.begin();
    };
    const auto several = std::find_if(desk.kit().steps.begin(), desk.kit().steps.end(),
                                      [](const Step& s) { return s.fits.size() >= 4 && !s.hold; });
    REQUIRE(several != desk.kit().steps.end());
    const std::string id = several->id;
    for (std::size_t i = 0; i < before.size() && desk.window().page()->nowSentence() != QString(); ++i) {
        if (before[i] == id) break;
        desk.key(Qt::Key_Down);
    }
    const std::size_t steps = desk.kit().steps.size();
    desk.key(Qt::Key_S, Qt::ShiftModifier);
    desk.answer(QStringLiteral("2"));
    CHECK(desk.kit().steps.size() == steps + 1);
    CHECK(desk.kit().step(id)->fits.size() == 2);
    desk.key(Qt::Key_J, Qt::ShiftModifier);
    CHECK(desk.kit().steps.size() == steps);
    const auto place = at(id);
    desk.key(Qt::Key_Up, Qt::ShiftModifier);
    CHECK(at(id) <= place);
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("Clean the flux off"));
    CHECK(desk.kit().steps.size() == steps + 1);
    desk.key(Qt::Key_S, Qt::ShiftModifier);
    desk.refused(QStringLiteral("many"));
    desk.reopen();
    CHECK(desk.kit().steps.size() == steps + 1);
}

TEST_CASE("a calliper finds the screw") {
    Desk desk;
    desk.key(Qt::Key_L);
    paste(desk, kList);
    REQUIRE(desk.waitFor([&] { return !pageOf<ListPage>(desk).model().empty(); }));
    desk.key(Qt::Key_A);
    if (desk.window().page()->nowSentence().contains(QStringLiteral("doubtful"))) desk.key(Qt::Key_A);
    desk.key(Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return desk.session().hasBuild(); }));
    CHECK(desk.kit().name == "Sea Wall 40 receiver and transmitter");  // its own title
    desk.key(Qt::Key_F1);
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("5,95"));
    CHECK(desk.now().contains(QStringLiteral("HW1")));
    desk.key(Qt::Key_S);
    desk.refused(QStringLiteral("thick"));
    desk.key(Qt::Key_Return);  // seen: ticked off
    CHECK(desk.build().parts.contains("HW1"));
}
