#include "desk/suspects/suspects_board.h"

#include <algorithm>

#include "desk/board/board_map.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/session.h"

namespace ombrek {
namespace {
constexpr std::size_t kMarked = 3;  ///< suspects that are marked on the board
}

SuspectsBoard::SuspectsBoard(QVBoxLayout* big, QVBoxLayout* side, QObject* parent)
    : QObject(parent),
      map_(new BoardMap),
      suspects_(new Card),
      evidence_(new Card),
      list_(new StateList),
      readings_(new StateList) {
    map_->setLegend(QStringLiteral("ringed: touch here · broken frame: suspect"));
    big->addWidget(map_, 1);
    suspects_->setTitle(QStringLiteral("Suspects, of all readings together"));
    suspects_->addBody(list_, 1);
    suspects_->fillWithBody();
    side->addWidget(suspects_, 5);
    evidence_->addBody(readings_, 1);
    evidence_->fillWithBody();
    side->addWidget(evidence_, 4);
    connect(list_, &StateList::picked, this, &SuspectsBoard::picked);
}

void SuspectsBoard::show(const Kit& kit, const SuspectsView& v) {
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < v.suspects.size(); ++i) {
        const Suspect& s = v.suspects[i];
        lines.push_back(
            {VerdictState::notDone, qs(suspectName(s)), qs(oddsText(s.odds)), i == v.at, false, true});
    }
    list_->setLines(std::move(lines));
    suspects_->setText(v.suspects.empty() || v.suspects[v.at].ref.empty()
                           ? QString()
                           : qs(suspectLooks(kit, v.suspects[v.at])));
    lines.clear();
    for (const EvidenceRow& row : v.evidence)
        lines.push_back(
            {row.state, qs(row.text), qs(row.word), false, false, row.state == VerdictState::notDone});
    readings_->setLines(std::move(lines));
    evidence_->setTitle(
        v.suspects.empty()
            ? QStringLiteral("Readings")
            : QStringLiteral("For ✓ and against ×: %1").arg(qs(suspectName(v.suspects[v.at]))));
    evidence_->setVisible(!v.evidence.empty());
    showMap(kit, v);
}

void SuspectsBoard::showNothing(const Kit& kit, const QString& why) {
    list_->setLines({});
    readings_->setLines({});
    suspects_->setText(why);
    evidence_->setVisible(false);
    showMap(kit, {});
}

void SuspectsBoard::showMap(const Kit& kit, const SuspectsView& v) {
    BoardDrawing drawing;
    drawing.board = kit.board;
    std::vector<const Part*> touched;
    const auto suspected = [&](const std::string& ref) {
        for (std::size_t i = 0; i < std::min(kMarked, v.suspects.size()); ++i) {
            if (v.suspects[i].odds > 0.05 && (v.suspects[i].ref == ref || v.suspects[i].near == ref))
                return true;
        }
        return false;
    };
    for (const Part& part : kit.parts) {
        const bool touch =
            !v.settled && std::find(v.nextParts.begin(), v.nextParts.end(), part.ref) != v.nextParts.end();
        if (touch) touched.push_back(&part);
        if (!part.place) continue;
        BoardPiece piece;
        piece.part = &part;
        piece.fitting = touch ? BoardPiece::Fitting::now : BoardPiece::Fitting::waits;
        piece.suspect = suspected(part.ref);
        drawing.pieces.push_back(piece);
    }
    map_->show(std::move(drawing), touched);
}

}  // namespace ombrek
