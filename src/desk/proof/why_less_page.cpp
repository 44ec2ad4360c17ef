#include "desk/proof/why_less_page.h"

#include <algorithm>
#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/verdict_line.h"
#include "desk/proof/causes_view.h"
#include "station/bands.h"

namespace ombrek {
namespace {

constexpr std::size_t kShown = 4;

QString percent(double ratio) { return qs(decimals(100 * ratio, 0)) + QStringLiteral("\u202f%"); }

QString listed(const std::vector<std::string>& what) {
    QStringList out;
    for (const std::string& w : what) out << qs(w);
    return out.join(QStringLiteral("; "));
}

QString wordsOf(const PowerCause& c) {
    QStringList out;
    if (!c.supports.empty()) out << QStringLiteral("For it: %1.").arg(listed(c.supports));
    if (!c.against.empty()) out << QStringLiteral("Against it: %1.").arg(listed(c.against));
    if (out.isEmpty()) out << QStringLiteral("Nothing was read yet that speaks for it or against it.");
    return out.join(QChar(' '));
}

}  // namespace

WhyLessPage::WhyLessPage(Session& session)
    : Page(session, QStringLiteral("Why it is less")),
      number_(new BigNumber(64)),
      verdict_(new VerdictLine),
      list_(new CausesView),
      ranked_(new Card),
      known_(new Card),
      test_(new Card),
      teach_(new Card) {
    auto* row = new QHBoxLayout;
    row->addWidget(number_, 2);
    row->addWidget(verdict_, 3);
    big()->addLayout(row);
    ranked_->setTitle(QStringLiteral("What it may be, the likeliest first"));
    ranked_->addBody(list_, 1);
    ranked_->fillWithBody();
    big()->addWidget(ranked_, 1);
    teach_->setTitle(QStringLiteral("Less than promised"));
    teach_->setText(
        QStringLiteral("When a power is less than the kit promises by more than its meter can be wrong, this "
                       "page ranks what may be "
                       "behind it by all that was read: supply, current, the low-pass as built, another way, "
                       "the other bands. Read "
                       "the power on Proof first."));
    big()->addWidget(teach_, 0);
    big()->addStretch(0);
    test_->setTitle(QStringLiteral("The test that decides"));
    side()->addWidget(test_, 0);
    known_->setTitle(QStringLiteral("What is known, of what it should be"));
    side()->addWidget(known_, 0);
    side()->addStretch(1);
    addKeys();
    connect(list_, &CausesView::picked, this, [this](int row) {
        at_ = std::size_t(row);
        refresh();
    });
}

void WhyLessPage::addKeys() {
    setEnter("say-what-you-saw", "say what you saw", [this] {
        askText(
            QStringLiteral("Seen: swr 1.8, key up 13.9 V, other 2.4 W, drive 90 %, warm 2 of 3, jumps no"),
            qs(said()), [this](const QString& text) { keep(text); });
    });
    addKey("a-cause", "Down", "Up Down", "a cause", [this] {
        at_ = causes_.empty() ? 0 : (at_ + 1) % std::min(kShown, causes_.size());
        refresh();
    });
    addKey(
        "the-cause-before", "Up", "Up", "the cause before",
        [this] {
            const std::size_t n = std::min(kShown, causes_.size());
            at_ = n == 0 ? 0 : (at_ + n - 1) % n;
            refresh();
        },
        false);
    addKey("other-band", "N", "N", "next band", [this] { nextBand(); });
    addKey("accept-it", "A", "A", "accept it, with a reason", [this] { accept(); });
    addKey("the-filter", "F", "F", "the filter", [this] { emit wants(QStringLiteral("filter"), qs(band_)); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

/// Where what the builder said of this band of this build is kept.
std::string WhyLessPage::preference() const {
    return "less power " + std::to_string(session_.build().id) + " " + band_;
}
std::string WhyLessPage::said() const { return session_.book().preference(preference()); }

void WhyLessPage::keep(const QString& text) {
    const auto facts = readPowerWords(session_.kit(), band_, text.toStdString());
    if (!facts) return session_.say(qs(facts.error().sentence), VerdictState::cannotTell);
    session_.kept(session_.book().prefer(preference(), text.simplified().toStdString()));
}

void WhyLessPage::begin(const QString& band) {
    if (hasBand(session_.kit(), band.toStdString())) band_ = band.toStdString();
    at_ = 0;
    refresh();
}

void WhyLessPage::nextBand() {
    band_ = bandAfter(session_.kit(), band_);
    at_ = 0;
    refresh();
}

/// Passing the gate knowingly, with what is known of it: what becomes worse later bars it again.
void WhyLessPage::accept() {
    if (causes_.empty())
        return session_.say(QStringLiteral("There is nothing to accept."), VerdictState::notDone);
    askText(QStringLiteral("Why it is good enough"),
            QStringLiteral("%1").arg(qs(causes_[std::min(at_, causes_.size() - 1)].name)),
            [this](const QString& why) {
                if (why.trimmed().isEmpty())
                    return session_.say(QStringLiteral("A reason is a sentence; nothing was accepted."),
                                        VerdictState::cannotTell);
                for (const Gate& gate : session_.judged().readiness().gates) {
                    if (gate.id != "power") continue;
                    session_.kept(session_.book().passGate("power", why.trimmed().toStdString(),
                                                           basisOf(gate.evidence)));
                    return;
                }
            });
}

void WhyLessPage::showFacts() {
    const Ratings rated = session_.kit().ratings.on(band_);
    std::vector<Fact> facts;
    const auto ratio = [&](const char* name, double value) {
        if (std::isfinite(value)) facts.push_back({QString::fromUtf8(name), percent(value)});
    };
    facts.push_back({QStringLiteral("Promised"), QStringLiteral("%1 at %2")
                                                     .arg(qs(formatQuantity(rated.power, Unit::watt, 3)),
                                                          qs(formatQuantity(rated.supply, Unit::volt, 3)))});
    ratio("Supply, key down", facts_.supply);
    ratio("Supply, key up", facts_.unloaded);
    ratio("Current", facts_.current);
    ratio("Another way", facts_.other);
    ratio("Other bands", facts_.otherBands);
    ratio("Drive", facts_.drive);
    ratio("Idle current", facts_.bias);
    if (facts_.finals > 0) facts.push_back({QStringLiteral("Finals"), qs(decimals(facts_.finals, 0))});
    if (std::isfinite(facts_.filterLoss))
        facts.push_back({QStringLiteral("Low-pass, over its due"),
                         qs(decimals(facts_.filterLoss, 2)) + QStringLiteral("\u202fdB")});
    if (std::isfinite(facts_.coil))
        facts.push_back(
            {QStringLiteral("Worst coil off by"), qs(decimals(facts_.coil, 0)) + QStringLiteral("\u202f%")});
    if (std::isfinite(facts_.loadSwr))
        facts.push_back({QStringLiteral("SWR of the load"), qs(decimals(facts_.loadSwr, 1))});
    known_->setFacts(facts);
}

void WhyLessPage::showCauses() {
    std::vector<CausesView::Row> rows;
    for (std::size_t i = 0; i < causes_.size() && i < kShown; ++i)
        rows.push_back({qs(causes_[i].name), percent(causes_[i].odds), causes_[i].odds, wordsOf(causes_[i])});
    list_->show(std::move(rows), int(at_));
    const PowerCause& now = causes_[at_];
    test_->setText(QStringLiteral("%1\n\nWhen it is so: %2").arg(qs(now.test), qs(now.repair)));
    test_->setCaution(
        now.id == "dead-final" || now.id == "bias"
            ? QStringLiteral("Finals burn fingers: power off and supply out before a hand goes near.")
            : QString());
}

void WhyLessPage::refresh() {
    if (!session_.hasBuild()) return;
    band_ = bandNamed(session_.kit(), band_);
    facts_ = powerFacts(session_.judged(), band_, said());
    causes_ = causesOfLess(facts_);
    at_ = causes_.empty() ? 0 : std::min(at_, std::min(kShown, causes_.size()) - 1);
    const bool none = causes_.empty();
    for (QWidget* w : std::initializer_list<QWidget*>{number_, verdict_, ranked_, known_, test_})
        w->setVisible(!none);
    teach_->setVisible(none);
    const QString on = band_.empty() ? QString() : QStringLiteral(" on %1").arg(qs(band_));
    if (none)
        return setNow(std::isnan(facts_.power) ? QStringLiteral("No power was read%1 yet.").arg(on)
                                               : QStringLiteral("The power%1 is as promised.").arg(on),
                      QStringLiteral("N for the next band; Esc goes back."));
    const std::string ask = whatToLookAt(facts_);
    if (causes_.front().odds > 0.6)
        setNow(QStringLiteral("%1%2: %3.").arg(qs(causes_.front().name), on, percent(causes_.front().odds)),
               ask.empty() ? QStringLiteral("The test beside it decides.") : qs(ask));
    else
        setNow(ask.empty() ? QStringLiteral("Decide by the test of the likeliest.") : qs(ask),
               QStringLiteral("This tells most now. Enter says what you saw."));
    number_->show(
        qs(decimals(100 * facts_.power, 0)),
        QStringLiteral("% of ") + qs(formatQuantity(session_.kit().ratings.on(band_).power, Unit::watt, 3)));
    verdict_->show(session_.judged().proof(band_).powerVerdict.state,
                   qs(session_.judged().proof(band_).powerVerdict.sentence));
    showCauses();
    showFacts();
}

}  // namespace ombrek
