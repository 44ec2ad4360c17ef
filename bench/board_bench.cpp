#include <QApplication>
#include <QImage>
#include <algorithm>
#include <random>

#include "core/plan/order.h"
#include "core/plan/schedule.h"
#include "look/colours.h"
#include "report/board_drawing.h"
#include "timing.h"

// The third station under load: a large plan put in another order, a large board zoomed, schedules simulated.
// Each time stands beside what is wanted of it and beside a smaller case from the same run.

using namespace ombrek;

namespace {

std::vector<PlanStep> planOf(std::size_t steps, std::size_t constraints) {
    std::mt19937 engine(3);
    std::vector<PlanStep> out(steps);
    for (std::size_t i = 0; i < steps; ++i) {
        out[i].id = "step-" + std::to_string(i);
        out[i].height = double(engine() % 12);
        out[i].kind = int(engine() % 10);
        out[i].stage = int(engine() % 8);
        out[i].hardness = double(engine() % 5);
    }
    for (std::size_t i = 0; i < constraints; ++i) {
        const std::size_t later = 1 + engine() % (steps - 1);
        out[later].after.push_back(out[engine() % later].id);
    }
    return out;
}

/// Every school once.
double reordered(const std::vector<PlanStep>& plan) {
    return milliseconds([&] {
               for (const School& s : schools()) (void)planOrder(plan, s.order);
           }) /
           double(schools().size());
}

/// One frame of zooming over a board of so many parts, the slowest of a sweep.
double slowestFrame(int parts) {
    std::mt19937 engine(8);
    Kit kit;
    for (int i = 0; i < parts; ++i) {
        Part part;
        part.ref = "P" + std::to_string(i);
        part.kind = PartKind(engine() % kPartKinds);
        part.value = "4.7 k";
        part.place = Place{double(engine() % 2900) / 10, double(engine() % 1900) / 10, 6, 3,
                           double(engine() % 4 * 90)};
        kit.parts.push_back(part);
    }
    BoardDrawing drawing;
    drawing.board = {300, 200};
    for (std::size_t i = 0; i < kit.parts.size(); ++i)
        drawing.pieces.push_back({&kit.parts[i], i < 6   ? BoardPiece::Fitting::now
                                                 : i % 2 ? BoardPiece::Fitting::in
                                                         : BoardPiece::Fitting::waits});
    drawing.middle = {150, 100};
    QImage image(840, 560, QImage::Format_ARGB32_Premultiplied);
    double slowest = 0;
    for (double zoom = 1; zoom < 12; zoom *= 1.5) {
        drawing.zoom = zoom;
        slowest = std::max(slowest, milliseconds([&] {
                               QPainter p(&image);
                               drawing.paint(p, image.rect(), dayBench());
                           }));
    }
    return slowest;
}

}  // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    installFonts();
    tell("200 and 2,000 steps (500, 5,000 constraints) ordered", reordered(planOf(200, 500)),
         reordered(planOf(2000, 5000)), 50);
    tell("slowest frame of zooming over 100 and 1,000 parts", slowestFrame(100), slowestFrame(1000),
         1000.0 / 60);
    const std::vector<WorkLeft> left(200, {WorkKind::solder, 5});
    std::vector<FreeTime> evenings;
    for (int i = 0; i < 80; ++i) evenings.push_back({i * 86400, 120});
    const auto schedules = [&](int trials) {
        return milliseconds([&] { (void)finishOdds(Pace(), left, evenings, 1.0 / 7, trials, 1); });
    };
    tell("1,000 and 10,000 schedules", schedules(1000), schedules(10000), 1000);
    return 0;
}
