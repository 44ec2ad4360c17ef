#include "desk/frequency/dial_page.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/quantity/shown.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "report/dial_sheet.h"
#include "station/proof/frequencies.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

constexpr FileWish kSvgFile{"Write the dial to", "sheet", "SVG (*.svg)"};
constexpr double kUsualSweep = 180, kFineSteps = 6;  ///< degrees of a knob's half turn; readings over it

QString hertzOnDial(double value) { return qs(formatQuantity(value, Unit::hertz, 7)); }

struct TypedPoint {
    double position = 0, frequency = 0;
};
/// "30 7.012M": where the knob stands, then the frequency.
std::optional<TypedPoint> pointIn(const QString& text) {
    QString plain = text.simplified();
    plain.remove(QChar(0xb0));
    const auto position = parseQuantity(plain.section(QChar(' '), 0, 0).toStdString());
    const auto f = parseShown(plain.section(QChar(' '), 1).toStdString(), Unit::hertz);
    if (!position || !f || !(f->value > 0) || !(std::abs(position->value) <= 36000)) return std::nullopt;
    return TypedPoint{position->value, f->value};
}

/// The kit's own adjustment that sets where the range begins, with a coil whose circuit is known; null: none.
const Adjustment* startOf(const Kit& kit) {
    for (const Adjustment& a : kit.adjustments) {
        const Coil* coil = kit.coil(a.coil);
        if (a.sets() && a.unit == Unit::hertz && coil != nullptr && coil->tune) return &a;
    }
    return nullptr;
}

/// How the start would come to where it is wanted, when the dial is counted at the oscillator itself.
QString moveText(const Kit& kit, const Build& build, double low, double wanted) {
    const Adjustment* a = startOf(kit);
    const QString by =
        QStringLiteral("The start has to move by %1 kHz").arg(qs(decimals((wanted - low) / 1e3, 1, true)));
    if (a == nullptr) return by + QStringLiteral(".");
    const Coil& coil = *kit.coil(a->coil);
    const bool own = low > coil.tune->low / 1.5 && low < coil.tune->high * 1.5;
    if (!own)
        return by +
               QStringLiteral(": by as much at the oscillator, up or down as the mixer has it. %1 sets it.")
                   .arg(qs(a->adjuster));
    const RangeMove move = moveStart(low, wanted, tankOf(kit, *coil.tune), mainTurns(coil, build));
    return by + QStringLiteral(": %1 pF at %2, or %3 turns on %4.")
                    .arg(qs(decimals(move.capacitance * 1e12, 1, true)), qs(a->adjuster),
                         qs(decimals(move.turns, 1, true)), qs(coil.ref));
}

}  // namespace

