#include "desk/frequency/reference_page.h"

#include <algorithm>
#include <cmath>

#include <QRegularExpression>

#include "core/quantity/shown.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/verdict_line.h"
#include "formats/recording.h"
#include "look/plot.h"
#include "station/proof/frequencies.h"

namespace ombrek {
namespace {

constexpr FileWish kRecordingFile{"A recording of the beat", "recording",
                                  "Recordings (*.wav *.flac *.ogg);;All files (*)"};

/// Two frequencies in one line, the known one first; behind them how far that one may be off.
struct Pair {
    double known = 0, read = 0;
    double within = 0;  ///< [ppm]; 0: not said
};
std::optional<Pair> pairIn(const QString& text) {
    static const QRegularExpression behind(
        QStringLiteral("(?:\\s|±|\\+/-|\\+-)*([0-9]+(?:[.,][0-9]+)?|[.,][0-9]+)\\s*ppm\\s*$"),
        QRegularExpression::CaseInsensitiveOption);
    if (const auto said = behind.match(text); said.hasMatch()) {
        auto out = pairIn(text.left(said.capturedStart()));
        if (out) out->within = said.captured(1).replace(QChar(','), QChar('.')).toDouble();
        return out && out->within > 0 ? out : std::nullopt;
    }
    const QStringList words = text.simplified().split(QChar(' '), Qt::SkipEmptyParts);
    for (int cut = 1; cut < words.size(); ++cut) {
        const auto known = parseShown(words.mid(0, cut).join(QChar(' ')).toStdString(), Unit::hertz);
        const auto read = parseShown(words.mid(cut).join(QChar(' ')).toStdString(), Unit::hertz);
        if (known && read && known->value > 0 && read->value > 0) return Pair{known->value, read->value, 0};
    }
    return std::nullopt;
}

QString hertz(double value, int digits = 9) { return qs(formatQuantity(value, Unit::hertz, digits)); }

/// "−3.2 to 4.1 Hz"; of what two points say that nobody calls exact, the figure alone.
QString between(double middle, double low, double high, const char* unit) {
    if (std::isnan(low))
        return QStringLiteral("about %1\u202f%2")
            .arg(qs(decimals(middle, std::abs(middle) < 100 ? 1 : 0, true)), QString::fromUtf8(unit));
    const double widest = std::max(std::abs(low), std::abs(high));
    int places = widest < 1 ? 2 : widest < 100 ? 1 : 0;
    while (places < 2 && decimals(low, places) == decimals(high, places)) ++places;
    if (decimals(low, places) == decimals(high, places))
        return QStringLiteral("%1\u202f%2").arg(qs(decimals(middle, places, true)), QString::fromUtf8(unit));
    return QStringLiteral("%1 to %2\u202f%3")
        .arg(qs(decimals(low, places, true)), qs(decimals(high, places, true)), QString::fromUtf8(unit));
}

VerdictState stateOf(ReferenceFit::Verdict verdict) {
    switch (verdict) {
        case ReferenceFit::Verdict::neither:
            return VerdictState::pass;
        case ReferenceFit::Verdict::cannotTell:
            return VerdictState::cannotTell;
        default:
            return VerdictState::doubtful;
    }
}

/// What the counter is off, over the frequency.
PlotData errorPlot(const std::vector<KnownFrequency>& all, const ReferenceFit& fit) {
    PlotData out;
    out.xLabel = QStringLiteral("known frequency [MHz]");
    out.yLabel = QStringLiteral("read less known [Hz]");
    PlotData::Series dots{PlotData::Kind::dots, {}, {}}, line;
    double low = 0, high = 0, last = 1;
    for (const KnownFrequency& k : all) {
        dots.x.push_back(k.point.known / 1e6);
        dots.y.push_back(k.point.read - k.point.known);
        low = std::min(low, dots.y.back());
        high = std::max(high, dots.y.back());
        last = std::max(last, dots.x.back() * 1.1);
    }
    if (std::isfinite(fit.offset) && std::isfinite(fit.ppm)) {
        line.x = {0, last};
        line.y = {fit.offset, fit.offset + fit.ppm * last};
        low = std::min({low, line.y[0], line.y[1]});
        high = std::max({high, line.y[0], line.y[1]});
    }
    const double margin = std::max(0.1 * (high - low), 1.0);
    out.xHigh = last;
    out.yLow = low - margin;
    out.yHigh = high + margin;
    out.series = {line, dots};
    out.marks.push_back({false, 0, QStringLiteral("right"), true});
    return out;
}

}  // namespace

ReferencePage::ReferencePage(Session& session)
    : Page(session, QStringLiteral("The counter")),
      number_(new BigNumber(64)),
      verdict_(new VerdictLine),
      plot_(new Plot),
      sheet_(new Card),
      fit_(new Card),
      points_(new Card),
      teach_(new Card),
      list_(new StateList) {
    big()->addWidget(number_);
    big()->addWidget(verdict_);
    sheet_->setTitle(QStringLiteral("How far it reads off"));
    sheet_->addBody(plot_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("A counter is only as good as its reference"));
    teach_->setText(
        QStringLiteral("Count what you know: crystals far apart, a broadcast standard, a "
                       "satellite-disciplined source, a station whose "
                       "frequency is kept. Off by as many hertz at each is an offset of the counter's "
                       "arithmetic; off by as many parts "
                       "in a million is its reference.\n\nWith nothing better than crystals out of a bag "
                       "only go or no-go can be claimed. "
                       "A zero beat tells more: record ten seconds of the two carriers in one receiver, and "
                       "W counts how far they are "
                       "apart, to a tenth of a hertz."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(fit_, 0);
    points_->setTitle(QStringLiteral("Known frequencies"));
    points_->addBody(list_, 1);
    points_->fillWithBody();
    side()->addWidget(points_, 1);
    side()->addStretch(0);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(std::max(0, row));
        known_ = 0;
        refresh();
    });
}

void ReferencePage::addKeys() {
    setEnter("count-it", "count it", [this] { read(); });
    addKey("a-known-frequency", "A", "A", "a known frequency", [this] { askKnown(); });
    addKey("a-recording", "W", "W", "a recording of the beat",
           [this] { askToOpen(this, kRecordingFile, [this](const QString& file) { openFile(file); }); });
    addKey("choose-a-frequency", "Down", "Up Down", "a frequency", [this] { choose(1); });
    addKey(
        "the-frequency-before", "Up", "Up", "the frequency before", [this] { choose(-1); }, false);
    addRare("put-it-aside", "X", "put this one aside", [this] {
        const auto all = knownFrequencies(session_.build());
        if (at_ < all.size()) session_.kept(session_.book().beginAgain(all[at_].subject));
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

void ReferencePage::askKnown() {
    askText(QStringLiteral("What is known of it: a standard, a crystal, a station (10 MHz)"), QString(),
            [this](const QString& text) {
                const auto known = parseShown(text.toStdString(), Unit::hertz);
                if (!known || !(known->value > 0))
                    return session_.say(QStringLiteral("A frequency is a number with a unit: 10 MHz."),
                                        VerdictState::cannotTell);
                known_ = known->value;
                refresh();
            });
}

void ReferencePage::read() {
    const auto all = knownFrequencies(session_.build());
    const double known = known_ > 0 ? known_ : at_ < all.size() ? all[at_].point.known : 0;
    if (!(known > 0)) return askKnown();
    // On the practice bench the known frequency is what is put on the counter.
    Reading wanted{0, Subject::reference(decimals(known, 0)), 0, Unit::hertz, 0, {}, "", 0};
    session_.measure(Unit::hertz, wanted.subject, known, [this, wanted, known](Measured measured) mutable {
        wanted.value = measured.value;
        wanted.settings[std::string(kKnown)] = known;
        wanted.method = "counter";
        known_ = 0;
        session_.keep(wanted);
    });
}

void ReferencePage::keepTyped(const QString& text) {
    const auto pair = pairIn(text);
    if (!pair) return;
    Reading typed{0, Subject::reference(decimals(pair->known, 0)), pair->read, Unit::hertz, 0, {}, "typed",
                  0};
    typed.settings[std::string(kKnown)] = pair->known;
    if (pair->within > 0) typed.settings[std::string(kKnownWithin)] = pair->within;
    known_ = 0;
    session_.keep(typed);
}

bool ReferencePage::openFile(const QString& path) {
    return work().start<Result<Beat>>(
        [path](const LongWork::Progress&) -> Result<Beat> {
            const auto recording = readRecording(path.toStdString());
            if (!recording) return tl::make_unexpected(recording.error());
            return beatOf(recording->samples, recording->rate);
        },
        [this](const Result<Beat>& beat) {
            if (!beat) return session_.say(qs(beat.error().text()), VerdictState::cannotTell);
            beat_ = *beat;
            refresh();
            session_.say(qs(beat->sentence));
        });
}

void ReferencePage::choose(int by) {
    const int count = int(knownFrequencies(session_.build()).size());
    known_ = 0;
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void ReferencePage::showFit() {
    const ReferenceFit fit = counterOf(session_.build());
    const auto all = knownFrequencies(session_.build());
    std::vector<Fact> facts;
    if (std::isfinite(fit.offset)) {
        facts.push_back({QStringLiteral("Offset"), between(fit.offset, fit.offsetLow, fit.offsetHigh, "Hz")});
        facts.push_back({QStringLiteral("Reference"), between(fit.ppm, fit.ppmLow, fit.ppmHigh, "ppm")});
    }
    const double ppm = std::max(std::abs(fit.ppmLow), std::abs(fit.ppmHigh));
    if (beat_) {
        facts.push_back({QStringLiteral("Note"), qs(decimals(beat_->tone, 2)) + QStringLiteral("\u202fHz")});
        if (!std::isnan(beat_->slow))
            facts.push_back(
                {QStringLiteral("Beats at"), qs(decimals(beat_->slow, 2)) + QStringLiteral("\u202fHz")});
    }
    fit_->setTitle(QStringLiteral("What its readings are worth"));
    fit_->setFacts(facts);
    fit_->setText(
        QStringLiteral("What may be claimed: %1\n\n%2 An offset is taken "
                       "off each reading; a reference is trimmed. W counts a zero beat from a recording.")
            .arg(qs(claimOf(ppm)),
                 std::isfinite(fit.offset) && std::isnan(fit.ppmLow)
                     ? QStringLiteral("How exact the two known ones are was not said, so no limits can be "
                                      "given: type it behind them, 16M 16.00005M 50ppm.")
                     : QStringLiteral("19 of 20 times it lies between these.")));
    showSize(fit, all.size());
    verdict_->show(stateOf(fit.verdict), qs(fit.sentence));
    plot_->show(errorPlot(all, fit));
    sheet_->setVisible(!all.empty());
    teach_->setVisible(all.empty());
    points_->setVisible(!all.empty());
}

/// The one figure that matters: how far the reference is off, or the offset.
void ReferencePage::showSize(const ReferenceFit& fit, std::size_t points) {
    using Verdict = ReferenceFit::Verdict;
    if (points < 2 || fit.verdict == Verdict::cannotTell)
        return number_->showWord(QStringLiteral("cannot tell"));
    if (fit.verdict == Verdict::neither) return number_->showWord(QStringLiteral("reads right"));
    if (fit.verdict == Verdict::offset)
        return number_->show(qs(decimals(fit.offset, 1, true)), QStringLiteral("Hz, always"));
    number_->show(qs(decimals(fit.ppm, 2, true)), fit.verdict == Verdict::both
                                                      ? QStringLiteral("ppm, and an offset")
                                                      : QStringLiteral("ppm"));
}

void ReferencePage::showPoints() {
    const auto all = knownFrequencies(session_.build());
    at_ = std::min(at_, all.empty() ? 0 : all.size() - 1);
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < all.size(); ++i)
        lines.push_back(
            {VerdictState::notDone, hertz(all[i].point.known),
             qs(decimals(all[i].point.read - all[i].point.known, 1, true)) + QStringLiteral("\u202fHz"),
             i == at_, false, true});
    list_->setLines(std::move(lines));
}

void ReferencePage::refresh() {
    if (!session_.hasBuild()) return;
    const auto all = knownFrequencies(session_.build());
    if (known_ > 0)
        setNow(QStringLiteral("Put %1 on the counter and count it.").arg(hertz(known_)),
               QStringLiteral("Enter reads the counter; or type both: 10M 10.000123M."));
    else if (all.size() < 2)
        setNow(QStringLiteral("Count two frequencies that you know."),
               QStringLiteral(
                   "A names the known one, or type both: 16M 16.000050M. Far apart they tell an offset "
                   "from a wrong reference."));
    else
        setNow(QStringLiteral("%1 known frequencies: one more, far from them, tells more.").arg(all.size()),
               QStringLiteral(
                   "Type known, read, and how exact the known one is (50ppm); Enter counts the one in "
                   "hand anew; X puts it aside."));
    wantReading(
        QStringLiteral("Known, and what it reads"),
        [](const QString& text) {
            Session::Entered out;
            const auto pair = pairIn(text);
            if (!pair)
                out.trouble =
                    QStringLiteral("Two frequencies: the known one, then what is read, 10M 10.00012M.");
            if (pair)
                out.shows = QStringLiteral("%1%2 reads %3 Hz off")
                                .arg(hertz(pair->known),
                                     pair->within > 0 ? QStringLiteral(", ±%1,").arg(
                                                            qs(formatQuantity(pair->within, Unit::ppm, 3)))
                                                      : QString(),
                                     qs(decimals(pair->read - pair->known, 1, true)));
            return out;
        },
        [this](const QString& text) { keepTyped(text); });
    showFit();
    showPoints();
}

}  // namespace ombrek
