#include "desk/air/air_page.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/sign_off/gate_list.h"
#include "look/verdict_mark.h"
#include "station/bands.h"
#include "station/first_light/key_down.h"

namespace ombrek {

AirPage::AirPage(Session& session)
    : Page(session, QStringLiteral("On the air")),
      steps_(new GateList),
      items_(new StateList),
      listen_(new Card),
      what_(new Card),
      caution_(new Card) {
    steps_->setMinimumHeight(6 * withText(42));
    big()->addWidget(steps_, 3);
    listen_->addBody(items_, 1);
    listen_->fillWithBody();
    big()->addWidget(listen_, 2);
    side()->addWidget(what_, 0);
    side()->addWidget(caution_, 0);
    side()->addStretch(1);
    addKeys();
    connect(steps_, &GateList::picked, this, [this](int row) {
        step_ = row;
        item_ = -1;
        refresh();
    });
    connect(items_, &StateList::picked, this, [this](int row) {
        item_ = row;
        refresh();
    });
}

void AirPage::addKeys() {
    setEnter("it-is-right", "it is right", [this] { right(); });
    addKey("it-is-wrong", "W", "W", "it is wrong", [this] { wrong(); });
    addKey("an-item", "Down", "Up Down", "what is listened for", [this] { chooseItem(1); });
    addRare("the-item-before", "Up", "the one before", [this] { chooseItem(-1); });
    addKey("a-step", "Right", "Right Left", "a step", [this] { chooseStep(1); });
    addRare("the-step-before", "Left", "the step before", [this] { chooseStep(-1); });
    addKey("type-what-was-heard", "T", "T", "type it", [this] { offer(QString()); });
    addKey("the-log", "L", "L", "the log", [this] { emit wants(QStringLiteral("log"), QString()); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void AirPage::begin(const QString& about) {
    step_ = item_ = -1;
    for (int i = 0; i < int(airSteps().size()); ++i) {
        if (about == QLatin1String(airSteps()[std::size_t(i)].id)) step_ = i;
    }
    refresh();
}

const AirStepState* AirPage::step() const {
    if (step_ >= 0 && step_ < int(states_.size())) return &states_[std::size_t(step_)];
    const AirStepState* next = nextAirStep(states_);
    return next != nullptr ? next : states_.empty() ? nullptr : &states_.back();
}

const AirItemState* AirPage::item() const {
    const AirStepState* s = step();
    if (s == nullptr || s->items.empty()) return nullptr;
    if (item_ >= 0 && item_ < int(s->items.size())) return &s->items[std::size_t(item_)];
    const auto open = std::find_if(s->items.begin(), s->items.end(),
                                   [](const AirItemState& i) { return i.state != VerdictState::pass; });
    return open == s->items.end() ? &s->items.back() : &*open;
}

/// Whether this step must not be made yet; then the page says why.
bool AirPage::barred() {
    const AirStepState* s = step();
    if (s == nullptr) return true;
    if (!s->barred.empty()) {
        session_.say(qs(s->barred), VerdictState::fail);
        return true;
    }
    // A rig that should be silent may not be: the load is asked for before the key goes down at all.
    if (s->step->radiates || s->items.front().item->compared) return false;
    const LoadAsk ask = askForLoad(session_.kit(), session_.build(), wallClock());
    if (ask.clear()) return false;
    if (ask.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
    session_.say(ask.confirm ? QStringLiteral("Kept: the load is on. Now key down and listen.")
                             : qs(ask.now + " " + ask.why),
                 ask.confirm ? VerdictState::pass : VerdictState::fail);
    return true;
}

void AirPage::note(VerdictState state, const std::string& text, double value) {
    const AirStepState* s = step();
    const AirItemState* i = item();
    if (s == nullptr || i == nullptr) return;
    AirNote out{0,     s->step->id, std::string(i->item->id) + (i->band.empty() ? "" : "@" + i->band),
                state, value,       text,
                0};
    item_ = -1;
    if (state == VerdictState::pass && !i->item->compared) step_ = -1;  // on to what is next
    if (!session_.kept(session_.book().noteOnAir(out))) return;
    // The load is off now: whoever keys on a bench page is asked for it again.
    if (out.step == "antenna" && session_.build().gates.contains(kLoadOn))
        session_.kept(session_.book().closeGate(kLoadOn));
}

void AirPage::right() {
    const AirStepState* s = step();
    const AirItemState* i = item();
    if (s == nullptr || i == nullptr) return;
    if (std::string_view(i->item->id) == "contact") return emit wants(QStringLiteral("log"), QString());
    if (barred()) return;
    if (i->item->swr || i->item->compared) {
        offer(QString());
        return;
    }
    note(VerdictState::pass, "");
}

void AirPage::wrong() {
    const AirItemState* i = item();
    if (i == nullptr || i->item->swr || i->item->compared || barred()) return;
    askText(QStringLiteral("%1: what was it like?").arg(QString::fromUtf8(i->item->title)), QString(),
            [this](const QString& text) { note(VerdictState::fail, text.simplified().toStdString()); });
}

Session::Entered AirPage::understand(const QString& text) const {
    Session::Entered out;
    const AirItemState* i = item();
    if (i != nullptr && i->item->swr) {
        const double swr = swrOf(text.trimmed().toStdString());
        if (swr > 0)
            out.shows = QStringLiteral("SWR %1").arg(qs(decimals(swr, 1)));
        else
            out.trouble = QStringLiteral("An SWR is 1 or more: 1.4 or 1.4:1.");
    } else if (i != nullptr && i->item->compared) {
        if (const auto heard = readComparison(text.toStdString()))
            out.shows = qs(decimals(heard->decibels, 0, true)) + QStringLiteral("\u202fdB against the other");
        else
            out.trouble = QStringLiteral(
                "Type equal, weaker, much weaker, stronger or not heard; or S5 S7, the rig first; or -6 dB.");
    } else {
        out.shows = text;
    }
    return out;
}

void AirPage::take(const QString& text) {
    const AirItemState* i = item();
    if (i == nullptr || barred()) return;
    const std::string said = text.simplified().toStdString();
    if (i->item->swr)
        note(VerdictState::pass, said, swrOf(said));
    else
        note(VerdictState::pass, said);
}

void AirPage::chooseItem(int by) {
    const AirStepState* s = step();
    const AirItemState* i = item();
    if (s == nullptr || i == nullptr) return;
    const int count = int(s->items.size());
    step_ = int(s - states_.data());
    item_ = (int(i - s->items.data()) + by + count) % count;
    refresh();
}

void AirPage::chooseStep(int by) {
    const AirStepState* s = step();
    if (s == nullptr) return;
    const int count = int(states_.size());
    step_ = (int(s - states_.data()) + by + count) % count;
    item_ = -1;
    refresh();
}

void AirPage::sayNow() {
    const AirStepState* s = step();
    if (nextAirStep(states_) == nullptr) {
        setNow(QStringLiteral("The rig is on the air."),
               QStringLiteral("Its first contact stands in the log and on the report."));
        return;
    }
    QString why = s->barred.empty() ? QString::fromUtf8(s->step->why) : qs(s->barred);
    const auto fit = bandsOnAir(session_.judged());
    if (s->step->radiates && s->barred.empty() && fit.size() < session_.kit().ratings.bandNames().size()) {
        QStringList names;
        for (const std::string& band : fit) names << qs(band);
        why += QStringLiteral(" Only on %1: the rest is not fit.").arg(names.join(QStringLiteral(", ")));
    }
    setNow(s->barred.empty() ? QString::fromUtf8(s->step->now) : QStringLiteral("Not on the air yet."), why);
}

/// The steps are threaded on the wire as the gates are.
void AirPage::showSteps() {
    Readiness way;
    for (const AirStepState& s : states_) {
        Gate gate{
            s.step->id, std::to_string(way.gates.size() + 1) + "  " + s.step->title, Station::signOff, {}};
        for (const AirItemState& i : s.items) gate.evidence.push_back({i.item->title, i.state, i.sentence});
        // Where one band is enough the step says so itself.
        if (s.state == VerdictState::pass)
            std::erase_if(gate.evidence, [](const Evidence& e) { return e.state == VerdictState::notDone; });
        way.gates.push_back(std::move(gate));
    }
    steps_->show(way, int(step() - states_.data()));
}

void AirPage::showItem() {
    const AirStepState* s = step();
    const AirItemState* now = item();
    std::vector<StateLine> lines;
    for (const AirItemState& i : s->items)
        lines.push_back({i.state,
                         QString::fromUtf8(i.item->title) +
                             (i.band.empty() ? QString() : QStringLiteral(", ") + qs(i.band)),
                         i.note != nullptr && std::isfinite(i.note->value) ? qs(decimals(i.note->value, 1))
                                                                           : wordOf(i.state),
                         &i == now});
    if (now != nullptr && now->item->compared) {
        for (const HeardDifference& h : comparisonsOf(session_.build()))
            lines.push_back({VerdictState::notDone, QStringLiteral("the rig against the other"),
                             qs(decimals(h.decibels, 0, true)) + QStringLiteral("\u202fdB"), false, false,
                             true});
    }
    items_->setLines(std::move(lines));
    listen_->setTitle(QString::fromUtf8(s->step->title));
    what_->setVisible(now != nullptr);
    caution_->setTitle(QStringLiteral("Take care"));
    const QString away =
        std::string_view(s->step->id) == "antenna" ? qs(keepAway(session_.judged())) : QString();
    caution_->setCaution(QString::fromUtf8(s->step->caution));
    caution_->setText(away);
    caution_->setVisible(*s->step->caution != '\0');
    if (now == nullptr) return;
    what_->setTitle(QString::fromUtf8(now->item->title) +
                    (now->band.empty() ? QString() : QStringLiteral(", ") + qs(now->band)));
    const bool contact = std::string_view(now->item->id) == "contact";
    QString text =
        contact ? qs(now->sentence) : QStringLiteral("Right: ") + QString::fromUtf8(now->item->right);
    if (*now->item->wrong != '\0') text += QStringLiteral("\n\nElse: ") + QString::fromUtf8(now->item->wrong);
    std::vector<Fact> facts{{QStringLiteral("Now"), wordOf(now->state), now->state, true}};
    if (now->item->compared) {
        const ReceiveVerdict v = receiveVerdict(session_.build());
        facts.push_back(
            {QStringLiteral("Compared"), QString::number(comparisonsOf(session_.build()).size())});
        if (v.uncertainty > 0)
            facts.push_back({QStringLiteral("Difference"),
                             qs(decimals(v.mean, 0, true)) + QStringLiteral(" ± ") +
                                 qs(decimals(v.uncertainty, 0)) + QStringLiteral("\u202fdB")});
        text = qs(v.sentence + (v.remedy.empty() ? "" : "\n\n" + v.remedy));
    } else if (now->note != nullptr && !now->note->text.empty() && now->state != VerdictState::pass) {
        facts.push_back({QStringLiteral("Heard"), qs(now->note->text)});
    }
    what_->setFacts(facts);
    what_->setText(text);
}

void AirPage::refresh() {
    if (!session_.hasBuild()) return;
    const auto log = session_.log();
    states_ = airStates(session_.judged(), firstContact(log->contacts, session_.build().id));
    sayNow();
    showSteps();
    showItem();
    const AirItemState* i = item();
    if (i != nullptr && std::string_view(i->item->id) != "contact")
        wantReading(
            i->item->swr        ? QStringLiteral("SWR")
            : i->item->compared ? QStringLiteral("Heard on the rig")
                                : QStringLiteral("Heard"),
            [this](const QString& text) { return understand(text); },
            [this](const QString& text) { take(text); });
    else
        wantNothing();
}

}  // namespace ombrek