DialView::DialView(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void DialView::show(std::optional<Dial> dial) {
    dial_ = std::move(dial);
    setAccessibleName(dial_ ? QStringLiteral("A dial of %1 marks").arg(dial_->marks.size())
                            : QStringLiteral("No dial yet"));
    update();
}

void DialView::paintEvent(QPaintEvent*) {
    if (!dial_) return;
    QPainter p(this);
    const QRectF box = dialBox(*dial_);
    const double scale = std::min(width() / box.width(), height() / box.height());
    const QSizeF size = box.size() * scale;
    const QRectF paper(QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size);
    p.fillRect(paper, Qt::white);  // it is paper, by night too
    p.setClipRect(paper);
    p.translate(paper.topLeft());
    p.scale(scale / 100, scale / 100);
    p.translate(-box.topLeft() * 100);
    paintDial(p, *dial_, QString());
}

DialPage::DialPage(Session& session)
    : Page(session, QStringLiteral("Range and dial")),
      view_(new DialView),
      sheet_(new Card),
      range_(new Card),
      points_(new Card),
      teach_(new Card),
      list_(new StateList) {
    shape_.sweep = 0;
    sheet_->setTitle(QStringLiteral("As it will be printed"));
    sheet_->addBody(view_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("From a counter and a knob to a dial of paper"));
    teach_->setText(
        QStringLiteral("Fix a scale of degrees, or a strip of millimetres, behind the knob. Turn to its end, "
                       "count the frequency, "
                       "and go on in even steps to the other end: five to seven places are enough, more "
                       "where the frequencies crowd."
                       "\n\nThe curve through them goes one way, as the knob does. The dial is drawn to "
                       "size, round or straight, its "
                       "marks at round frequencies, with a line of 50 mm to hold a rule against before you "
                       "cut.\n\nW says what you want "
                       "to tune: your habit, or the edges of your licence. Follow your local rules."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(range_, 0);
    points_->setTitle(QStringLiteral("Counted"));
    points_->addBody(list_, 1);
    points_->fillWithBody();
    side()->addWidget(points_, 1);
    side()->addStretch(0);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(std::max(0, row));
        refresh();
    });
}

void DialPage::addKeys() {
    setEnter("count-it-there", "count it there", [this] { read(); });
    addKey("the-knob-is-turned", "Right", "Left Right", "the knob is turned", [this] {
        position_ += kUsualSweep / kFineSteps;
        refresh();
    });
    addKey(
        "turned-back", "Left", "Left", "turned back",
        [this] {
            position_ -= kUsualSweep / kFineSteps;
            refresh();
        },
        false);
    addKey("what-is-wanted", "W", "W", "what is wanted", [this] { askWanted(); });
    addKey("round-or-straight", "S", "S", "round, straight", [this] {
        shape_.round = !shape_.round;
        shape_.size = shape_.round ? 60 : 120;
        refresh();
    });
    addKey("size", "G", "G", "size", [this] { askSize(); });
    addKey("write-pdf", "P", "P", "write PDF", [this] { write(false); });
    addRare("mirrored", "M", "mirrored, for the inside of a window", [this] {
        shape_.mirrored = !shape_.mirrored;
        refresh();
    });
    addRare("write-svg", "V", "write SVG", [this] { write(true); });
    addRare("the-next-point", "Down", "the next point", [this] { choose(1); });
    addRare("the-point-before", "Up", "the point before", [this] { choose(-1); });
    addRare("put-it-aside", "X", "put this point aside", [this] {
        const auto points = dialPointsOf(session_.build());
        if (at_ < points.size())
            session_.kept(session_.book().beginAgain(Subject::dial(decimals(points[at_].position, 3))));
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

Result<Dial> DialPage::dial() const { return dialOf(dialPointsOf(session_.build()), shape_); }

QString DialPage::titleText() const { return qs(session_.kit().name) + QStringLiteral(", MHz"); }

std::optional<A4Sheet> DialPage::sheet() {
    if (!session_.hasBuild()) return std::nullopt;
    const auto drawn = dial();
    if (!drawn) return std::nullopt;
    return dialSheet(*drawn, titleText());
}

void DialPage::write(bool svg) {
    const auto drawn = dial();
    if (!drawn) return session_.say(qs(drawn.error().text()), VerdictState::cannotTell);
    const QString name =
        qs(session_.kit().id) + (svg ? QStringLiteral("-dial.svg") : QStringLiteral("-dial.pdf"));
    writeOut(svg ? kSvgFile : kPdfFile, name, [drawn = *drawn, title = titleText(), svg] {
        return svg ? dialSvg(drawn, title) : pdfOf(dialSheet(drawn, title));
    });
}

void DialPage::keepTyped(const QString& text) {
    const auto point = pointIn(text);
    if (!point) return;
    Reading r{0, Subject::dial(decimals(point->position, 3)), point->frequency, Unit::hertz, 0, {}, "typed",
              0};
    r.settings[std::string(kPosition)] = point->position;
    position_ = point->position;
    session_.keep(r);
}

/// The practice rig's knob goes over half a turn.
void DialPage::read() {
    const double position = position_;
    const Subject subject = Subject::dial(decimals(position, 3));
    session_.measure(Unit::hertz, subject, std::clamp(position / kUsualSweep, 0.0, 1.0),
                     [this, position, subject](Measured measured) {
                         if (!(measured.value > 0) || !std::isfinite(measured.value)) return;
                         Reading r{0, subject, measured.value, Unit::hertz, 0, {}, "counter", 0};
                         r.settings[std::string(kPosition)] = position;
                         if (position_ == position && position < kUsualSweep)
                             position_ = position + kUsualSweep / kFineSteps;
                         session_.keep(r);
                     });
}

void DialPage::askWanted() {
    askText(QStringLiteral("What should it tune (7.000M 7.060M)"), QString(), [this](const QString& text) {
        if (!readRange(text.toStdString()))
            return session_.say(QStringLiteral("Two rising frequencies: 7.000M 7.060M."),
                                VerdictState::cannotTell);
        session_.kept(session_.book().choose(Choice::wantedRange, text.simplified().toStdString()));
    });
}

void DialPage::askSize() {
    askText(shape_.round ? QStringLiteral("Diameter of the ring of marks, 10 to 150 mm")
                         : QStringLiteral("Length of the scale, 20 to 180 mm"),
            QString(), [this](const QString& text) {
                QString plain = text;
                const auto size = parseQuantity(plain.remove(QStringLiteral("mm")).trimmed().toStdString());
                const double most = shape_.round ? 150 : 180, least = shape_.round ? 10 : 20;
                if (!size || !(size->value >= least) || !(size->value <= most))
                    return session_.say(QStringLiteral("A size is %1 to %2 mm.").arg(least).arg(most),
                                        VerdictState::cannotTell);
                shape_.size = size->value;
                refresh();
            });
}

void DialPage::choose(int by) {
    const int count = int(dialPointsOf(session_.build()).size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void DialPage::showRange(const Result<Dial>& drawn) {
    std::vector<Fact> facts;
    QString text;
    range_->setTitle(QStringLiteral("The range"));
    if (drawn) {
        facts = {{QStringLiteral("From"), hertzOnDial(drawn->low)},
                 {QStringLiteral("To"), hertzOnDial(drawn->high)},
                 {QStringLiteral("Marks at"), hertzOnDial(drawn->minor)},
                 {QStringLiteral("Words at"), hertzOnDial(drawn->major)},
                 {shape_.round ? QStringLiteral("Diameter") : QStringLiteral("Length"),
                  QStringLiteral("%1\u202fmm%2")
                      .arg(shape_.size)
                      .arg(shape_.mirrored ? QStringLiteral(", mirrored") : QString())}};
        if (const auto wanted = wantedRangeOf(session_.build())) {
            const RangeVerdict verdict = judgeRange(drawn->low, drawn->high, *wanted, true);
            facts.push_back({QStringLiteral("Wanted"),
                             qs(decimals(verdict.covered * 100, 0)) + QStringLiteral("\u202f% of it"),
                             verdict.state, true});
            text = qs(verdict.sentence);
            if (verdict.covered < 1 &&
                std::abs(drawn->low - wanted->low) < 0.02 * (wanted->high - wanted->low))
                text += QStringLiteral(
                    " It begins right; the knob's swing is too little: more of the variable "
                    "capacitance, or a wider voltage on its diode.");
            else if (verdict.covered < 1)
                text += QChar(' ') + moveText(session_.kit(), session_.build(), drawn->low, wanted->low);
        } else {
            text = QStringLiteral(
                "W says what is wanted: your habit, or your licence. Follow your local rules.");
        }
        QStringList checks;
        for (const DialMark& mark : toCheck(*drawn)) checks << qs(mark.label);
        text += QStringLiteral(" To check the finished dial: %1 MHz.").arg(checks.join(QStringLiteral(", ")));
    } else {
        text = qs(drawn.error().sentence);
    }
    range_->setFacts(facts);
    range_->setText(text);
}

void DialPage::showPoints() {
    const auto points = dialPointsOf(session_.build());
    at_ = std::min(at_, points.empty() ? 0 : points.size() - 1);
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < points.size(); ++i)
        lines.push_back({VerdictState::notDone,
                         QStringLiteral("at %1").arg(qs(decimals(points[i].position, 1))),
                         hertzOnDial(points[i].frequency), i == at_, false, true});
    list_->setLines(std::move(lines));
}

void DialPage::refresh() {
    if (!session_.hasBuild()) return;
    const auto points = dialPointsOf(session_.build());
    const auto drawn = dial();
    const QString here = QStringLiteral("%1\u00b0").arg(qs(decimals(position_, 0)));
    if (!drawn || points.size() < 4)
        setNow(QStringLiteral("Turn the knob to %1 and count.").arg(here),
               QStringLiteral(
                   "Enter counts it; or type where it stands and the frequency: 30 7.012M. Five to seven "
                   "over the whole turn make a dial."));
    else
        setNow(QStringLiteral("%1 points: the dial stands.").arg(points.size()),
               QStringLiteral(
                   "P writes it to size; hold a rule against its 50 mm before you cut. One more where the "
                   "curve bends most makes it better."));
    wantReading(
        QStringLiteral("Knob, and frequency"),
        [](const QString& text) {
            Session::Entered out;
            const auto point = pointIn(text);
            if (!point) out.trouble = QStringLiteral("Where the knob stands, then the frequency: 30 7.012M.");
            if (point)
                out.shows = QStringLiteral("%1: %2").arg(qs(decimals(point->position, 1)),
                                                         hertzOnDial(point->frequency));
            return out;
        },
        [this](const QString& text) { keepTyped(text); });
    view_->show(drawn ? std::optional(*drawn) : std::nullopt);
    sheet_->setVisible(drawn.has_value());
    teach_->setVisible(!drawn);
    points_->setVisible(!points.empty());
    showRange(drawn);
    showPoints();
}

}  // namespace ombrek
