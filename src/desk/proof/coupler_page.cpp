#include "desk/proof/coupler_page.h"

#include <algorithm>
#include <cmath>

#include "core/antenna/load_text.h"
#include "core/proof/exposure.h"
#include "core/proof/heat.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "desk/proof/coupler_view.h"
#include "formats/files.h"
#include "formats/touchstone.h"

namespace ombrek {
namespace {

constexpr FileWish kAntennaFile{"A measured antenna", "antenna", "Touchstone (*.s1p);;All files (*)"};
constexpr std::uintmax_t kLargest = 50000000;  ///< [bytes]

QString place(const AntennaRow& row) {
    return row.band.empty() ? qs(formatQuantity(row.frequency, Unit::hertz, 4)) : qs(row.band);
}

/// Matched, and with the power that is meant it holds; unknown where nobody said what its capacitors hold.
VerdictState stateOf(const AntennaRow& row, const Coupler& coupler) {
    if (!row.match.reaches) return VerdictState::fail;
    if (!(coupler.volts > 0)) return VerdictState::cannotTell;
    if (row.match.flashOver < row.match.watts) return VerdictState::fail;
    return row.match.flashOver < 2 * row.match.watts ? VerdictState::doubtful : VerdictState::pass;
}

}  // namespace

CouplerPage::CouplerPage(Session& session)
    : Page(session, QStringLiteral("Antenna and coupler")),
      number_(new BigNumber(64)),
      verdict_(new VerdictLine),
      view_(new CouplerView),
      drawn_(new Card),
      loads_(new Card),
      facts_(new Card),
      teach_(new Card),
      list_(new StateList) {
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 2);
    row->addWidget(verdict_, 3);
    big()->addLayout(row);
    drawn_->setTitle(QStringLiteral("Where its knobs will stand"));
    drawn_->addBody(view_, 1);
    drawn_->fillWithBody();
    big()->addWidget(drawn_, 1);
    teach_->setTitle(QStringLiteral("What a coupler can do with your wire"));
    teach_->setText(QStringLiteral(
        "K says the coupler: T, coil 0.1u..25u, rig 10p..240p, antenna 10p..240p, 100 V. A says the loads: "
        "35-120j, "
        "wire 20.3, 40m: 12+40j. Then Ombrek says which of them it matches on which band, where its knobs "
        "stand, "
        "what stays in it, and at what power its capacitors flash over.\n\nA wire is reckoned as one that "
        "stands upright over "
        "good ground: trees and bends change it much. Measured antennas (.s1p) are taken with T."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    loads_->setTitle(QStringLiteral("Loads, band by band"));
    loads_->addBody(list_, 1);
    loads_->fillWithBody();
    side()->addWidget(loads_, 1);
    side()->addWidget(facts_, 0);
    side()->addStretch(0);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int r) {
        at_ = std::size_t(std::max(0, r));
        refresh();
    });
}

