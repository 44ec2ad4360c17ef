#include "desk/meters/meters_page.h"

#include <QDateTime>
#include <cmath>
#include <map>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/accuracy_text.h"

namespace ombrek {
namespace {

QString text(double value, Unit unit, int figures = 3) { return qs(formatQuantity(value, unit, figures)); }

QString nameOf(const MeterLine& line) {
    return line.name.empty() ? qs(name(instrumentFor(line.unit))) : qs(line.name);
}

QString quantityOf(Unit unit) {
    static const std::map<Unit, QString> names{
        {Unit::ohm, QStringLiteral("Resistance")},   {Unit::volt, QStringLiteral("Voltage")},
        {Unit::ampere, QStringLiteral("Current")},   {Unit::farad, QStringLiteral("Capacitance")},
        {Unit::henry, QStringLiteral("Inductance")}, {Unit::hertz, QStringLiteral("Frequency")},
        {Unit::dbm, QStringLiteral("Power")},        {Unit::decibel, QStringLiteral("Harmonics")}};
    const auto hit = names.find(unit);
    return hit == names.end() ? qs(plural(unit)) : hit->second;
}

QString rangeOf(const MeterLine& line) {
    if (!std::isfinite(line.high))
        return line.low > 0 ? QStringLiteral("from ") + text(line.low, line.unit) : QStringLiteral("all");
    return QStringLiteral("%1 to %2").arg(text(line.low, line.unit), text(line.high, line.unit));
}

QString dateOf(std::int64_t seconds) {
    return seconds == 0
               ? QStringLiteral("not known")
               : QLocale().toString(QDateTime::fromSecsSinceEpoch(seconds).date(), QLocale::ShortFormat);
}

/// Readings that a kit is full of, to show what the meter makes of them, by unit.
struct Example {
    Unit unit;
    double reading, tolerance;
};
constexpr std::array<Example, 7> kExamples{{{Unit::farad, 22e-12, 5},
                                            {Unit::farad, 100e-9, 10},
                                            {Unit::ohm, 33, 5},
                                            {Unit::ohm, 4700, 1},
                                            {Unit::henry, 2.2e-6, 10},
                                            {Unit::volt, 5, 4},
                                            {Unit::hertz, 21e6, 0.01}}};

}  // namespace

MetersPage::MetersPage(Session& session)
    : Page(session, QStringLiteral("Meters")),
      head_(textLabel(20, true)),
      accuracy_(textLabel(44, true)),
      promise_(textLabel(15, false, "soft")),
      sheet_(new Card),
      facts_(new Card),
      worth_(new Card),
      rule_(new Card),
      list_(new StateList) {
    sheet_->addBody(head_);
    sheet_->addBody(accuracy_);
    sheet_->addBody(promise_);
    big()->addWidget(sheet_, 0);
    facts_->setTitle(QStringLiteral("From its data sheet"));
    big()->addWidget(facts_, 0);
    worth_->setTitle(QStringLiteral("What it can tell"));
    big()->addWidget(worth_, 0);
    big()->addStretch(1);
    auto* lines = new Card;
    lines->setTitle(QStringLiteral("On this bench"));
    lines->addBody(list_, 1);
    lines->fillWithBody();
    side()->addWidget(lines, 2);
    side()->addWidget(rule_, 1);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        refresh();
    });
}

