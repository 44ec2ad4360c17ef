#include "desk/proof/powers_page.h"

#include <QRegularExpression>
#include <algorithm>
#include <cmath>

#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/proof/power_grid.h"
#include "report/plots.h"
#include "station/first_light/key_down.h"

namespace ombrek {
namespace {

constexpr double kNear = 0.06;  ///< of a supply: it stands where it should

QString volts(double value) { return qs(formatQuantity(value, Unit::volt, 3)); }
QString bandName(const std::string& band) { return band.empty() ? QStringLiteral("power") : qs(band); }

}  // namespace

PowersPage::PowersPage(Session& session)
    : Page(session, QStringLiteral("Bands and supplies")),
      grid_(new PowerGrid),
      plot_(new Plot),
      fields_(new Card),
      curve_(new Card),
      cell_(new Card),
      chain_(new Card),
      teach_(new Card),
      arrivals_(new StateList) {
    fields_->setTitle(QStringLiteral("Watts and amperes by band and supply"));
    fields_->addBody(grid_);
    big()->addWidget(fields_, 0);
    curve_->addBody(plot_, 1);
    curve_->fillWithBody();
    big()->addWidget(curve_, 1);
    teach_->setTitle(QStringLiteral("A table of powers"));
    teach_->setText(
        QStringLiteral("Every band at every supply: what leaves the socket, what the rig draws, what stays "
                       "in the finals. It "
                       "wants to know what the kit promises: Ins on Proof writes that."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(cell_, 0);
    chain_->setTitle(QStringLiteral("Before the key goes down"));
    chain_->addBody(arrivals_, 0);
    side()->addWidget(chain_, 0);
    side()->addStretch(1);
    addKeys();
    connect(grid_, &PowerGrid::picked, this, [this](int band, int supply) {
        band_ = std::size_t(band);
        supply_ = std::size_t(supply);
        chosen_ = true;
        refresh();
    });
}

void PowersPage::addKeys() {
    setEnter("measure-the-field", "measure the next", [this] { take(); });
    addKey("field", "Right", "Arrows", "a field", [this] { move(0, 1); });
    addKey(
        "field-left", "Left", "Left", "the field before", [this] { move(0, -1); }, false);
    addKey(
        "field-down", "Down", "Down", "the next band", [this] { move(1, 0); }, false);
    addKey(
        "field-up", "Up", "Up", "the band before", [this] { move(-1, 0); }, false);
    addKey("what-is-connected", "K", "K", "what is connected", [this] { askChain(); });
    addKey("drive-level", "D", "D", "drive", [this] { askDrive(); });
    addKey("causes", "C", "C", "why it is less",
           [this] { emit wants(QStringLiteral("why-less"), qs(band())); });
    addKey("the-filter", "F", "F", "the filter",
           [this] { emit wants(QStringLiteral("filter"), qs(band())); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void PowersPage::begin(const QString& band) {
    const auto names = session_.kit().ratings.bandNames();
    const auto hit = std::find(names.begin(), names.end(), band.toStdString());
    if (hit == names.end()) return;
    table_ = powerTable(session_.kit(), session_.build(), drive());
    band_ = std::size_t(hit - names.begin());
    supply_ = table_.rated;
    chosen_ = true;
    refresh();
}

std::string PowersPage::band() const { return band_ < table_.bands.size() ? table_.bands[band_] : ""; }
double PowersPage::supply() const { return supply_ < table_.supplies.size() ? table_.supplies[supply_] : 0; }

double PowersPage::drive() const {
    const auto kept = parseQuantity(session_.book().preference("drive"));
    return kept ? kept->value : NAN;
}

void PowersPage::move(int bands, int supplies) {
    if (table_.cells.empty()) return;
    const auto step = [](std::size_t& at, int by, std::size_t count) {
        at = std::size_t((int(at) + by + int(count)) % int(count));
    };
    step(band_, bands, table_.bands.size());
    step(supply_, supplies, table_.supplies.size());
    chosen_ = true;
    refresh();
}

/// Whether the supply was read where this column wants it.
bool PowersPage::supplyStands() const {
    const Reading* last = session_.build().last(Subject::supply());
    return last != nullptr && std::abs(last->value / supply() - 1) <= kNear;
}

Reading PowersPage::pattern(const Subject& subject, Unit unit) const {
    Reading out{0, subject, 0, unit, 0, {}, "", 0};
    if (subject.is(Subject::Kind::supply)) out.settings[std::string(kSupply)] = supply();
    if (subject.is(Subject::Kind::power)) {
        const PowerMethod& way = session_.powerWay();
        out.method = std::string(way.id);
        if (!way.setting.empty()) out.settings[std::string(way.setting)] = session_.powerSetting(way);
    }
    if (!subject.is(Subject::Kind::supply) && std::isfinite(drive()))
        out.settings[std::string(kDrive)] = drive();
    return out;
}

KeyDownAsk PowersPage::arrives() const {
    return whatArrives(session_.kit(), session_.build(), band(), supply(),
                       session_.book().preference("chain"));
}

void PowersPage::take() {
    if (table_.cells.empty()) return;
    const LoadAsk ask = askForLoad(session_.kit(), session_.build(), wallClock());
    if (!ask.clear()) {
        if (ask.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
        return;
    }
    if (!supplyStands()) return session_.read(pattern(Subject::supply(), Unit::volt));
    const PowerCell& cell = table_.at(band_, supply_);
    const KeyDownAsk there = arrives();
    if (there.state == VerdictState::fail) return session_.say(qs(there.sentence), VerdictState::fail);
    if (!cell.reading) {
        const PowerMethod& way = session_.powerWay();
        if (way.id != std::string_view("attenuator"))
            return session_.say(
                QStringLiteral("Type what it reads in %1: this bench has no such instrument on a "
                               "wire. M on Proof chooses another way.")
                    .arg(qs(plural(way.unit))));
        return session_.read(pattern(Subject::power(band()), way.unit));
    }
    if (std::isnan(cell.current)) return session_.read(pattern(Subject::current(band()), Unit::ampere));
    chosen_ = false;
    refresh();
}

namespace {

/// "3.2 0.6 A": the power, and the current behind it.
struct Typed {
    QString first, current;
};
Typed typedIn(const QString& text) {
    static const QRegularExpression both(QStringLiteral("^(.+?)[ ;]+([0-9][0-9.,]*\\s*m?A)$"));
    const auto hit = both.match(text.trimmed());
    return hit.hasMatch() ? Typed{hit.captured(1).trimmed(), hit.captured(2)} : Typed{text.trimmed(), {}};
}

}  // namespace

Session::Entered PowersPage::understand(const QString& text) const {
    const PowerCell& cell = table_.at(band_, supply_);
    const Typed typed = typedIn(text);
    const Reading current = pattern(Subject::current(band()), Unit::ampere);
    if (!supplyStands()) return session_.understand(pattern(Subject::supply(), Unit::volt), text);
    if (typed.current.isEmpty() &&
        (text.trimmed().endsWith(QChar('A')) || (cell.reading && std::isnan(cell.current))))
        return session_.understand(current, text);
    Session::Entered out =
        session_.understand(pattern(Subject::power(band()), session_.powerWay().unit), typed.first);
    if (typed.current.isEmpty() || !out.trouble.isEmpty()) return out;
    const Session::Entered beside = session_.understand(current, typed.current);
    out.trouble = beside.trouble;
    if (out.doubt.isEmpty()) out.doubt = beside.doubt;
    out.shows += QStringLiteral(", ") + beside.shows;
    return out;
}

void PowersPage::takeTyped(const QString& text) {
    const Typed typed = typedIn(text);
    const Session::Entered first = understand(text);
    if (!first.trouble.isEmpty()) return session_.say(first.trouble, VerdictState::cannotTell);
    std::vector<Reading> readings{first.reading};
    if (!typed.current.isEmpty() && first.reading.subject.is(Subject::Kind::power)) {
        const Reading current = pattern(Subject::current(band()), Unit::ampere);
        readings.push_back(session_.understand(current, typed.current).reading);
    }
    session_.keep(readings);
}

void PowersPage::askChain() {
    askText(QStringLiteral("What the socket leads to, one after the other"),
            qs(session_.book().preference("chain")), [this](const QString& text) {
                if (text.trimmed().isEmpty()) {
                    session_.kept(session_.book().prefer("chain", ""));
                    return;
                }
                const auto chain = parseChain(text.toStdString());
                if (!chain) return session_.say(qs(chain.error().sentence), VerdictState::cannotTell);
                session_.kept(session_.book().prefer("chain", text.simplified().toStdString()));
            });
}

void PowersPage::askDrive() {
    const double now = drive();
    askText(QStringLiteral("Drive in per cent of full; empty: as the rig is"),
            std::isnan(now) ? QString() : qs(decimals(100 * now, 0)), [this](const QString& text) {
                if (text.trimmed().isEmpty()) {
                    session_.kept(session_.book().prefer("drive", ""));
                    return;
                }
                const auto value = parseQuantity(text.toStdString(), Unit::percent);
                if (!value || value->value <= 0 || value->value > 100)
                    return session_.say(QStringLiteral("A drive is above 0 and at most 100 %."),
                                        VerdictState::cannotTell);
                session_.kept(session_.book().prefer("drive", plainNumber(value->value / 100)));
            });
}

void PowersPage::say() {
    const LoadAsk ask = askForLoad(session_.kit(), session_.build(), wallClock());
    const PowerCell& cell = table_.at(band_, supply_);
    const QString on = band().empty() ? QString() : QStringLiteral(" on %1").arg(qs(band()));
    const KeyDownAsk there = arrives();
    if (!ask.clear())
        setNow(qs(ask.now), qs(ask.why));
    else if (!supplyStands())
        setNow(QStringLiteral("Set the supply to %1, key down, and read it.").arg(volts(supply())),
               QStringLiteral("At the rig's own socket: a lead and a plug take their share."));
    else if (there.state == VerdictState::fail)
        setNow(QStringLiteral("Do not key into what is connected."), qs(there.sentence));
    else if (!cell.reading)
        setNow(QStringLiteral("Measure the power%1 at %2.").arg(on, volts(supply())),
               QStringLiteral("%1. Or type it in %2, with the current behind it: %3 0.6 A.")
                   .arg(qs(session_.powerWay().name), qs(plural(session_.powerWay().unit)),
                        session_.powerWay().unit == Unit::dbm    ? QStringLiteral("6.8")
                        : session_.powerWay().unit == Unit::volt ? QStringLiteral("38")
                                                                 : QStringLiteral("3.2")));
    else if (std::isnan(cell.current))
        setNow(QStringLiteral("Read the current%1 at %2.").arg(on, volts(supply())),
               QStringLiteral("What goes in and does not leave is heat in the finals."));
    else if (table_.next)
        setNow(QStringLiteral("%1 at %2 is read.").arg(bandName(band()), volts(supply())),
               QStringLiteral("Enter goes to the field that tells most."));
    else
        setNow(QStringLiteral("Every field is read."),
               QStringLiteral("C says why one is less than promised."));
}

void PowersPage::showGrid() {
    PowerGrid::Shown shown;
    for (const std::string& b : table_.bands) shown.bands.push_back(bandName(b));
    for (const double v : table_.supplies) shown.supplies.push_back(volts(v));
    for (const auto& row : table_.cells) {
        std::vector<PowerGrid::Cell> cells;
        for (const PowerCell& cell : row) {
            PowerGrid::Cell out;
            out.state = cell.state;
            if (cell.reading)
                out.text = std::isfinite(cell.power.watts)
                               ? qs(decimals(cell.power.watts, cell.power.watts < 10 ? 2 : 1))
                               : QStringLiteral("?");
            if (std::isfinite(cell.current)) out.under = qs(formatQuantity(cell.current, Unit::ampere, 3));
            cells.push_back(out);
        }
        shown.cells.push_back(std::move(cells));
    }
    shown.band = int(band_);
    shown.supply = int(supply_);
    shown.rated = int(table_.rated);
    grid_->show(std::move(shown));
    fields_->setText(std::isnan(drive())
                         ? QString()
                         : QStringLiteral("Driven to %1\u202f%.").arg(qs(decimals(100 * drive(), 0))));
}

void PowersPage::showCurve() {
    curve_->setTitle(band().empty() ? QStringLiteral("Power against the supply")
                                    : QStringLiteral("%1: power against the supply").arg(qs(band())));
    plot_->show(supplyPlot(table_, band_, session_.kit().ratings.on(band())));
}

void PowersPage::showCell() {
    const PowerCell& cell = table_.at(band_, supply_);
    cell_->setTitle(QStringLiteral("%1 at %2").arg(bandName(band()), volts(supply())));
    std::vector<Fact> facts;
    if (cell.reading) {
        facts.push_back({QStringLiteral("Power"),
                         QStringLiteral("%1 \u00b1 %2")
                             .arg(qs(formatQuantity(cell.power.watts, Unit::watt, 3)),
                                  qs(formatQuantity(cell.power.uncertainty, Unit::watt, 2))),
                         cell.state, true});
        const QDate day = QDateTime::fromSecsSinceEpoch(cell.reading->at).date();
        facts.push_back({QStringLiteral("Read"), QLocale().toString(day, QLocale::ShortFormat)});
        facts.push_back({QStringLiteral("By"), qs(std::string(powerMethod(cell.reading->method).name))});
    }
    facts.push_back({QStringLiteral("Promised here"), qs(formatQuantity(cell.promised, Unit::watt, 3))});
    if (std::isfinite(cell.efficiency)) {
        facts.push_back({QStringLiteral("Efficiency"),
                         qs(decimals(100 * cell.efficiency, 0)) + QStringLiteral("\u202f%")});
        const int finals = std::max(1, session_.kit().ratings.finals);
        facts.push_back({QStringLiteral("Heat"), finals > 1
                                                     ? QStringLiteral("%1 in %2 finals")
                                                           .arg(qs(formatQuantity(cell.heat, Unit::watt, 2)))
                                                           .arg(finals)
                                                     : qs(formatQuantity(cell.heat, Unit::watt, 2))});
    }
    cell_->setFacts(facts);
    const auto corrections = wattmeterCorrections(session_.kit(), session_.build());
    QString words = cell.ways.empty() ? QString() : qs(cell.ways);
    if (words.isEmpty() && cell.state == VerdictState::cannotTell) words = qs(cell.sentence);
    if (!corrections.empty())
        words +=
            QStringLiteral("%1The wattmeter wants \u00d7 %2 at %3, by the %4.")
                .arg(words.isEmpty() ? QString() : QStringLiteral(" "))
                .arg(qs(decimals(corrections.back().factor, 2)),
                     qs(formatQuantity(corrections.back().reads, Unit::watt, 3)), qs(corrections.back().by));
    cell_->setText(words);
}

void PowersPage::showArrivals() {
    const std::string said = session_.book().preference("chain");
    const KeyDownAsk ask = arrives();
    std::vector<StateLine> lines;
    for (const Arrival& a : ask.arrivals)
        lines.push_back({a.state, qs(a.name), qs(formatQuantity(a.dbm, Unit::dbm, 3)), false, false, false});
    arrivals_->setVisible(!lines.empty());
    arrivals_->setLines(std::move(lines));
    arrivals_->setFixedHeight(arrivals_->wholeHeight());
    if (said.empty())
        chain_->setText(
            QStringLiteral("K says what the socket leads to, with its limits: 30 dB pad 2 W, analyser "
                           "+20 dBm. Then Ombrek says what arrives where."));
    else
        chain_->setText(qs(ask.sentence));
    chain_->setCaution(
        ask.state == VerdictState::fail ? QStringLiteral("Do not key down into this.")
        : std::isfinite(ask.seconds)
            ? QStringLiteral("Key down %1 s at most, then %2 s up.")
                  .arg(qs(decimals(std::floor(ask.seconds), 0)), qs(decimals(std::ceil(ask.rest), 0)))
            : QStringLiteral("Dummy load on before the key goes down; follow your local rules."));
}

void PowersPage::refresh() {
    if (!session_.hasBuild()) return;
    table_ = powerTable(session_.kit(), session_.build(), drive());
    const bool none = table_.cells.empty();
    for (QWidget* w : std::initializer_list<QWidget*>{fields_, curve_, cell_, chain_}) w->setVisible(!none);
    teach_->setVisible(none);
    wantNothing();
    if (none)
        return setNow(QStringLiteral("This kit does not say what it transmits."),
                      QStringLiteral("Ins on Proof writes what its first page promises."));
    band_ = std::min(band_, table_.bands.size() - 1);
    supply_ = std::min(supply_, table_.supplies.size() - 1);
    const PowerCell& here = table_.at(band_, supply_);
    const bool whole = here.reading && std::isfinite(here.current);
    if (!chosen_ && (whole || !here.reading) && table_.next) std::tie(band_, supply_) = *table_.next;
    say();
    showGrid();
    showCurve();
    showCell();
    showArrivals();
    const LoadAsk ask = askForLoad(session_.kit(), session_.build(), wallClock());
    if (ask.clear())
        wantReading(
            supplyStands() ? QStringLiteral("Power, and the current behind it")
                           : QStringLiteral("The supply reads"),
            [this](const QString& text) { return understand(text); },
            [this](const QString& text) { takeTyped(text); });
}

}  // namespace ombrek
