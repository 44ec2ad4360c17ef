#include "desk/board/board_page.h"

#include "desk/board/board_map.h"
#include "desk/board/board_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"

namespace ombrek {

BoardPage::BoardPage(Session& session)
    : Page(session, QStringLiteral("Board")),
      map_(new BoardMap),
      step_(new Card),
      plan_(new Card),
      list_(new StateList) {
    big()->addWidget(map_, 1);
    side()->addWidget(step_, 0);
    plan_->addBody(list_, 1);
    plan_->fillWithBody();
    side()->addWidget(plan_, 1);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        chosen_ = qs(session_.kit().steps[session_.order()[std::size_t(row)]].id);
        refresh();
    });
}

void BoardPage::addKeys() {
    setEnter("done", [this] { done(); });
    addKey("K", "K", "pass knowingly", [this] { passKnowingly(); });
    addKey("M", "M", "other side", [this] {
        mirrored_ = !mirrored_;
        refresh();
    });
    addKey("O", "O", "order of work", [this] {
        const bool manual = session_.build().order == Order::manual;
        session_.keep(session_.book().chooseOrder(manual ? Order::lowestFirst : Order::manual));
    });
    addKey("R", "R", "remark", [this] { remark(); });
    addKey("Down", "Up Down", "step", [this] { choose(1); });
    addKey(
        "Up", "Up", "the step before", [this] { choose(-1); }, false);
    addKey(
        "Home", "Home", "back to the step in hand",
        [this] {
            chosen_.clear();
            refresh();
        },
        false);
}

BoardView BoardPage::view() const {
    return boardView(session_.kit(), session_.build(), session_.order(), chosen_.toStdString());
}

void BoardPage::done() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    const std::string id = v.step->id;
    if (session_.build().done(id)) {
        chosen_.clear();
        refresh();
        return;
    }
    for (const std::string& before : v.step->after) {
        if (session_.build().done(before)) continue;
        session_.say(QStringLiteral("First: %1.").arg(qs(session_.kit().step(before)->title)),
                     VerdictState::doubtful);
        return;
    }
    if (v.step->hold && !v.earned) {
        session_.say(QStringLiteral("This hold is not earned yet; K passes it knowingly."),
                     VerdictState::doubtful);
        return;
    }
    chosen_.clear();
    session_.say(QString());
    session_.keep(session_.book().doStep(id));
}

void BoardPage::passKnowingly() {
    const BoardView v = view();
    if (v.step == nullptr || !v.step->hold || v.earned || session_.build().done(v.step->id)) return;
    const std::string id = v.step->id;
    askText(QStringLiteral("Why go on?"), QString(), [this, id](const QString& reason) {
        chosen_.clear();
        if (session_.keep(session_.book().remark(id, reason.toStdString())))
            session_.keep(session_.book().doStep(id, true));
    });
}

void BoardPage::remark() {
    const BoardView v = view();
    if (v.step == nullptr) return;
    const std::string id = v.step->id;
    askText(QStringLiteral("Remark"), qs(v.remark), [this, id](const QString& text) {
        session_.keep(session_.book().remark(id, text.toStdString()));
    });
}

void BoardPage::choose(int by) {
    const BoardView v = view();
    if (v.plan.empty()) return;
    int at = by > 0 ? -1 : int(v.plan.size());
    for (std::size_t i = 0; i < v.plan.size(); ++i) {
        if (v.step != nullptr && v.plan[i].id == v.step->id) at = int(i);
    }
    chosen_ = qs(v.plan[std::size_t((at + by + int(v.plan.size())) % int(v.plan.size()))].id);
    refresh();
}

void BoardPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().step(chosen_.toStdString()) == nullptr) chosen_.clear();
    const BoardView v = view();
    setNow(qs(v.now), qs(v.why));
    map_->show(session_.kit().board, v.pieces, mirrored_);
    delete stepBody_;
    stepBody_ = nullptr;
    step_->setVisible(v.step != nullptr);
    if (v.step != nullptr) {
        step_->setTitle(v.step->hold ? QStringLiteral("What this hold rests on")
                                     : QStringLiteral("At this step"));
        stepBody_ = new QWidget;
        auto* layout = new QVBoxLayout(stepBody_);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->setSpacing(7);
        for (const Evidence& e : v.needs)
            layout->addWidget(new TroubleLine(e.state, qs(e.what), qs(e.sentence)));
        if (v.step->hold && v.needs.empty()) {
            auto* eyes = textLabel(14);
            eyes->setText(QStringLiteral("Your own eyes: Enter confirms it."));
            layout->addWidget(eyes);
        }
        for (const std::string& ahead : v.aheads) {
            auto* label = textLabel(14);
            label->setText(QStringLiteral("Look ahead: ") + qs(ahead));
            layout->addWidget(label);
        }
        step_->addBody(stepBody_);
        QStringList texts;
        if (!v.note.empty()) texts << qs(v.note);
        if (!v.remark.empty()) texts << QStringLiteral("Your remark: ") + qs(v.remark);
        step_->setText(texts.join(QStringLiteral("\n")));
        step_->setCaution(qs(v.caution));
    }
    plan_->setTitle(QStringLiteral("The plan, %1")
                        .arg(session_.build().order == Order::manual ? QStringLiteral("the manual's order")
                                                                     : QStringLiteral("lowest parts first")));
    std::vector<StateLine> lines;
    for (const auto& line : v.plan)
        lines.push_back(
            {line.state, qs(line.text), qs(line.right), v.step && line.id == v.step->id, line.hold});
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
