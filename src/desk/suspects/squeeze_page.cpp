#include "desk/suspects/squeeze_page.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/shown.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/suspects/suspects_model.h"

namespace ombrek {
namespace {

constexpr double kSureOfPlace = 0.8;          ///< of the belief: the place is named
constexpr std::size_t kMostReadings = 20000;  ///< readings
constexpr std::size_t kShown = 40;

}  // namespace

SqueezePage::SqueezePage(Session& session)
    : Page(session, QStringLiteral("Works when squeezed")),
      placesCard_(new Card),
      readingsCard_(new Card),
      list_(new StateList),
      last_(new StateList) {
    readingsCard_->setTitle(QStringLiteral("Readings and presses, the last first"));
    readingsCard_->addBody(last_, 1);
    readingsCard_->fillWithBody();
    big()->addWidget(readingsCard_, 1);
    placesCard_->setTitle(QStringLiteral("Places, and their odds"));
    placesCard_->addBody(list_, 1);
    placesCard_->fillWithBody();
    side()->addWidget(placesCard_, 1);
    setEnter("take-a-reading", "take a reading", [this] { read(); });
    addKey("press-here", "Space", "Space", "I press here", [this] {
        if (at_ >= places_.size()) return session_.say(QStringLiteral("Name a place first: A."));
        press(now(), places_[at_]);
    });
    addKey("a-place", "A", "A", "name a place", [this] {
        askText(QStringLiteral("Where will you press?"), QString(),
                [this](const QString& place) { addPlace(place); });
    });
    addKey("choose-a-place", "Down", "Up Down", "a place", [this] { choose(1); });
    addKey(
        "the-place-before", "Up", "Up", "the place before", [this] { choose(-1); }, false);
    addKey("begin-again", "X", "X", "begin again", [this] {
        readings_.clear();
        presses_.clear();
        refresh();
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(list_, &StateList::picked, this, [this](int row) {
        if (std::size_t(row) < places_.size()) at_ = std::size_t(row);
        refresh();
    });
}

double SqueezePage::now() {
    if (!clock_.isValid()) clock_.start();
    return double(clock_.elapsed()) / 1000;
}

void SqueezePage::addPlace(const QString& typed) {
    const QString place = typed.simplified().left(40);
    if (place.isEmpty()) return;
    const auto same = std::find(places_.begin(), places_.end(), place);
    at_ = std::size_t(same - places_.begin());
    if (same == places_.end()) places_.push_back(place);
    refresh();
}

void SqueezePage::take(double at, double value) {
    if (std::isnan(value) || readings_.size() == kMostReadings) return;
    readings_.push_back({at, value});
    refresh();
}

void SqueezePage::press(double at, const QString& place) {
    addPlace(place);
    presses_.push_back({at, place.simplified().left(40).toStdString()});
    refresh();
}

/// The multimeter where it is; on the practice bench at the first voltage of the kit.
void SqueezePage::read() {
    const auto& checks = session_.kit().checks;
    const auto hit = std::find_if(checks.begin(), checks.end(),
                                  [](const Check& c) { return c.unit == Unit::volt && !c.yesNo(); });
    if (hit == checks.end()) return session_.say(QStringLiteral("Type what the meter says."));
    session_.measure(Unit::volt, Subject::check(hit->id), -1,
                     [this](const Measured& measured) { take(now(), measured.value); });
}

void SqueezePage::choose(int by) {
    const int count = int(places_.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void SqueezePage::refresh() {
    odds_ = placesByJumps(readings_, presses_);
    const auto jumps = jumpsOf(readings_);
    const PlaceOdds& first = odds_.front();
    const QString counted = QStringLiteral("%1 readings, %2 jumps, %3 presses. ")
                                .arg(readings_.size())
                                .arg(jumps.size())
                                .arg(presses_.size());
    if (!first.place.empty() && first.odds >= kSureOfPlace) {
        setNow(
            QStringLiteral("%1: it jumps when you press there, %2 sure.")
                .arg(qs(first.place), qs(oddsText(first.odds))),
            counted +
                QStringLiteral(
                    "Power off. Reflow what is there, look for a cracked track; W on F4 keeps the repair."));
    } else {
        setNow(places_.empty() ? QStringLiteral("Name the places where you will press: A.")
                               : QStringLiteral("Read on, and press: Space at %1.").arg(places_[at_]),
               counted + QStringLiteral(
                             "Enter takes a reading, or type it. An insulated stick, one hand; press each "
                             "place a few times."));
    }
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < places_.size(); ++i) {
        const auto row = std::find_if(odds_.begin(), odds_.end(), [&](const PlaceOdds& p) {
            return p.place == places_[i].toStdString();
        });
        const QString right = row == odds_.end() ? QStringLiteral("not pressed")
                                                 : QStringLiteral("%1 of %2, %3")
                                                       .arg(row->jumps)
                                                       .arg(row->presses)
                                                       .arg(qs(oddsText(row->odds)));
        lines.push_back({VerdictState::notDone, places_[i], right, i == at_, false, true});
    }
    if (!presses_.empty())
        lines.push_back({VerdictState::notDone, QStringLiteral("none of them"),
                         qs(oddsText(odds_.back().odds)), false, false, true});
    list_->setLines(std::move(lines));
    lines.clear();
    std::size_t p = presses_.size();
    for (std::size_t i = readings_.size(); i-- > 0 && lines.size() < kShown;) {
        for (; p > 0 && presses_[p - 1].at > readings_[i].at; --p)
            lines.push_back({VerdictState::notDone,
                             QStringLiteral("pressed: %1").arg(qs(presses_[p - 1].place)),
                             qs(decimals(presses_[p - 1].at, 1)) + QStringLiteral(" s"), false, false, true});
        const bool jump = std::find(jumps.begin(), jumps.end(), readings_[i].at) != jumps.end();
        lines.push_back({jump ? VerdictState::doubtful : VerdictState::notDone,
                         qs(formatQuantity(readings_[i].value, Unit::volt, 4)) +
                             (jump ? QStringLiteral(", a jump") : QString()),
                         qs(decimals(readings_[i].at, 1)) + QStringLiteral(" s"), false, false, !jump});
    }
    last_->setLines(std::move(lines));
    wantReading(
        QStringLiteral("It reads"),
        [](const QString& text) {
            Session::Entered out;
            const auto shown = parseShown(text.toStdString(), Unit::volt);
            if (!shown) out.trouble = qs(shown.error().sentence);
            if (shown) out.shows = qs(shownText(*shown, Unit::volt));
            return out;
        },
        [this](const QString& text) {
            if (const auto shown = parseShown(text.toStdString(), Unit::volt)) take(now(), shown->value);
        });
}

}  // namespace ombrek
