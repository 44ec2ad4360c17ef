#include "desk/winding/figures_model.h"

#include <algorithm>

#include "desk/session.h"

namespace ombrek {
namespace {

PlotData curveOf(const CoilIdea& idea) {
    PlotData plot;
    plot.xLabel = QStringLiteral("turns");
    plot.yLabel = QStringLiteral("µH");
    const int last = std::max(12, idea.turns * 3 / 2);
    PlotData::Series curve, here;
    for (int n = 1; n <= last; ++n) {
        curve.x.push_back(n);
        curve.y.push_back(inductanceOf(idea, n) * 1e6);
    }
    here.kind = PlotData::Kind::dots;
    here.x = {double(idea.turns)};
    here.y = {inductanceOf(idea, idea.turns) * 1e6};
    plot.xHigh = last;
    plot.yHigh = std::max(curve.y.back(), idea.target * 1.1e6);
    plot.series = {curve, here};
    if (idea.target > 0) plot.marks.push_back({false, idea.target * 1e6, QStringLiteral("wanted"), false});
    plot.marks.push_back({true, double(idea.turns), QStringLiteral("%1 turns").arg(idea.turns), true});
    return plot;
}

}  // namespace

FiguresView figuresView(const CoilIdea& idea, const QString& ref, bool changed) {
    FiguresView v;
    v.known = idea.air() || idea.core.al > 0;
    if (!v.known) {
        v.now = QStringLiteral("No coil is chosen.");
        v.why = QStringLiteral("Esc goes back to Winding.");
        return v;
    }
    const CoilFigures figures = figuresOf(idea);
    const QString on = idea.air() ? QStringLiteral("air") : qs(idea.core.designation);
    v.now = QStringLiteral("%1: %2 turns of %3 on %4.")
                .arg(changed ? QStringLiteral("What if") : ref)
                .arg(idea.turns)
                .arg(qs(wireName(idea.wireText, idea.wire)), on);
    v.why = qs(figures.sentence);
    const SplitText split = splitQuantity(figures.inductance, Unit::henry, 3, Zeros::keep);
    v.number = qs(split.number);
    v.unit = qs(split.unit);
    v.band = idea.air() ? QStringLiteral("By Wheeler's formula, about 1 % either way.")
                        : QStringLiteral("%1 nH for each turn squared, %2 % either way by the core.")
                              .arg(qs(formatQuantity(idea.core.al * 1e9, Unit::none, 3)),
                                   qs(personNumber(idea.core.alTolerancePercent)));
    v.title = changed ? QStringLiteral("What if") : QStringLiteral("As the kit has it");
    for (const auto& line : figures.lines)
        v.facts.push_back({qs(line.name), qs(line.value), line.state.value_or(VerdictState::notDone),
                           line.state.has_value()});
    v.text = QStringLiteral("Q counts the copper alone. Flux: the whole power across the whole winding.");
    v.curve = curveOf(idea);
    return v;
}

}  // namespace ombrek
