#include "desk/board/loupe_page.h"

#include <QPainter>

#include "desk/board/board_map.h"
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

LoupePage::LoupePage(Session& session)
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
        pass_ = LoupePass((int(pass_) + 1) % 3);
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
        at_ = std::size_t(row);
        refresh();
    });
}

void LoupePage::begin(const QString& about) {
    pass_ = about == QStringLiteral("sense") ? LoupePass::senses : LoupePass::joints;
    at_ = 0;
    refresh();
}

LoupeView LoupePage::view() const { return loupeView(session_.judged(), pass_, at_); }

void LoupePage::good() {
    const Part* part = view().part();
    if (part == nullptr) {
        emit left();
        return;
    }
    session_.say(QString());
    session_.kept(session_.book().lookedAt(
        part->ref, pass_ == LoupePass::senses ? Book::Look::sense : Book::Look::joints));
}

/// Found and written down: the part has been looked at, and has a task.
void LoupePage::found(Finding::What what) {
    const Part* part = view().part();
    if (part == nullptr) return;
    const std::string ref = part->ref;
    const auto look = pass_ == LoupePass::senses ? Book::Look::sense : Book::Look::joints;
    if (!session_.kept(session_.book().found(ref, what, look))) return;
    session_.say(QStringLiteral("%1 at %2: it waits on the Board, where %2 was fitted.")
                     .arg(qs(word(what)).left(1).toUpper() + qs(word(what)).mid(1), qs(ref)),
                 VerdictState::fail);
}

void LoupePage::choose(int by) {
    const int count = int(view().parts.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void LoupePage::refresh() {
    if (!session_.hasBuild()) return;
    LoupeView v = view();
    at_ = v.at;
    joint_->setTitle(QStringLiteral("What the loupe sees"));
    setNow(v.now, v.why);
    map_->show(std::move(v.drawing), v.parts.empty() ? v.parts : std::vector{v.part()});
    task_->setTitle(v.title);
    list_->setLines(std::move(v.lines));
}

}  // namespace ombrek
