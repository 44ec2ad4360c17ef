#include <QApplication>
#include <QTest>
#include <filesystem>

#include "desk/tune/live_scale.h"
#include "look/colours.h"
#include "timing.h"

// The live scale at thirty frames a second: a frame with half a minute behind it against one with a second.

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
    return 0;
}
