#include "desk/proof/filter_page.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "formats/files.h"
#include "formats/touchstone.h"
#include "look/plot.h"
#include "report/filter_plot.h"
#include "station/bands.h"

namespace ombrek {
namespace {

constexpr FileWish kCurveFile{"A curve of the analyser", "curve", "Touchstone (*.s1p *.s2p);;All files (*)"};
constexpr std::uintmax_t kLargest = 50000000;  ///< [bytes]
constexpr int kTrials = 10000;

bool same(const std::vector<FilterPart>& a, const std::vector<FilterPart>& b) {
    return a.size() == b.size() &&
           std::equal(a.begin(), a.end(), b.begin(), [](const auto& x, const auto& y) {
               return x.element == y.element && x.spread == y.spread;
           });
}

QString decibels(double value, int places = 1) {
    return qs(decimals(value, places)) + QStringLiteral("\u202fdB");
}

/// @param read  of finals as they are; of those that nobody read nothing can be told
VerdictState stateOf(const FilterBand& band, bool read) {
    if (band.trials == 0 || !read) return VerdictState::cannotTell;
    return band.chance > 0.95   ? VerdictState::pass
           : band.chance < 0.05 ? VerdictState::fail
                                : VerdictState::doubtful;
}

struct Reckoned {
    FilterBand band;
};

struct Told {
    std::vector<FilterPoint> points;
    std::vector<FilterStory> stories;
};

}  // namespace

FilterPage::FilterPage(Session& session)
    : Page(session, QStringLiteral("The low-pass")),
      number_(new BigNumber(64)),
      verdict_(new VerdictLine),
      plot_(new Plot),
      sheet_(new Card),
      advised_(new Card),
      parts_(new Card),
      told_(new Card),
      teach_(new Card),
      list_(new StateList),
      tales_(new StateList) {
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 2);
    row->addWidget(verdict_, 3);
    big()->addLayout(row);
    sheet_->addBody(plot_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("What the low-pass will do"));
    teach_->setText(
        QStringLiteral("From the parts you measured: what it loses at the carrier, what it leaves of each "
                       "harmonic before the key "
                       "goes down, and which coil to squeeze or spread. The kit must say its low-pass, "
                       "element by element, with the "
                       "value of each. A curve of an analyser (.s1p, .s2p) is taken here, too."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    advised_->setTitle(QStringLiteral("Which coil to bend"));
    side()->addWidget(advised_, 0);
    told_->setTitle(QStringLiteral("What its measured curve says"));
    told_->addBody(tales_, 0);
    side()->addWidget(told_, 0);
    parts_->setTitle(QStringLiteral("Its parts"));
    parts_->addBody(list_, 1);
    parts_->fillWithBody();
    side()->addWidget(parts_, 1);
    side()->addStretch(0);
    addKeys();
}

void FilterPage::addKeys() {
    setEnter("bend-it", "to that coil", [this] {
        const std::string ref = !more_.coils.empty() ? more_.coils.front()
                                : !advice_.empty()   ? advice_.front().ref
                                                     : std::string();
        if (!ref.empty()) emit wants(QStringLiteral("winding"), qs(ref));
    });
    addKey("aim", "A", "A", "for power or for suppression", [this] { aim(); });
    addKey("other-band", "N", "N", "next band", [this] { nextBand(); });
    addKey("a-curve", "T", "T", "a curve of the analyser",
           [this] { askToOpen(this, kCurveFile, [this](const QString& file) { openFile(file); }); });
    addKey("write-curve", "E", "E", "write it as .s2p", [this] { writeFile(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void FilterPage::begin(const QString& band) {
    band_ = bandNamed(session_.kit(), band.toStdString());
    refresh();
}

void FilterPage::nextBand() {
    if (session_.kit().ratings.bands.size() < 2)
        return session_.say(QStringLiteral("This kit has one band."), VerdictState::notDone);
    band_ = bandAfter(session_.kit(), band_);
    refresh();
}

void FilterPage::aim() {
    aim_ = aim_ == SqueezeFor::power ? SqueezeFor::suppression : SqueezeFor::power;
    refresh();
}

void FilterPage::writeFile() {
    if (filter_.empty()) return;
    writeOut(
        {"The low-pass as built", "curve", "Touchstone (*.s2p)"},
        QStringLiteral("low-pass%1.s2p").arg(band_.empty() ? QString() : QStringLiteral("-") + qs(band_)),
        [filter = filter_, question = question_] {
            Touchstone out;
            out.twoPort = true;
            out.ohms = question.load;
            out.frequencies = frequenciesFrom(question.carrier / 10, 6 * question.carrier, 1001);
            out.points = scatteringOf(networkOf(filter), out.frequencies, question.source, question.load)
                             .value_or(std::vector<Scattering>());
            out.frequencies.resize(out.points.size());
            return QByteArray::fromStdString(writeTouchstone(out, "low-pass, reckoned from its parts"));
        });
}

bool FilterPage::openFile(const QString& path) {
    return work().start<Result<Told>>(
        [path, filter = filterAsWanted(session_.kit(), band_), turns = turnsOf(session_.kit(), filter_),
         q = question_](const LongWork::Progress&) -> Result<Told> {
            if (filter.empty() || !(q.carrier > 0))
                return problem(
                    "", "The kit does not say its low-pass: there is nothing to hold a curve against.");
            const auto bytes = readFile(path.toStdString(), kLargest);
            if (!bytes) return tl::make_unexpected(bytes.error());
            const auto data = readTouchstone(*bytes, path.toStdString());
            if (!data) return tl::make_unexpected(data.error());
            if (!data->twoPort)
                return problem("", "A curve of a filter has two ports, .s2p: this one has one.");
            Told out;
            for (std::size_t i = 0; i < data->points.size(); ++i) {
                const double f = data->frequencies[i];
                if (f < q.carrier / 10 || f > 4 * q.carrier) continue;
                out.points.push_back({f, std::abs(data->points[i].s21), std::abs(data->points[i].s11)});
            }
            if (out.points.size() < 5)
                return problem("",
                               "It has fewer than five points from a tenth of the carrier to four times it.");
            out.stories = storiesOf(filter, turns, out.points, data->ohms, data->ohms);
            return out;
        },
        [this, band = band_, build = session_.build().id](const Result<Told>& told) {
            if (build != session_.build().id) return;
            if (!told) return session_.say(qs(told.error().text()), VerdictState::cannotTell);
            measured_ = told->points;
            stories_ = told->stories;
            storiesOf_ = band;
            refresh();
            const FilterStory& first = stories_.front();
            session_.say(first.ref.empty()
                             ? QStringLiteral("The curve fits the parts as they should be.")
                             : QStringLiteral("The curve says %1: %2.").arg(qs(first.ref), qs(first.what)),
                         first.ref.empty() ? VerdictState::pass : VerdictState::doubtful);
        });
}

/// Ten thousand filters of parts within their errors, off the window's thread.
void FilterPage::reckonBand() {
    if (filter_.empty() || same(reckoned_, filter_) || trying_.running()) return;
    const auto frequencies =
        frequenciesFrom(question_.carrier / 5, question_.carrier * (question_.harmonics + 1), 161);
    trying_.start<Reckoned>(
        [filter = filter_, q = question_, frequencies](const LongWork::Progress& progress) {
            return Reckoned{toleranceBand(filter, q, frequencies, kTrials, 1, progress)};
        },
        [this, filter = filter_](const Reckoned& out) {
            reckoned_ = filter;
            trials_ = out.band;
            refresh();
        });
}

void FilterPage::showPlot() {
    const bool wound = !more_.coils.empty(), bent = wound || !advice_.empty();
    sheet_->setTitle(
        QStringLiteral("%1What it lets through, %2")
            .arg(band_.empty() ? QString() : qs(band_) + QStringLiteral(": "),
                 wound  ? QStringLiteral("as built (thin) and with those turns")
                 : bent ? QStringLiteral("as built (thin) and with %1 bent").arg(qs(advice_.front().ref))
                        : QStringLiteral("as built")));
    plot_->show(filterPlot(filter_, question_, same(reckoned_, filter_) ? trials_ : FilterBand(),
                           wound  ? more_.filter
                           : bent ? advice_.front().filter
                                  : std::vector<LadderElement>(),
                           storiesOf_ == band_ ? measured_ : std::vector<FilterPoint>()));
}

void FilterPage::showAdvice() {
    std::vector<Fact> facts;
    const bool power = aim_ == SqueezeFor::power;
    if (!advice_.empty()) {
        const Squeeze& s = advice_.front();
        facts.push_back(
            {s.percent > 0 ? QStringLiteral("Squeeze") : QStringLiteral("Spread"),
             QStringLiteral("%1 by %2\u202f%").arg(qs(s.ref), qs(decimals(std::abs(s.percent), 1)))});
        facts.push_back(
            {QStringLiteral("Carrier loses"),
             QStringLiteral("%1, now %2").arg(decibels(s.after.loss, 2), decibels(s.before.loss, 2))});
        facts.push_back({QStringLiteral("Harmonic %1").arg(s.after.worstOrder),
                         QStringLiteral("%1 below, now %2")
                             .arg(decibels(s.after.worstMargin + question_.required, 1),
                                  decibels(s.before.worstMargin + question_.required, 1)),
                         s.after.worstMargin >= 0 ? VerdictState::pass : VerdictState::fail, true});
    }
    advised_->setFacts(facts);
    advised_->setText(
        advice_.empty()
            ? QStringLiteral("For %1: no coil gives more by being bent within ten per cent.")
                  .arg(power ? QStringLiteral("power") : QStringLiteral("suppression"))
            : QStringLiteral(
                  "For %1; A for the other. Together the turns: more inductance. Measure it again after.")
                  .arg(power ? QStringLiteral("most power") : QStringLiteral("most suppression")));
}

void FilterPage::showParts() {
    std::vector<StateLine> lines;
    for (const FilterPart& p : filter_) {
        const Unit unit = p.coil() ? Unit::henry : Unit::farad;
        lines.push_back({p.measured ? VerdictState::pass : VerdictState::notDone, qs(p.ref),
                         QStringLiteral("%1 \u00b1 %2\u202f%")
                             .arg(qs(formatQuantity(p.element.value, unit, 3)), qs(decimals(p.spread, 1))),
                         !advice_.empty() && advice_.front().ref == p.ref, false, false});
    }
    list_->setLines(std::move(lines));
}

void FilterPage::showStories() {
    const bool any = storiesOf_ == band_ && !stories_.empty();
    told_->setVisible(any);
    if (!any) return;
    std::vector<StateLine> lines;
    for (const FilterStory& s : stories_) {
        if (lines.size() == 4 || (s.odds < 0.02 && !lines.empty())) break;
        lines.push_back({VerdictState::notDone,
                         s.ref.empty() ? qs(s.what) : QStringLiteral("%1: %2").arg(qs(s.ref), qs(s.what)),
                         QStringLiteral("%1\u202f%").arg(qs(decimals(100 * s.odds, 0))), false, false, true});
    }
    tales_->setLines(std::move(lines));
    told_->setText(
        QStringLiteral("A filter is alike from both ends: a part may stand for its mirror image."));
}

void FilterPage::refresh() {
    if (!session_.hasBuild()) return;
    band_ = bandNamed(session_.kit(), band_);
    filter_ = filterAsBuilt(session_.kit(), session_.build(), band_);
    question_ = filterQuestion(session_.kit(), session_.build(), session_.profile(), 0, band_);
    if (!(question_.carrier > 0)) filter_.clear();
    const bool none = filter_.empty();
    for (QWidget* w : std::initializer_list<QWidget*>{number_, verdict_, sheet_, advised_, parts_})
        w->setVisible(!none);
    teach_->setVisible(none);
    if (none) {
        told_->setVisible(false);
        return setNow(QStringLiteral("This kit does not say its low-pass."),
                      QStringLiteral("A kit file lists it, element by element."));
    }
    figures_ = filterFigures(elementsOf(filter_), question_);
    advice_ = whichToSqueeze(filter_, question_, aim_);
    // Only of finals that were read: nobody winds for a guess.
    const bool short_ =
        figures_.worstMargin < 0 && (advice_.empty() || advice_.front().after.worstMargin < 0);
    more_ = aim_ == SqueezeFor::suppression && short_ && finalsRead()
                ? turnsToMeet(filter_, turnsOf(session_.kit(), filter_), question_)
                : TurnsMore();
    const bool known = same(reckoned_, filter_);
    number_->show(qs(decimals(figures_.worstMargin + question_.required, 1)),
                  QStringLiteral("dB, harmonic %1").arg(figures_.worstOrder));
    const VerdictState state = stateOf(known ? trials_ : FilterBand(), finalsRead());
    const bool read = finalsRead();
    const QString source = read ? QStringLiteral("With the finals as their harmonics were read.")
                           : question_.stage == Final::pushPull
                               ? QStringLiteral("Push-pull finals, taken at the worst.")
                               : QStringLiteral("Single-ended finals, taken at the worst.");
    verdict_->show(state, QStringLiteral("Reckoned, not read: %1 wanted. %2%3")
                              .arg(decibels(question_.required, 0),
                                   known && trials_.trials > 0
                                       ? QStringLiteral("Of %1 filters of such parts %2 in 100 keep it. ")
                                             .arg(trials_.trials)
                                             .arg(qs(decimals(100 * trials_.chance, 0)))
                                       : QString(),
                                   source));
    say();
    showPlot();
    showAdvice();
    showParts();
    showStories();
    reckonBand();
}

/// What the finals give at the harmonic that is worst was read.
bool FilterPage::finalsRead() const {
    const std::size_t at = std::size_t(figures_.worstOrder) - 2;
    return at < question_.finals.size() && std::isfinite(question_.finals[at]);
}

void FilterPage::say() {
    const auto below = [&](const FilterFigures& f) {
        return decibels(f.worstMargin + question_.required, 1);
    };
    if (!more_.coils.empty())
        return setNow(QStringLiteral("A turn more on %1.").arg(turnsMore()),
                      QStringLiteral(
                          "Squeezing is not enough. Its worst harmonic goes from %1 to %2 below, its loss at "
                          "the carrier from %3 to %4.")
                          .arg(below(figures_), below(more_.after), decibels(figures_.loss, 2),
                               decibels(more_.after.loss, 2)));
    if (figures_.worstMargin < 0 && !finalsRead() && aim_ == SqueezeFor::suppression)
        return setNow(
            QStringLiteral("Read harmonic %1 first.").arg(figures_.worstOrder),
            QStringLiteral("With finals at their worst %1 would be left below the carrier; what they really "
                           "give, one reading tells.")
                .arg(below(figures_)));
    if (!advice_.empty() && (figures_.worstMargin < 0 || aim_ == SqueezeFor::power)) {
        const Squeeze& s = advice_.front();
        return setNow(
            QStringLiteral("%1 %2 by %3\u202f%.")
                .arg(s.percent > 0 ? QStringLiteral("Squeeze") : QStringLiteral("Spread"), qs(s.ref),
                     qs(decimals(std::abs(s.percent), 1))),
            QStringLiteral(
                "Its loss at the carrier goes from %1 to %2, its worst harmonic from %3 to %4 below.")
                .arg(decibels(figures_.loss, 2), decibels(s.after.loss, 2), below(figures_), below(s.after)));
    }
    setNow(
        figures_.worstMargin >= 0
            ? QStringLiteral("The low-pass should keep the harmonics down.")
            : QStringLiteral("The low-pass leaves too much of harmonic %1.").arg(figures_.worstOrder),
        QStringLiteral("It loses %1 at the carrier. Reckoned from its parts: the analyser has the last word.")
            .arg(decibels(figures_.loss, 2)));
}

/// "L7 and L8", a turn each; "L7 (2) and L8" where one gets two.
QString FilterPage::turnsMore() const {
    std::map<std::string, int> count;
    for (const std::string& ref : more_.coils) ++count[ref];
    QStringList out;
    for (const auto& [ref, turns] : count)
        out << (turns == 1 ? qs(ref) : QStringLiteral("%1 (%2)").arg(qs(ref)).arg(turns));
    const QString last = out.takeLast();
    return out.isEmpty() ? last : out.join(QStringLiteral(", ")) + QStringLiteral(" and ") + last;
}

}  // namespace ombrek
