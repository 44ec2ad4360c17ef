#include "desk/meters/meters_model.h"

#include <QDateTime>
#include <QLocale>
#include <array>
#include <cmath>
#include <map>

#include "desk/session.h"
#include "formats/accuracy_text.h"

namespace ombrek {
namespace {

QString text(double value, Unit unit, int figures = 3) { return qs(formatQuantity(value, unit, figures)); }

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

std::vector<StateLine> linesOf(const std::vector<MeterLine>& meters, std::size_t at, std::int64_t now) {
    std::vector<StateLine> out;
    for (std::size_t i = 0; i < meters.size(); ++i) {
        const VerdictState state = calibrationIsOld(meters[i], now) ? VerdictState::doubtful
                                   : meters[i].calibrated == 0      ? VerdictState::notDone
                                                                    : VerdictState::pass;
        QString accuracy = qs(accuracyText(meters[i]));
        out.push_back({state, quantityOf(meters[i].unit),
                       accuracy.replace(QStringLiteral(" digits of 6000"), QStringLiteral(" d")), i == at,
                       false});
    }
    return out;
}

/// What the meter can tell of the examples of its unit.
std::vector<Fact> worthOf(const MeterLine& m) {
    std::vector<Fact> facts;
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
    return facts;
}

}  // namespace

QString nameOf(const MeterLine& line) {
    return line.name.empty() ? qs(word(instrumentFor(line.unit))) : qs(line.name);
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

MetersView metersView(const std::vector<MeterLine>& meters, std::size_t at, bool simple,
                      const std::string& who, std::int64_t now) {
    MetersView v;
    const MeterLine& m = meters[at];
    const bool old = calibrationIsOld(m, now);
    v.now = m.unit == Unit::farad && m.zero == 0
                ? QStringLiteral("Open the clips and take the zero: Enter.")
                : QStringLiteral("What your meters promise is what a verdict counts with.");
    v.why = QStringLiteral("Copy accuracy and range from the data sheet. Up and Down choose a quantity.");
    v.title = QStringLiteral("%1, %2").arg(quantityOf(m.unit), nameOf(m));
    v.accuracy = QStringLiteral("±(%1)").arg(qs(accuracyText(m)));
    v.promise = old ? QStringLiteral("Calibrated over a year ago: the data sheet no longer promises this.")
                    : QStringLiteral("Limits of the data sheet, taken as rectangular: U = 2u after the GUM.");
    v.facts = {
        {QStringLiteral("Range"), rangeOf(m)},
        {QStringLiteral("Zero taken off"), m.zero == 0 ? QStringLiteral("none") : text(m.zero, m.unit)},
        {QStringLiteral("Takes at most"),
         std::isfinite(m.most) ? text(m.most, m.unit) : QStringLiteral("not said (M)")},
        {QStringLiteral("Last calibrated"), dateOf(m.calibrated), VerdictState::doubtful, old},
        {QStringLiteral("At the bench"), who.empty() ? QStringLiteral("no name") : qs(who)}};
    v.worth = worthOf(m);
    v.lines = linesOf(meters, at, now);
    v.rule = simple ? QStringLiteral("Simple rule in force") : QStringLiteral("Strict rule in force");
    v.ruleText = simple ? QStringLiteral(
                              "Inside the limits passes, outside fails; the meter's error is not "
                              "counted. V changes it.")
                        : QStringLiteral(
                              "Near a limit the meter's own error leaves a doubt, and the verdict "
                              "says so. V changes it.");
    return v;
}

}  // namespace ombrek
