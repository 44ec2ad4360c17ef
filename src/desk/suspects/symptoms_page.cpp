#include "desk/suspects/symptoms_page.h"

#include <algorithm>

#include "desk/board/board_map.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/session.h"
#include "desk/suspects/suspects_model.h"

namespace ombrek {

SymptomsPage::SymptomsPage(Session& session)
    : Page(session, QStringLiteral("It is no voltage")),
      causesCard_(new Card),
      symptomsCard_(new Card),
      map_(new BoardMap),
      causesList_(new StateList),
      symptomsList_(new StateList) {
    causesCard_->addBody(causesList_, 1);
    causesCard_->fillWithBody();
    big()->addWidget(causesCard_, 5);
    map_->setLegend(QStringLiteral("ringed: look here"));
    map_->setMinimumSize(300, 190);
    big()->addWidget(map_, 3);
    symptomsCard_->setTitle(QStringLiteral("What is seen, heard or smelt"));
    symptomsCard_->addBody(symptomsList_, 1);
    symptomsCard_->fillWithBody();
    side()->addWidget(symptomsCard_, 1);
    setEnter("it-is-not-that", "it is not that", [this] { notThat(); });
    addKey("it-was-that", "M", "M", "it was that, mended", [this] { itWasThat(); });
    addKey("choose-a-symptom", "Down", "Up Down", "what is seen", [this] { chooseSymptom(1); });
    addKey(
        "the-symptom-before", "Up", "Up", "what is seen, the one before", [this] { chooseSymptom(-1); },
        false);
    addKey("choose-a-cause", "Right", "Left Right", "what may be behind it", [this] { chooseCause(1); });
    addKey(
        "the-cause-before", "Left", "Left", "what may be behind it, the one before",
        [this] { chooseCause(-1); }, false);
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(symptomsList_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(row);
        cause_ = 0;
        refresh();
    });
    connect(causesList_, &StateList::picked, this, [this](int row) {
        cause_ = std::size_t(row);
        refresh();
    });
}

void SymptomsPage::refresh() {
    if (!session_.hasBuild()) return;
    symptoms_ = symptomsOf(session_.kit(), session_.tables().symptoms);
    if (symptoms_.empty()) return;
    at_ = std::min(at_, symptoms_.size() - 1);
    const Symptom& symptom = symptoms_[at_];
    causes_ = causesNow(session_.kit(), session_.build(), symptom);
    cause_ = std::min(cause_, causes_.empty() ? 0 : causes_.size() - 1);
    const QString none = causes_.empty() ? QStringLiteral("Nothing is written down behind it.") : QString();
    setAble("it-is-not-that", none);
    setAble("it-was-that", none);
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < symptoms_.size(); ++i)
        lines.push_back({VerdictState::notDone, qs(symptoms_[i].title), QString(), i == at_, false, true});
    symptomsList_->setLines(std::move(lines));
    lines.clear();
    for (std::size_t i = 0; i < causes_.size(); ++i) {
        const CauseNow& c = causes_[i];
        QString refs;
        for (const std::string& ref : c.refs) refs += (refs.isEmpty() ? "" : " ") + qs(ref);
        lines.push_back(
            {c.ruledOut ? VerdictState::pass : VerdictState::notDone,
             qs(c.cause.suspect) + (refs.isEmpty() ? QString() : QStringLiteral(" (%1)").arg(refs)),
             c.ruledOut ? QStringLiteral("not that") : qs(oddsText(c.share)), i == cause_, false,
             !c.ruledOut});
    }
    causesList_->setLines(std::move(lines));
    causesCard_->setTitle(QStringLiteral("%1: what may be behind it").arg(qs(symptom.title)));
    if (causes_.empty()) return setNow(qs(symptom.title), none);
    const SymptomCause& cause = causes_[cause_].cause;
    setNow(
        qs(cause.test),
        QStringLiteral("%1 Enter: made, and it is not that. M: it was, and is mended.").arg(qs(cause.tells)));
    showMap();
    causesCard_->setText(
        cause.ofKit ? QStringLiteral("The kit's own words.")
                    : QStringLiteral("Common practice, to be overruled. Power off before you touch."));
}

/// Where on the board the cause in hand may sit.
void SymptomsPage::showMap() {
    const Kit& kit = session_.kit();
    const auto& refs = causes_[cause_].refs;
    BoardDrawing drawing;
    drawing.board = kit.board;
    std::vector<const Part*> touched;
    for (const Part& part : kit.parts) {
        const bool here = std::find(refs.begin(), refs.end(), part.ref) != refs.end();
        if (here) touched.push_back(&part);
        if (!part.place) continue;
        BoardPiece piece;
        piece.part = &part;
        piece.fitting = here ? BoardPiece::Fitting::now : BoardPiece::Fitting::waits;
        drawing.pieces.push_back(piece);
    }
    map_->setVisible(!drawing.pieces.empty());
    map_->show(std::move(drawing), touched);
}

void SymptomsPage::notThat() {
    if (causes_.empty()) return;
    const Symptom& symptom = symptoms_[at_];
    // What comes next stands first again, unless this was taken back.
    if (session_.kept(session_.book().remark(
            triedName(symptom), triedWith(session_.build(), symptom, causes_[cause_].cause.suspect))))
        cause_ = 0;
    refresh();
}

void SymptomsPage::itWasThat() {
    if (causes_.empty()) return;
    const CauseNow now = causes_[cause_];
    const QString asks = now.refs.empty() ? QStringLiteral("Which part, and what was done")
                                          : QStringLiteral("%1: what was done").arg(qs(now.refs.front()));
    askText(asks, now.refs.empty() ? QString() : QStringLiteral("mended"), [this, now](const QString& typed) {
        std::string did = typed.simplified().toStdString(), ref;
        if (!now.refs.empty()) {
            ref = now.refs.front();
        } else {
            ref = typed.simplified().section(QChar(' '), 0, 0).toUpper().toStdString();
            did = typed.simplified().section(QChar(' '), 1).toStdString();
        }
        if (session_.kit().part(ref) == nullptr && session_.kit().coil(ref) == nullptr)
            return session_.say(
                QStringLiteral("The parts list has no %1: begin with a designator.").arg(qs(ref)),
                VerdictState::cannotTell);
        const Repair repair{0, ref, now.cause.suspect, did.empty() ? "mended" : did};
        if (session_.kept(session_.book().repaired(repair)))
            session_.say(
                QStringLiteral("%1 is mended. What rests on it is to be measured again: F4.").arg(qs(ref)),
                VerdictState::doubtful);
    });
}

void SymptomsPage::chooseSymptom(int by) {
    const int count = int(symptoms_.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    cause_ = 0;
    refresh();
}

void SymptomsPage::chooseCause(int by) {
    const int count = int(causes_.size());
    if (count > 0) cause_ = std::size_t((int(cause_) + by + count) % count);
    refresh();
}

}  // namespace ombrek
