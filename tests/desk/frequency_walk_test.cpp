#include <QSvgRenderer>
#include <QXmlStreamReader>
#include <fstream>

#include "desk/tune/live_scale.h"
#include "formats/files.h"
#include "station/proof/frequencies.h"
#include "station/tune/tune_ways.h"
#include "window_fixture.h"

using namespace ombrek;

// The rooms beside Tune with the keys: the counter, crystals, the dial, the live scale.

namespace {

void begun(const std::filesystem::path& file) {
    auto book = Book::open(file);
    REQUIRE(book);
    REQUIRE((*book)->startBuild(tuningKit().kit.name, tuningKit().text));
    REQUIRE((*book)->doStep("all"));
    REQUIRE((*book)->doStep("load"));
    REQUIRE((*book)->takeReading({0, Subject::check("rail5"), 5.01, Unit::volt, 0, {}, "typed", 0}));
}

/// A line typed on the page, into its entry.
void line(Desk& desk, const QString& text) {
    desk.type(text);
    desk.key(Qt::Key_Return);
}

/// Ten seconds of two carriers as 16-bit WAV. Source of the format: the RIFF header of 44 bytes, from memory.
void writeWav(const std::filesystem::path& path, double first, double second) {
    constexpr std::uint32_t kRate = 8000, kCount = 80000;
    std::ofstream out(path, std::ios::binary);
    const auto put = [&](std::uint32_t value, int bytes) {
        for (int i = 0; i < bytes; ++i) out.put(char(value >> (8 * i)));
    };
    out << "RIFF";
    put(36 + 2 * kCount, 4);
    out << "WAVEfmt ";
    put(16, 4), put(1, 2), put(1, 2), put(kRate, 4), put(2 * kRate, 4), put(2, 2), put(16, 2);
    out << "data";
    put(2 * kCount, 4);
    for (std::uint32_t i = 0; i < kCount; ++i) {
        const double t = double(i) / kRate;
        put(std::uint32_t(
                std::int16_t(9000 * std::sin(2 * M_PI * first * t) + 7000 * std::sin(2 * M_PI * second * t))),
            2);
    }
}

}  // namespace

TEST_CASE("the counter's worth: typed, counted on the bench, put aside, and a beat from a recording") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"));
    desk.key(Qt::Key_F);
    CHECK(desk.window().page()->name() == QStringLiteral("The counter"));
    desk.refused(QStringLiteral("16M"));  // one frequency alone says nothing
    desk.refused(QStringLiteral("16M 16.0640M 0ppm"));
    line(desk, QStringLiteral("16M 16.0640M ±50 ppm"));
    line(desk, QStringLiteral("8 MHz 8.0656 MHz"));
    CHECK(counterOf(desk.build()).verdict == ReferenceFit::Verdict::offset);
    desk.key(Qt::Key_A);
    desk.answer(QStringLiteral("10 MHz"));
    CHECK(desk.now().contains(QStringLiteral("10")));
    desk.key(Qt::Key_Return);
    REQUIRE(desk.waitFor([&] { return knownFrequencies(desk.build()).size() == 3; }));
    desk.key(Qt::Key_X);
    CHECK(knownFrequencies(desk.build()).size() == 2);
    desk.key(Qt::Key_Z);
    CHECK(knownFrequencies(desk.build()).size() == 3);
    const auto wav = desk.path("beat.wav");
    writeWav(wav, 700, 701.4);
    CHECK(desk.window().page()->openFile(QString::fromStdString(wav.string())));
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    desk.settle();
    const auto labels = desk.window().page()->findChildren<QLabel*>();
    CHECK(std::any_of(labels.begin(), labels.end(),
                      [](const QLabel* l) { return l->text().startsWith(QStringLiteral("1.4")); }));
    // What is no recording is said, and harms nothing.
    CHECK(desk.window().page()->openFile(QStringLiteral("/etc/passwd")));
    REQUIRE(desk.waitFor([&] { return !desk.window().page()->working(); }));
    desk.reopen();
    CHECK(knownFrequencies(desk.build()).size() == 3);
}

TEST_CASE("readings of the rooms beside Tune say by whom and with what they were taken, and are told of") {
    Desk desk(begun, tuningKit());
    REQUIRE(desk.session().book().prefer("who", "Ida"));
    QList<Subject> told;
    QObject::connect(&desk.session(), &Session::taken, &desk.session(),
                     [&](const Subject& subject) { told << subject; });
    desk.window().open(QStringLiteral("reference"));
    line(desk, QStringLiteral("16M 16.0004M 50ppm"));
    desk.window().open(QStringLiteral("crystals"));
    line(desk, QStringLiteral("4.913872M"));
    desk.window().open(QStringLiteral("dial"));
    line(desk, QStringLiteral("45 7.4948M"));
    desk.window().open(QStringLiteral("dial"));
    desk.key(Qt::Key_Return);  // counted on the practice bench
    REQUIRE(desk.waitFor([&] { return told.size() == 4; }));
    for (const Subject& subject : told) {
        const Reading* reading = desk.build().last(subject);
        REQUIRE(reading != nullptr);
        CHECK(reading->who == "Ida");
        CHECK(reading->meter == "counter");
        CHECK_FALSE(reading->sheet.empty());
    }
}

