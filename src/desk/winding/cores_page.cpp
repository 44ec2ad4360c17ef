#include "desk/winding/cores_page.h"

#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/core_clues.h"
#include "station/winding.h"

namespace ombrek {

CoresPage::CoresPage(Session& session)
    : Page(session, QStringLiteral("Cores")),
      number_(new BigNumber(84)),
      chosen_(new Card),
      how_(new Card),
      worse_(textLabel(17)),
      list_(new StateList) {
    chosen_->addBody(number_);
    chosen_->addBody(worse_);
    big()->addWidget(chosen_, 0);
    auto* all = new Card;
    all->addBody(list_, 1);
    all->fillWithBody();
    big()->addWidget(all, 1);
    how_->setTitle(QStringLiteral("Which core is this?"));
    how_->setText(
        QStringLiteral("G, then what you see: outside, hole and height in mm, the paint, and what ten trial "
                       "turns measure.\n\n"
                       "12.7 7.7 4.8 yellow 0.40u\n\nA bare ferrite has the paint \"none\". What you leave "
                       "out is not counted."));
    side()->addWidget(how_, 1);
    setEnter("back-to-the-coil", "back to the coil", [this] { emit left(); });
    addKey("a-core", "Down", "Up Down", "a core", [this] { choose(1); });
    addKey("which-core-is-this", "G", "G", "which core is this?", [this] {
        askText(QStringLiteral("Sizes, paint, ten turns"), typed_,
                [this](const QString& text) { identify(text); });
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "the-core-before", "Up", "Up", "the core before", [this] { choose(-1); }, false);
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(row);
        refresh();
    });
}

void CoresPage::begin(const QString& about) {
    ref_ = about;
    typed_.clear();
    at_ = 0;
    refresh();
}

void CoresPage::choose(int by) {
    const int count = list_->model()->rowCount();
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void CoresPage::identify(const QString& text) {
    if (const auto clues = readCoreClues(text.toStdString()); !clues)
        return session_.say(qs(clues.error().sentence), VerdictState::cannotTell);
    typed_ = text;
    at_ = 0;
    session_.say(QString());
    refresh();
}

void CoresPage::refresh() {
    const Coil* coil = session_.hasBuild() ? session_.kit().coil(ref_.toStdString()) : nullptr;
    if (!typed_.isEmpty()) {
        showGuesses();
    } else if (coil != nullptr && coil->core.shape == MagneticCore::Shape::ring) {
        showOthers(*coil);
    } else {
        setNow(QStringLiteral("Which core is this? G asks for what you see of it."),
               QStringLiteral("This coil is on no ring from the table."));
        number_->showWord(QStringLiteral("no ring"));
        worse_->setText(QString());
        list_->setLines({});
    }
}

void CoresPage::showOthers(const Coil& coil) {
    atHand_ = coresInStock(session_.drawers()->lines, session_.tables().cores);
    const bool own = !atHand_.empty();
    if (!own) atHand_ = session_.tables().cores;
    const double frequency = coil.tune ? std::sqrt(coil.tune->low * coil.tune->high)
                                       : std::max(session_.kit().ratings.frequency, 1e6);
    const auto others =
        otherCores(coil.core, coil.target, coil.wire, frequency, atHand_, dutyOf(session_.kit(), coil));
    setNow(QStringLiteral("Another core for %1, %2.").arg(ref_, qs(coil.core.designation)),
           own ? QStringLiteral("From your drawers, those that cost least first.")
               : QStringLiteral("From the whole table: your drawers hold no ring core that is named."));
    std::vector<StateLine> lines;
    at_ = std::min(at_, others.empty() ? 0 : others.size() - 1);
    for (std::size_t i = 0; i < others.size(); ++i) {
        const OtherCore& o = others[i];
        lines.push_back(
            {o.worse.empty() ? VerdictState::pass
             : o.fill > 1    ? VerdictState::fail
                             : VerdictState::doubtful,
             qs(o.core->designation) + QStringLiteral(", %1 turns").arg(o.turns),
             qs(formatQuantity(o.inductance, Unit::henry, 3)) +
                 (o.core->ferrite() ? QStringLiteral(", ferrite")
                                    : QStringLiteral(", copper Q %1").arg(std::lround(o.copperQ))),
             i == at_, false});
    }
    list_->setLines(std::move(lines));
    chosen_->setTitle(others.empty() ? QStringLiteral("No other core") : qs(others[at_].core->designation));
    if (others.empty()) {
        number_->showWord(QStringLiteral("nothing at hand"));
        worse_->setText(QString());
        return;
    }
    number_->show(QString::number(others[at_].turns), QStringLiteral("turns"));
    worse_->setText(others[at_].worse.empty()
                        ? QStringLiteral("Nothing that is reckoned here gets worse.")
                        : QStringLiteral("What gets worse: %1.").arg(qs(others[at_].worse)));
}

void CoresPage::showGuesses() {
    const CoreClues clues = readCoreClues(typed_.toStdString()).value();
    const auto guesses = whichCore(clues, session_.tables().cores);
    const std::size_t shown = std::min<std::size_t>(guesses.size(), 12);
    at_ = std::min(at_, shown == 0 ? 0 : shown - 1);
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < shown; ++i)
        lines.push_back(
            {guesses[i].odds > 0.5 ? VerdictState::pass : VerdictState::doubtful,
             qs(guesses[i].core->designation) + QStringLiteral(", ") +
                 qs(guesses[i].core->paint.empty() ? guesses[i].core->material : guesses[i].core->paint),
             qs(decimals(guesses[i].odds * 100, 1)) + QStringLiteral("\u202f%"), i == at_, false});
    list_->setLines(std::move(lines));
    const bool sure = guesses.front().odds > 0.9;
    setNow(sure ? QStringLiteral("It is a %1.").arg(qs(guesses.front().core->designation))
                : QStringLiteral("It is one of these; measure ten turns on it to be surer."),
           QStringLiteral("By %1. G types it again.").arg(typed_));
    chosen_->setTitle(qs(guesses[at_].core->designation));
    number_->show(qs(decimals(guesses[at_].odds * 100, 0)), QStringLiteral("%"));
    worse_->setText(QStringLiteral("AL %1 for each turn squared.")
                        .arg(qs(formatQuantity(guesses[at_].core->al, Unit::henry, 3))));
}

}  // namespace ombrek
