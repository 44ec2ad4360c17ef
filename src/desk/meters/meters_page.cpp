#include "desk/meters/meters_page.h"

#include <QDate>
#include <cmath>

#include "desk/meters/meters_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"
#include "formats/accuracy_text.h"

namespace ombrek {

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
    addRare("the-most-it-takes", "M", "the most it takes", [this] { askMost(); });
    addKey("name", "N", "N", "name", [this] { askName(); });
    addKey("last-calibrated", "D", "D", "last calibrated", [this] { askDate(); });
    addKey("who", "W", "W", "who measures", [this] { askWho(); });
    addKey("strict-or-simple", "V", "V", "strict or simple", [this] {
        const bool simple = session_.build().rule == VerdictRule::simple;
        session_.kept(session_.book().chooseRule(simple ? VerdictRule::guardBand : VerdictRule::simple));
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
        if (!m.meter.empty() && m.meter != asked.name)
            return session_.say(
                QStringLiteral(
                    "The %1 measures this, and the zero is its own: D on Instruments has its sheet.")
                    .arg(qs(m.meter)),
                VerdictState::cannotTell);
        MeterLine now = asked;
        for (const MeterLine& line : session_.book().meters()) {
            if (line.unit == asked.unit && line.low == asked.low && line.name == asked.name) now = line;
        }
        keepZero(now, m.value + now.zero);
    });
}

void MetersPage::keepZero(MeterLine changed, double shown) {
    changed.zero = shown;
    if (session_.kept(session_.book().setMeter(changed)))
        session_.say(QStringLiteral("%1: %2 is taken off every reading from now on.")
                         .arg(quantityOf(changed.unit), qs(formatQuantity(shown, changed.unit, 3))),
                     VerdictState::pass);
}

void MetersPage::askWho() {
    askText(QStringLiteral("Who is at the bench"), qs(session_.book().preference("who")),
            [this](const QString& typed) {
                const QString who = typed.simplified().left(40);
                if (session_.kept(session_.book().prefer("who", who.toStdString())))
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
                const std::string doubt = accuracyDoubt(changed);
                if (!doubt.empty() && doubted_ != typed) {
                    doubted_ = typed;
                    return session_.say(qs(doubt) + QStringLiteral(" Type it again to keep it."),
                                        VerdictState::doubtful);
                }
                doubted_.clear();
                session_.kept(session_.book().setMeter(changed));
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
        session_.kept(session_.book().setMeter(changed));
    });
}

void MetersPage::askMost() {
    const bool bounded = std::isfinite(line().most);
    askText(QStringLiteral("More than this harms it; empty: not known"),
            bounded ? qs(formatQuantity(line().most, line().unit, 4)) : QString(),
            [this](const QString& typed) {
                MeterLine changed = line();
                const auto most = parseQuantity(typed.toStdString(), changed.unit);
                if (!typed.trimmed().isEmpty() && (!most || !(most->value > 0)))
                    return session_.say(QStringLiteral("Write the most that may be on it, as 600 V."),
                                        VerdictState::cannotTell);
                changed.most = typed.trimmed().isEmpty() ? INFINITY : most->value;
                session_.kept(session_.book().setMeter(changed));
            });
}

void MetersPage::begin(const QString& about) {
    of_ = about;
    at_ = 0;
    lines_ = of_.isEmpty() ? std::vector<MeterLine>() : linesInHand();
    refresh();
}

/// Those of the instrument, and the usual line where it has none of its own yet; or all.
std::vector<MeterLine> MetersPage::linesInHand() const {
    const auto all = session_.book().meters();
    if (of_.isEmpty()) return all;
    std::vector<MeterLine> out;
    for (const Instrument& one : session_.book().instruments()) {
        if (qs(one.name) != of_ || one.way == Way::practice) continue;
        for (const Unit unit : unitsOf(one.measures)) {
            std::size_t own = 0;
            for (const MeterLine& line : all) {
                if (line.unit == unit && line.name == one.name) out.push_back(line), ++own;
            }
            auto usual = meterFor(usualMeters(), unit, 0);
            if (own > 0 || !usual) continue;
            usual->name = one.name;
            out.push_back(*usual);
        }
    }
    return out.empty() ? all : out;
}

void MetersPage::askName() {
    if (!of_.isEmpty())
        return session_.say(
            QStringLiteral("These are the sheets of the %1; it is named on Instruments (N).").arg(of_));
    askText(QStringLiteral("Its name on your bench"), nameOf(line()), [this](const QString& typed) {
        MeterLine changed = line();
        changed.name = typed.toStdString();
        session_.kept(session_.book().setMeter(changed));
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
                session_.kept(session_.book().setMeter(changed));
            });
}

void MetersPage::refresh() {
    const Unit unit = lines_.empty() ? Unit::farad : line().unit;
    const double low = lines_.empty() ? 0 : line().low;
    const std::string name = lines_.empty() ? of_.toStdString() : line().name;
    lines_ = linesInHand();
    at_ = 0;
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        if (lines_[i].unit == unit && lines_[i].low == low && (at_ == 0 || lines_[i].name == name))
            at_ = int(i);
    }
    const bool simple = session_.hasBuild() && session_.build().rule == VerdictRule::simple;
    MetersView v =
        metersView(lines_, std::size_t(at_), simple, session_.book().preference("who"), wallClock());
    setNow(v.now, v.why);
    head_->setText(v.title);
    accuracy_->setText(v.accuracy);
    promise_->setText(v.promise);
    facts_->setFacts(v.facts);
    worth_->setFacts(v.worth);
    worth_->setVisible(!v.worth.empty());
    list_->setLines(std::move(v.lines));
    rule_->setTitle(v.rule);
    rule_->setText(v.ruleText);
}

}  // namespace ombrek
