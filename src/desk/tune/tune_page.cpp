#include "desk/tune/tune_page.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "desk/tune/adjuster_view.h"
#include "judged/tune_next.h"
#include "report/plots.h"
#include "station/notes.h"
#include "station/tune/tune_rounds.h"
#include "station/tune/tune_ways.h"

namespace ombrek {
namespace {

/// Ten digits for a frequency set to hertz, three or four for all else.
int digitsFor(Unit unit) { return unit == Unit::hertz ? 7 : 3; }

bool found(const Adjustment& a) {
    return a.kind == Adjustment::Kind::peak || a.kind == Adjustment::Kind::null;
}

}  // namespace

TunePage::TunePage(Session& session)
    : Page(session, qs(word(Station::tune))),
      plot_(new Plot),
      number_(new BigNumber(64)),
      adjuster_(new AdjusterView),
      verdict_(new VerdictLine),
      facts_(new Card),
      others_(new Card),
      sheet_(new Card),
      teach_(new Card),
      together_(new Card),
      ways_(new Card),
      partners_(new PartnersView),
      list_(new StateList),
      wayList_(new StateList) {
    auto* top = new QHBoxLayout;
    top->addWidget(adjuster_);
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
    ways_->setTitle(QStringLiteral("Ways out, and the odds that the trimmer then reaches it"));
    ways_->addBody(wayList_, 1);
    big()->addWidget(ways_, 0);
    teach_->setTitle(QStringLiteral("What this station does when a kit names its adjustments"));
    teach_->setText(QStringLiteral(
        "It takes the readings at several positions of a trimmer and says where the next one tells most: "
        "a peak until it stands where at most a tenth of a decibel is lost, a frequency or a current until "
        "it is within its limits, a bias from its safe end upward.\n\nThe alignment chapter of your manual "
        "has them; Ins writes them, a line each (docs/formats/kit.md). Without them Ombrek "
        "cannot tell whether the rig is aligned."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    together_->setTitle(QStringLiteral("They pull each other"));
    together_->addBody(partners_);
    side()->addWidget(together_, 0);
    side()->addWidget(facts_, 3);
    others_->setTitle(QStringLiteral("Adjustments, in order"));
    others_->addBody(list_, 1);
    others_->fillWithBody();
    side()->addWidget(others_, 2);
    addKeys();
    addAnswers();
    addRooms();
    connect(&session_, &Session::taken, this, [this](const Subject& subject) {
        const Adjustment* a = adjustment();
        if (a == nullptr || subject != Subject::adjustment(a->id)) return;
        placed_.clear();
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        const auto order = tuningOrder(session_.kit(), session_.build());
        if (row >= 0 && std::size_t(row) < order.size()) take(qs(order[std::size_t(row)].adjustment->id));
    });
    connect(partners_, &PartnersView::picked, this, [this](int row) {
        const Adjustment* a = adjustment();
        if (a == nullptr) return;
        const auto together = partnersOf(session_.kit(), *a);
        if (std::size_t(row) < together.size()) take(qs(together[std::size_t(row)]->id));
    });
    connect(&clock_, &KeyClock::changed, this, [this] { showKey(view()); });
    connect(&clock_, &KeyClock::rang, this, [] { QApplication::beep(); });
    minute_.setInterval(10000);
    connect(&minute_, &QTimer::timeout, this, [this] { refresh(); });
}

void TunePage::addKeys() {
    takesPaper("adjustments");
    setEnter("read-it-here-or-go", "read it here, or go on", [this] { go(); });
    addKey("read-again", "R", "R", "read again", [this] {
        const TuneView v = view();
        if (v.adjustment == nullptr) return;
        if (v.before.bars()) return session_.say(qs(v.before.now), VerdictState::doubtful);
        readNow();
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
    addKey("type-where-it-stands", "P", "P", "type where it stands", [this] { askPosition(); });
    takesNotes([this] {
        const Adjustment* a = adjustment();
        return a == nullptr ? Subject{} : Subject::adjustment(a->id);
    });
    addKey("adjustment", "Down", "Up Down", "adjustment", [this] { choose(1); });
    addKey(
        "the-adjustment-before", "Up", "Up", "the adjustment before", [this] { choose(-1); }, false);
}

void TunePage::addAnswers() {
    addRare("louder", "L", "by ear: louder than where it stood", [this] { hear(1); });
    addRare("the-same", "E", "by ear: the same", [this] { hear(0); });
    addRare("softer", "S", "by ear: softer", [this] { hear(-1); });
    addRare("listen", "H", "by ear on the practice rig: its ears say", [this] { listen(); });
    addKey(
        "it-is-seen", "Y", "Y N", "seen, not seen", [this] { seen(true); }, false);
    addKey(
        "it-is-not-seen", "N", "N", "not seen", [this] { seen(false); }, false);
    addRare("key-down", "K", "the key goes down, or up: count it", [this] { countKey(); });
    addRare("something-near", "W", "finger, ferrite or brass near the coil: what happened",
            [this] { askWand(); });
    addRare("one-out", "T", "the current with one transistor out", [this] { askLifted(); });
    addRare("begin-it-again", "X", "begin this adjustment again", [this] {
        const Adjustment* a = adjustment();
        if (a == nullptr) return;
        session_.kept(session_.book().beginAgain(Subject::adjustment(a->id)));
        placed_.clear();
        refresh();
    });
}

void TunePage::addRooms() {
    addRare("how-it-is-left", "G", "leave a peak of power, or back off", [this] { askSchool(); });
    addRare("which-order", "O", "as the list stands, or the common order", [this] {
        const bool common = commonOrder(session_.build());
        session_.kept(session_.book().choose(Choice::tuningOrder, common ? "as listed" : kCommonOrder));
        session_.say(common ? QStringLiteral("As the kit's list stands.")
                            : QStringLiteral("The common order; each says why it stands there."));
    });
    addKey("watch-it-live", "Space", "Space", "watch it live", [this] {
        if (const Adjustment* a = adjustment()) emit wants(QStringLiteral("live"), qs(a->id));
    });
    addRare("counter", "F", "what the counter's frequencies are worth",
            [this] { emit wants(QStringLiteral("reference"), {}); });
    addRare("crystals", "C", "crystals: measured, sorted, matched",
            [this] { emit wants(QStringLiteral("crystals"), {}); });
    addRare("dial", "D", "the range and its dial", [this] { emit wants(QStringLiteral("dial"), {}); });
}

const Adjustment* TunePage::adjustment() const {
    const Kit& kit = session_.kit();
    if (const Adjustment* hit = kit.adjustment(chosen_.toStdString())) return hit;
    if (const Adjustment* next = nextAdjustment(session_.judged())) return next;
    return kit.adjustments.empty() ? nullptr : &kit.adjustments.back();
}

TuneView TunePage::view() const {
    return tuneView(session_.judged(), chosen_.toStdString(), position_, session_.drawers()->lines,
                    wallClock());
}

Reading TunePage::pattern(const Adjustment& a) const {
    return {0, Subject::adjustment(a.id), 0, a.unit, 0, {{std::string(kPosition), position_}}, "", 0};
}

void TunePage::go() {
    const TuneView v = view();
    if (v.adjustment == nullptr) return;
    if (v.settled()) {
        if (v.next != nullptr) take(qs(v.next->id));
    } else if (v.before.bars() || (!v.before.clear() && !v.last)) {
        if (const std::string word = wordKept(*v.adjustment, v.before); !word.empty())
            session_.kept(session_.book().passGate(word, "on"));
        else if (v.before.what == BeforeTuning::What::rests)
            take(qs(v.before.subject.id));
        else if (v.before.what == BeforeTuning::What::check)
            emit wants(QStringLiteral("first-light"), qs(v.before.subject.id));
    } else if (v.other != nullptr) {
        take(qs(v.other->id));
    } else if (v.state.meterEnds && v.next != nullptr && v.next != v.adjustment) {
        take(qs(v.next->id));
    } else {
        readNow();
    }
}

/// From the instrument; what only eyes tell is asked of the practice rig, or of the builder.
void TunePage::readNow() {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    if (clock_.state() == KeyClock::State::resting)
        return session_.say(QStringLiteral("Let it rest: %1 s more.").arg(clock_.left()),
                            VerdictState::doubtful);
    if (a->kind == Adjustment::Kind::contrast || a->scale.kind != ReadingScale::Kind::number) return look();
    session_.read(pattern(*a));
}

void TunePage::look() {
    const Adjustment* a = adjustment();
    const std::string id = a->id;
    session_.practice().look(
        Subject::adjustment(id),
        [self = QPointer<TunePage>(this), id](const QString& shows) {
            const Adjustment* a = self ? self->adjustment() : nullptr;
            if (a == nullptr || a->id != id) return;
            if (a->kind == Adjustment::Kind::contrast) {
                if (shows.isEmpty())
                    self->session_.say(QStringLiteral("Look at it: Y when it is seen, N when it is not."));
                else
                    self->seen(shows == QStringLiteral("seen"));
                return;
            }
            const auto mark = readMark(a->scale, shows.toStdString());
            if (shows.isEmpty() || !mark)
                return self->session_.say(
                    QStringLiteral("No instrument reads it: type %1.").arg(qs(markWords(a->scale))));
            self->keepAnswer(mark->rank, {}, "seen");
        },
        position_);
}

/// What eyes or ears say of it as it stands now.
void TunePage::keepAnswer(double value, Settings more, const char* method) {
    const TuneView v = view();
    if (v.adjustment == nullptr) return;
    if (v.before.bars()) return session_.say(qs(v.before.now), VerdictState::doubtful);
    Reading answer = pattern(*v.adjustment);
    answer.value = value;
    answer.unit = Unit::none;
    answer.settings.merge(more);
    answer.method = method;
    if (!session_.keep(answer)) return;
    session_.say(QString());
    placed_.clear();
    refresh();
}

/// A comparison is a reading: where it stands now against where it stood at the last.
void TunePage::hear(int louder) {
    const TuneView v = view();
    if (v.adjustment == nullptr || !found(*v.adjustment) || v.marked())
        return session_.say(QStringLiteral("By ear a peak or a null is found; this is neither."),
                            VerdictState::cannotTell);
    const Reading* own = session_.build().last(Subject::adjustment(v.adjustment->id));
    const double before = own != nullptr ? own->setting(kPosition, 0.5) : 0.5;
    if (std::abs(before - position_) < 1e-3)
        return session_.say(QStringLiteral("Turn it first, Left and Right: it stands where it stood."),
                            VerdictState::cannotTell);
    keepAnswer(louder, {{std::string(kBefore), before}}, "by ear");
}

/// Nobody hears a simulated rig: the practice bench says what ears would.
void TunePage::listen() {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    const Reading* own = session_.build().lastEver(Subject::adjustment(a->id));
    const double before = own != nullptr ? own->setting(kPosition, 0.5) : 0.5;
    session_.practice().look(
        Subject::adjustment(a->id),
        [self = QPointer<TunePage>(this), id = a->id](const QString& heard) {
            const Adjustment* now = self ? self->adjustment() : nullptr;
            if (now == nullptr || now->id != id) return;
            for (const int louder : {1, 0, -1})
                if (heard == QString::fromUtf8(heardWord(louder))) return self->hear(louder);
            self->session_.say(QStringLiteral("On a bench of your own your ears say it: L, E or S."));
        },
        position_, before);
}

void TunePage::seen(bool so) {
    const Adjustment* a = adjustment();
    if (a == nullptr || a->kind != Adjustment::Kind::contrast)
        return session_.say(QStringLiteral("This one is read, not seen."), VerdictState::cannotTell);
    keepAnswer(so ? 1 : 0, {}, "seen");
}

/// The mark follows the builder's hand: 5 % of the travel a key, 2 % where too much does harm; a step of a
/// jumper or of a menu.
void TunePage::turn(double by) {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    double step = a->safe == SafeEnd::none ? 0.05 : 0.02;
    if (a->turned.high > a->turned.low) {
        const double one = 1 / (a->turned.high - a->turned.low);
        step = std::abs(by) < 1 ? 10 * one
                                : std::max(one, a->turned.kind == Adjuster::Kind::jumper ? one : 0.05);
    }
    position_ = standable(a->turned, position_ + by * step);
    refresh();
}

void TunePage::askPosition() {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    askText(QStringLiteral("It stands at, %1").arg(qs(positionRange(a->turned))), QString(),
            [this, id = a->id](const QString& text) {
                const Adjustment* now = adjustment();
                if (now == nullptr || now->id != id) return;
                const auto position = readPosition(now->turned, text.toStdString());
                if (!position)
                    return session_.say(
                        QStringLiteral("A position is %1.").arg(qs(positionRange(now->turned))),
                        VerdictState::cannotTell);
                position_ = *position;
                refresh();
            });
}

void TunePage::askSchool() {
    askText(QStringLiteral(
                "Back off from a peak of power by, in % of it (1 to 3; 0 leaves it there; −2 towards less "
                "travel)"),
            QString(), [this](const QString& text) {
                QString plain = text;
                plain.replace(QChar(0x2212), QChar('-'));
                const auto way = readBackOff(plain.toStdString());
                if (!way)
                    return session_.say(QStringLiteral("Type 0 to 5 %, with a minus for the other side."),
                                        VerdictState::cannotTell);
                session_.kept(session_.book().choose(Choice::backOff, keptOf(*way)));
                placed_.clear();
                refresh();
            });
}

void TunePage::askWand() {
    const Adjustment* a = adjustment();
    if (a == nullptr || a->kind != Adjustment::Kind::peak)
        return session_.say(QStringLiteral("Only a peak is tried so."), VerdictState::cannotTell);
    askText(QStringLiteral("Near the coil: finger, ferrite or brass, and louder, softer or the same"),
            QString(), [this](const QString& text) {
                const auto test = readWand(text.toStdString());
                if (!test)
                    return session_.say(QStringLiteral("Say what and what happened: ferrite louder."),
                                        VerdictState::cannotTell);
                keepAnswer(test->louder, {{std::string(kWand), double(test->wand)}}, "by ear");
            });
}

void TunePage::askLifted() {
    const Adjustment* a = adjustment();
    if (a == nullptr || a->each.size() < 2)
        return session_.say(QStringLiteral("Only a bias of several transistors is told apart so."),
                            VerdictState::cannotTell);
    const QString first = qs(a->each.front());
    askText(QStringLiteral("Power off, one out, power on: which, and the current (%1 62 mA)").arg(first),
            QString(), [this](const QString& text) {
                const Adjustment* now = adjustment();
                if (now == nullptr) return;
                const QString name = text.simplified().section(QChar(' '), 0, 0);
                const auto which =
                    std::find(now->each.begin(), now->each.end(), name.toUpper().toStdString());
                if (which == now->each.end())
                    return session_.say(QStringLiteral("Name one of its transistors first."),
                                        VerdictState::cannotTell);
                Reading reading = pattern(*now);
                reading.settings[std::string(kLifted)] = double(which - now->each.begin()) + 1;
                session_.type(reading, text.simplified().section(QChar(' '), 1));
            });
}

void TunePage::countKey() {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    clock_.limit(a->keyDown, a->rest);
    if (clock_.state() == KeyClock::State::down || clock_.state() == KeyClock::State::over)
        return clock_.release();
    if (clock_.state() == KeyClock::State::resting)
        return session_.say(QStringLiteral("Let it rest: %1 s more.").arg(clock_.left()),
                            VerdictState::doubtful);
    const TuneView v = view();
    if (v.before.bars()) return session_.say(qs(v.before.now), VerdictState::doubtful);
    clock_.press();
}

void TunePage::begin(const QString& about) {
    chosen_ = about;
    refresh();
}

void TunePage::take(const QString& id) {
    chosen_ = id;
    placed_.clear();
    refresh();
}

void TunePage::choose(int by) {
    const auto order = tuningOrder(session_.kit(), session_.build());
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    const int count = int(order.size());
    const auto at =
        std::find_if(order.begin(), order.end(), [&](const TuneTurn& t) { return t.adjustment == a; });
    take(qs(order[std::size_t((int(at - order.begin()) + by + count) % count)].adjustment->id));
}

/// Marks are typed as they are seen.
void TunePage::wantMark(const Adjustment& a) {
    const ReadingScale scale = a.scale;
    wantReading(
        QStringLiteral("At %1 it shows").arg(qs(positionText(a.turned, position_))),
        [scale](const QString& text) {
            Session::Entered out;
            const auto mark = readMark(scale, text.toStdString());
            if (!mark) out.trouble = qs(mark.error().sentence);
            if (mark) out.shows = qs(markText(scale, mark->rank));
            return out;
        },
        [this, scale](const QString& text) {
            if (const auto mark = readMark(scale, text.toStdString())) keepAnswer(mark->rank, {}, "seen");
        });
}

void TunePage::showNumber(const TuneView& v) {
    if (!v.lastText.isEmpty()) {
        number_->showWord(v.lastText);
    } else if (v.last) {
        const SplitText text = splitQuantity(v.last->value, v.last->unit, digitsFor(v.last->unit));
        number_->show(qs(text.number), qs(text.unit));
    } else {
        number_->showWord(v.seen() ? QStringLiteral("not looked at") : QStringLiteral("no reading"));
    }
}

void TunePage::showCards(TuneView& v) {
    facts_->setTitle(qs(v.adjustment->title));
    facts_->setFacts(v.facts);
    const QString note =
        qs(noteText(session_.kit(), session_.build(), Subject::adjustment(v.adjustment->id)));
    facts_->setText(note.isEmpty() ? v.text : note + QChar('\n') + v.text);
    facts_->setCaution(v.caution);
    list_->setLines(std::move(v.lines));
    together_->setVisible(!v.partners.empty());
    partners_->show(std::move(v.partners));
    ways_->setVisible(!v.ways.empty());
    std::vector<StateLine> ways;
    for (const EndStopWay& way : v.ways)
        ways.push_back({VerdictState::notDone, qs(way.what),
                        QStringLiteral("%1\u202f%").arg(std::lround(way.odds * 100)), false, false, true});
    wayList_->setLines(std::move(ways));
}

/// While the key is down, and while the finals rest, the line at the top counts.
void TunePage::showKey(const TuneView& v) {
    switch (clock_.state()) {
        case KeyClock::State::down:
            return setNow(v.adjustment && v.adjustment->keyDown > 0
                              ? QStringLiteral("Key down: %1 s left.").arg(clock_.left())
                              : QStringLiteral("Key down."),
                          QStringLiteral("Read now; K when it is up again."));
        case KeyClock::State::over:
            return setNow(QStringLiteral("Key up."), QStringLiteral("Its time is over. K: it is up."));
        case KeyClock::State::resting:
            return setNow(QStringLiteral("Let it rest: %1 s.").arg(clock_.left()),
                          QStringLiteral("What got warm is as cool again before the next reading."));
        case KeyClock::State::free:
            break;
    }
    setNow(v.now, v.why);
}

void TunePage::setAbles(const Adjustment& a) {
    const bool ear = found(a) && a.scale.kind == ReadingScale::Kind::number;
    const QString none =
        ear ? QString() : QStringLiteral("By ear a peak or a null is found; this is neither.");
    for (const char* act : {"louder", "the-same", "softer"}) setAble(act, none);
    const bool eyes = a.kind == Adjustment::Kind::contrast;
    for (const char* act : {"it-is-seen", "it-is-not-seen"})
        setAble(act, eyes ? QString() : QStringLiteral("This one is read, not seen."));
    setCommon("it-is-seen", eyes);
    setCommon("watch-it-live", !eyes);
    setAble("one-out", a.each.size() > 1
                           ? QString()
                           : QStringLiteral("Only a bias of several transistors is told apart so."));
    setAble("something-near",
            a.kind == Adjustment::Kind::peak ? QString() : QStringLiteral("Only a peak is tried so."));
}

void TunePage::refresh() {
    if (!session_.hasBuild()) return;
    TuneView v = view();
    const Adjustment* a = v.adjustment;
    for (QWidget* w : std::initializer_list<QWidget*>{facts_, others_, adjuster_, number_, verdict_, sheet_})
        w->setVisible(a != nullptr);
    teach_->setVisible(a == nullptr);
    if (a == nullptr) {
        together_->hide();
        ways_->hide();
    }
    offerPaper(a == nullptr);
    wantNothing();
    showKey(v);
    if (a == nullptr) return;
    setAbles(*a);
    // The adjustment in hand stays until another is chosen, so that the curve does not vanish when it
    // settles.
    chosen_ = qs(a->id);
    if (placed_ != chosen_) {
        // The mark stands where the next reading is wanted, to the thousandth that is kept.
        placed_ = chosen_;
        position_ = v.state.nextPosition;
        v = view();
    }
    v.before.what == BeforeTuning::What::warming ? minute_.start() : minute_.stop();
    showNumber(v);
    verdict_->show(v.state.state, qs(v.state.sentence));
    adjuster_->show(a->turned, position_, v.state.nextPosition);
    plot_->show(tunePlot(session_.judged(), *a));
    if (v.marked() && !v.before.bars())
        wantMark(*a);
    else if (!v.seen() && !v.before.bars())
        wantReading(QStringLiteral("At %1 it reads").arg(qs(positionText(a->turned, position_))),
                    pattern(*a));
    showCards(v);
}

void TunePage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    number_->setPixels(on ? 128 : 64);
}

}  // namespace ombrek
