#include "desk/board/loupe_model.h"

#include <algorithm>

#include "desk/board/board_model.h"
#include "desk/session.h"

namespace ombrek {
namespace {

std::vector<const Part*> wanted(const Judged& judged, LoupePass pass) {
    if (pass != LoupePass::senses)
        return jointsToLookAt(judged.kit(), judged.build(), pass == LoupePass::all);
    std::vector<const Part*> out;
    for (const SenseLook& look : sensesToLookAt(judged.kit(), judged.build())) out.push_back(look.part);
    return out;
}

QString sentenceFor(const Judged& judged, LoupePass pass, const Part& part) {
    if (pass != LoupePass::senses)
        return QStringLiteral("%1, %2: look at every joint of it.").arg(qs(part.ref), qs(part.value));
    for (const SenseLook& look : sensesToLookAt(judged.kit(), judged.build())) {
        if (look.part == &part) return QStringLiteral("%1: %2.").arg(qs(part.ref), qs(look.look));
    }
    return {};
}

void say(const Judged& judged, LoupePass pass, LoupeView& v) {
    if (const Part* part = v.part()) {
        v.now = sentenceFor(judged, pass, *part);
        v.why =
            pass == LoupePass::senses
                ? QStringLiteral("Against the print, before first light. Enter: it agrees. 5: it is turned.")
                : QStringLiteral(
                      "Flick it gently: it must not move. Enter: good. Else the number of what you see.");
        return;
    }
    v.now = pass == LoupePass::senses   ? QStringLiteral("Every polarised part agrees with the print.")
            : pass == LoupePass::joints ? QStringLiteral("No joint of this sitting is left to look at.")
                                        : QStringLiteral("Every joint of the board has been looked at.");
    v.why = pass == LoupePass::joints ? QStringLiteral("S turns to the polarised parts. Enter goes back.")
                                      : QStringLiteral("Enter goes back to the board.");
}

/// The part in hand alone stands out; joints are seen from the solder side.
BoardDrawing drawingOf(const Judged& judged, LoupePass pass, const Part* part) {
    BoardDrawing out;
    out.board = judged.kit().board;
    for (BoardPiece piece : boardView(judged, std::string()).pieces) {
        if (piece.fitting == BoardPiece::Fitting::now) piece.fitting = BoardPiece::Fitting::waits;
        if (piece.part == part) {
            piece.fitting = BoardPiece::Fitting::now;
            out.middle = {part->place->x, part->place->y};
        }
        out.pieces.push_back(piece);
    }
    out.mirrored = pass != LoupePass::senses;
    out.zoom = part == nullptr || !part->place ? 1 : 2.6;
    return out;
}

}  // namespace

LoupeView loupeView(const Judged& judged, LoupePass pass, std::size_t at) {
    LoupeView v;
    v.parts = wanted(judged, pass);
    v.at = std::min(at, v.parts.empty() ? 0 : v.parts.size() - 1);
    say(judged, pass, v);
    const auto open = openFindings(judged.build());
    v.title = QStringLiteral("%1: %2 left, %3 to mend")
                  .arg(pass == LoupePass::joints   ? QStringLiteral("This sitting's joints")
                       : pass == LoupePass::senses ? QStringLiteral("Polarised parts")
                                                   : QStringLiteral("All joints"))
                  .arg(v.parts.size())
                  .arg(open.size());
    for (std::size_t i = 0; i < v.parts.size(); ++i)
        v.lines.push_back({VerdictState::notDone,
                           qs(v.parts[i]->ref) + QStringLiteral("  ") + qs(v.parts[i]->value), QString(),
                           i == v.at, false});
    for (const Finding* finding : open)
        v.lines.push_back({VerdictState::fail, qs(finding->ref), qs(word(finding->what)), false, false});
    v.drawing = drawingOf(judged, pass, v.part());
    return v;
}

}  // namespace ombrek