TEST_CASE("crystals: counted, pasted, matched, loaded, dead, and put aside") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"));
    desk.key(Qt::Key_C);
    for (const char* f : {"4.913872M", "4.913790M", "4.913801M", "4.913955M"})
        line(desk, QString::fromUtf8(f));
    CHECK(batchOf(desk.build()).size() == 4);
    CHECK(desk.now().contains(QStringLiteral("within 165 Hz")));
    desk.key(Qt::Key_S);
    desk.answer(QStringLiteral("2"));
    CHECK(desk.now().contains(QStringLiteral("2, 3, within 11 Hz")));
    line(desk, QStringLiteral("2 4.914790M 30p"));
    CHECK(batchOf(desk.build())[1].motional.has_value());
    desk.key(Qt::Key_N);
    CHECK(batchOf(desk.build()).back().frequency == 0);
    CHECK(desk.window().page()->takeText(QStringLiteral("4.913700M\n4.913702M\nB7;4.913900M\nnonsense")));
    CHECK(batchOf(desk.build()).size() == 8);
    CHECK_FALSE(desk.window().page()->takeText(QStringLiteral("no frequency in it")));
    desk.key(Qt::Key_Return);  // the practice bench has crystals, too
    REQUIRE(desk.waitFor([&] { return batchOf(desk.build()).size() == 9; }));
    desk.key(Qt::Key_X);
    CHECK(batchOf(desk.build()).size() == 8);
    desk.refused(QStringLiteral("7"));
    desk.reopen();
    CHECK(batchOf(desk.build()).size() == 8);
}

TEST_CASE("a dial is counted over the knob's turn, held against the wish, and written to size") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"));
    desk.key(Qt::Key_D);
    CHECK_FALSE(desk.window().page()->sheet().has_value());
    for (int i = 0; i < 7; ++i) {
        desk.key(Qt::Key_Return);
        REQUIRE(desk.waitFor([&] { return dialPointsOf(desk.build()).size() == std::size_t(i + 1); }));
    }
    CHECK(desk.now().contains(QStringLiteral("the dial stands")));
    desk.key(Qt::Key_W);
    desk.answer(QStringLiteral("7.060M 7.000M"));  // backwards
    CHECK_FALSE(wantedRangeOf(desk.build()).has_value());
    desk.key(Qt::Key_W);
    desk.answer(QStringLiteral("7.455M 7.655M"));
    CHECK(wantedRangeOf(desk.build())->high == 7.655e6);
    desk.key(Qt::Key_S);  // straight: 120 mm
    desk.key(Qt::Key_V);
    const QString svg = QString::fromStdString(desk.path("dial.svg").string());
    desk.answer(svg);
    REQUIRE(desk.waitFor([&] { return QFile::exists(svg) && !desk.window().page()->working(); }));
    const std::string text = *readFile(svg.toStdString(), 4000000);
    CHECK(QSvgRenderer(svg).isValid());
    CHECK(text.find("7.50") != std::string::npos);
    desk.key(Qt::Key_P);
    const QString pdf = QString::fromStdString(desk.path("dial.pdf").string());
    desk.answer(pdf);
    REQUIRE(desk.waitFor([&] { return QFile::exists(pdf) && !desk.window().page()->working(); }));
    CHECK(readFile(pdf.toStdString(), 4000000)->starts_with("%PDF"));
    CHECK(desk.window().page()->sheet().has_value());
    line(desk, QStringLiteral("45 7.4948M"));
    CHECK(dialPointsOf(desk.build()).size() == 8);
    desk.refused(QStringLiteral("45"));
    desk.reopen();
    CHECK(dialPointsOf(desk.build()).size() == 8);
}

