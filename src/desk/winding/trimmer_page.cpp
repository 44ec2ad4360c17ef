#include "desk/winding/trimmer_page.h"

#include <algorithm>

#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "desk/winding/reach_view.h"
#include "desk/winding/trimmer_model.h"
#include "formats/kit_edit.h"

namespace ombrek {

TrimmerPage::TrimmerPage(Session& session)
    : Page(session, QStringLiteral("Trimmer")),
      reach_(new ReachView),
      facts_(new Card),
      chance_(new Card),
      sentence_(textLabel(17)) {
    auto* card = new Card;
    card->addBody(reach_, 1);
    card->addBody(sentence_);
    card->fillWithBody();
    big()->addWidget(card, 1);
    side()->addWidget(facts_, 0);
    side()->addWidget(chance_, 1);
    addKey("try-a-turn-more-or", "+", "+ \u2212", "try a turn more or less", [this] { tryTurns(1); });
    addKey("the-next-tuned-coil", "Right", "Left Right", "the next tuned coil", [this] { choose(1); });
    addKey("strays", "S", "S", "the strays across it", [this] { askStrays(); });
    setEnter("back-to-the-coil", "back to the coil", [this] { emit left(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "a-turn-less", "-", "-", "a turn less", [this] { tryTurns(-1); }, false);
    addKey(
        "the-tuned-coil-before", "Left", "Left", "the tuned coil before", [this] { choose(-1); }, false);
}

void TrimmerPage::begin(const QString& about) {
    const Coil* coil = session_.kit().coil(about.toStdString());
    const auto all = tunedCoils(session_.kit());
    ref_ = coil != nullptr && coil->tune ? about : all.empty() ? QString() : qs(all.front()->ref);
    more_ = 0;
    refresh();
}

void TrimmerPage::choose(int by) {
    const auto all = tunedCoils(session_.kit());
    if (all.empty()) return;
    const auto hit = std::find_if(all.begin(), all.end(), [&](auto* c) { return qs(c->ref) == ref_; });
    const int count = int(all.size());
    begin(qs(all[std::size_t((int(hit - all.begin()) + by + count) % count)]->ref));
}

void TrimmerPage::tryTurns(int by) {
    more_ = std::clamp(more_ + by, -20, 20);
    refresh();
}

void TrimmerPage::askStrays() {
    askText(QStringLiteral("Board, wires and what follows, across %1, as 5p").arg(ref_), QString(),
            [this](const QString& text) {
                const auto stray = parseQuantity(text.simplified().toStdString(), Unit::farad);
                if (!stray) return session_.say(qs(stray.error().sentence), VerdictState::cannotTell);
                session_.changeKit(withStray(session_.build().kitText, ref_.toStdString(), stray->value),
                                   "The strays of " + ref_.toStdString());
            });
}

void TrimmerPage::refresh() {
    if (!session_.hasBuild()) return;
    const TrimmerPageView v = trimmerPageView(session_.kit(), session_.build(), ref_.toStdString(), more_);
    setNow(v.now, v.why);
    if (v.coil == nullptr) return;
    reach_->show(v.cover, v.coil->tune->low, v.coil->tune->high);
    sentence_->setText(qs(v.cover.sentence));
    facts_->setTitle(qs(v.coil->ref + "  " + v.coil->what));
    facts_->setFacts(v.facts);
    chance_->setTitle(QStringLiteral("Over all tolerances"));
    chance_->setFacts(v.chance);
    chance_->setText(v.chanceText);
}

}  // namespace ombrek
