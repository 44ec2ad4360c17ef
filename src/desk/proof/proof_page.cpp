#include "desk/proof/proof_page.h"

#include <algorithm>
#include <cmath>

#include "core/proof/frequency.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "desk/proof/proof_model.h"
#include "report/plots.h"
#include "station/bands.h"

namespace ombrek {
ProofPage::ProofPage(Session& session)
    : Page(session, qs(word(Station::proof))),
      number_(new BigNumber(84)),
      verdict_(new VerdictLine),
      plot_(new Plot),
      power_(new Card),
      items_(new Card),
      sheet_(new Card),
      teach_(new Card),
      list_(new StateList) {
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 3);
    row->addWidget(verdict_, 3);
    big()->addLayout(row);
    sheet_->setTitle(QStringLiteral("Harmonics, and what the low-pass takes away"));
    sheet_->addBody(plot_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("What this station does when a kit states its ratings"));
    teach_->setText(QStringLiteral(
        "It turns any way of measuring into watts with their uncertainty, compares them at the supply the "
        "kit is rated at, counts the frequency against the dial, and holds each harmonic against the limit "
        "you choose.\n\nRated figures stand on the first page of most manuals. Ins writes them: \"5 W at "
        "13.8 V, 7.03 MHz\", or "
        "\"does not transmit\". Follow your local rules."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(power_, 3);
    items_->setTitle(QStringLiteral("To be proved"));
    items_->addBody(list_, 1);
    items_->fillWithBody();
    side()->addWidget(items_, 2);
    addKeys();
    connect(&session_, &Session::taken, this, [this] { chosen_.reset(); });
}

void ProofPage::addKeys() {
    takesPaper("promises");
    setEnter("take-it", "take it", [this] { take(); });
    addKey("way-of-measuring", "M", "M", "way of measuring", [this] { nextMethod(); });
    addKey("attenuation-drop", "S", "S", "attenuation, drop", [this] { askSetting(); });
    addKey("a-trace", "T", "T", "the spectrum",
           [this] { emit wants(QStringLiteral("spectrum"), qs(band())); });
    addKey("other-limits", "L", "L", "other limits", [this] { nextProfile(); });
    addKey("band", "N", "N", "next band", [this] { nextBand(); });
    addKey("bands-and-supplies", "G", "G", "bands and supplies",
           [this] { emit wants(QStringLiteral("powers"), qs(band())); });
    addKey("causes", "C", "C", "why it is less",
           [this] { emit wants(QStringLiteral("why-less"), qs(band())); });
    addKey("the-filter", "F", "F", "the filter",
           [this] { emit wants(QStringLiteral("filter"), qs(band())); });
    addRare("the-antenna", "A", "antenna and coupler", [this] { emit wants(QStringLiteral("coupler"), {}); });
    addKey("show-working", "W", "W", "show working", [this] {
        working_ = !working_;
        refresh();
    });
    addKey("choose", "Down", "Up Down", "choose", [this] { choose(1); });
    addKey(
        "the-one-before", "Up", "Up", "the one before", [this] { choose(-1); }, false);
}

ProofView ProofPage::view() const {
    return proofView(session_.judged(), chosen_, session_.powerWay(), band());
}

std::string ProofPage::band() const {
    const bool there = band_ && hasBand(session_.kit(), *band_);
    return there ? *band_ : bandToProve(session_.judged());
}

void ProofPage::nextBand() {
    if (session_.kit().ratings.bands.size() < 2)
        return session_.say(QStringLiteral("This kit has one band."), VerdictState::notDone);
    band_ = bandAfter(session_.kit(), band());
    chosen_.reset();
    refresh();
}

void ProofPage::begin(const QString& band) {
    if (hasBand(session_.kit(), band.toStdString())) band_ = band.toStdString();
    refresh();
}

Reading ProofPage::pattern(const ProofView& v) const {
    const auto& item = v.items[v.inHand];
    Reading out{0, item.subject, 0, item.unit, 0, {}, "", 0};
    if (item.subject.is(Subject::Kind::power)) {
        out.method = std::string(session_.powerWay().id);
        if (const PowerMethod& way = session_.powerWay(); !way.setting.empty())
            out.settings = {{std::string(way.setting), session_.powerSetting(way)}};
    }
    return out;
}

void ProofPage::take() {
    const ProofView v = view();
    if (v.items.empty() || v.finished) return;
    if (const LoadAsk ask = load(); !ask.clear()) {
        if (ask.confirm) session_.kept(session_.book().passGate(kLoadOn, "on"));
        return;
    }
    if (const KeyDownAsk there = arrives(v); there.state == VerdictState::fail)
        return session_.say(qs(there.sentence), VerdictState::fail);
    const PowerMethod& method = session_.powerWay();
    if (v.items[v.inHand].subject.is(Subject::Kind::power) && method.id != std::string_view("attenuator")) {
        session_.say(QStringLiteral("Type what it reads in %1: this bench has no such instrument on a wire.")
                         .arg(qs(plural(method.unit))));
        return;
    }
    session_.read(pattern(v));
}

/// What was said on the table of powers to be behind the socket holds here, too.
KeyDownAsk ProofPage::arrives(const ProofView& v) const {
    return whatArrives(session_.kit(), session_.build(), band(), v.proof.supply,
                       session_.book().preference("chain"));
}

void ProofPage::choose(int by) {
    const ProofView v = view();
    if (v.items.empty()) return;
    const int count = int(v.items.size());
    const int at = v.finished ? (by > 0 ? -1 : count) : int(v.inHand);
    chosen_ = v.items[std::size_t((at + by + count) % count)].subject;
    refresh();
}

/// All that is proved is proved with the key down.
LoadAsk ProofPage::load() const { return askForLoad(session_.kit(), session_.build(), wallClock()); }

void ProofPage::nextMethod() {
    const auto& all = powerMethods();
    const std::size_t at = std::size_t(&session_.powerWay() - all.data());
    chosen_ = Subject::power(band());
    session_.kept(session_.book().prefer("power way", std::string(all[(at + 1) % all.size()].id)));
}

void ProofPage::askSetting() {
    const PowerMethod& method = session_.powerWay();
    if (method.setting.empty()) {
        session_.say(QStringLiteral("A %1 needs no other figure.").arg(qs(method.name)));
        return;
    }
    askText(QStringLiteral("The %1").arg(qs(method.setting)),
            qs(formatQuantity(session_.powerSetting(method), method.settingUnit)),
            [this, &method](const QString& text) {
                const auto value = parseQuantity(text.toStdString(), method.settingUnit);
                const double most = method.settingUnit == Unit::volt      ? 3
                                    : method.settingUnit == Unit::decibel ? 120
                                                                          : 100;
                const bool none =
                    method.settingUnit == Unit::none;  // a correction of nothing is no correction
                if (!value || value->value < 0 || value->value > most || (none && value->value == 0)) {
                    session_.say(value ? QStringLiteral("This must be from 0 to %1%2.")
                                             .arg(qs(formatQuantity(most, method.settingUnit)),
                                                  none ? QStringLiteral(", and not 0") : QString())
                                       : qs(value.error().sentence),
                                 VerdictState::cannotTell);
                    return;
                }
                session_.kept(session_.book().prefer("power " + std::string(method.setting),
                                                     plainNumber(value->value)));
            });
}

void ProofPage::nextProfile() {
    const auto& profiles = session_.tables().profiles;
    std::size_t at = 0;
    while (at < profiles.size() && profiles[at].id != session_.profile().id) ++at;
    const LimitProfile& next = profiles[(at + 1) % profiles.size()];
    if (session_.kept(session_.book().chooseProfile(next.id))) {
        session_.say(QStringLiteral("Limits: %1 (%2). Your own regulator's rules decide.")
                         .arg(qs(next.name), qs(next.source)));
    }
}

void ProofPage::refresh() {
    if (!session_.hasBuild()) return;
    const ProofView v = view();
    setNow(qs(v.now), qs(v.why));
    for (QWidget* w : std::initializer_list<QWidget*>{power_, items_, number_, verdict_, sheet_})
        w->setVisible(!v.items.empty());
    teach_->setVisible(v.items.empty());
    offerPaper(v.items.empty() && session_.kit().ratings.mayTransmit());
    wantNothing();
    if (v.items.empty()) return;
    showPower(v);
    const LoadAsk ask = load();
    if (!v.finished && !ask.clear()) setNow(qs(ask.now), qs(ask.why));
    if (const KeyDownAsk there = arrives(v); !v.finished && ask.clear() && there.state == VerdictState::fail)
        setNow(QStringLiteral("Do not key into what is connected."), qs(there.sentence));
    if (!v.finished && ask.clear())
        wantReading(QStringLiteral("%1 reads").arg(qs(v.items[v.inHand].name)), pattern(v));
    plot_->show(spectrumPlot(session_.kit(), session_.build(), v.proof, session_.profile(), band()));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < v.items.size(); ++i) {
        lines.push_back({v.items[i].state, qs(v.items[i].name), qs(v.items[i].text),
                         !v.finished && i == v.inHand, false});
    }
    list_->setLines(std::move(lines));
}

/// Where the uncertainty comes from, a line for each that counts.
QString ProofPage::budgetText() const {
    const auto reading = session_.build().last(Subject::power(band()));
    const auto budget = reading ? budgetOf(*reading, session_.kit().ratings.ohms)
                                : Result<PowerBudget>(tl::make_unexpected(Problem()));
    QString out;
    if (!budget) return out;
    for (const BudgetLine& line : budget->lines) {
        if (line.watts > 0.02 * budget->deviation)
            out += QStringLiteral("\n%1: \u00b1%2")
                       .arg(qs(line.input.what), qs(formatQuantity(2 * line.watts, Unit::watt, 2)));
    }
    return out;
}

void ProofPage::showPower(const ProofView& v) {
    const Ratings rated = session_.kit().ratings.on(band());
    const PowerMethod& method = session_.powerWay();
    const ProofState& proof = v.proof;
    if (proof.power) {
        const SplitText text = splitQuantity(proof.power->watts, Unit::watt, 3);
        number_->show(qs(text.number), qs(text.unit));
    } else {
        number_->showWord(QStringLiteral("no reading"));
    }
    verdict_->show(proof.powerVerdict.state, !proof.powerVerdict.sentence.empty()
                                                 ? qs(proof.powerVerdict.sentence)
                                                 : QStringLiteral("No power measured yet."));
    power_->setTitle(band().empty() ? QStringLiteral("Beside what the kit promises")
                                    : QStringLiteral("%1, beside what the kit promises").arg(qs(band())));
    std::vector<Card::Fact> facts{
        {QStringLiteral("Promised"), qs(formatQuantity(rated.power, Unit::watt, 3) + " at " +
                                        formatQuantity(rated.supply, Unit::volt, 3))}};
    if (proof.power) {
        facts.push_back(
            {QStringLiteral("Measured at %1").arg(qs(formatQuantity(proof.supply, Unit::volt, 4))),
             qs(formatQuantity(proof.power->watts, Unit::watt, 3) + " ±" +
                formatQuantity(proof.power->uncertainty, Unit::watt, 2))});
        facts.push_back({QStringLiteral("At promised supply"),
                         qs(formatQuantity(proof.powerAtRated, Unit::watt, 3)), proof.powerVerdict.state,
                         true});
        if (proof.power->watts > 0 && std::isfinite(proof.power->watts))
            facts.push_back({QStringLiteral("In dBm"),
                             qs(formatQuantity(dbmFromWatts(proof.power->watts), Unit::dbm, 4))});
    }
    if (proof.frequency) {
        facts.push_back({QStringLiteral("Frequency"), qs(formatQuantity(*proof.frequency, Unit::hertz, 8))});
        facts.push_back({QStringLiteral("Off by"),
                         qs(formatQuantity(partsPerMillion(*proof.frequency, rated.frequency), Unit::ppm, 2)),
                         proof.frequencyVerdict.state, true});
        if (proof.edgeVerdict && proof.edgeVerdict->state != VerdictState::pass)
            facts.push_back({QStringLiteral("Edge of the band"), QStringLiteral("too near"),
                             proof.edgeVerdict->state, true});
        if (std::isfinite(proof.drift))
            facts.push_back({QStringLiteral("Drift in %1 min").arg(qs(decimals(proof.driftOver / 60, 1))),
                             qs(decimals(proof.drift, 0, true)) + QStringLiteral("\u202fHz")});
    }
    if (method.setting.empty())
        facts.push_back({QStringLiteral("Way"), qs(method.name)});
    else
        facts.push_back({qs(method.name).left(1).toUpper() + qs(method.name).mid(1),
                         qs(formatQuantity(session_.powerSetting(method), method.settingUnit, 3))});
    power_->setFacts(facts);
    power_->setText(working_ && proof.power ? qs(proof.power->working.text()) + budgetText() : QString());
    power_->setCaution(
        proof.power ? QString()
                    : QStringLiteral("Dummy load on before the key goes down; follow your local rules."));
}

void ProofPage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    number_->setPixels(on ? 168 : 84);
}

}  // namespace ombrek
