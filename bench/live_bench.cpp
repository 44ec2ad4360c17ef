#include <QApplication>
#include <QTest>
#include <filesystem>

#include "desk/tune/live_scale.h"
#include "look/colours.h"
#include "look/plot.h"
#include "report/trace_plot.h"
#include "timing.h"

// The live scale at thirty frames a second: a frame with half a minute behind it against one with a second.
// A long trace at sixty.

using namespace ombrek;

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    installStyle();
    installFonts();
    const auto frame = [](int readings) {
        LiveScale scale;
        scale.resize(620, 400);
        scale.begin(Unit::volt, false, NAN, 0);
        for (int i = 0; i < readings; ++i) scale.take(0.5 + 0.001 * ((i * 37) % 100));
        QPixmap picture(scale.size());
        return milliseconds([&] { scale.render(&picture); });
    };
    tell("a frame of the live scale, of 10 readings and of 300", frame(10), frame(300), 33);
    const auto taking = [](int readings) {
        LiveScale scale;
        scale.begin(Unit::volt, false, NAN, 0);
        return milliseconds([&] {
            for (int i = 0; i < readings; ++i) scale.take(0.001 * i);
        });
    };
    tell("readings taken without a frame between them, 100 and 1000", taking(100), taking(1000), 33);
    const auto trace = [](int points) {
        std::vector<TracePoint> all;
        for (int i = 0; i < points; ++i)
            all.push_back({1e6 + 1e8 * i / points, -90.0 + (i * 37 % 5) + (i == points / 5 ? 85 : 0)});
        Spectrum spectrum;
        spectrum.carrier = {21e6, -5, 0, 1, "carrier"};
        spectrum.floor = -90;
        Plot plot;
        plot.resize(620, 400);
        plot.setVisible(true);
        QPixmap picture(plot.size());
        // Nearer and farther by turns, as one who holds the key down.
        double wide = 1e8;
        return milliseconds(
            [&] {
                wide = wide > 2e6 ? wide / 2 : 1e8;
                plot.show(tracePlot(all, spectrum, 21e6 - wide / 5, 21e6 + wide * 4 / 5, -1));
                QApplication::processEvents();  // it is drawn anew when the loop comes round
                plot.render(&picture);
            },
            12);
    };
    tell("a step nearer in a trace of 10,000 and of 1,000,000", trace(10000), trace(1000000), 16.7);
    return 0;
}
