#include "desk/proof/spectrum_page.h"

#include <algorithm>
#include <cmath>

#include "core/text/counted.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "formats/files.h"
#include "formats/trace_csv.h"
#include "report/trace_plot.h"
#include "station/bands.h"
#include "station/proof/frequencies.h"

namespace ombrek {
namespace {

constexpr FileWish kTraceFile{"A trace of the analyser", "trace",
                              "Traces (*.csv *.txt *.tsv);;All files (*)"};
constexpr std::uintmax_t kLargestTrace = 200000000;  ///< [bytes]

QString hertz(double value) { return qs(formatQuantity(value, Unit::hertz, 5)); }

/// The peak that comes nearest to the limit, or over it; −1: there is none.
int worstOf(const Spectrum& s) {
    int out = -1;
    for (int i = 0; i < int(s.peaks.size()); ++i) {
        const TracePeak& p = s.peaks[std::size_t(i)];
        if (p.seen && (out < 0 || p.below < s.peaks[std::size_t(out)].below)) out = i;
    }
    return out;
}

}  // namespace

SpectrumPage::SpectrumPage(Session& session)
    : Page(session, QStringLiteral("The spectrum")),
      number_(new BigNumber(64)),
      verdict_(new VerdictLine),
      plot_(new Plot),
      sheet_(new Card),
      peaks_(new Card),
      teach_(new Card),
      list_(new StateList) {
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 2);
    row->addWidget(verdict_, 3);
    big()->addLayout(row);
    sheet_->addBody(plot_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("What leaves the antenna socket"));
    teach_->setText(
        QStringLiteral("An analyser writes its trace as a file: frequencies and levels, in any dialect of "
                       "CSV. Enter opens it, or drop it "
                       "here. Its peaks are named, as harmonics or as products of the rig's oscillators, "
                       "held against the limit you chose, "
                       "and its harmonics kept as readings of the band.\n\nFrom the carrier to its third "
                       "harmonic at least; a second one with "
                       "10 dB more attenuation tells what the analyser makes itself; a narrow one about the "
                       "carrier shows hum and width. "
                       "Never a transmitter straight into an analyser."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    peaks_->addBody(list_, 1);
    peaks_->fillWithBody();
    side()->addWidget(peaks_, 1);
    side()->addStretch(0);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int r) {
        at_ = r;
        refresh();
    });
}

