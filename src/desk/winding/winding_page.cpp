#include "desk/winding/winding_page.h"

#include <QApplication>
#include <algorithm>

#include "desk/pieces/card.h"
#include "desk/pieces/spoken.h"
#include "desk/pieces/state_list.h"
#include "desk/settings/settings_rows.h"
#include "desk/winding/coil_view.h"
#include "desk/winding/winding_model.h"
#include "report/cut_list.h"
#include "station/notes.h"
#include "station/winding/reel.h"

namespace ombrek {

WindingPage::WindingPage(Session& session)
    : Page(session, qs(word(Station::winding))),
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
    connect(coil_, &CoilView::clicked, this, [this] { count(1); });
    connect(list_, &StateList::picked, this, [this](int row) {
        chosen_ = qs(session_.kit().coils[std::size_t(row)].ref);
        refresh();
    });
}

void WindingPage::addKeys() {
    takesPaper("coils");
    addKey("a-pass", "Space", "Space", "a pass", [this] { count(1); });
    addKey("take-one-back", "Backspace", "Backspace", "take one back", [this] { count(-1); });
    setEnter("do-it-and-on", "do it, and on", [this] { go(); });
    addKey("count-in-a-picture", "P", "P", "count in a picture",
           [this] { emit wants(QStringLiteral("picture"), chosenRef()); });
    addKey("will-the-trimmer-reach", "W", "W", "will the trimmer reach?",
           [this] { emit wants(QStringLiteral("trimmer"), chosenRef()); });
    addKey("coil", "Down", "Up Down", "coil", [this] { choose(1); });
    addRare("figures-tolerance-room-q-flux", "F", "figures: tolerance, room, Q, flux, drift; what if",
            [this] { emit wants(QStringLiteral("figures"), chosenRef()); });
    addRare("another-core-which-core-is", "C", "another core; which core is this?",
            [this] { emit wants(QStringLiteral("cores"), chosenRef()); });
    addRare("squeezed-or-spread", "S", "squeezed or spread", [this] { bent(); });
    addRare("open-the-winding-again", "A", "open the winding again", [this] { reopen(); });
    addRare("no-beep-or-a-beep", "N", "no beep, or a beep where none should be", [this] { prove(false); });
    addRare("keep-as-it-is", "K", "keep it as it is", [this] {
        const WindingView v = view();
        const Reading* measured =
            v.coil == nullptr ? nullptr : session_.build().last(Subject::coil(v.coil->ref));
        if (v.stage == WindingView::Stage::advice && measured != nullptr)
            check("kept", std::to_string(measured->id));
    });
    addRare("trust-the-count-do-not", "T", "trust the count, do not measure", [this] { trust(); });
    addRare("i-lost-count-what-is", "X", "I lost count: what is on it, counted again", [this] { recount(); });
    addRare("left-hand-or-right-hand", "J", "left hand or right hand",
            [this] { session_.kept(session_.book().prefer("hand", leftHanded() ? "right" : "left")); });
    addRare("at-every-ten-silent-a", "V", "at every ten: silent, a sound, a voice", [this] { nextSound(); });
    addRare("print-the-cut-list", "L", "print the cut list", [this] { printCutList(); });
    addRare("stripped-by-a-hot-blob", "H", "stripped by a hot blob", [this] { strip("blob"); });
    addRare("stripped-by-flame-and-emery", "E", "stripped by flame and emery", [this] { strip("flame"); });
    takesNotes([this] {
        const WindingView v = view();
        return v.coil == nullptr ? Subject{} : Subject::coil(v.coil->ref);
    });
    addKey(
        "the-coil-before", "Up", "Up", "the coil before", [this] { choose(-1); }, false);
    addKey(
        "measure-again", "R", "R", "measure again", [this] { measure(); }, false);
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
    if (session_.kept(session_.book().countTurn(v.coil->ref, namesTogether(*v.coil, *v.inHand), by)) &&
        by > 0)
        sayTens(v.turns + 1);
}

/// A sound or a word when a ten is full, for those who look at the coil.
void WindingPage::sayTens(int turns) {
    if (turns % 10 != 0) return;
    const std::string sound = session_.book().preference("sound");
    if (sound == "tens") QApplication::beep();
    if (sound == "voice" || sound == "verdicts") session_.voice().say(spokenNumber(turns));
}

