#include <fstream>

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
    CHECK(desk.window().page()->name() == QStringLiteral("Proof"));
    REQUIRE(harmonic(2) != nullptr);
    CHECK(harmonic(2)->method == "trace");
    CHECK(harmonic(2)->value == Approx(55).margin(1));
    CHECK(harmonic(3)->value == Approx(62).margin(1));
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
