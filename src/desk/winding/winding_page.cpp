#include "desk/winding/winding_page.h"

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/winding/coil_view.h"
#include "desk/winding/winding_model.h"

namespace ombrek {

WindingPage::WindingPage(Session& session)
    : Page(session, QStringLiteral("Winding")),
      coil_(new CoilView),
      facts_(new Card),
      cutList_(new Card),
      list_(new StateList) {
    big()->addWidget(coil_, 1);
    side()->addWidget(facts_, 3);
    cutList_->setTitle(QStringLiteral("Coils of this kit"));
    cutList_->addBody(list_, 1);
    cutList_->fillWithBody();
    side()->addWidget(cutList_, 2);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        chosen_ = qs(session_.kit().coils[std::size_t(row)].ref);
        refresh();
    });
}

void WindingPage::addKeys() {
    addKey("Space", "Space", "a pass", [this] { count(1); });
    addKey("Backspace", "Backspace", "take one back", [this] { count(-1); });
    setEnter("done, measure, next", [this] { go(); });
    addKey("S", "S", "squeezed or spread", [this] { bent(); });
    addKey("A", "A", "open again", [this] { reopen(); });
    addKey("Down", "Up Down", "coil", [this] { choose(1); });
    addKey(
        "Up", "Up", "the coil before", [this] { choose(-1); }, false);
    addKey(
        "R", "R", "measure again", [this] { measure(); }, false);
}

WindingView WindingPage::view() const {
    return windingView(session_.kit(), session_.build(), chosen_.toStdString());
}

void WindingPage::count(int by) {
    const WindingView v = view();
    if (v.coil == nullptr || !v.inHand) {
        if (v.coil) session_.say(QStringLiteral("%1 is wound. A opens it again.").arg(qs(v.coil->ref)));
        return;
    }
    chosen_ = qs(v.coil->ref);
    if (by < 0 && v.turns == 0) return;
    session_.keep(session_.book().countTurn(v.coil->ref, v.coil->windings[*v.inHand].name, by));
}

void WindingPage::go() {
    const WindingView v = view();
    if (v.coil == nullptr) return;
    using Stage = WindingView::Stage;
    chosen_ = qs(v.coil->ref);
    switch (v.stage) {
        case Stage::wind:
            session_.say(QStringLiteral("Space counts a pass. Enter when all %1 are on.").arg(v.wanted));
            break;
        case Stage::full:
        case Stage::over:
            session_.keep(session_.book().finishWinding(v.coil->ref, v.coil->windings[*v.inHand].name));
            break;
        case Stage::measure:
        case Stage::advice:
            measure();
            break;
        case Stage::finished:
            chosen_.clear();
            refresh();
            break;
    }
}

void WindingPage::measure() {
    const WindingView v = view();
    if (v.coil == nullptr || v.inHand) return;
    const double turns = mainTurns(*v.coil, session_.build());
    session_.read({0, "coil:" + v.coil->ref, 0, Unit::henry, 0, turns, "", 0});
}

void WindingPage::bent() {
    const WindingView v = view();
    if (v.stage != WindingView::Stage::advice && v.stage != WindingView::Stage::finished) return;
    chosen_ = qs(v.coil->ref);
    // On the practice bench a squeeze takes most of the deviation away; a real meter does not care.
    session_.bench().bend(chosen_, -0.8 * v.advice->deviationPercent, [this](Result<double> result) {
        if (result) {
            measure();
        } else {
            session_.say(qs(result.error().text()), VerdictState::cannotTell);
        }
    });
}

void WindingPage::reopen() {
    const WindingView v = view();
    if (v.coil == nullptr || v.inHand) return;
    chosen_ = qs(v.coil->ref);
    session_.keep(session_.book().finishWinding(v.coil->ref, v.coil->windings.front().name, false));
}

void WindingPage::choose(int by) {
    const auto& coils = session_.kit().coils;
    const WindingView v = view();
    if (v.coil == nullptr) return;
    const int count = int(coils.size());
    chosen_ = qs(coils[std::size_t((int(v.coil - coils.data()) + by + count) % count)].ref);
    refresh();
}

void WindingPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().coil(chosen_.toStdString()) == nullptr) chosen_.clear();
    const WindingView v = view();
    coil_->show(v, session_.build());
    wantReading(QString(), nullptr);
    if (v.coil == nullptr) {
        setNow(QStringLiteral("This kit has no coils to wind."), QStringLiteral("F3 goes to the Board."));
        facts_->hide();
        cutList_->hide();
        return;
    }
    facts_->show();
    cutList_->show();
    setNow(qs(v.now), qs(v.why));
    if (!v.inHand) {
        const Reading pattern{
            0, "coil:" + v.coil->ref, 0, Unit::henry, 0, double(mainTurns(*v.coil, session_.build())), "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(v.coil->ref)),
                    [this, pattern](const QString& text) { session_.type(pattern, text); });
    }
    facts_->setTitle(qs(v.coil->ref + "  " + v.coil->what));
    std::vector<Card::Fact> facts;
    for (const auto& f : v.facts)
        facts.push_back(
            {qs(f.name), qs(f.value), f.state.value_or(VerdictState::notDone), f.state.has_value()});
    facts_->setFacts(facts);
    const bool measured = !v.inHand && v.cover && session_.build().last("coil:" + v.coil->ref) != nullptr;
    facts_->setText(measured ? qs(v.cover->sentence) : qs(v.note));
    std::vector<StateLine> lines;
    for (const auto& line : v.coils)
        lines.push_back({line.state, qs(line.text), qs(line.right), line.ref == v.coil->ref, false});
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
