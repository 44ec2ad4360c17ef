#include "desk/winding/figures_page.h"

#include <algorithm>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "desk/winding/figures_model.h"
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

void FiguresPage::refresh() {
    const FiguresView v = figuresView(idea_, ref_, changed_);
    coil_->setVisible(v.known);
    facts_->setVisible(v.known);
    setNow(v.now, v.why);
    if (!v.known) return;
    number_->show(v.number, v.unit);
    band_->setText(v.band);
    facts_->setTitle(v.title);
    facts_->setFacts(v.facts);
    facts_->setText(v.text);
    curve_->show(v.curve);
}

}  // namespace ombrek