void CouplerPage::addKeys() {
    setEnter("next-load", "the next load", [this] {
        if (session_.book().preference("coupler").empty()) return askCoupler();
        if (session_.book().preference("antenna loads").empty()) return askLoads();
        choose(1);
    });
    addKey("the-coupler", "K", "K", "the coupler", [this] { askCoupler(); });
    addKey("the-loads", "A", "A", "the loads", [this] { askLoads(); });
    addKey("antenna-file", "T", "T", "a measured antenna",
           [this] { askToOpen(this, kAntennaFile, [this](const QString& file) { openFile(file); }); });
    addKey("power-into-it", "P", "P", "power", [this] { askPower(); });
    addRare("antenna-gain", "G", "gain of the antenna", [this] { askGain(); });
    addKey("choose-a-load", "Down", "Up Down", "a load", [this] { choose(1); });
    addKey(
        "the-load-before", "Up", "Up", "the load before", [this] { choose(-1); }, false);
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void CouplerPage::askCoupler() {
    askText(QStringLiteral("The coupler"), qs(session_.book().preference("coupler")),
            [this](const QString& text) {
                const auto coupler = parseCoupler(text.toStdString());
                if (!coupler) return session_.say(qs(coupler.error().sentence), VerdictState::cannotTell);
                session_.kept(session_.book().prefer("coupler", text.simplified().toStdString()));
            });
}

void CouplerPage::askLoads() {
    askText(QStringLiteral("The loads"), qs(session_.book().preference("antenna loads")),
            [this](const QString& text) {
                const auto loads = parseAntennaLoads(text.toStdString());
                if (!loads) return session_.say(qs(loads.error().sentence), VerdictState::cannotTell);
                session_.kept(session_.book().prefer("antenna loads", text.simplified().toStdString()));
            });
}

double CouplerPage::watts() const {
    const auto kept = parseQuantity(session_.book().preference("coupler power"), Unit::watt);
    return kept && kept->value > 0 ? kept->value : session_.kit().ratings.power > 0 ? 0 : 5;
}

void CouplerPage::askPower() {
    askText(QStringLiteral("Power into it; empty: as the kit promises"),
            qs(session_.book().preference("coupler power")), [this](const QString& text) {
                const auto value = parseQuantity(text.toStdString(), Unit::watt);
                if (!text.trimmed().isEmpty() && (!value || !(value->value > 0) || value->value > 1e5))
                    return session_.say(QStringLiteral("A power is above nothing: 20 W."),
                                        VerdictState::cannotTell);
                session_.kept(session_.book().prefer(
                    "coupler power", text.trimmed().isEmpty() ? "" : plainNumber(value->value)));
            });
}

void CouplerPage::askGain() {
    askText(QStringLiteral("Gain of the antenna over an isotropic one, in dB"),
            qs(session_.book().preference("antenna gain")), [this](const QString& text) {
                const auto value = parseQuantity(text.toStdString(), Unit::decibel);
                if (!value || value->value < -30 || value->value > 30)
                    return session_.say(QStringLiteral("A gain is from -30 to 30 dB."),
                                        VerdictState::cannotTell);
                session_.kept(session_.book().prefer("antenna gain", plainNumber(value->value)));
            });
}

/// A measured antenna becomes loads, one for each band that it was measured on.
bool CouplerPage::openFile(const QString& path) {
    const Kit& kit = session_.kit();
    return work().start<Result<std::string>>(
        [path, kit](const LongWork::Progress&) -> Result<std::string> {
            const auto bytes = readFile(path.toStdString(), kLargest);
            if (!bytes) return tl::make_unexpected(bytes.error());
            const auto data = readTouchstone(*bytes, path.toStdString());
            if (!data) return tl::make_unexpected(data.error());
            std::string out;
            for (const std::string& band : kit.ratings.bandNames()) {
                const double f = kit.ratings.on(band).frequency;
                const auto& all = data->frequencies;
                if (!(f > 0) || f < all.front() || f > all.back()) continue;
                const auto at = std::size_t(std::lower_bound(all.begin(), all.end(), f) - all.begin());
                const std::complex<double> s = data->points[at].s11, z = data->ohms * (1.0 + s) / (1.0 - s);
                if (!(z.real() > 0) || !std::isfinite(std::abs(z))) continue;
                out += (out.empty() ? "" : ", ") + (band.empty() ? std::string() : band + ": ") +
                       plainNumber(std::round(z.real() * 10) / 10) + (z.imag() < 0 ? "-" : "+") +
                       plainNumber(std::abs(std::round(z.imag() * 10) / 10)) + "j";
            }
            if (out.empty()) return problem("", "It was measured on none of this kit's bands.");
            return out;
        },
        [this](const Result<std::string>& loads) {
            if (!loads) return session_.say(qs(loads.error().text()), VerdictState::cannotTell);
            const std::string before = session_.book().preference("antenna loads");
            session_.kept(
                session_.book().prefer("antenna loads", before.empty() ? *loads : *loads + ", " + before));
        });
}

/// Off the window's thread: a T of three wide parts is tried at tens of thousands of settings.
void CouplerPage::reckon() {
    const std::string said = session_.book().preference("coupler"),
                      loads = session_.book().preference("antenna loads");
    const std::string basis = said + "|" + loads + "|" + plainNumber(watts()) + "|" +
                              std::to_string(session_.build().id) + "|" +
                              plainNumber(session_.kit().ratings.power);
    if (basis == reckoned_ || trying_.running()) return;
    const auto coupler = parseCoupler(said);
    const auto what = parseAntennaLoads(loads);
    if (!coupler || !what) {
        rows_.clear();
        reckoned_.clear();
        return;
    }
    trying_.start<std::vector<AntennaRow>>(
        [kit = session_.kit(), coupler = *coupler, what = *what, power = watts()](const LongWork::Progress&) {
            return antennaRows(kit, coupler, what, power);
        },
        [this, basis, coupler = *coupler](std::vector<AntennaRow> rows) {
            rows_ = std::move(rows);
            coupler_ = coupler;
            reckoned_ = basis;
            refresh();
        });
}

void CouplerPage::choose(int by) {
    const int count = int(rows_.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

/// An estimate for Morse at an antenna of a gain; the caution beside it says what it is worth.
Fact CouplerPage::exposure(const AntennaRow& row) const {
    const auto gain = parseQuantity(session_.book().preference("antenna gain"), Unit::decibel);
    const double over = gain ? gain->value : 2.15;
    const auto e = exposureOf(row.match.watts, over, duties().front().share, row.frequency);
    return {QStringLiteral("Keep people off by"),
            !e              ? QStringLiteral("cannot tell")
            : e->metres < 1 ? QStringLiteral("1\u202fm")  // nearer than a metre the far field says nothing
                            : qs(formatQuantity(e->metres, Unit::metre, 2))};
}

void CouplerPage::showRow() {
    const AntennaRow& row = rows_[at_];
    const CouplerMatch& m = row.match;
    view_->show(coupler_, m, qs(loadText(row.ohms)));
    drawn_->setTitle(QStringLiteral("Where its knobs will stand, %1").arg(place(row)));
    verdict_->show(stateOf(row, coupler_), qs(m.sentence));
    if (!m.reaches)
        number_->showWord(QStringLiteral("out of reach"));
    else if (!(coupler_.volts > 0))
        number_->showWord(QStringLiteral("matched"));
    else {
        const double most = m.flashOver;
        number_->show(qs(decimals(most, most < 10 ? 1 : 0)), QStringLiteral("W at most"));
    }
    std::vector<Fact> facts{
        {QStringLiteral("SWR without"),
         std::isfinite(row.swr) && row.swr < 1000
             ? QStringLiteral("%1, %2\u202f% back")
                   .arg(qs(decimals(row.swr, 1)), qs(decimals(100 * reflectedShare(row.swr), 0)))
             : QStringLiteral("over 1000")}};
    facts.push_back({QStringLiteral("SWR with it"), qs(decimals(m.swr, 2)),
                     m.reaches ? VerdictState::pass : VerdictState::fail, true});
    facts.push_back(
        {QStringLiteral("Stays in it"),
         QStringLiteral("%1\u202fdB, %2")
             .arg(qs(decimals(m.lossDb, 2)),
                  qs(formatQuantity(m.watts * (1 - std::pow(10, -m.lossDb / 10)), Unit::watt, 2)))});
    facts.push_back(exposure(row));
    facts.push_back(
        {QStringLiteral("Coil, Q %1").arg(coupler_.coilQ), qs(formatQuantity(m.coil.amps, Unit::ampere, 2))});
    facts_->setTitle(QStringLiteral("%1 on %2").arg(qs(row.load), place(row)));
    facts_->setFacts(facts);
    facts_->setCaution(QStringLiteral(
        "The distance is an estimate; your regulator's rules decide. Nobody touches a keyed wire."));
}

void CouplerPage::showList() {
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < rows_.size(); ++i) {
        const AntennaRow& row = rows_[i];
        const QString right =
            !row.match.reaches ? QStringLiteral("SWR %1").arg(qs(decimals(row.match.swr, 1)))
            : coupler_.volts > 0
                ? QStringLiteral("to %1").arg(qs(formatQuantity(row.match.flashOver, Unit::watt, 2)))
                : QStringLiteral("%1 dB").arg(qs(decimals(row.match.lossDb, 1)));
        lines.push_back({stateOf(row, coupler_), QStringLiteral("%1  %2").arg(place(row), qs(row.load)),
                         right, i == at_, false, false});
    }
    list_->setLines(std::move(lines));
}

void CouplerPage::refresh() {
    if (!session_.hasBuild()) return;
    reckon();
    at_ = std::min(at_, rows_.empty() ? 0 : rows_.size() - 1);
    const bool none = rows_.empty();
    for (QWidget* w : std::initializer_list<QWidget*>{number_, verdict_, drawn_, loads_, facts_})
        w->setVisible(!none);
    teach_->setVisible(none);
    if (trying_.running())
        setNow(QStringLiteral("Trying the knobs …"), QStringLiteral("Every setting, for every load."));
    else if (session_.book().preference("coupler").empty())
        setNow(QStringLiteral("Say the coupler."),
               QStringLiteral("Its kind, its coil, its capacitors, what they hold."));
    else if (session_.book().preference("antenna loads").empty())
        setNow(QStringLiteral("Say what is connected to it."),
               QStringLiteral("Impedances, or wires by their length."));
    else if (none)
        setNow(QStringLiteral("None of these loads has a frequency."),
               QStringLiteral("This kit promises none: say it with the load, 7.03M: 35-120j."));
    if (none) return;
    const auto reached = std::count_if(rows_.begin(), rows_.end(), [&](const AntennaRow& r) {
        return r.match.reaches && (!(coupler_.volts > 0) || r.match.flashOver >= r.match.watts);
    });
    if (!trying_.running())
        setNow(
            QStringLiteral("%1 of %2 loads are matched and hold the power.").arg(reached).arg(rows_.size()),
            QStringLiteral(
                "Up and Down look at each; the coupler on paper is no coupler in a box: begin low."));
    showList();
    showRow();
}

}  // namespace ombrek
