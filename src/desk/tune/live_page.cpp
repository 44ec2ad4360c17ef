#include "desk/tune/live_page.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/tone.h"
#include "desk/tune/live_scale.h"
#include "instruments/bench.h"
#include "judged/tune_before.h"

namespace ombrek {
namespace {

constexpr int kEvery = 100, kAfterTrouble = 2000;  ///< [ms]
constexpr double kSlowly = 10, kSettlesTo = 1e-6;  ///< [s], of a frequency: a part in a million
constexpr int kFailures = 5;

}  // namespace

LivePage::LivePage(Session& session)
    : Page(session, QStringLiteral("Live")),
      number_(new BigNumber(110)),
      scale_(new LiveScale),
      sheet_(new Card),
      facts_(new Card) {
    big()->addWidget(number_);
    sheet_->addBody(scale_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    side()->addWidget(facts_, 0);
    side()->addStretch(1);
    addKeys();
    timer_.setInterval(kEvery);
    connect(&timer_, &QTimer::timeout, this, [this] { ask(); });
    clock_.start();
}

LivePage::~LivePage() = default;

void LivePage::addKeys() {
    setEnter("keep-this-reading", "keep this reading", [this] { keep(); });
    addKey("hold-the-reading", "Space", "Space", "hold the reading, or go on", [this] { hold(); });
    addKey("it-is-turned", "Left", "Left Right", "it is turned", [this] {
        turn(-0.01);
    })->setAutoRepeat(true);
    addKey(
        "it-is-turned-up", "Right", "Right", "turned up", [this] { turn(0.01); }, false)
        ->setAutoRepeat(true);
    addKey("tone", "T", "T", "a tone that rises with it", [this] { toggleTone(); });
    addKey("begin-again", "X", "X", "begin again", [this] { begin(id_); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

const Adjustment* LivePage::adjustment() const { return session_.kit().adjustment(id_.toStdString()); }

void LivePage::begin(const QString& about) {
    id_ = about;
    const Adjustment* a = adjustment();
    slow_.clear();
    trouble_.clear();
    failed_ = 0;
    if (a != nullptr) {
        const Reading* last = session_.build().last(Subject::adjustment(a->id));
        position_ = last == nullptr ? session_.judged().tune(*a).nextPosition : last->setting(kPosition, 0.5);
        scale_->begin(a->unit, a->kind == Adjustment::Kind::null, a->sets() ? a->target : NAN, a->tolerance);
    }
    refresh();
}

void LivePage::showEvent(QShowEvent* event) {
    Page::showEvent(event);
    timer_.start();
}

void LivePage::hideEvent(QHideEvent* event) {
    timer_.stop();
    tone_.reset();
    Page::hideEvent(event);
}

/// One question at a time: an instrument that is slow is asked as fast as it answers.
void LivePage::ask() {
    const Adjustment* a = adjustment();
    const bool seen = a != nullptr && a->scale.kind != ReadingScale::Kind::number;
    if (asking_ || a == nullptr || scale_->frozen() || a->unit == Unit::none || seen) return;
    if (beforeTuning(session_.judged(), *a, wallClock()).bars()) return sayNow();
    asking_ = true;
    const Unit unit = a->unit == Unit::watt ? Unit::dbm : a->unit;
    session_.bench().glance(
        session_.probeOf(unit, Subject::adjustment(a->id), position_),
        [self = QPointer<LivePage>(this), id = id_, unit](const Result<BenchReading>& reading) {
            if (!self) return;
            self->asking_ = false;
            if (self->id_ != id || !self->isVisible()) return;
            if (!reading) return self->arrived(tl::make_unexpected(reading.error()));
            self->on_ = reading->on;
            const Adjustment* now = self->adjustment();
            const bool power = unit == Unit::dbm && now != nullptr && now->unit == Unit::watt;
            self->arrived(power ? wattsFromDbm(reading->value + self->attenuation()) : reading->value);
        });
}

double LivePage::attenuation() const { return session_.powerSetting(powerMethods().front()); }

void LivePage::arrived(const Result<double>& value) {
    if (!value || !std::isfinite(*value)) {
        if (++failed_ >= kFailures) {
            timer_.setInterval(kAfterTrouble);
            trouble_ = value ? QStringLiteral("The instrument shows an overload.") : qs(value.error().text());
            sayNow();
        }
        return;
    }
    if (failed_ >= kFailures) timer_.setInterval(kEvery);
    failed_ = 0;
    const Adjustment* a = adjustment();
    const double never = a == nullptr || !(a->never > 0) ? INFINITY : a->never;
    // The line at the top changes with it.
    const bool was = !trouble_.isEmpty() || (scale_->last() >= never) != (*value >= never);
    trouble_.clear();
    scale_->take(*value);
    if (tone_) tone_->follow(scale_->share());
    const double now = double(clock_.elapsed()) / 1000;
    if (slow_.empty() || now - slow_.back().seconds >= kSlowly) {
        slow_.push_back({now, *value});
        refresh();
    } else if (was) {
        sayNow();
    }
    showNumber();
}

void LivePage::showNumber() {
    const Adjustment* a = adjustment();
    if (a == nullptr || std::isnan(scale_->last()))
        return number_->showWord(trouble_.isEmpty() ? QStringLiteral("waiting")
                                                    : QStringLiteral("no reading"));
    const SplitText text = splitQuantity(scale_->last(), a->unit, a->unit == Unit::hertz ? 8 : 3);
    number_->show(qs(text.number), qs(text.unit));
}

void LivePage::turn(double by) {
    const Adjustment* a = adjustment();
    if (a == nullptr) return;
    position_ = standable(a->turned, position_ + by);
    slow_.clear();  // what moves now is the hand's doing
    refresh();
}

void LivePage::hold() {
    if (!std::isnan(scale_->last())) scale_->freeze(!scale_->frozen());
    refresh();
}

void LivePage::toggleTone() {
    if (tone_)
        tone_.reset();
    else
        tone_ = std::make_unique<Tone>();
    if (tone_) tone_->follow(scale_->share());
    refresh();
}

/// What is held, or was read last, goes into the book with where it stands.
void LivePage::keep() {
    const Adjustment* a = adjustment();
    if (a == nullptr || std::isnan(scale_->last()))
        return session_.say(QStringLiteral("Nothing was read yet."), VerdictState::cannotTell);
    const double value = scale_->last();
    // A power is kept with what the power meter's level and the attenuator are worth.
    const bool power = a->unit == Unit::watt;
    if (power && !(value > 0))
        return session_.say(QStringLiteral("There is no power to be kept."), VerdictState::cannotTell);
    const Unit unit = power ? Unit::dbm : a->unit;
    const double shown = power ? dbmFromWatts(value) - attenuation() : value;
    const Measured measured = measuredWith(session_.book().meters(), unit, shown, on_);
    Reading reading{0,
                    Subject::adjustment(a->id),
                    shown,
                    unit,
                    measured.uncertainty,
                    {{std::string(kPosition), position_}},
                    std::string(word(instrumentFor(unit))),
                    0};
    reading = session_.withCircumstances(std::move(reading), unit, shown, on_);
    if (power) reading = inWatts(reading, attenuation());
    if (!session_.keep(reading)) return;
    scale_->freeze(false);
    session_.say(QStringLiteral("Kept: %1 at %2.")
                     .arg(qs(formatQuantity(value, a->unit, a->unit == Unit::hertz ? 8 : 3)),
                          qs(positionText(a->turned, position_))));
}

void LivePage::sayNow() {
    const Adjustment* a = adjustment();
    if (a == nullptr)
        return setNow(QStringLiteral("Nothing is in hand to be watched."),
                      QStringLiteral("Esc goes back to Tune."));
    const BeforeTuning before = beforeTuning(session_.judged(), *a, wallClock());
    if (before.bars())
        return setNow(qs(before.now), QStringLiteral("Esc goes back to Tune, where it is said."));
    if (a->unit == Unit::none || a->scale.kind != ReadingScale::Kind::number)
        return setNow(QStringLiteral("%1 is seen, and no instrument reads it.").arg(qs(a->title)),
                      QStringLiteral("Esc goes back to Tune: type there what it shows."));
    if (!trouble_.isEmpty())
        return setNow(QStringLiteral("%1: no reading arrives.").arg(qs(a->title)),
                      trouble_ + QStringLiteral(" Type what the meter shows; it is asked again meanwhile."));
    if (a->never > 0 && scale_->last() >= a->never)
        return setNow(QStringLiteral("Too much: turn %1 back at once.").arg(qs(a->adjuster)),
                      QStringLiteral("It must never reach %1. Key up, and look why.")
                          .arg(qs(formatQuantity(a->never, a->unit, 3))));
    const char* aim = a->kind == Adjustment::Kind::null   ? "to the least"
                      : a->sets()                         ? "into the marked zone"
                      : a->kind == Adjustment::Kind::bias ? "up until it just rises"
                                                          : "to the most";
    setNow(QStringLiteral("Turn %1 slowly, %2.").arg(qs(a->adjuster), QString::fromUtf8(aim)),
           scale_->frozen()
               ? QStringLiteral("Held: Enter keeps it, Space goes on.")
               : QStringLiteral("Space holds what it reads; Enter keeps it with where it stands."));
}

void LivePage::refresh() {
    if (!session_.hasBuild()) return;
    const Adjustment* a = adjustment();
    sayNow();
    showNumber();
    wantNothing();
    if (a == nullptr) return;
    sheet_->setTitle(qs(a->title));
    std::vector<Fact> facts{{QStringLiteral("Turn"), qs(a->adjuster)},
                            {QStringLiteral("Stands at"), qs(positionText(a->turned, position_))},
                            {QStringLiteral("Readings"), QString::number(scale_->taken())},
                            {QStringLiteral("Tone"), tone_ ? QStringLiteral("on") : QStringLiteral("off")}};
    if (a->never > 0) facts.push_back({QStringLiteral("Never"), qs(formatQuantity(a->never, a->unit, 3))});
    if (a->keyDown > 0)
        facts.push_back({QStringLiteral("Key down"),
                         QStringLiteral("%1\u202fs at most").arg(qs(decimals(a->keyDown, 0)))});
    facts_->setTitle(QStringLiteral("Watched"));
    facts_->setFacts(facts);
    QString text = a->reads.empty() ? QString() : QStringLiteral("Read: %1.").arg(qs(a->reads));
    if (a->unit == Unit::hertz || a->kind == Adjustment::Kind::bias) {
        const double allowed =
            a->unit == Unit::hertz ? kSettlesTo * std::abs(a->target) : 0.05 * std::max(a->target, 1e-3);
        text += QStringLiteral(" Left alone: ") + qs(settlingOf(slow_, allowed, a->unit).sentence);
    }
    facts_->setText(text.trimmed());
    facts_->setCaution(qs(a->caution));
    if (a->scale.kind == ReadingScale::Kind::number &&
        !beforeTuning(session_.judged(), *a, wallClock()).bars())
        wantReading(
            QStringLiteral("At %1 it reads").arg(qs(positionText(a->turned, position_))),
            Reading{
                0, Subject::adjustment(a->id), 0, a->unit, 0, {{std::string(kPosition), position_}}, "", 0});
}

void LivePage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    number_->setPixels(on ? 200 : 110);
}

}  // namespace ombrek
