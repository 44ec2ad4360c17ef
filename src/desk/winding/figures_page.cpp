#include "desk/winding/figures_page.h"

#include <algorithm>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "look/plot.h"

namespace ombrek {

FiguresPage::FiguresPage(Session& session)
    : Page(session, QStringLiteral("Figures")),
      number_(new BigNumber(84)),
      band_(textLabel(15, false, "soft")),
      coil_(new Card),
      facts_(new Card),
      curve_(new Plot) {
    coil_->addBody(number_);
    coil_->addBody(band_);
    coil_->addBody(curve_, 1);
    coil_->fillWithBody();
    big()->addWidget(coil_, 1);
    side()->addWidget(facts_, 1);
    setEnter("back-to-the-coil", "back to the coil", [this] { emit left(); });
    addKey("a-turn-more-or-less", "+", "+ \u2212", "a turn more or less", [this] { addTurns(1); });
    addKey("what-if-core-turns-wire", "G", "G", "what if: core, turns, wire, frequency, power", [this] {
        askText(QStringLiteral("What if"), QString(), [this](const QString& text) { change(text); });
    });
    addKey("as-the-kit-has-it", "Home", "Home", "as the kit has it", [this] { begin(ref_); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "a-turn-less", "-", "-", "a turn less", [this] { addTurns(-1); }, false);
}

void FiguresPage::begin(const QString& about) {
    ref_ = about;
    changed_ = false;
    const Coil* coil = session_.hasBuild() ? session_.kit().coil(about.toStdString()) : nullptr;
    idea_ = {};
    if (coil != nullptr) idea_ = ideaOf(session_.kit(), *coil);
    refresh();
}

void FiguresPage::change(const QString& text) {
    auto idea = changedIdea(idea_, text.toStdString(), session_.tables().cores);
    if (!idea) return session_.say(qs(idea.error().sentence), VerdictState::cannotTell);
    idea_ = *idea;
    changed_ = true;
    session_.say(QString());
    refresh();
}

void FiguresPage::addTurns(int by) {
    idea_.turns = std::clamp(idea_.turns + by, 1, 500);
    changed_ = true;
    refresh();
}

/// Inductance over turns, with what is wanted and where one stands.
void FiguresPage::showCurve() {
    PlotData plot;
    plot.xLabel = QStringLiteral("turns");
    plot.yLabel = QStringLiteral("µH");
    const int last = std::max(12, idea_.turns * 3 / 2);
    PlotData::Series curve, here;
    for (int n = 1; n <= last; ++n) {
        curve.x.push_back(n);
        curve.y.push_back(inductanceOf(idea_, n) * 1e6);
    }
    here.kind = PlotData::Kind::dots;
    here.x = {double(idea_.turns)};
    here.y = {inductanceOf(idea_, idea_.turns) * 1e6};
    plot.xHigh = last;
    plot.yHigh = std::max(curve.y.back(), idea_.target * 1.1e6);
    plot.series = {curve, here};
    if (idea_.target > 0) plot.marks.push_back({false, idea_.target * 1e6, QStringLiteral("wanted"), false});
    plot.marks.push_back({true, double(idea_.turns), QStringLiteral("%1 turns").arg(idea_.turns), true});
    curve_->show(plot);
}

void FiguresPage::refresh() {
    const bool known = idea_.air() || idea_.core.al > 0;
    coil_->setVisible(known);
    facts_->setVisible(known);
    if (!known) {
        setNow(QStringLiteral("No coil is chosen."), QStringLiteral("Esc goes back to Winding."));
        return;
    }
    const CoilFigures figures = figuresOf(idea_);
    const QString on = idea_.air() ? QStringLiteral("air") : qs(idea_.core.designation);
    setNow(changed_
               ? QStringLiteral("What if: %1 turns of %2 on %3.").arg(idea_.turns).arg(qs(idea_.wireText), on)
               : QStringLiteral("%1: %2 turns of %3 on %4.")
                     .arg(ref_)
                     .arg(idea_.turns)
                     .arg(qs(idea_.wireText), on),
           qs(figures.sentence));
    const SplitText split = splitQuantity(figures.inductance, Unit::henry, 3, Zeros::keep);
    number_->show(qs(split.number), qs(split.unit));
    band_->setText(idea_.air() ? QStringLiteral("By Wheeler's formula, about 1 % either way.")
                               : QStringLiteral("%1 nH for each turn squared, %2 % either way by the core.")
                                     .arg(qs(formatQuantity(idea_.core.al * 1e9, Unit::none, 3)),
                                          qs(personNumber(idea_.core.alTolerancePercent))));
    facts_->setTitle(changed_ ? QStringLiteral("What if") : QStringLiteral("As the kit has it"));
    std::vector<Card::Fact> facts;
    for (const auto& line : figures.lines)
        facts.push_back({qs(line.name), qs(line.value), line.state.value_or(VerdictState::notDone),
                         line.state.has_value()});
    facts_->setFacts(facts);
    facts_->setText(
        QStringLiteral("Q counts the copper alone. Flux: the whole power across the whole winding."));
    showCurve();
}

}  // namespace ombrek
