#include "desk/board/inspection_page.h"

#include <QPainter>

#include "desk/board/board_map.h"
#include "desk/board/board_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "report/joint_picture.h"

namespace ombrek {
namespace {

/// The good joint large, and what may be wrong small with its key and word.
class JointLooks : public QWidget {
 public:
    QSize sizeHint() const override { return {320, 236}; }
    QSize minimumSizeHint() const override { return {280, 236}; }

 protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        const Colours& c = coloursOf(*this);
        const auto draw = [&](const QRectF& cell, std::optional<Finding::What> what, const QString& text) {
            drawJoint(p, cell.adjusted(6, 2, -6, -24), what, c);
            p.setFont(benchFont(13, !what));
            p.setPen(c.ink);
            p.drawText(cell.adjusted(0, cell.height() - 24, 0, 0), Qt::AlignHCenter | Qt::AlignVCenter, text);
        };
        const double w = width() / 3.0, h = height() / 2.0;
        draw({0, 0, w, h}, std::nullopt, QStringLiteral("good"));
        const Finding::What shown[] = {Finding::What::bridge, Finding::What::dry, Finding::What::missed,
                                       Finding::What::flux};
        for (int i = 0; i < 4; ++i) {
            const int cell = i + 1;
            draw({(cell % 3) * w, (cell / 3) * h, w, h}, shown[i],
                 QStringLiteral("%1 %2").arg(i + 1).arg(qs(word(shown[i]))));
        }
        p.setFont(benchFont(13));
        p.setPen(c.soft);
        p.drawText(QRectF(2 * w, h, w, h), Qt::AlignCenter | Qt::TextWordWrap,
                   QStringLiteral("5 turned\n6 other"));
    }
};

}  // namespace

InspectionPage::InspectionPage(Session& session)
    : Page(session, QStringLiteral("Loupe")),
      map_(new BoardMap),
      joint_(new Card),
      task_(new Card),
      looks_(new JointLooks),
      list_(new StateList) {
    big()->addWidget(map_, 1);
    joint_->addBody(looks_);
    joint_->setText(qs(goodJoint()));
    side()->addWidget(joint_, 0);
    task_->addBody(list_, 1);
    task_->fillWithBody();
    side()->addWidget(task_, 1);
    setEnter("good", "good", [this] { good(); });
    addKey("what-is-wrong", "1", "1 to 6", "what is wrong", [this] { found(Finding::What::bridge); });
    addKey("joints-or-sense", "S", "S", "joints or sense", [this] {
        pass_ = Pass((int(pass_) + 1) % 3);
        at_ = 0;
        refresh();
    });
    addKey("a-part", "Down", "Up Down", "a part", [this] { choose(1); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    const std::pair<const char*, Finding::What> others[] = {{"2", Finding::What::dry},
                                                            {"3", Finding::What::missed},
                                                            {"4", Finding::What::flux},
                                                            {"5", Finding::What::turned},
                                                            {"6", Finding::What::other}};
    for (const auto& [key, what] : others) {
        const std::string name(word(what));
        addRare(name.c_str(), key, name.c_str(), [this, what = what] { found(what); });
    }
    addKey(
        "the-part-before", "Up", "Up", "the part before", [this] { choose(-1); }, false);
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        refresh();
    });
}

void InspectionPage::begin(const QString& about) {
    pass_ = about == QStringLiteral("sense") ? Pass::senses : Pass::joints;
    at_ = 0;
    refresh();
}

std::vector<const Part*> InspectionPage::wanted() const {
    const Kit& kit = session_.kit();
    const Build& build = session_.build();
    if (pass_ != Pass::senses) return jointsToLookAt(kit, build, pass_ == Pass::all);
    std::vector<const Part*> out;
    for (const SenseLook& look : sensesToLookAt(kit, build)) out.push_back(look.part);
    return out;
}

void InspectionPage::good() {
    const auto parts = wanted();
    if (parts.empty()) {
        emit left();
        return;
    }
    const Part& part = *parts[std::size_t(at_)];
    session_.say(QString());
    session_.keep(
        session_.book().lookedAt(part.ref, pass_ == Pass::senses ? Book::Look::sense : Book::Look::joints));
}

