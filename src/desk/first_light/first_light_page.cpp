#include "desk/first_light/first_light_page.h"

#include <QRegularExpression>
#include <cmath>

#include "circuit/build_circuit.h"
#include "circuit/models.h"
#include "core/quantity/quantity.h"
#include "desk/first_light/check_strips.h"
#include "desk/pieces/card.h"
#include "desk/pieces/reading_card.h"
#include "instruments/bench.h"
#include "judged/before_plug.h"
#include "judged/supply_advice.h"
#include "station/first_light/first_light.h"
#include "station/notes.h"

namespace ombrek {

FirstLightPage::FirstLightPage(Session& session)
    : Page(session, qs(word(Station::firstLight))),
      reading_(new ReadingCard),
      strips_(new CheckStrips),
      touch_(new Card),
      before_(new Card) {
    big()->addWidget(reading_);
    big()->addSpacing(6);
    big()->addWidget(strips_, 1);
    side()->addWidget(touch_, 3);
    before_->setIsCaution(true);
    before_->setTitle(QStringLiteral("Before the plug goes in"));
    before_->setText(QStringLiteral(
        "ICs out, film and washers where they belong, load on, key up. At the limit, or when it "
        "smells: off at once, and look for a short or a part turned round."));
    side()->addWidget(before_, 2);
    takesPaper("checks");
    setEnter("take-it", "take it", [this] { take(); });
    addRare("it-is-not-so", "N", "it is not so, of what is seen or heard", [this] { notSo(); });
    addKey("read-the-last-again", "R", "R", "read the last again", [this] { again(); });
    addKey("what-is-wrong", "W", "W", "what is wrong",
           [this] { emit wants(QStringLiteral("suspects"), QString()); });
    addRare("compare-bands", "C", "compare bands or functions",
            [this] { emit wants(QStringLiteral("compare"), QString()); });
    addRare("works-when-squeezed", "S", "it works when squeezed",
            [this] { emit wants(QStringLiteral("squeeze"), QString()); });
    addRare("set-the-supply", "U", "set the supply: voltage and current limit", [this] { setSupply(); });
    addRare("it-is-no-voltage", "D", "dark, silent, smoking: it is no voltage",
            [this] { emit wants(QStringLiteral("symptoms"), QString()); });
    addRare("find-the-fault", "X", "find the fault: a rig to practise on",
            [this] { emit wants(QStringLiteral("exercise"), QString()); });
    addKey("choose-a-check", "Down", "Up Down", "choose a check", [this] { choose(1); });
    addKey(
        "the-check-before", "Up", "Up", "the check before", [this] { choose(-1); }, false);
    addKey("simple-or-guarded-verdict", "G", "G", "simple or guarded verdict", [this] {
        const bool simple = session_.build().rule == VerdictRule::simple;
        if (session_.kept(
                session_.book().chooseRule(simple ? VerdictRule::guardBand : VerdictRule::simple))) {
            session_.say(simple ? QStringLiteral("The meter's error counts again.")
                                : QStringLiteral("Simple rule: inside is pass."));
        }
    });
    takesNotes([this] {
        const auto v = firstLightView(session_.judged(), chosen_.toStdString());
        return v.check == nullptr ? Subject{} : Subject::check(v.check->id);
    });
    connect(&session_, &Session::taken, this, [this](const Subject& subject) {
        if (!subject.is(Subject::Kind::check)) return;
        shown_ = qs(subject.id);
        chosen_.clear();
    });
    connect(strips_, &CheckStrips::chosen, this, [this](const QString& id) {
        chosen_ = shown_ = id;
        refresh();
    });
}

/// Whether the check in hand may be made now; what stands before it is said or done instead.
bool FirstLightPage::mayRead(const FirstLightView& v) {
    if (v.check == nullptr) return false;
    if (v.bar != nullptr) {
        session_.say(QStringLiteral("The gate \"%1\" bars the way.").arg(qs(v.bar->title)),
                     VerdictState::fail);
        return false;
    }
    if (v.bridge) {
        session_.kept(session_.book().passGate(bridgeGate(*v.check), "closed"));
        return false;
    }
    if (const auto plug = askBeforePlug(session_.judged(), *v.check)) {
        session_.kept(session_.book().passGate(plug->gate, "seen"));
        return false;
    }
    if (const LoadAsk load = loadFor(*v.check); !load.clear()) {
        if (load.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
        return false;
    }
    return true;
}

void FirstLightPage::take() {
    const auto v = firstLightView(session_.judged(), chosen_.toStdString());
    if (!mayRead(v)) return;
    const Subject subject = Subject::check(v.check->id);
    if (v.check->yesNo()) return session_.answer(subject, true);
    session_.read({0, subject, 0, v.check->unit, 0, {}, "", 0});
}

/// What should be seen or heard is not there.
void FirstLightPage::notSo() {
    const auto v = firstLightView(session_.judged(), chosen_.toStdString());
    if (v.check == nullptr || !v.check->yesNo()) return;
    // What is asked before it, a load or a gap, is never answered by a no.
    if (v.bar != nullptr || v.bridge || askBeforePlug(session_.judged(), *v.check) ||
        !loadFor(*v.check).clear())
        return session_.say(QStringLiteral("First what is asked above; N answers the check alone."),
                            VerdictState::doubtful);
    session_.answer(Subject::check(v.check->id), false);
}

/// Before a check with the key down. The kit's own hold on the load may rest on this very check, so that only
/// the builder's word is asked.
LoadAsk FirstLightPage::loadFor(const Check& check) const {
    if (!keyDown(check)) return {};
    return askForLoad(session_.kit(), session_.build(), wallClock(), false);
}

void FirstLightPage::again() {
    const Check* check = session_.kit().check(shown_.toStdString());
    if (check != nullptr && !check->yesNo() && loadFor(*check).clear())
        session_.read({0, Subject::check(check->id), 0, check->unit, 0, {}, "", 0});
}

/// The advice stands in the entry; Enter is the builder's word. Its output is switched on by a hand alone.
void FirstLightPage::setSupply() {
    const Instrument* supply = session_.bench().supply();
    if (supply == nullptr)
        return session_.say(
            QStringLiteral("No power supply that can be set is in your list of instruments: Ctrl+R."));
    const SupplyAdvice advice = supplyAdvice(session_.judged());
    const auto part = [](double value, Unit unit) {
        return value > 0 ? formatQuantity(value, unit, 3) : "? " + std::string(symbol(unit));
    };
    const QString start = qs(part(advice.volts, Unit::volt) + "  " + part(advice.amperes, Unit::ampere))
                              .replace(QChar(0x202f), QChar(' '));
    session_.say(qs(advice.why) + QStringLiteral(" Enter sets it; the output stays as it is, off."));
    askText(QStringLiteral("Set the %1 to").arg(qs(supply->name)), start,
            [this, name = supply->name](const QString& text) {
                static const QRegularExpression form(
                    QStringLiteral("^\\s*([0-9.,]+\\s*m?V)\\s+([0-9.,]+\\s*m?A)\\s*$"),
                    QRegularExpression::CaseInsensitiveOption);
                const auto match = form.match(text);
                const auto volts = parseQuantity(match.captured(1).toStdString(), Unit::volt);
                const auto amperes = parseQuantity(match.captured(2).toStdString(), Unit::ampere);
                if (!match.hasMatch() || !volts || !amperes)
                    return session_.say(QStringLiteral("Write voltage and current limit as 13.8 V 0.3 A."),
                                        VerdictState::cannotTell);
                if (const std::string why = supplyTrouble(session_.kit(), volts->value, amperes->value);
                    !why.empty())
                    return session_.say(qs(why), VerdictState::cannotTell);
                session_.say(QStringLiteral("Setting the %1 …").arg(qs(name)));
                session_.bench().setSupply(
                    name, volts->value, amperes->value,
                    [self = QPointer<FirstLightPage>(this), name](const Result<QString>& set) {
                        if (!self) return;
                        if (!set)
                            return self->session_.say(
                                QStringLiteral("The %1: %2").arg(qs(name), qs(set.error().sentence)),
                                VerdictState::cannotTell);
                        self->session_.say(
                            QStringLiteral("The %1 says %2. Switch its output on yourself, when all is seen.")
                                .arg(qs(name), *set),
                            VerdictState::pass);
                    });
            });
}

void FirstLightPage::begin(const QString& about) {
    chosen_ = shown_ = about;
    refresh();
}

void FirstLightPage::choose(int by) {
    const auto& checks = session_.kit().checks;
    const auto v = firstLightView(session_.judged(), chosen_.toStdString());
    if (v.check == nullptr) return;
    const int count = int(checks.size());
    chosen_ = shown_ = qs(checks[std::size_t((int(v.check - checks.data()) + by + count) % count)].id);
    refresh();
}

/// What a sound rig reads at every check, off the window's thread; again when a part or the supply was
/// measured.
void FirstLightPage::reckon() {
    const Kit& kit = session_.kit();
    if (kit.circuit.empty() || reckoning_.running()) return;
    auto circuit = readKitCircuit(kit.circuit, shippedModels());
    if (!circuit) return;
    const CircuitBench bench = benchOf(*circuit, kit, session_.build());
    std::string basis = kit.circuit + plainNumber(bench.supply);
    for (const auto& [ref, value] : bench.measured) basis += ref + plainNumber(value);
    if (basis == reckonedFor_) return;
    reckonedFor_ = basis;
    using Reckoned = Result<ExpectedReadings>;
    reckoning_.start<Reckoned>(
        [kit, circuit = std::move(*circuit), bench](const LongWork::Progress& goOn) -> Reckoned {
            std::vector<CircuitReading> asked;
            std::vector<std::string> ids;
            for (const Check& check : kit.checks) {
                const auto probe = probeOf(circuit, kit, check);
                if (!probe) continue;
                asked.push_back(*probe);
                ids.push_back(check.id);
            }
            const auto read = expectedReadings(circuit, &kit, bench, asked, {}, goOn);
            if (!read) return tl::make_unexpected(read.error());
            ExpectedReadings out;
            for (std::size_t i = 0; i < ids.size(); ++i) out[ids[i]] = read->at(i);
            return out;
        },
        [this](Reckoned reckoned) {
            if (reckoned) expected_ = std::move(*reckoned);
            refresh();
        });
}

void FirstLightPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().circuit.empty()) expected_.clear();
    if (isVisible()) reckon();
    before_->setFacts(beforePower(session_.judged(), expected_));
    showBefore();
    const Kit& kit = session_.kit();
    if (kit.check(chosen_.toStdString()) == nullptr) chosen_.clear();
    if (kit.check(shown_.toStdString()) == nullptr) shown_.clear();
    const auto wanted = firstLightView(session_.judged(), chosen_.toStdString());
    setNow(qs(wanted.now), qs(wanted.why));
    strips_->show(wanted.lines, wanted.check);
    for (QWidget* w : {static_cast<QWidget*>(reading_), static_cast<QWidget*>(touch_)})
        w->setVisible(wanted.check != nullptr);
    const bool asks = wanted.check != nullptr && wanted.check->yesNo();
    setCommon("it-is-not-so", asks);
    setAble("it-is-not-so",
            asks ? QString() : QStringLiteral("This check is a reading: type it, or Enter takes it."));
    offerPaper(kit.checks.empty());  // after what has no room is gone
    wantNothing();
    if (wanted.check == nullptr) return;
    const std::string last = shown_.isEmpty() ? lastChecked(session_.build()) : shown_.toStdString();
    const auto shown = kit.check(last) == nullptr ? wanted : firstLightView(session_.judged(), last);
    const VerdictState state = shown.verdict.state;
    const bool asked = shown.check->yesNo();
    reading_->show({qs(shown.check->title), qs(shown.check->at), shown.verdict, shown.nominal,
                    !asked                           ? QStringLiteral("no reading")
                    : state == VerdictState::notDone ? QStringLiteral("is it so?")
                    : state == VerdictState::pass    ? QStringLiteral("yes")
                                                     : QStringLiteral("no"),
                    asked ? QStringLiteral("Look and listen: Enter, it is so; N, it is not.")
                          : QStringLiteral("Probes on, then Enter; or type what the meter says.")});
    const Check& check = *wanted.check;
    const LoadAsk load = loadFor(check);
    const auto plug = askBeforePlug(session_.judged(), check);
    if (wanted.bar == nullptr && plug) {
        setNow(qs(plug->now), qs(plug->why));
    } else if (wanted.bar == nullptr && !load.clear()) {
        setNow(qs(load.now), qs(load.why));
    } else if (wanted.bar == nullptr && !check.yesNo()) {
        const Reading pattern{0, Subject::check(check.id), 0, check.unit, 0, {}, "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(check.title)), pattern);
    }
    touch_->setTitle(QStringLiteral("Next: %1").arg(qs(check.title)));
    std::vector<Card::Fact> facts;
    if (!check.at.empty()) facts.push_back({QStringLiteral("Touch"), qs(check.at)});
    if (!check.to.empty()) facts.push_back({QStringLiteral("Against"), qs(check.to)});
    if (!check.condition.empty()) facts.push_back({QStringLiteral("While"), qs(check.condition)});
    if (!check.from.empty()) facts.push_back({QStringLiteral("Fed from"), qs(check.from)});
    if (!check.yesNo() && std::isfinite(check.limits.low))
        facts.push_back({QStringLiteral("At least"),
                         qs(formatQuantity(check.limits.low, check.unit, figuresFor(check.limits)))});
    if (std::isfinite(check.limits.high))
        facts.push_back({QStringLiteral("At most"),
                         qs(formatQuantity(check.limits.high, check.unit, figuresFor(check.limits)))});
    facts.push_back(
        {QStringLiteral("Gate"), check.gate ? QStringLiteral("yes, stops the work") : QStringLiteral("no")});
    touch_->setFacts(facts);
    touch_->setText(underFacts(wanted));
    touch_->setCaution(qs(check.caution));
}

/// What the paper has wrong here, what was done otherwise, where to look when it is off.
QString FirstLightPage::underFacts(const FirstLightView& v) const {
    QStringList out;
    const Check& check = *v.check;
    const std::string note = noteText(session_.kit(), session_.build(), Subject::check(check.id));
    if (!note.empty()) out << qs(note);
    if (const auto hit = expected_.find(check.id); hit != expected_.end())
        out << qs(expectedWords(check, session_.judged().check(check), hit->second));
    out.removeAll(QString());
    if (!v.upstream.empty()) out << qs(v.upstream);
    if (!check.suspects.empty()) out << QStringLiteral("If it is off, suspect: %1.").arg(qs(check.suspects));
    return out.join(QChar(' '));
}

/// With little room it stands there while any of it is still to be seen, and nothing else takes its place.
void FirstLightPage::showBefore() {
    const bool built = session_.hasBuild();
    const auto items = built ? beforePlug(session_.judged()) : std::vector<PlugItem>();
    const bool due = std::any_of(items.begin(), items.end(), [](const PlugItem& item) { return !item.seen; });
    before_->setVisible(!compact_ || due);
}

void FirstLightPage::setCompact(bool on) {
    reading_->setCompact(on);
    compact_ = on;
    showBefore();
}

void FirstLightPage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    reading_->setDoubled(on);
    strips_->setVisible(!on);
}

}  // namespace ombrek
