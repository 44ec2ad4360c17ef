#include "desk/help/evening_line.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <array>

#include "desk/pages.h"
#include "desk/pieces/text.h"
#include "desk/page.h"
#include "desk/rooms.h"

namespace ombrek {
namespace {

/// One step: the act that does it, on its page or of the window.
struct EveningStep {
    const char *page, *act, *says;
};
constexpr const char* kWindow = "window";
constexpr std::array kSteps{
    EveningStep{"start", "begin-it",
                "The first kit is for practice. Press Enter, and it is begun in this book."},
    EveningStep{
        kWindow, "practice-bench",
        "Press Ctrl+B: four simulated instruments come up at the right and measure the practice kit."},
    EveningStep{"parts-in", "take-it",
                "Take the part that is named out of the bag, put it on the clips, and press Enter: the meter "
                "is asked."},
    EveningStep{"parts-in", "choose-a-line", "Down goes along the list. A filled disc passed, a ring waits."},
    EveningStep{"parts-in", "not-here",
                "A part is missing? N says so. What to do about it is asked later, with W."},
    EveningStep{kWindow, "undo",
                "It was there after all: Z takes the last action back. Everything can be taken back."},
    EveningStep{kWindow, "winding", "F2 goes to the coils. You can come back with F1 at any time."},
    EveningStep{"winding", "do-it-and-on", "Enter says that the wire is cut, and goes on to winding."},
    EveningStep{"winding", "a-pass",
                "Space counts a pass of the wire through the ring. Count aloud with it."},
    EveningStep{"winding", "take-one-back", "Backspace takes a pass back, for a turn too many."},
    EveningStep{kWindow, "board", "F3 goes to the board. What is fitted now is ringed in copper."},
    EveningStep{"board", "other-side", "M turns the board over, as you hold it for soldering."},
    EveningStep{kWindow, "first-light",
                "F4: the checks before and at first power, in the order in which they are safe. A gate stops "
                "those behind it."},
    EveningStep{kWindow, "tune", "F5: trimmers are set here, by what is read where they stand."},
    EveningStep{kWindow, "proof", "F6: what leaves the antenna socket. Always on a dummy load first."},
    EveningStep{kWindow, "sign-off",
                "F7: what is still to be earned before the rig goes on the air, each with its evidence."},
    EveningStep{kWindow, "find",
                "Ctrl+F finds anything by its name. Esc leaves it. That is the way around."}};

}  // namespace

EveningLine::EveningLine(Rooms& rooms)
    : QFrame(&rooms), rooms_(rooms), where_(textLabel(13, true, "copper")), says_(textLabel(15)) {
    setObjectName(QStringLiteral("evening"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(30, 8, 26, 8);
    row->setSpacing(16);
    where_->setWordWrap(false);
    row->addWidget(where_);
    row->addWidget(says_, 1);
    const auto button = [&](const QString& text, auto act) {
        auto* out = new QPushButton(text);
        out->setFocusPolicy(Qt::TabFocus);
        out->setFont(benchFont(14));
        connect(out, &QPushButton::clicked, this, act);
        row->addWidget(out);
    };
    button(QStringLiteral("On"), [this] { next(); });
    button(QStringLiteral("Leave"), [this] { leave(); });
    hide();
}

int EveningLine::steps() { return int(kSteps.size()); }

void EveningLine::begin() {
    listen();
    step_ = 0;
    rooms_.act(QStringLiteral("another"))->trigger();  // the start page, where the practice kit stands first
    show();
}

/// Once: every act that a step waits for.
void EveningLine::listen() {
    if (listening_) return;
    listening_ = true;
    for (std::size_t i = 0; i < kSteps.size(); ++i) {
        const EveningStep& s = kSteps[i];
        const QString act = QString::fromUtf8(s.act);
        QAction* waited = s.page == std::string_view(kWindow)
                              ? rooms_.act(act)
                              : rooms_.pageOf(QString::fromUtf8(s.page))->act(act);
        if (waited == nullptr) continue;
        connect(waited, &QAction::triggered, this, [this, i] {
            if (step_ == int(i)) next();
        });
    }
}

void EveningLine::next() {
    if (++step_ >= steps()) return leave();
    show();
}

void EveningLine::leave() {
    step_ = -1;
    hide();
    rooms_.page()->takeFocus();
}

void EveningLine::follow() {
    if (step_ >= 0) show();
}

void EveningLine::show() {
    const EveningStep& s = kSteps[std::size_t(step_)];
    say(where_, QStringLiteral("First evening, %1 of %2").arg(step_ + 1).arg(steps()));
    QString text = QString::fromUtf8(s.says);
    const bool elsewhere =
        s.page != std::string_view(kWindow) && rooms_.page()->objectName() != QLatin1String(s.page);
    if (elsewhere)
        text += QStringLiteral(" This is on %1.").arg(rooms_.pageOf(QString::fromUtf8(s.page))->name());
    say(says_, text);
    setAccessibleName(where_->text() + QStringLiteral(": ") + text);
    setVisible(true);
}

}  // namespace ombrek
