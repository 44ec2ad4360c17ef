#include "desk/parts_in/parts_in_page.h"

#include "desk/parts_in/bag_rows.h"
#include "desk/parts_in/parts_in_model.h"
#include "desk/pieces/card.h"
#include "desk/pieces/reading_card.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"
#include "kit/parts_in.h"

namespace ombrek {

PartsInPage::PartsInPage(Session& session)
    : Page(session, QStringLiteral("Parts in")),
      counts_(textLabel(15, false, "soft")),
      reading_(new ReadingCard),
      bag_(new BagRows),
      troubles_(new Card),
      part_(new Card) {
    big()->addWidget(reading_);
    big()->addSpacing(6);
    big()->addWidget(counts_);
    big()->addWidget(bag_);
    big()->addStretch(1);
    side()->addWidget(troubles_, 3);
    side()->addWidget(part_, 2);
    addKeys();
    connect(&session_, &Session::taken, this, [this](const QString& subject) {
        if (!subject.startsWith(QLatin1String("part:"))) return;
        shown_ = subject.mid(5);
        wanted_.clear();
        refresh();
    });
    connect(bag_, &BagRows::chosen, this, [this](const QString& ref) {
        wanted_ = shown_ = ref;
        refresh();
    });
}

void PartsInPage::addKeys() {
    setEnter("take it", [this] { take(); });
    addKey("N", "N", "not here", [this] { mark(PartMark::missing); });
    addKey("T", "T", "take on trust", [this] { mark(PartMark::trusted); });
    addKey("R", "R", "read the last again", [this] { again(); });
    addKey("Down", "Up Down", "choose a line", [this] { choose(1); });
    addKey(
        "Up", "Up", "the line before", [this] { choose(-1); }, false);
}

void PartsInPage::take() {
    const auto view = partsInView(session_.kit(), session_.build(), wanted_.toStdString(), "");
    if (view.wanted == nullptr) return;
    if (!view.wanted->measurable()) {
        mark(PartMark::seen);
        return;
    }
    session_.read({0, "part:" + view.wanted->ref, 0, view.wanted->unit, 0, 0, "", 0});
}

void PartsInPage::again() {
    const Part* part = session_.kit().part(shown_.toStdString());
    if (part != nullptr && part->measurable())
        session_.read({0, "part:" + part->ref, 0, part->unit, 0, 0, "", 0});
}

void PartsInPage::mark(PartMark mark) {
    const auto view = partsInView(session_.kit(), session_.build(), wanted_.toStdString(), "");
    if (view.wanted == nullptr) return;
    const QString ref = qs(view.wanted->ref);
    wanted_.clear();
    shown_ = ref;
    session_.keep(session_.book().markPart(ref.toStdString(), mark));
    refresh();
}

void PartsInPage::choose(int by) {
    const auto& parts = session_.kit().parts;
    const auto view = partsInView(session_.kit(), session_.build(), wanted_.toStdString(), "");
    const int count = int(parts.size());
    const int at = view.wanted == nullptr ? (by > 0 ? -1 : count) : int(view.wanted - parts.data());
    wanted_ = shown_ = qs(parts[std::size_t((at + by + count) % count)].ref);
    refresh();
}

void PartsInPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().part(wanted_.toStdString()) == nullptr) wanted_.clear();
    if (session_.kit().part(shown_.toStdString()) == nullptr) shown_.clear();
    const PartsInView view =
        partsInView(session_.kit(), session_.build(), wanted_.toStdString(), shown_.toStdString());
    setNow(qs(view.now), qs(view.why));
    if (view.wanted != nullptr && view.wanted->measurable()) {
        const Reading pattern{0, "part:" + view.wanted->ref, 0, view.wanted->unit, 0, 0, "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(view.wanted->ref)),
                    [this, pattern](const QString& text) { session_.type(pattern, text); });
    } else {
        wantReading(QString(), nullptr);
    }
    if (view.shown != nullptr) showReading(view);
    counts_->setText(QStringLiteral("The bag: ") + qs(view.counts));
    bag_->show(view.rows, view.wanted ? qs(view.wanted->ref) : QString());
    showTroubles(view);
}

void PartsInPage::showReading(const PartsInView& view) {
    const Part& shown = *view.shown;
    reading_->show({qs(shown.ref) + QStringLiteral("   ") + qs(shown.what), qs(view.beside), view.verdict,
                    shown.nominal, shown.measurable() ? QStringLiteral("no reading") : qs(shown.value),
                    shown.measurable() ? QStringLiteral("Put it on the clips, or type what the meter says.")
                                       : QStringLiteral("Nothing to measure: look at its mark.")});
    const Part& look = *(view.wanted ? view.wanted : view.shown);
    part_->setTitle(QStringLiteral("What to look for on %1").arg(qs(look.ref)));
    part_->setFacts({{QStringLiteral("Value"), qs(look.value)}, {QStringLiteral("Bag"), qs(look.bag)}});
    QStringList texts;
    if (!look.mark.empty()) texts << QStringLiteral("Marked %1.").arg(qs(look.mark));
    if (!look.orientation.empty()) texts << QStringLiteral("Way round: %1.").arg(qs(look.orientation));
    part_->setText(texts.join(QChar(' ')));
}

void PartsInPage::showTroubles(const PartsInView& view) {
    delete troubleList_;
    troubleList_ = nullptr;
    troubles_->setTitle(QStringLiteral("What the bag is telling"));
    troubles_->setText(view.troubles.empty() ? QStringLiteral("Nothing wrong so far.") : QString());
    if (view.troubles.empty()) return;
    troubleList_ = new QWidget;
    auto* layout = new QVBoxLayout(troubleList_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(6);
    constexpr std::size_t most = 5;
    const std::size_t first = view.troubles.size() > most ? view.troubles.size() - most : 0;
    for (std::size_t i = first; i < view.troubles.size(); ++i) {
        auto* line =
            new TroubleLine(view.troubles[i].state, qs(view.troubles[i].head), qs(view.troubles[i].sentence));
        layout->addWidget(line);
    }
    if (first > 0) {
        auto* more = textLabel(13, false, "soft");
        more->setText(QStringLiteral("and %1 more").arg(first));
        layout->addWidget(more);
    }
    troubles_->addBody(troubleList_);
}

void PartsInPage::setCompact(bool on) {
    reading_->setCompact(on);
    part_->setVisible(!on);
    counts_->setVisible(!on);
}

void PartsInPage::setBigOnly(bool on) {
    Page::setBigOnly(on);
    reading_->setDoubled(on);
    bag_->setVisible(!on);
    counts_->setVisible(!on);
}

}  // namespace ombrek
