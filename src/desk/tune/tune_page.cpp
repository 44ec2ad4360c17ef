#include "desk/tune/tune_page.h"
#include "station/notes.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "desk/tune/trimmer_view.h"
#include "report/plots.h"

namespace ombrek {
namespace {

/// Ten digits for a frequency set to hertz, three or four for all else.
int digitsFor(Unit unit) { return unit == Unit::hertz ? 7 : 3; }

}  // namespace

TunePage::TunePage(Session& session)
    : Page(session, QStringLiteral("Tune")),
      plot_(new Plot),
      number_(new BigNumber(64)),
      trimmer_(new TrimmerView),
      verdict_(new VerdictLine),
      facts_(new Card),
      others_(new Card),
      sheet_(new Card),
      teach_(new Card),
      list_(new StateList) {
    auto* top = new QHBoxLayout;
    top->addWidget(trimmer_);
    auto* words = new QVBoxLayout;
    words->addWidget(number_);
    words->addWidget(verdict_);
    top->addSpacing(12);
    top->addLayout(words, 1);
    big()->addLayout(top);
    sheet_->setTitle(QString());
    sheet_->addBody(plot_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("What this station does when a kit names its adjustments"));
    teach_->setText(QStringLiteral(
        "It takes the readings at several positions of a trimmer and says where the next one tells most: "
        "a peak until it stands where at most a tenth of a decibel is lost, a frequency or a current until "
        "it is within its limits, a bias from its safe end upward.\n\nThe alignment chapter of your manual "
        "has them; Ins writes them, a line each (docs/formats/kit.md). Without them Ombrek "
        "cannot tell whether the rig is aligned."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(facts_, 3);
    others_->setTitle(QStringLiteral("Adjustments, in order"));
    others_->addBody(list_, 1);
    others_->fillWithBody();
    side()->addWidget(others_, 2);
    addKeys();
    connect(&session_, &Session::taken, this, [this](const Subject& subject) {
        const Adjustment* a = adjustment();
        if (a == nullptr || subject != Subject::adjustment(a->id)) return;
        placed_.clear();
    });
    connect(list_, &StateList::picked, this,
            [this](int row) { chosen_ = qs(session_.kit().adjustments[std::size_t(row)].id), choose(0); });
}

void TunePage::addKeys() {
    takesPaper("adjustments");
    setEnter("read-it-here-or-go", "read it here, or go on", [this] { go(); });
    addKey("read-again", "R", "R", "read again", [this] {
        const TuneView v = view();
        if (v.adjustment && v.load.clear()) session_.read(pattern(*v.adjustment));
    });
    addKey("it-is-turned-the-mark", "Left", "Left Right", "it is turned: the mark follows", [this] {
        turn(-1);
    })->setAutoRepeat(true);
    addKey(
        "turned-up", "Right", "Right", "turned up", [this] { turn(1); }, false)
        ->setAutoRepeat(true);
    addKey(
        "turned-down-a-little", "Shift+Left", "Shift+Left", "turned down a little", [this] { turn(-0.1); },
        false);
    addKey(
        "turned-up-a-little", "Shift+Right", "Shift+Right", "turned up a little", [this] { turn(0.1); },
        false);
    addKey("type-where-it-stands", "P", "P", "type where it stands", [this] {
        askText(QStringLiteral("It stands at, in % of its travel"), QString(), [this](const QString& text) {
            const auto value = parseQuantity(text.toStdString(), Unit::percent);
            if (!value || value->value < 0 || value->value > 100) {
                session_.say(QStringLiteral("A position is 0 to 100 %."), VerdictState::cannotTell);
                return;
            }
            position_ = value->value / 100;
            refresh();
        });
    });
    takesNotes([this] {
        const Adjustment* a = adjustment();
        return a == nullptr ? Subject{} : Subject::adjustment(a->id);
    });
    addRare("louder", "L", "by ear: louder than where it stood", [this] { hear(1); });
    addRare("the-same", "E", "by ear: the same", [this] { hear(0); });
    addRare("softer", "S", "by ear: softer", [this] { hear(-1); });
    addKey("adjustment", "Down", "Up Down", "adjustment", [this] { choose(1); });
    addKey(
        "the-adjustment-before", "Up", "Up", "the adjustment before", [this] { choose(-1); }, false);
}

const Adjustment* TunePage::adjustment() const { return view().adjustment; }

TuneView TunePage::view() const {
    return tuneView(session_.judged(), chosen_.toStdString(), position_, wallClock());
}

Reading TunePage::pattern(const Adjustment& a) const {
    return {0, Subject::adjustment(a.id), 0, a.unit, 0, {{std::string(kPosition), position_}}, "", 0};
}

void TunePage::go() {
    const TuneView v = view();
    if (v.adjustment == nullptr) return;
    if (!v.settled() && !v.load.clear()) {
        if (v.load.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
    } else if (!v.settled() && v.other != nullptr) {
        chosen_ = qs(v.other->id);
        choose(0);
    } else if (!v.settled()) {
        session_.read(pattern(*v.adjustment));
    } else if (v.next != nullptr) {
        chosen_ = qs(v.next->id);
        choose(0);
    }
}

/// A comparison is a reading: where it stands now against where it stood at the last.
void TunePage::hear(int louder) {
    const TuneView v = view();
    const Adjustment* a = v.adjustment;
    if (a == nullptr || a->kind != Adjustment::Kind::peak)
        return session_.say(QStringLiteral("By ear a peak is found; this is none."),
                            VerdictState::cannotTell);
    if (!v.load.clear()) return session_.say(qs(v.load.now), VerdictState::doubtful);
    const double before = v.last ? v.last->setting(kPosition, 0.5) : 0.5;
    if (std::abs(before - position_) < 1e-3)
        return session_.say(QStringLiteral("Turn it first, Left and Right: it stands where it stood."),
                            VerdictState::cannotTell);
    Reading heard = pattern(*a);
    heard.value = louder;
    heard.unit = Unit::none;
    heard.settings.emplace(kBefore, before);
    heard.method = "by ear";
    if (!session_.kept(session_.book().takeReading(heard))) return;
    placed_.clear();
    refresh();
}

/// The mark follows the builder's hand: 5 % of the travel a key, 2 % where too much does harm.
void TunePage::turn(double by) {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    const double step = a->safe == SafeEnd::none ? 0.05 : 0.02;
    position_ = std::clamp(std::round((position_ + by * step) * 1000) / 1000, 0.0, 1.0);
    refresh();
}

void TunePage::begin(const QString& about) {
    chosen_ = about;
    refresh();
}

void TunePage::choose(int by) {
    const auto& all = session_.kit().adjustments;
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    const int count = int(all.size());
    chosen_ = qs(all[std::size_t((int(a - all.data()) + by + count) % count)].id);
    placed_.clear();
    refresh();
}

void TunePage::refresh() {
    if (!session_.hasBuild()) return;
    TuneView v = view();
    const Adjustment* a = v.adjustment;
    for (QWidget* w : std::initializer_list<QWidget*>{facts_, others_, trimmer_, number_, verdict_, sheet_})
        w->setVisible(a != nullptr);
    teach_->setVisible(a == nullptr);
    offerPaper(a == nullptr);
    wantNothing();
    setNow(v.now, v.why);
    if (a == nullptr) return;
    const QString none = a->kind == Adjustment::Kind::peak
                             ? QString()
                             : QStringLiteral("By ear a peak is found; this is none.");
    for (const char* act : {"louder", "the-same", "softer"}) setAble(act, none);
    // The adjustment in hand stays until another is chosen, so that the curve does not vanish when it
    // settles.
    chosen_ = qs(a->id);
    if (placed_ != chosen_) {
        // The mark stands where the next reading is wanted, to the thousandth that is kept.
        placed_ = chosen_;
        position_ = std::round(v.state.nextPosition * 1000) / 1000;
        v = view();
    }
    if (v.last && v.last->unit == Unit::none && v.last->settings.contains(kBefore)) {
        number_->showWord(QString::fromUtf8(heardWord(int(v.last->value))));
    } else if (v.last) {
        const SplitText text = splitQuantity(v.last->value, v.last->unit, digitsFor(v.last->unit));
        number_->show(qs(text.number), qs(text.unit));
    } else {
        number_->showWord(QStringLiteral("no reading"));
    }
    verdict_->show(v.state.state, qs(v.state.sentence));
    trimmer_->show(position_, v.state.nextPosition);
    plot_->show(tunePlot(session_.judged(), *a));
    if (v.load.clear()) wantReading(QStringLiteral("At %1 it reads").arg(travelText(position_)), pattern(*a));
    facts_->setTitle(qs(a->title));
    facts_->setFacts(v.facts);
    const QString note = qs(noteText(session_.kit(), session_.build(), Subject::adjustment(a->id)));
    facts_->setText(note.isEmpty() ? v.text : note + QChar('\n') + v.text);
    facts_->setCaution(v.caution);
    list_->setLines(std::move(v.lines));
}

void TunePage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    number_->setPixels(on ? 128 : 64);
}

}  // namespace ombrek