TEST_CASE("live: readings stream while it is turned, Space holds, Enter keeps, a typed one is not lost") {
    Desk desk(begun, tuningKit());
    REQUIRE(desk.session().book().takeReading(
        {0, Subject::adjustment("contrast"), 1, Unit::none, 0, {{std::string(kPosition), 0.6}}, "seen", 0}));
    desk.window().open(QStringLiteral("tune"), QStringLiteral("if3"));
    desk.key(Qt::Key_Space);
    CHECK(desk.window().page()->name() == QStringLiteral("Live"));
    auto* scale = desk.window().page()->findChild<LiveScale*>();
    REQUIRE(scale != nullptr);
    REQUIRE(desk.waitFor([&] { return scale->taken() > 5; }));
    const double before = scale->best();
    const int taken = scale->taken();
    for (int i = 0; i < 12; ++i) desk.key(Qt::Key_Left);
    REQUIRE(desk.waitFor([&] { return scale->taken() > taken + 5; }));
    CHECK(scale->last() != before);
    desk.key(Qt::Key_Space);
    CHECK(scale->frozen());
    const double held = scale->last();
    QTest::qWait(400);
    desk.settle();
    CHECK(scale->last() == held);
    desk.key(Qt::Key_Return);
    const Reading* kept = desk.build().last(Subject::adjustment("if3"));
    REQUIRE(kept != nullptr);
    CHECK(kept->value == held);
    CHECK_FALSE(scale->frozen());
    // A typed reading, while others stream in.
    const int streaming = scale->taken();
    line(desk, QStringLiteral("0.5 V"));
    CHECK(desk.build().last(Subject::adjustment("if3"))->value == 0.5);
    REQUIRE(desk.waitFor([&] { return scale->taken() > streaming; }));
    desk.key(Qt::Key_T);  // silent here; it must only not stop anything
    desk.key(Qt::Key_T);
    // The bench goes away: it is said, and nothing stands still.
    desk.stopBench();
    REQUIRE(desk.waitFor([&] { return desk.now().contains(QStringLiteral("no reading arrives")); }, 15000));
    desk.key(Qt::Key_Escape);
    CHECK(desk.window().page()->name() == QStringLiteral("Tune"));
}

TEST_CASE("what transmits is not read live before the load is said to be on") {
    Desk desk(begun, tuningKit());
    desk.window().open(QStringLiteral("tune"), QStringLiteral("tx"));
    desk.key(Qt::Key_Space);
    auto* scale = desk.window().page()->findChild<LiveScale*>();
    REQUIRE(scale != nullptr);
    QTest::qWait(600);
    desk.settle();
    CHECK(scale->taken() == 0);
    CHECK(desk.now().contains(QStringLiteral("dummy load")));
}

TEST_CASE("the key's seconds and the finals' rest are counted") {
    Desk desk(begun, tuningKit());
    REQUIRE(desk.session().book().passGate(kLoadOn, "on"));
    desk.window().open(QStringLiteral("tune"), QStringLiteral("tx"));
    desk.key(Qt::Key_K);
    CHECK(desk.now().startsWith(QStringLiteral("Key down: 10 s")));
    desk.key(Qt::Key_K);
    CHECK(desk.now().startsWith(QStringLiteral("Let it rest: 20 s")));
    const std::size_t readings = desk.build().readings.size();
    desk.key(Qt::Key_R);
    CHECK(desk.build().readings.size() == readings);  // it rests
    desk.key(Qt::Key_K);
    CHECK(desk.now().startsWith(QStringLiteral("Let it rest")));
}

TEST_CASE("positions are typed in the builder's own terms, and the order changes with its reasons") {
    Desk desk(begun, tuningKit());
    REQUIRE(desk.session().book().passGate(kLoadOn, "on"));
    desk.window().open(QStringLiteral("tune"), QStringLiteral("drive"));
    desk.key(Qt::Key_P);
    desk.answer(QStringLiteral("31"));
    desk.key(Qt::Key_R);
    REQUIRE(desk.waitFor([&] { return desk.build().last(Subject::adjustment("drive")) != nullptr; }));
    CHECK(desk.build().last(Subject::adjustment("drive"))->setting(kPosition) == Approx(31.0 / 63));
    desk.key(Qt::Key_P);
    desk.refused(QStringLiteral("64"));  // there is no such number in the menu
    desk.window().open(QStringLiteral("tune"), QStringLiteral("rx"));
    line(desk, QStringLiteral("2 5"));
    const Reading* mark = desk.build().last(Subject::adjustment("rx"));
    REQUIRE(mark != nullptr);
    CHECK(mark->unit == Unit::none);
    desk.refused(QStringLiteral("9 9"));
    desk.key(Qt::Key_O);
    CHECK(desk.session().build().chosen(Choice::tuningOrder) == kCommonOrder);
    // Ears where marks are read, and marks where eyes look, are told so.
    const std::size_t readings = desk.build().readings.size();
    desk.key(Qt::Key_L);
    desk.key(Qt::Key_Y);
    CHECK(desk.build().readings.size() == readings);
    desk.key(Qt::Key_X);
    CHECK(desk.build().last(Subject::adjustment("rx")) == nullptr);
}