/// Silent, a sound at every ten, or, where the machine can speak, the ten itself.
void WindingPage::nextSound() {
    const SettingRow& row = *settingRow("sound");
    const QString now = settingOf(row, session_);
    std::size_t next = 0;
    for (std::size_t i = 0; i < row.choices.size(); ++i) {
        if (now == QLatin1String(row.choices[i].value)) next = (i + 1) % row.choices.size();
    }
    const QString wanted = QString::fromUtf8(row.choices[next].value);
    const bool spoken = wanted == QStringLiteral("voice") || wanted == QStringLiteral("verdicts");
    const bool mute = spoken && !session_.voice().able();
    session_.kept(session_.book().prefer("sound", mute ? "off" : wanted.toStdString()));
    session_.say(mute ? QStringLiteral("Silent. No voice is installed that could speak the tens.")
                      : QStringLiteral("While winding: %1.").arg(shownSetting(row, session_)));
}

bool WindingPage::leftHanded() const { return session_.book().preference("hand") == "left"; }

QString WindingPage::chosenRef() const {
    const WindingView v = view();
    return v.coil == nullptr ? QString() : qs(v.coil->ref);
}

void WindingPage::check(const std::string& what, const std::string& how) {
    const WindingView v = view();
    if (v.coil == nullptr) return;
    chosen_ = qs(v.coil->ref);
    session_.kept(session_.book().checkCoil(v.coil->ref + "/" + what, how));
}

void WindingPage::strip(const std::string& way) {
    if (view().stage == WindingView::Stage::strip) check("strip", way);
}

/// The meter's answer to what the now line asks.
void WindingPage::prove(bool beeps) {
    const WindingView v = view();
    using Stage = WindingView::Stage;
    if (v.stage == Stage::untwist) {
        const auto kept = session_.build().coilChecks.find(v.coil->ref + "/twist");
        check("twist", (kept == session_.build().coilChecks.end() ? "" : kept->second) + (beeps ? "y" : "n"));
    } else if (v.stage == Stage::continuity && beeps) {
        check(v.coil->windings[*v.toProve].name + "/continuity", "ok");
    } else if (v.stage == Stage::continuity) {
        check("strip", "");
        session_.say(QStringLiteral("Not through: strip and tin the tails of %1 again.").arg(qs(v.coil->ref)),
                     VerdictState::fail);
    } else if (v.stage == Stage::isolation && beeps) {
        check("isolation", "ok");
    } else if (v.stage == Stage::isolation) {
        session_.say(
            QStringLiteral("The windings touch: look for a scraped place where they cross, and prove again."),
            VerdictState::fail);
    }
}

void WindingPage::trust() {
    if (view().stage == WindingView::Stage::measure) check("trust", "yes");
}

void WindingPage::recount() {
    const WindingView v = view();
    if (v.coil == nullptr || !v.inHand) return;
    const std::string coil = v.coil->ref;
    const std::vector<std::string> winding = namesTogether(*v.coil, *v.inHand);
    askText(QStringLiteral("Turns on %1, counted again by tens").arg(qs(coil)), QString(),
            [this, coil, winding](const QString& text) {
                bool whole = false;
                const int turns = text.toInt(&whole);
                if (!whole || turns < 0 || turns > 1000)
                    return session_.say(QStringLiteral("Turns are a whole number from 0 to 1000."),
                                        VerdictState::cannotTell);
                chosen_ = qs(coil);
                session_.kept(session_.book().setTurns(coil, winding, turns));
            });
}

std::optional<A4Sheet> WindingPage::sheet() {
    if (!session_.hasBuild() || session_.kit().coils.empty()) return std::nullopt;
    const CutList list = cutList(session_.kit());
    return cutListSheet(list, reelUse(list, session_.drawers()->lines), qs(session_.kit().name));
}

void WindingPage::printCutList() {
    if (const auto paper = sheet())
        writeOut(kPdfFile, qs(session_.kit().id) + QStringLiteral("-cut-list.pdf"),
                 [paper] { return pdfOf(*paper); });
}