/// Found and written down: the part has been looked at, and has a task.
void InspectionPage::found(Finding::What what) {
    const auto parts = wanted();
    if (parts.empty()) return;
    const std::string ref = parts[std::size_t(at_)]->ref;
    const auto look = pass_ == Pass::senses ? Book::Look::sense : Book::Look::joints;
    if (!session_.keep(session_.book().found(ref, what, look))) return;
    session_.say(QStringLiteral("%1 at %2: it waits on the Board, where %2 was fitted.")
                     .arg(qs(word(what)).left(1).toUpper() + qs(word(what)).mid(1), qs(ref)),
                 VerdictState::fail);
}

void InspectionPage::choose(int by) {
    const int count = int(wanted().size());
    if (count > 0) at_ = (at_ + by + count) % count;
    refresh();
}

QString InspectionPage::sentenceFor(const Part& part) const {
    if (pass_ != Pass::senses)
        return QStringLiteral("%1, %2: look at every joint of it.").arg(qs(part.ref), qs(part.value));
    for (const SenseLook& look : sensesToLookAt(session_.kit(), session_.build())) {
        if (look.part == &part) return QStringLiteral("%1: %2.").arg(qs(part.ref), qs(look.look));
    }
    return {};
}

void InspectionPage::refresh() {
    if (!session_.hasBuild()) return;
    const auto parts = wanted();
    at_ = std::clamp(at_, 0, std::max(0, int(parts.size()) - 1));
    joint_->setTitle(QStringLiteral("What the loupe sees"));
    if (parts.empty()) {
        setNow(pass_ == Pass::senses   ? QStringLiteral("Every polarised part agrees with the print.")
               : pass_ == Pass::joints ? QStringLiteral("No joint of this sitting is left to look at.")
                                       : QStringLiteral("Every joint of the board has been looked at."),
               pass_ == Pass::joints ? QStringLiteral("S turns to the polarised parts. Enter goes back.")
                                     : QStringLiteral("Enter goes back to the board."));
    } else {
        setNow(
            sentenceFor(*parts[std::size_t(at_)]),
            pass_ == Pass::senses
                ? QStringLiteral("Against the print, before first light. Enter: it agrees. 5: it is turned.")
                : QStringLiteral(
                      "Flick it gently: it must not move. Enter: good. Else the number of what you see."));
    }
    BoardDrawing drawing;
    drawing.board = session_.kit().board;
    for (BoardPiece piece : boardView(session_.judged(), std::string()).pieces) {
        if (piece.fitting == BoardPiece::Fitting::now) piece.fitting = BoardPiece::Fitting::waits;
        const bool here = !parts.empty() && piece.part == parts[std::size_t(at_)];
        if (here) piece.fitting = BoardPiece::Fitting::now;
        if (here) drawing.middle = {piece.part->place->x, piece.part->place->y};
        drawing.pieces.push_back(piece);
    }
    drawing.mirrored = pass_ != Pass::senses;  // joints are on the solder side
    drawing.zoom = parts.empty() || !parts[std::size_t(at_)]->place ? 1 : 2.6;
    map_->show(std::move(drawing), parts.empty() ? parts : std::vector{parts[std::size_t(at_)]});
    const auto open = openFindings(session_.build());
    task_->setTitle(QStringLiteral("%1: %2 left, %3 to mend")
                        .arg(pass_ == Pass::joints   ? QStringLiteral("This sitting's joints")
                             : pass_ == Pass::senses ? QStringLiteral("Polarised parts")
                                                     : QStringLiteral("All joints"))
                        .arg(parts.size())
                        .arg(open.size()));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < parts.size(); ++i)
        lines.push_back({VerdictState::notDone,
                         qs(parts[i]->ref) + QStringLiteral("  ") + qs(parts[i]->value), QString(),
                         int(i) == at_, false});
    for (const Finding* finding : open)
        lines.push_back({VerdictState::fail, qs(finding->ref), qs(word(finding->what)), false, false});
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
