#include "desk/frequency/crystals_page.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/shown.h"
#include "desk/frequency/crystal_line.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"

namespace ombrek {
namespace {

constexpr double kNearMark = 100;  ///< off its mark that is still its mark [ppm] (common practice, unloaded)
constexpr std::size_t kMostSize = 16;

/// To the hertz, so that they stand under each other.
QString hertz(double value) { return qs(decimals(value / 1e6, 6)) + QStringLiteral("\u202fMHz"); }
QString letter(std::size_t set) {
    return set < 26 ? QString(QChar('A' + char(set))) : QString::number(set + 1);
}

}  // namespace

CrystalsPage::CrystalsPage(Session& session)
    : Page(session, QStringLiteral("Crystals")),
      line_(new CrystalLine),
      number_(new BigNumber(64)),
      sheet_(new Card),
      one_(new Card),
      all_(new Card),
      teach_(new Card),
      list_(new StateList) {
    big()->addWidget(number_);
    sheet_->addBody(line_, 1);
    sheet_->fillWithBody();
    big()->addWidget(sheet_, 1);
    teach_->setTitle(QStringLiteral("From a bag of crystals to a filter's set"));
    teach_->setText(
        QStringLiteral("Put one after another into the same oscillator, count it, and write its number on "
                       "the can. Hold it by its "
                       "leads: a warm finger moves it by tens of hertz.\n\nThe closest sets are shown as "
                       "soon as there are enough. "
                       "Counted again with 30 pF in series (4.914790M 30p) a crystal tells motional C and L, "
                       "which the filter's "
                       "design asks for; Q takes what it loses between two resistances.\n\nSalvaged ones: M "
                       "says what is marked on "
                       "them, and each is a go or not; N is one that does not start. A list of numbers and "
                       "frequencies may be pasted."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    side()->addWidget(one_, 2);
    all_->setTitle(QStringLiteral("The batch"));
    all_->addBody(list_, 1);
    all_->fillWithBody();
    side()->addWidget(all_, 3);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        at_ = std::size_t(std::max(0, row));
        refresh();
    });
}

void CrystalsPage::addKeys() {
    setEnter("count-the-next", "count the next", [this] { measure(); });
    addKey("how-many-in-a-set", "S", "S", "how many in a set", [this] { askSize(); });
    addKey("what-is-marked", "M", "M", "what is marked on them", [this] { askMark(); });
    addKey("what-it-loses", "Q", "Q", "what it loses", [this] {
        askText(QStringLiteral("%1: loss at its series frequency, and between which resistances (2.1 dB 50)")
                    .arg(inHand()),
                QString(), [this](const QString& text) { keepLoss(text); });
    });
    addKey("does-not-start", "N", "N", "the next does not start", [this] { keep({nextId(), 0, 0}, "seen"); });
    addKey("choose-a-crystal", "Down", "Up Down", "a crystal", [this] { choose(1); });
    addKey(
        "the-crystal-before", "Up", "Up", "the crystal before", [this] { choose(-1); }, false);
    addRare("the-carrier", "T", "the carrier against the filter's passband", [this] { askCarrier(); });
    addRare("put-it-aside", "X", "put this one aside", [this] {
        if (at_ < batch_.size()) session_.kept(session_.book().beginAgain(Subject::crystal(batch_[at_].id)));
    });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

QString CrystalsPage::nextId() const {
    int most = 0;
    for (const BatchCrystal& c : batch_) most = std::max(most, qs(c.id).toInt());
    return QString::number(most + 1);
}

QString CrystalsPage::inHand() const { return at_ < batch_.size() ? qs(batch_[at_].id) : nextId(); }

std::optional<CrystalsPage::Typed> CrystalsPage::typed(const QString& text) const {
    Typed out;
    for (const QString& word : text.simplified().split(QChar(' '), Qt::SkipEmptyParts)) {
        const auto farads = partQuantity(word.toStdString());
        const auto f = parseShown(word.toStdString(), Unit::hertz, marked_ > 0 ? marked_ : 0);
        if (farads && farads->unit == Unit::farad) {
            if (!(farads->value > 0)) return std::nullopt;
            out.load = farads->value;
        } else if (f && f->value > 1000) {
            if (out.frequency > 0) return std::nullopt;
            out.frequency = f->value;
        } else if (out.id.isEmpty() && word.size() <= 12) {
            out.id = word;
        } else {
            return std::nullopt;
        }
    }
    if (!(out.frequency > 0)) return std::nullopt;
    if (out.id.isEmpty()) out.id = out.load > 0 ? inHand() : nextId();
    return out;
}

void CrystalsPage::keep(const Typed& t, const char* method) {
    const Unit unit = t.frequency > 0 ? Unit::hertz : Unit::none;  // without a frequency: it does not start
    Reading reading{0, Subject::crystal(t.id.toStdString()), t.frequency, unit, 0, {}, method, 0};
    if (t.load > 0) reading.settings[std::string(kLoad)] = t.load;
    if (!session_.keep(reading)) return;
    const auto hit =
        std::find_if(batch_.begin(), batch_.end(), [&](const BatchCrystal& c) { return qs(c.id) == t.id; });
    if (hit != batch_.end()) at_ = std::size_t(hit - batch_.begin());
    refresh();
}

void CrystalsPage::keepLoss(const QString& text) {
    const QStringList words = QString(text).remove(QStringLiteral("dB")).simplified().split(QChar(' '));
    const auto loss = parseQuantity(words.value(0).toStdString());
    const auto ohms = parseQuantity(words.value(1).toStdString(), Unit::ohm);
    if (at_ >= batch_.size() || !loss || !ohms || !(std::abs(loss->value) > 0) || !(ohms->value > 0))
        return session_.say(QStringLiteral("A loss in dB, and the resistance on either side: 2.1 dB 50."),
                            VerdictState::cannotTell);
    Reading reading{0, Subject::crystal(batch_[at_].id), batch_[at_].frequency, Unit::hertz, 0, {}, "typed",
                    0};
    reading.settings = {{std::string(kLoss), std::abs(loss->value)}, {std::string(kBetween), ohms->value}};
    session_.keep(reading);
}

/// Lines of a number and a frequency, as a batch is written down.
bool CrystalsPage::takeText(const QString& text) {
    std::vector<Typed> all;
    for (const QString& line : text.split(QChar('\n'), Qt::SkipEmptyParts)) {
        QString plain = line;
        plain.replace(QChar(';'), QChar(' ')).replace(QChar('\t'), QChar(' '));
        const auto t = typed(plain);
        if (!t) continue;
        all.push_back(*t);
        if (t->id == nextId()) all.back().id.clear();  // those without a number are numbered as they come
    }
    if (all.empty()) return false;
    for (Typed& t : all) {
        if (t.id.isEmpty()) t.id = nextId();
        keep(t, "typed");
    }
    session_.say(QStringLiteral("%1 crystals taken.").arg(all.size()));
    return true;
}

void CrystalsPage::measure() {
    const QString id = nextId();
    session_.measure(Unit::hertz, Subject::crystal(id.toStdString()), -1, [this, id](Measured measured) {
        if (measured.value > 0 && std::isfinite(measured.value)) keep({id, measured.value, 0}, "counter");
    });
}

void CrystalsPage::choose(int by) {
    const int count = int(batch_.size());
    if (count > 0) at_ = std::size_t((int(at_) + by + count) % count);
    refresh();
}

void CrystalsPage::askMark() {
    askText(QStringLiteral("Marked on them (4.915 MHz)"), QString(), [this](const QString& text) {
        const auto mark = parseShown(text.toStdString(), Unit::hertz);
        if (!mark || !(mark->value > 1000))
            return session_.say(QStringLiteral("A frequency is a number with a unit: 4.915 MHz."),
                                VerdictState::cannotTell);
        marked_ = mark->value;
        refresh();
    });
}

/// Three frequencies: the carrier, and where the filter's passband begins and ends.
void CrystalsPage::askCarrier() {
    askText(
        QStringLiteral("The carrier, and the passband from and to (4.9131M 4.9134M 4.9158M)"), QString(),
        [this](const QString& text) {
            std::vector<double> f;
            for (const QString& word : text.simplified().split(QChar(' '), Qt::SkipEmptyParts)) {
                const auto value = parseShown(word.toStdString(), Unit::hertz);
                if (value && value->value > 1000) f.push_back(value->value);
            }
            if (f.size() != 3 || !(f[2] > f[1]))
                return session_.say(QStringLiteral("Three frequencies: carrier, passband from, to."),
                                    VerdictState::cannotTell);
            const double outside = carrierOutside(f[0], f[1], f[2]);
            session_.say(
                outside < 0
                    ? QStringLiteral("The carrier lies in the passband, %1 Hz inside: it is let through, and "
                                     "low notes sound double. Move it out.")
                          .arg(std::lround(-outside))
                    : QStringLiteral("The carrier lies %1 Hz outside the passband; usual is where the "
                                     "filter's side is 20 dB down.")
                          .arg(std::lround(outside)),
                outside < 0 ? VerdictState::doubtful : VerdictState::notDone);
        });
}

void CrystalsPage::askSize() {
    askText(QStringLiteral("How many crystals in a filter (2 to 16)"), QString::number(size_),
            [this](const QString& text) {
                const int n = text.trimmed().toInt();
                if (n < 2 || n > int(kMostSize))
                    return session_.say(QStringLiteral("A set has 2 to 16 crystals."),
                                        VerdictState::cannotTell);
                size_ = std::size_t(n);
                refresh();
            });
}

void CrystalsPage::showSets() {
    std::vector<MeasuredCrystal> measured;
    for (const BatchCrystal& c : batch_)
        if (c.frequency > 0) measured.push_back({c.id, c.frequency});
    const auto sets = crystalSets(measured, size_);
    std::vector<LinedCrystal> lined;
    for (const MeasuredCrystal& m : measured)
        lined.push_back({qs(m.id), m.frequency, -1, qs(m.id) == inHand()});
    QStringList words;
    for (std::size_t s = 0; s < sets.size(); ++s) {
        for (const std::size_t i : sets[s].at) lined[i].set = int(s);
        words << QStringLiteral("%1: %2\u202fHz").arg(letter(s), qs(decimals(sets[s].spread, 0)));
    }
    sheet_->setTitle(sets.empty() ? QStringLiteral("Along their frequency")
                                  : QStringLiteral("Sets of %1, the closest first").arg(size_));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < batch_.size(); ++i) {
        const BatchCrystal& c = batch_[i];
        QString right = QStringLiteral("dead");
        if (!(c.frequency == 0)) right = std::isnan(c.frequency) ? QStringLiteral("?") : hertz(c.frequency);
        for (const LinedCrystal& l : lined)
            if (l.id == qs(c.id) && l.set >= 0)
                right = letter(std::size_t(l.set)) + QStringLiteral("  ") + right;
        VerdictState state = VerdictState::notDone;
        if (c.frequency == 0)
            state = VerdictState::fail;
        else if (marked_ > 0 && c.frequency > 0)
            state = judgeCrystal(true, c.frequency, marked_, kNearMark) == CrystalState::go
                        ? VerdictState::pass
                        : VerdictState::doubtful;
        lines.push_back({state, qs(c.id), right, i == at_, false, marked_ <= 0 && c.frequency != 0});
    }
    list_->setLines(std::move(lines));
    line_->show(std::move(lined), std::move(words));
    setNow(sets.empty() ? QStringLiteral("Count crystal %1.").arg(nextId())
                        : QStringLiteral("Set A: %1, within %2 Hz.")
                              .arg([&] {
                                  QStringList ids;
                                  for (const std::size_t i : sets.front().at) ids << qs(measured[i].id);
                                  return ids.join(QStringLiteral(", "));
                              }())
                              .arg(qs(decimals(sets.front().spread, 0))),
           sets.empty()
               ? QStringLiteral("Enter counts it; or type it, 4.913872M. A number first is its own: 7 "
                                "4.913872M; 30p behind it is a load in series.")
               : QStringLiteral("%1 measured. Number each with a pen; a few more make the sets closer.")
                     .arg(measured.size()));
}

void CrystalsPage::showOne() {
    std::vector<Fact> facts;
    const bool any = at_ < batch_.size();
    one_->setTitle(any ? QStringLiteral("Crystal %1").arg(qs(batch_[at_].id))
                       : QStringLiteral("No crystal yet"));
    if (!any || !(batch_[at_].frequency > 0)) {
        number_->showWord(!any                         ? QStringLiteral("not counted")
                          : batch_[at_].frequency == 0 ? QStringLiteral("does not start")
                                                       : QStringLiteral("cannot tell"));
    } else {
        const BatchCrystal& c = batch_[at_];
        const SplitText text = splitQuantity(c.frequency, Unit::hertz, 8);
        number_->show(qs(text.number), qs(text.unit));
        if (marked_ > 0)
            facts.push_back(
                {QStringLiteral("Off its mark"),
                 qs(decimals((c.frequency / marked_ - 1) * 1e6, 1, true)) + QStringLiteral("\u202fppm")});
        if (c.motional) {
            facts.push_back(
                {QStringLiteral("Motional C"), qs(formatQuantity(c.motional->capacitance, Unit::farad, 3))});
            facts.push_back(
                {QStringLiteral("Motional L"), qs(formatQuantity(c.motional->inductance, Unit::henry, 3))});
            facts.push_back(
                {QStringLiteral("30 pF pull it by"),
                 QStringLiteral("%1\u202fHz").arg(qs(decimals(pulledBy(*c.motional, 30e-12, kHolder), 0)))});
        }
        if (!std::isnan(c.resistance))
            facts.push_back({QStringLiteral("Resistance"), qs(formatQuantity(c.resistance, Unit::ohm, 2))});
        if (!std::isnan(c.q)) facts.push_back({QStringLiteral("Q"), qs(decimals(c.q, 0))});
    }
    one_->setFacts(facts);
    one_->setText(any && !batch_[at_].motional
                      ? QStringLiteral("Counted again with a capacitor in series (type its value behind the "
                                       "frequency, 30p) it tells motional C and L, with 4 pF for the holder.")
                      : QString());
}

void CrystalsPage::refresh() {
    if (!session_.hasBuild()) return;
    batch_ = batchOf(session_.build());
    at_ = std::min(at_, batch_.empty() ? 0 : batch_.size() - 1);
    wantReading(
        QStringLiteral("Crystal %1").arg(nextId()),
        [this](const QString& text) {
            Session::Entered out;
            const auto t = typed(text);
            if (!t)
                out.trouble = QStringLiteral(
                    "Type a frequency, 4.913872M; before it the crystal's number if it is "
                    "another, behind it a load in series, 30p.");
            if (t)
                out.shows = QStringLiteral("crystal %1: %2").arg(t->id, hertz(t->frequency)) +
                            (t->load > 0 ? QStringLiteral(" with %1 in series")
                                               .arg(qs(formatQuantity(t->load, Unit::farad, 3)))
                                         : QString());
            return out;
        },
        [this](const QString& text) {
            if (const auto t = typed(text)) keep(*t, "typed");
        });
    showSets();
    showOne();
    for (QWidget* w : std::initializer_list<QWidget*>{sheet_, one_, all_}) w->setVisible(!batch_.empty());
    teach_->setVisible(batch_.empty());
}

}  // namespace ombrek