void WindingPage::go() {
    const WindingView v = view();
    if (v.coil == nullptr) return;
    using Stage = WindingView::Stage;
    chosen_ = qs(v.coil->ref);
    switch (v.stage) {
        case Stage::cut:
            check("cut", "yes");
            break;
        case Stage::wind:
            count(1);
            break;
        case Stage::full:
        case Stage::over:
            session_.kept(session_.book().finishWinding(v.coil->ref, namesTogether(*v.coil, *v.inHand)));
            break;
        case Stage::measure:
        case Stage::advice:
            measure();
            break;
        case Stage::strip:
            strip("scrape");
            break;
        case Stage::untwist:
        case Stage::continuity:
        case Stage::isolation:
            prove(true);
            break;
        case Stage::ready:
            chosen_.clear();
            refresh();
            break;
    }
}

void WindingPage::measure() {
    const WindingView v = view();
    if (v.coil == nullptr || v.inHand) return;
    const double turns = mainTurns(*v.coil, session_.build());
    session_.read({0, Subject::coil(v.coil->ref), 0, Unit::henry, 0, {{std::string(kTurns), turns}}, "", 0});
}

void WindingPage::bent() {
    const WindingView v = view();
    if (v.stage != WindingView::Stage::advice && v.stage != WindingView::Stage::strip) return;
    if (!v.advice)
        return session_.say(QStringLiteral("Measure it first (R): nothing says which way to bend it."),
                            VerdictState::cannotTell);
    chosen_ = qs(v.coil->ref);
    // On the practice bench a squeeze takes most of the deviation away; a real coil does as it likes.
    if (session_.bent(v.coil->ref, -0.8 * v.advice->deviationPercent)) measure();
}

void WindingPage::reopen() {
    const WindingView v = view();
    if (v.coil == nullptr || v.inHand) return;
    chosen_ = qs(v.coil->ref);
    session_.kept(session_.book().finishWinding(v.coil->ref, namesTogether(*v.coil, 0), false));
}

void WindingPage::begin(const QString& about) {
    chosen_ = about;
    refresh();
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
    coil_->show(v, session_.build(), leftHanded());
    wantNothing();
    coil_->setVisible(v.coil != nullptr);
    offerPaper(v.coil == nullptr);
    if (v.coil == nullptr) {
        setNow(QStringLiteral("This kit names no coils to wind."),
               QStringLiteral("Ins writes them from the paper, Ctrl+V pastes them: L1  T50-2, 28 turns #28. "
                              "If there are none, F3 goes to the Board."));
        facts_->hide();
        cutList_->hide();
        return;
    }
    facts_->show();
    cutList_->show();
    setNow(qs(v.now), qs(v.why));
    const bool tuned = std::any_of(session_.kit().coils.begin(), session_.kit().coils.end(),
                                   [](const Coil& coil) { return coil.tune.has_value(); });
    setAble("will-the-trimmer-reach",
            tuned ? QString() : QStringLiteral("No coil of this kit is tuned by a trimmer."));
    if (v.stage == WindingView::Stage::measure || v.stage == WindingView::Stage::advice) {
        const Reading pattern{0,  Subject::coil(v.coil->ref),
                              0,  Unit::henry,
                              0,  {{std::string(kTurns), double(mainTurns(*v.coil, session_.build()))}},
                              "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(v.coil->ref)), pattern);
    }
    facts_->setTitle(qs(v.coil->ref + "  " + v.coil->what));
    std::vector<Card::Fact> facts;
    for (const auto& f : v.facts)
        facts.push_back(
            {qs(f.name), qs(f.value), f.state.value_or(VerdictState::notDone), f.state.has_value()});
    facts_->setFacts(facts);
    const bool measured =
        !v.inHand && v.cover && session_.build().last(Subject::coil(v.coil->ref)) != nullptr;
    const std::string note = noteText(session_.kit(), session_.build(), Subject::coil(v.coil->ref));
    facts_->setText((note.empty() ? QString() : qs(note) + QChar('\n')) +
                    (measured ? qs(v.cover->sentence) : qs(v.note)));
    facts_->setCaution(qs(v.caution));
    std::vector<StateLine> lines;
    for (const auto& line : v.coils)
        lines.push_back({line.state, qs(line.text), qs(line.right), line.ref == v.coil->ref, false});
    list_->setLines(std::move(lines));
    QStringList reels;
    for (const ReelUse& use : reelUse(cutList(session_.kit()), session_.drawers()->lines))
        if (v.stage == WindingView::Stage::cut || use.state == VerdictState::fail) reels << qs(use.sentence);
    cutList_->setText(reels.join(QStringLiteral("\n")));
}

}  // namespace ombrek
