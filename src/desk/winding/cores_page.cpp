#include "desk/winding/cores_page.h"

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "station/winding/winding.h"

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

CoresView CoresPage::view() const {
    const auto& table = session_.tables().cores;
    const auto clues =
        typed_.isEmpty() ? Result<CoreClues>(CoreClues()) : readCoreClues(typed_.toStdString());
    if (!typed_.isEmpty() && clues) return whichCoreView(*clues, typed_, table, at_);
    const Coil* coil = session_.hasBuild() ? session_.kit().coil(ref_.toStdString()) : nullptr;
    if (coil == nullptr || coil->core.shape != MagneticCore::Shape::ring) return noRingView();
    return otherCoresView(session_.kit(), *coil, coresInStock(session_.drawers()->lines, table), table, at_);
}

void CoresPage::refresh() {
    CoresView v = view();
    at_ = v.at;
    setNow(v.now, v.why);
    chosen_->setTitle(v.title);
    if (v.unit.isEmpty()) {
        number_->showWord(v.number);
    } else {
        number_->show(v.number, v.unit);
    }
    worse_->setText(v.text);
    list_->setLines(std::move(v.lines));
}

}  // namespace ombrek