void SpectrumPage::addKeys() {
    setEnter("open-a-trace", "open a trace",
             [this] { askToOpen(this, kTraceFile, [this](const QString& file) { openFile(file); }); });
    addKey("other-band", "N", "N", "next band", [this] { nextBand(); });
    addKey("choose-a-peak", "Down", "Up Down", "a peak", [this] { choose(1); });
    addKey(
        "the-peak-before", "Up", "Up", "the peak before", [this] { choose(-1); }, false);
    addKey("nearer", "+", "+ \u2212", "nearer, farther", [this] { zoom(0.5); });
    addKey(
        "farther", "-", "\u2212", "farther", [this] { zoom(2); }, false);
    addKey("to-the-right", "Right", "Left Right", "along it", [this] { pan(0.25); });
    addKey(
        "to-the-left", "Left", "Left", "back along it", [this] { pan(-0.25); }, false);
    addRare("all-of-it", "Home", "all of it", [this] { whole(); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void SpectrumPage::begin(const QString& band) {
    if (hasBand(session_.kit(), band.toStdString())) band_ = band.toStdString();
    refresh();
}

void SpectrumPage::nextBand() {
    if (session_.kit().ratings.bands.size() < 2)
        return session_.say(QStringLiteral("This kit has one band."), VerdictState::notDone);
    band_ = bandAfter(session_.kit(), band_);
    refresh();
}

bool SpectrumPage::openFile(const QString& path) {
    const Kit& kit = session_.kit();
    if (!session_.hasBuild() || !kit.ratings.transmits()) {
        session_.say(
            QStringLiteral("A trace is held against what the kit promises: Ins on Proof writes that first."),
            VerdictState::cannotTell);
        return false;
    }
    const Ratings rated = kit.ratings.on(band_);
    SpectrumQuestion q;
    q.carrier = rated.frequency;
    q.watts = rated.power;
    q.profile = session_.profile();
    q.harmonics = rated.harmonics;
    q.oscillators = oscillatorsOf(kit);
    return work().start<Result<Read>>(
        [path, q](const LongWork::Progress&) -> Result<Read> {
            const auto bytes = readFile(path.toStdString(), kLargestTrace);
            if (!bytes) return tl::make_unexpected(bytes.error());
            auto trace = readTrace(*bytes, q.carrier);
            if (!trace) return tl::make_unexpected(trace.error());
            auto out = std::make_shared<Shown>();
            out->points = std::move(*trace);
            std::stable_sort(out->points.begin(), out->points.end(),
                             [](const auto& a, const auto& b) { return a.hertz < b.hertz; });
            if (isCloseIn(out->points, q.carrier))
                out->closeIn = judgeCloseIn(out->points, q.carrier, Emission::carrier);
            out->spectrum = judgeSpectrum(out->points, q);
            return Read(out);
        },
        [this, build = session_.build().id, on = band_](const Result<Read>& read) {
            if (build != session_.build().id) return;
            if (!read) return session_.say(qs(read.error().text()), VerdictState::cannotTell);
            take(*read, on);
        });
}

/// What was opened is shown; where it covers harmonics they are kept. Without the carrier it is no trace of
/// this rig.
void SpectrumPage::take(Read read, const std::string& band) {
    if (!(read->spectrum.carrier.hertz > 0))
        return session_.say(qs(read->spectrum.sentence), VerdictState::cannotTell);
    const Read before = shownBand_ == band && shownBuild_ == session_.build().id ? shown_ : nullptr;
    shown_ = std::move(read);
    shownBand_ = band;
    shownBuild_ = session_.build().id;
    at_ = worstOf(shown_->spectrum);
    low_ = shown_->points.front().hertz;
    high_ = shown_->points.back().hertz;
    if (shown_->closeIn) {
        session_.say(qs(shown_->closeIn->sentence), shown_->closeIn->state);
        return refresh();
    }
    keepHarmonics(shown_->spectrum, band);
    // A second trace, with another attenuation: what moved against the carrier.
    const auto own = before ? ownProducts(before->spectrum, shown_->spectrum) : std::vector<TracePeak>();
    if (!own.empty())
        session_.say(
            QStringLiteral("%1 fell against the carrier since the last trace: it was the analyser's own.")
                .arg(qs(own.front().name)),
            VerdictState::doubtful);
    refresh();
}

/// Its harmonics as readings. One that is not seen is kept where the noise is low enough to prove the limit;
/// where it is not, it is no reading at all.
void SpectrumPage::keepHarmonics(const Spectrum& spectrum, const std::string& band) {
    QStringList hidden, others;
    std::vector<Reading> readings;
    for (const TracePeak& p : spectrum.peaks) {
        if (p.harmonic < 2 || p.harmonic > session_.kit().ratings.harmonics) {
            if (p.state != VerdictState::pass)
                others << QStringLiteral("%1 at %2").arg(qs(p.name), hertz(p.hertz));
            continue;
        }
        if (!p.seen && p.state != VerdictState::pass) {
            hidden << qs(p.name);
            continue;
        }
        Reading reading{0,
                        Subject::harmonic(p.harmonic, band),
                        p.below,
                        Unit::decibel,
                        SpectrumQuestion().uncertainty,
                        {},
                        std::string(kByTrace),
                        0};
        reading.beyond = !p.seen;  // it is so far below, or farther
        readings.push_back(reading);
    }
    if (!session_.keep(readings)) return;
    QString line = qs(spectrum.sentence) +
                   QStringLiteral(" %1 kept.").arg(qs(counted(std::int64_t(readings.size()), "harmonic")));
    if (!hidden.isEmpty())
        line +=
            QStringLiteral(" Lost in the noise: %1; less attenuation, within the analyser's limit, tells.")
                .arg(hidden.join(QStringLiteral(", ")));
    if (!others.isEmpty())
        line += QStringLiteral(" Not below the limit: %1.").arg(others.join(QStringLiteral(", ")));
    session_.say(line, spectrum.state);
}

void SpectrumPage::choose(int by) {
    if (!shown_ || shown_->spectrum.peaks.empty()) return;
    const int count = int(shown_->spectrum.peaks.size());
    at_ = at_ < 0 ? 0 : (at_ + by + count) % count;
    const double f = shown_->spectrum.peaks[std::size_t(at_)].hertz;
    if (f < low_ || f > high_) pan((f - (low_ + high_) / 2) / (high_ - low_));
    refresh();
}

/// About the peak in hand, else about the middle.
void SpectrumPage::zoom(double factor) {
    if (!shown_) return;
    const double first = shown_->points.front().hertz, last = shown_->points.back().hertz;
    double middle = (low_ + high_) / 2;
    if (factor < 1 && at_ >= 0 && at_ < int(shown_->spectrum.peaks.size()))
        middle = shown_->spectrum.peaks[std::size_t(at_)].hertz;
    const double least = (last - first) / double(std::max<std::size_t>(shown_->points.size(), 2)) * 8;
    const double half = std::clamp((high_ - low_) * factor, std::min(least, last - first), last - first) / 2;
    middle = std::clamp(middle, first + half, last - half);
    low_ = middle - half;
    high_ = middle + half;
    refresh();
}

void SpectrumPage::pan(double part) {
    if (!shown_) return;
    const double wide = high_ - low_;
    low_ = std::clamp(low_ + part * wide, shown_->points.front().hertz, shown_->points.back().hertz - wide);
    high_ = low_ + wide;
    refresh();
}

void SpectrumPage::whole() {
    if (!shown_) return;
    low_ = shown_->points.front().hertz;
    high_ = shown_->points.back().hertz;
    refresh();
}

void SpectrumPage::showTrace() {
    const Spectrum& s = shown_->spectrum;
    sheet_->setTitle(
        QStringLiteral("%1%2 to %3")
            .arg(band_.empty() ? QString() : qs(band_) + QStringLiteral(": "), hertz(low_), hertz(high_)));
    plot_->show(tracePlot(shown_->points, s, low_, high_, at_));
    if (shown_->closeIn) {
        const CloseIn& c = *shown_->closeIn;
        number_->show(qs(decimals(c.bandwidth, 0)), QStringLiteral("Hz wide"));
        verdict_->show(c.state, qs(c.sentence));
        return;
    }
    const int worst = worstOf(s);
    if (worst < 0)
        number_->showWord(QStringLiteral("clean"));
    else
        number_->show(qs(decimals(s.peaks[std::size_t(worst)].below, 1)), QStringLiteral("dB below"));
    verdict_->show(s.state, qs(s.sentence));
}

void SpectrumPage::showPeaks() {
    std::vector<StateLine> lines;
    if (shown_->closeIn) {
        peaks_->setTitle(QStringLiteral("Beside the carrier"));
        for (const CloseLine& line : shown_->closeIn->lines)
            lines.push_back(
                {VerdictState::notDone,
                 qs(decimals(line.offset, 0, true)) + QStringLiteral("\u202fHz  ") + qs(line.name),
                 qs(decimals(line.below, 0)) + QStringLiteral("\u202fdB"), false, false, true});
    } else {
        peaks_->setTitle(QStringLiteral("Peaks, below the carrier"));
        for (int i = 0; i < int(shown_->spectrum.peaks.size()); ++i) {
            const TracePeak& p = shown_->spectrum.peaks[std::size_t(i)];
            lines.push_back({p.state, QStringLiteral("%1  %2").arg(hertz(p.hertz), qs(p.name)),
                             (p.seen ? QString() : QStringLiteral("over ")) + qs(decimals(p.below, 1)) +
                                 QStringLiteral("\u202fdB"),
                             i == at_, false, false});
        }
    }
    list_->setLines(std::move(lines));
}

void SpectrumPage::refresh() {
    if (!session_.hasBuild()) return;
    band_ = bandNamed(session_.kit(), band_);
    const bool any = shown_ && shownBand_ == band_ && shownBuild_ == session_.build().id;
    for (QWidget* w : std::initializer_list<QWidget*>{number_, verdict_, sheet_, peaks_}) w->setVisible(any);
    teach_->setVisible(!any);
    const QString on = band_.empty() ? QString() : QStringLiteral(" of %1").arg(qs(band_));
    if (!any)
        return setNow(
            QStringLiteral("Open a trace%1.").arg(on),
            QStringLiteral("The analyser's own file, through the attenuator; Enter, or drop it here."));
    at_ = std::min(at_, int(shown_->spectrum.peaks.size()) - 1);
    const VerdictState state = shown_->closeIn ? shown_->closeIn->state : shown_->spectrum.state;
    if (shown_->closeIn)
        setNow(state == VerdictState::pass
                   ? QStringLiteral("Close about its carrier%1 it is clean.").arg(on)
                   : QStringLiteral("Look at what stands about the carrier%1.").arg(on),
               QStringLiteral(
                   "Of its harmonics a narrow trace says nothing. Your own regulator's rules decide."));
    else
        setNow(state == VerdictState::pass   ? QStringLiteral("The spectrum%1 is clean.").arg(on)
               : state == VerdictState::fail ? QStringLiteral("The spectrum%1 is not clean.").arg(on)
                                             : QStringLiteral("This trace%1 does not tell all.").arg(on),
               QStringLiteral("Plus and minus go nearer and farther. Your own regulator's rules decide."));
    showTrace();
    showPeaks();
}

}  // namespace ombrek
