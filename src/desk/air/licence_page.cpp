#include "desk/air/licence_page.h"

#include <algorithm>

#include "desk/air/band_strip.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "look/verdict_mark.h"
#include "station/bands.h"

namespace ombrek {

LicencePage::LicencePage(Session& session)
    : Page(session, QStringLiteral("Licence")),
      strip_(new BandStrip),
      list_(new StateList),
      rig_(new Card),
      own_(new Card),
      about_(new Card) {
    rig_->setTitle(QStringLiteral("The rig in your bands"));
    rig_->addBody(strip_, 1);
    big()->addWidget(rig_, 0);
    about_->setTitle(QStringLiteral("What may be dialled"));
    big()->addWidget(about_, 0);
    big()->addStretch(1);
    own_->setTitle(QStringLiteral("Your limits"));
    own_->addBody(list_, 1);
    own_->fillWithBody();
    side()->addWidget(own_, 1);
    addKeys();
    connect(strip_, &BandStrip::picked, this, [this](int row) {
        if (row >= int(lines_.size()) || !lines_[std::size_t(row)].limit) return;
        const auto hit = std::find(limits_.begin(), limits_.end(), *lines_[std::size_t(row)].limit);
        if (hit != limits_.end()) at_ = int(hit - limits_.begin());
        refresh();
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = row;
        refresh();
    });
}

void LicencePage::addKeys() {
    setEnter("it-is-within-my-licence", "it is within my licence", [this] {
        if (!session_.hasBuild()) return;
        if (session_.kept(session_.book().passGate("licence", "confirmed")))
            session_.say(QStringLiteral("Kept: your word that band, mode and power are within your licence."),
                         VerdictState::pass);
    });
    addKey("region-one", "1", "1 2 3", "bands of an ITU region", [this] { takeRegion(1); });
    addRare("region-two", "2", "bands of region 2, the Americas", [this] { takeRegion(2); });
    addRare("region-three", "3", "bands of region 3, the rest of Asia and Oceania",
            [this] { takeRegion(3); });
    addKey("a-limit", "Down", "Up Down", "a limit", [this] { choose(1); });
    addRare("the-limit-before", "Up", "the limit before", [this] { choose(-1); });
    addKey("change-the-limit", "C", "C", "change it", [this] {
        if (at_ < int(limits_.size())) askLimit(&limits_[std::size_t(at_)]);
    });
    addKey("add-a-limit", "A", "A", "add one", [this] { askLimit(nullptr); });
    addKey("take-the-limit-out", "Delete", "Delete", "take it out", [this] { remove(); });
    addKey("mode-of-the-rig", "M", "M", "what the rig sends", [this] { turnMode(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void LicencePage::keep(const std::vector<BandLimit>& limits) {
    session_.kept(session_.book().prefer(std::string(kLicence), keptLimits(limits)));
}

void LicencePage::takeRegion(int region) {
    std::vector<BandLimit> out;
    for (const Allocation& a : session_.tables().allocations) {
        if (a.region == region) out.push_back({a.band, a.low, a.high, 0, ""});
    }
    keep(out);
    session_.say(QStringLiteral("%1 bands of region %2, from memory, November 2026. Now make them yours: "
                                "your country may give less. Z takes it back.")
                     .arg(out.size())
                     .arg(region),
                 VerdictState::doubtful);
}

void LicencePage::askLimit(const BandLimit* known) {
    const BandLimit before = known != nullptr ? *known : BandLimit();
    askText(QStringLiteral("Band, edges, power, modes"),
            known != nullptr ? qs(bandLimitText(*known)) : QStringLiteral("40m 7.0-7.2 MHz 100 W CW SSB"),
            [this, before](const QString& text) {
                const auto read = readBandLimit(text.toStdString());
                if (!read) return session_.say(qs(read.error().sentence), VerdictState::cannotTell);
                auto all = limits_;
                const auto hit = std::find(all.begin(), all.end(), before);
                if (hit != all.end())
                    *hit = *read;
                else
                    all.push_back(*read);
                std::stable_sort(all.begin(), all.end(), [](auto& a, auto& b) { return a.low < b.low; });
                keep(all);
            });
}

void LicencePage::remove() {
    if (at_ >= int(limits_.size())) return;
    auto all = limits_;
    all.erase(all.begin() + at_);
    keep(all);
}

void LicencePage::choose(int by) {
    const int count = int(limits_.size());
    if (count == 0) return;
    at_ = (at_ + by + count) % count;
    refresh();
}

void LicencePage::turnMode() {
    if (!session_.hasBuild()) return;
    const std::string now = rigMode(session_.build());
    std::size_t at = 0;
    for (std::size_t i = 0; i < std::size(kModes); ++i) {
        if (now == kModes[i]) at = i;
    }
    session_.kept(session_.book().choose(Choice::mode, kModes[(at + 1) % std::size(kModes)]));
}

void LicencePage::refresh() {
    if (!session_.hasBuild()) return;
    const Build& build = session_.build();
    limits_ = bandLimits(build.licence);
    lines_ = licenceLines(session_.judged());
    at_ = std::clamp(at_, 0, std::max(0, int(limits_.size()) - 1));
    const bool confirmed = build.gates.contains("licence");
    std::vector<VerdictState> states;
    std::vector<BandStrip::Row> rows;
    for (const LicenceLine& l : lines_) {
        states.push_back(l.verdict.state);
        const bool inHand = at_ < int(limits_.size()) && l.limit == limits_[std::size_t(at_)];
        rows.push_back({qs(bandCalled(session_.kit(), l.band)), l, inHand});
    }
    strip_->show(limits_.empty() ? std::vector<BandStrip::Row>() : rows);
    rig_->setVisible(!limits_.empty() && !rows.empty());
    const QString mode = qs(rigMode(build));
    if (!session_.kit().ratings.transmits()) {
        setNow(QStringLiteral("This kit promises no power: nothing is held against your limits."),
               QStringLiteral("Your limits stay in the book for the next one."));
    } else if (limits_.empty()) {
        setNow(QStringLiteral("Which region are you in: 1, 2 or 3?"),
               QStringLiteral("1 Europe, Africa, northern Asia; 2 the Americas; 3 the rest of Asia and "
                              "Oceania. Then make the bands yours."));
    } else if (worst(states) != VerdictState::pass) {
        const auto bad = std::find_if(lines_.begin(), lines_.end(),
                                      [](auto& l) { return l.verdict.state != VerdictState::pass; });
        setNow(QStringLiteral("%1: %2").arg(qs(bandCalled(session_.kit(), bad->band)),
                                            wordOf(bad->verdict.state)),
               qs(bad->verdict.sentence));
    } else {
        setNow(confirmed
                   ? QStringLiteral("It is inside your limits, and you have confirmed it.")
                   : QStringLiteral("It is inside your limits. Is it within your licence? Enter confirms."),
               QStringLiteral("It sends %1 (M): a signal of %2 about what is dialled.")
                   .arg(mode, qs(formatQuantity(bandwidthOf(rigMode(build)), Unit::hertz, 2))));
    }
    std::vector<StateLine> list;
    for (int i = 0; i < int(limits_.size()); ++i)
        list.push_back({VerdictState::notDone, qs(bandLimitText(limits_[std::size_t(i)])), QString(),
                        i == at_, false, true});
    list_->setLines(std::move(list));
    QString about;
    for (const LicenceLine& l : lines_) {
        if (l.limit && l.highest > l.lowest)
            about +=
                QStringLiteral("%1: dial from %2 to %3; it may be off by %4.\n")
                    .arg(qs(bandCalled(session_.kit(), l.band)), qs(formatQuantity(l.lowest, Unit::hertz, 8)),
                         qs(formatQuantity(l.highest, Unit::hertz, 8)),
                         qs(formatQuantity(l.error, Unit::hertz, 2)));
    }
    about_->setText(about + QStringLiteral("The bands are the Radio Regulations' (article 5), from memory: a "
                                           "start, not your licence. C writes "
                                           "your own edges, power and modes over a line; the rig's worst "
                                           "error and width are held against them."));
}

}  // namespace ombrek
