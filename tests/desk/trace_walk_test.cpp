#include <fstream>

#include "desk/proof/spectrum_page.h"
#include "window_fixture.h"

using namespace ombrek;

namespace {

/// A made-up analyser's file of the practice kit: 21.06 MHz, harmonics below it by so much.
QString traceOf(Desk& desk, const char* name, double second, double third, double noise) {
    const auto file = desk.path(name);
    std::ofstream out(file);
    out << "; trace of a club evening\nFrequency [MHz];Level [dBm]\n";
    for (int i = 0; i <= 3500; ++i) {
        const double f = 1 + 0.02 * i;
        const auto line = [&](double at, double level) {
            return std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - at) / 0.04, 2));
        };
        const double level = 10 * std::log10(std::pow(10, (noise + (i * 37) % 5) / 10.0) + line(21.06, 4.8) +
                                             line(42.12, 4.8 - second) + line(63.18, 4.8 - third));
        out << f << ";" << level << "\n";
    }
    return QString::fromStdString(file.string());
}

}  // namespace

TEST_CASE(
    "a trace of the analyser is dropped on Proof: its harmonics are readings, its noise proves nothing") {
    Desk desk(finished);
    desk.key(Qt::Key_F6);
    const auto harmonic = [&](int order) { return desk.build().last(Subject::harmonic(order)); };
    const auto take = [&](const QString& file, const std::function<bool()>& done) {
        desk.window().takeFile(file);
        const bool ended = desk.waitFor([&] { return done() && !desk.window().page()->working(); });
        desk.settle();
        return ended;
    };
    CHECK(take(traceOf(desk, "clean.csv", 55, 62, -85), [&] { return harmonic(3)->method == "trace"; }));
    CHECK(desk.window().page()->name() == QStringLiteral("The spectrum"));
    REQUIRE(harmonic(2) != nullptr);
    CHECK(harmonic(2)->method == "trace");
    CHECK(harmonic(2)->value == Approx(55).margin(1));
    CHECK(harmonic(3)->value == Approx(62).margin(1));
    // Not by the power meter, whose sheet says nothing of it; all of a trace are one action.
    CHECK(harmonic(2)->meter.empty());
    CHECK(harmonic(2)->uncertainty == SpectrumQuestion().uncertainty);
    REQUIRE(desk.session().book().undo());
    CHECK(harmonic(2)->method != "trace");
    CHECK(harmonic(3)->method != "trace");
    REQUIRE(desk.session().book().redo());
    CHECK(desk.session().judged().proof().harmonicVerdicts.at(0).state == VerdictState::pass);
    // Noise that hides the third: the reading before it stays, none is made up.
    const double before = harmonic(3)->value;
    CHECK(take(traceOf(desk, "noisy.csv", 36, 90, -45), [&] { return harmonic(2)->value < 40; }));
    CHECK(harmonic(2)->value == Approx(36).margin(1.5));
    CHECK(harmonic(3)->value == before);
    CHECK(desk.session().judged().proof().harmonicVerdicts.at(0).state == VerdictState::fail);
    // What is none is said, and another carrier is no trace of this rig.
    const std::size_t readings = desk.build().readings.size();
    const auto other = desk.path("other.csv");
    std::ofstream(other) << "Frequency [MHz];Level [dBm]\n1;-80\n2;-80\n3;0\n4;-80\n5;-80\n6;-80\n";
    QString last;
    QObject::connect(&desk.session(), &Session::said, &desk.session(),
                     [&](const QString& line, VerdictState) { last = line.isEmpty() ? last : line; });
    const auto said = [&] { return last.contains(QStringLiteral("does not stand out")); };
    CHECK(take(QString::fromStdString(other.string()), said));
    CHECK(desk.build().readings.size() == readings);
}

TEST_CASE("a trace is looked at nearer and along, and a second one tells what the analyser makes itself") {
    Desk desk(finished);
    desk.key(Qt::Key_F6);
    desk.key(Qt::Key_T);
    auto* page = qobject_cast<SpectrumPage*>(desk.window().page());
    REQUIRE(page != nullptr);
    CHECK(desk.now() == QStringLiteral("Open a trace."));
    desk.key(Qt::Key_Plus);  // with nothing open nothing happens
    desk.key(Qt::Key_Right);
    QStringList said;
    QObject::connect(&desk.session(), &Session::said, &desk.session(),
                     [&](const QString& line, VerdictState) { said << line; });
    const auto take = [&](const QString& file, const QString& words) {
        desk.window().takeFile(file);
        return desk.waitFor([&] { return said.join(QChar(' ')).contains(words); });
    };
    REQUIRE(take(traceOf(desk, "hot.csv", 44, 62, -85), QStringLiteral("harmonics kept")));
    desk.settle();
    const auto whole = page->view();
    CHECK(whole.second == Approx(71e6).epsilon(0.001));
    desk.key(Qt::Key_Plus);
    desk.key(Qt::Key_Plus);
    CHECK(page->view().second - page->view().first == Approx((whole.second - whole.first) / 4).epsilon(0.01));
    CHECK(page->view().first < 42.12e6);  // about the peak in hand, the highest
    CHECK(page->view().second > 42.12e6);
    desk.key(Qt::Key_Left);
    for (int i = 0; i < 40; ++i) desk.key(Qt::Key_Left);
    CHECK(page->view().first == Approx(whole.first));
    for (int i = 0; i < 12; ++i) desk.key(Qt::Key_Minus);
    CHECK(page->view() == whole);
    for (int i = 0; i < 60; ++i) desk.key(Qt::Key_Plus);  // as near as its points lie
    CHECK(page->view().second - page->view().first > 0);
    desk.key(Qt::Key_Down);
    desk.key(Qt::Key_Up);
    // The second harmonic falls by 12 dB against the carrier with more attenuation.
    REQUIRE(take(traceOf(desk, "cool.csv", 56, 62, -85), QStringLiteral("the analyser's own")));
    desk.reopen();
    desk.window().open(QStringLiteral("spectrum"));
    CHECK(desk.now() == QStringLiteral("Open a trace."));  // its readings are kept, the file is the builder's
    CHECK(desk.build().last(Subject::harmonic(2))->value == Approx(56).margin(1));
}

TEST_CASE("a narrow trace tells hum and width, and keeps no harmonic") {
    Desk desk(finished);
    desk.window().open(QStringLiteral("proof"));
    desk.window().open(QStringLiteral("spectrum"));
    const auto file = desk.path("close.csv");
    std::ofstream out(file);
    out.precision(12);
    out << "Hz,dBm\n";
    for (int i = -200; i <= 200; ++i) {
        const double f = 2.0 * i;
        const auto line = [&](double at, double level) {
            return std::pow(10, level / 10) * std::exp(-2.77 * std::pow((f - at) / 6, 2));
        };
        out << std::fixed << 21.06e6 + f << ","
            << 10 * std::log10(1e-10 + line(0, 0) + line(100, -33) + line(-100, -33)) << "\n";
    }
    out.close();
    const std::size_t readings = desk.build().readings.size();
    QString last;
    QObject::connect(&desk.session(), &Session::said, &desk.session(),
                     [&](const QString& line, VerdictState) { last = line.isEmpty() ? last : line; });
    desk.window().takeFile(QString::fromStdString(file.string()));
    REQUIRE(desk.waitFor([&] { return last.contains(QStringLiteral("Hum stands")); }));
    CHECK(last.contains(QStringLiteral("33 dB")));
    CHECK(desk.build().readings.size() == readings);
}
