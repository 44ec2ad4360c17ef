#include "desk/winding/trimmer_page.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/card.h"
#include "desk/pieces/text.h"
#include "desk/winding/reach_view.h"
#include "station/winding.h"

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
    setEnter("back-to-the-coil", "back to the coil", [this] { emit left(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "a-turn-less", "-", "-", "a turn less", [this] { tryTurns(-1); }, false);
    addKey(
        "the-tuned-coil-before", "Left", "Left", "the tuned coil before", [this] { choose(-1); }, false);
}

std::vector<const Coil*> TrimmerPage::tuned() const {
    std::vector<const Coil*> out;
    for (const Coil& coil : session_.kit().coils) {
        if (coil.tune) out.push_back(&coil);
    }
    return out;
}

void TrimmerPage::begin(const QString& about) {
    const Coil* coil = session_.kit().coil(about.toStdString());
    const auto all = tuned();
    ref_ = coil != nullptr && coil->tune ? about : all.empty() ? QString() : qs(all.front()->ref);
    more_ = 0;
    refresh();
}

void TrimmerPage::choose(int by) {
    const auto all = tuned();
    if (all.empty()) return;
    const auto hit = std::find_if(all.begin(), all.end(), [&](auto* c) { return qs(c->ref) == ref_; });
    const int count = int(all.size());
    begin(qs(all[std::size_t((int(hit - all.begin()) + by + count) % count)]->ref));
}

void TrimmerPage::tryTurns(int by) {
    more_ = std::clamp(more_ + by, -20, 20);
    refresh();
}

void TrimmerPage::refresh() {
    if (!session_.hasBuild()) return;
    const Coil* coil = session_.kit().coil(ref_.toStdString());
    if (coil == nullptr || !coil->tune) {
        setNow(QStringLiteral("No coil of this kit has a trimmer."), QStringLiteral("Esc goes back."));
        return;
    }
    const Build& build = session_.build();
    const Reading* measured = build.last(Subject::coil(coil->ref));
    const bool known = measured != nullptr && measured->value > 0;
    const int turns = mainTurns(*coil, build), tried = std::max(1, turns + more_);
    const double now = known ? measured->value : coil->target;
    const double value = now * tried * tried / (double(turns) * turns);
    const TankCapacitance tank = tankOf(session_.kit(), *coil->tune);
    const TrimmerCover cover = trimmerCover(value, tried, tank, coil->tune->low, coil->tune->high);
    const QString trimmer = qs(coil->tune->trimmer);
    const int change = turnsChange(cover, tried);
    if (more_ != 0) {
        setNow(QStringLiteral("With %1 turns instead of %2: %3.")
                   .arg(tried)
                   .arg(turns)
                   .arg(cover.state == VerdictState::pass   ? QStringLiteral("it reaches")
                        : cover.state == VerdictState::fail ? QStringLiteral("it does not reach")
                                                            : QStringLiteral("it reaches, near an end")),
               QStringLiteral("Only tried: the coil in the book is as it was."));
    } else if (change == 0) {
        setNow(QStringLiteral("%1 will reach its band with %2.").arg(trimmer, qs(coil->ref)),
               known ? QStringLiteral("By the measured inductance. Solder it, with its tails long.")
                     : QStringLiteral("By the kit's figures; look again when the coil is measured."));
    } else {
        setNow(QStringLiteral("%1 %2 turns on %3 before it is soldered.")
                   .arg(change > 0 ? QStringLiteral("Add") : QStringLiteral("Take off"))
                   .arg(std::abs(change))
                   .arg(qs(coil->ref)),
               qs(cover.sentence));
    }
    reach_->show(cover, coil->tune->low, coil->tune->high);
    sentence_->setText(qs(cover.sentence));
    facts_->setTitle(qs(coil->ref + "  " + coil->what));
    facts_->setFacts(
        {{known ? QStringLiteral("Measured") : QStringLiteral("Wanted"),
          qs(formatQuantity(now, Unit::henry, 4))},
         {QStringLiteral("Turns"), QString::number(turns)},
         {QStringLiteral("Fixed, with strays"), qs(formatQuantity(tank.fixed + tank.stray, Unit::farad, 3))},
         {trimmer, qs(formatQuantity(tank.trimmerLow, Unit::farad, 3)) + QStringLiteral(" to ") +
                       qs(formatQuantity(tank.trimmerHigh, Unit::farad, 3))},
         {QStringLiteral("Centred with"),
          qs(formatQuantity(cover.turnsToCentre, Unit::none, 3)) + QStringLiteral(" turns")}});
    const auto chance = coilReach(session_.kit(), *coil, build);
    chance_->setTitle(QStringLiteral("Over all tolerances"));
    if (chance) {
        chance_->setFacts({{QStringLiteral("Reaches the band"),
                            QStringLiteral("%1\u202f%").arg(std::lround(chance->reaches * 100))},
                           {QStringLiteral("Well inside its travel"),
                            QStringLiteral("%1\u202f%").arg(std::lround(chance->healthy * 100))}});
        chance_->setText(
            QStringLiteral("%1 coils drawn by lot: %2 of the inductance, the fixed capacitors and the "
                           "trimmer's ends each anywhere within theirs.")
                .arg(chance->trials)
                .arg(known ? QStringLiteral("the meter's error") : QStringLiteral("the core's tolerance")));
    }
}

}  // namespace ombrek