void MetersPage::addKeys() {
    setEnter("take-the-zero", "take the zero", [this] { takeZero(); });
    addKey("a-quantity", "Down", "Up Down", "a quantity", [this] { choose(1); });
    addKey("accuracy", "A", "A", "accuracy", [this] { askAccuracy(); });
    addKey("range", "R", "R", "range", [this] { askRange(); });
    addKey("name", "N", "N", "name", [this] { askName(); });
    addKey("last-calibrated", "D", "D", "last calibrated", [this] { askDate(); });
    addKey("who", "W", "W", "who measures", [this] { askWho(); });
    addKey("strict-or-simple", "V", "V", "strict or simple", [this] {
        const bool simple = session_.build().rule == VerdictRule::simple;
        session_.keep(session_.book().chooseRule(simple ? VerdictRule::guardBand : VerdictRule::simple));
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addKey(
        "the-quantity-before", "Up", "Up", "the quantity before", [this] { choose(-1); }, false);
}

void MetersPage::choose(int by) {
    at_ = (at_ + by + int(lines_.size())) % int(lines_.size());
    refresh();
}

void MetersPage::takeZero() {
    const Unit unit = line().unit;
    if (unit == Unit::dbm || unit == Unit::decibel || unit == Unit::hertz || unit == Unit::ampere)
        return session_.say(QStringLiteral("This quantity has no zero to take."));
    // The answer is of the quantity that was asked, whichever is chosen by then.
    session_.measure(unit, Subject::openClips(), -1, [this, asked = line()](Measured m) {
        if (!std::isfinite(m.value))
            return session_.say(
                QStringLiteral("With the clips open it shows no number: there is no zero to take."),
                VerdictState::cannotTell);
        // The zero in force was taken off already; what is left is added to it.
        for (const MeterLine& now : session_.book().meters()) {
            if (now.unit == asked.unit && now.low == asked.low) keepZero(now, m.value + now.zero);
        }
    });
}

void MetersPage::keepZero(MeterLine changed, double shown) {
    changed.zero = shown;
    if (session_.keep(session_.book().setMeter(changed)))
        session_.say(QStringLiteral("%1: %2 is taken off every reading from now on.")
                         .arg(quantityOf(changed.unit), text(shown, changed.unit)),
                     VerdictState::pass);
}

void MetersPage::askWho() {
    askText(QStringLiteral("Who is at the bench"), qs(session_.book().preference("who")),
            [this](const QString& typed) {
                const QString who = typed.simplified().left(40);
                if (session_.keep(session_.book().prefer("who", who.toStdString())))
                    session_.say(who.isEmpty()
                                     ? QStringLiteral("Readings carry no name from now on.")
                                     : QStringLiteral("Readings carry the name %1 from now on.").arg(who),
                                 VerdictState::pass);
            });
}

void MetersPage::askAccuracy() {
    askText(QStringLiteral("Accuracy"), qs(accuracyText(line())).replace(QChar(0x202f), QChar(' ')),
            [this](const QString& typed) {
                MeterLine changed = line();
                if (const auto read = readAccuracy(typed.toStdString(), changed); !read)
                    return session_.say(qs(read.error().sentence), VerdictState::cannotTell);
                session_.keep(session_.book().setMeter(changed));
            });
}

void MetersPage::askRange() {
    askText(QStringLiteral("Range, as 0..600"), QString(), [this](const QString& typed) {
        const QStringList ends = typed.split(QStringLiteral(".."));
        const Unit unit = line().unit;
        const auto low = parseQuantity(ends.value(0).toStdString(), unit);
        const auto high = parseQuantity(ends.value(1).toStdString(), unit);
        if (ends.size() != 2 || !low || !high || !(low->value >= 0) || !(high->value > low->value))
            return session_.say(QStringLiteral("Write the range as 0..600 or 600..6k."),
                                VerdictState::cannotTell);
        MeterLine changed = line();
        // Another range is another line of the sheet; the same start changes this one.
        if (changed.low != low->value) changed.id = 0;
        changed.low = low->value;
        changed.high = high->value;
        session_.keep(session_.book().setMeter(changed));
    });
}

void MetersPage::askName() {
    askText(QStringLiteral("Its name on your bench"), nameOf(line()), [this](const QString& typed) {
        MeterLine changed = line();
        changed.name = typed.toStdString();
        session_.keep(session_.book().setMeter(changed));
    });
}

void MetersPage::askDate() {
    askText(QStringLiteral("Last calibrated, year-month-day"), QDate::currentDate().toString(Qt::ISODate),
            [this](const QString& typed) {
                const QDate date = QDate::fromString(typed, Qt::ISODate);
                if (!date.isValid() || date > QDate::currentDate())
                    return session_.say(QStringLiteral("Write a day that has been, as 2026-05-17."),
                                        VerdictState::cannotTell);
                MeterLine changed = line();
                changed.calibrated = date.startOfDay().toSecsSinceEpoch();
                session_.keep(session_.book().setMeter(changed));
            });
}

void MetersPage::refresh() {
    const Unit unit = lines_.empty() ? Unit::farad : line().unit;
    const double low = lines_.empty() ? 0 : line().low;
    lines_ = session_.book().meters();
    at_ = 0;
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        if (lines_[i].unit == unit && lines_[i].low == low) at_ = int(i);
    }
    const MeterLine& m = line();
    const bool capacity = m.unit == Unit::farad;
    setNow(capacity && m.zero == 0
               ? QStringLiteral("Open the clips and take the zero: Enter.")
               : QStringLiteral("What your meters promise is what a verdict counts with."),
           QStringLiteral("Copy accuracy and range from the data sheet. Up and Down choose a quantity."));
    const std::int64_t now = wallClock();
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const bool old = calibrationIsOld(lines_[i], now);
        lines.push_back(
            {old                         ? VerdictState::doubtful
             : lines_[i].calibrated == 0 ? VerdictState::notDone
                                         : VerdictState::pass,
             quantityOf(lines_[i].unit),
             qs(accuracyText(lines_[i])).replace(QStringLiteral(" digits of 6000"), QStringLiteral(" d")),
             int(i) == at_, false});
    }
    list_->setLines(std::move(lines));
    showSheet();
    const bool simple = session_.hasBuild() && session_.build().rule == VerdictRule::simple;
    rule_->setTitle(simple ? QStringLiteral("Simple rule in force") : QStringLiteral("Strict rule in force"));
    rule_->setText(
        simple
            ? QStringLiteral(
                  "Inside the limits passes, outside fails; the meter's error is not counted. V changes it.")
            : QStringLiteral("Near a limit the meter's own error leaves a doubt, and the verdict says so. V "
                             "changes it."));
}

void MetersPage::showSheet() {
    const MeterLine& m = line();
    head_->setText(QStringLiteral("%1, %2").arg(quantityOf(m.unit), nameOf(m)));
    accuracy_->setText(QStringLiteral("±(%1)").arg(qs(accuracyText(m))));
    const bool old = calibrationIsOld(m, wallClock());
    promise_->setText(
        old ? QStringLiteral("Calibrated over a year ago: the data sheet no longer promises this.")
            : QStringLiteral("Limits of the data sheet, taken as rectangular: U = 2u after the GUM."));
    facts_->setFacts(
        {{QStringLiteral("Range"), rangeOf(m)},
         {QStringLiteral("Zero taken off"), m.zero == 0 ? QStringLiteral("none") : text(m.zero, m.unit)},
         {QStringLiteral("Last calibrated"), dateOf(m.calibrated), VerdictState::doubtful, old}});
    std::vector<Card::Fact> facts;
    for (const Example& e : kExamples) {
        if (e.unit != m.unit) continue;
        const double u = measuredWith({m}, m.unit, e.reading).uncertainty;
        const double width = e.reading * e.tolerance / 100;
        const VerdictState state = u > width       ? VerdictState::cannotTell
                                   : u > width / 4 ? VerdictState::doubtful
                                                   : VerdictState::pass;
        facts.push_back({QStringLiteral("%1 ±%2\u202f%, known to ±%3")
                             .arg(text(e.reading, e.unit))
                             .arg(qs(personNumber(e.tolerance)))
                             .arg(text(u, e.unit, 2)),
                         state == VerdictState::pass       ? QStringLiteral("surely")
                         : state == VerdictState::doubtful ? QStringLiteral("mostly")
                                                           : QStringLiteral("cannot tell"),
                         state, true});
    }
    worth_->setFacts(facts);
    worth_->setVisible(!facts.empty());
}

}  // namespace ombrek
