#include "desk/parts_in/parts_in_page.h"
#include "station/notes.h"
#include "station/parts_in/hardware.h"

#include "desk/parts_in/bag_rows.h"
#include "desk/parts_in/parts_in_model.h"
#include "desk/pieces/band_picker.h"
#include "desk/pieces/card.h"
#include "desk/pieces/part_look.h"
#include "desk/pieces/part_view.h"
#include "desk/pieces/reading_card.h"
#include "desk/pieces/text.h"
#include "desk/pieces/trouble_line.h"
#include "judged/bag.h"
#include "report/labels.h"
#include "station/board/loupe.h"
#include "station/phrases.h"

namespace ombrek {

PartsInPage::PartsInPage(Session& session)
    : Page(session, qs(word(Station::partsIn))),
      counts_(textLabel(15, false, "soft")),
      reading_(new ReadingCard),
      bag_(new BagRows),
      bands_(new BandPicker),
      picture_(new PartView),
      troubles_(new Card),
      part_(new Card) {
    big()->addWidget(reading_);
    big()->addWidget(bands_);
    big()->addSpacing(6);
    big()->addWidget(counts_);
    big()->addWidget(bag_, 1);
    side()->addWidget(troubles_, 0);
    part_->addBody(picture_);
    side()->addWidget(part_, 1);
    addKeys();
    connect(&session_, &Session::taken, this, [this](const Subject& subject) {
        if (!subject.is(Subject::Kind::part)) return;
        shown_ = qs(subject.id);
        wanted_.clear();
    });
    connect(bag_, &BagRows::chosen, this, [this](const QString& ref) { begin(ref); });
    const auto putAway = [this] {
        reading_->setVisible(true);
        setFocus();
    };
    connect(bands_, &BandPicker::left, this, putAway);
    connect(bands_, &BandPicker::used, this, [this, putAway](const QStringList& bands) {
        putAway();
        const PartsInView v = view();
        if (v.wanted != nullptr && !bands.isEmpty()) useMark(qs(v.wanted->ref), bands.join(QChar(' ')));
    });
}

void PartsInPage::addKeys() {
    setEnter("take-it", "take it", [this] { take(); });
    addKey("not-here", "N", "N", "not here", [this] { mark(PartMark::missing); });
    addKey("read-its-mark", "M", "M", "read its mark", [this] { readMark(); });
    addKey("which-part-is-this", "U", "U", "which part is this?",
           [this] { emit wants(QStringLiteral("which-part"), QString()); });
    addKey("what-to-do", "W", "W", "what to do", [this] { whatToDo(); });
    addKey("choose-a-line", "Down", "Up Down", "choose a line", [this] { choose(1); });
    addRare("the-line-before", "Up", "the line before", [this] { choose(-1); });
    addRare("take-on-trust", "T", "take on trust", [this] { mark(PartMark::trusted); });
    addRare("read-the-last-again", "R", "read the last again", [this] { again(); });
    addRare("its-colour-bands-by-key", "K", "its colour bands, by key or picked", [this] {
        const PartsInView v = view();
        if (v.wanted == nullptr || !v.wanted->measurable()) return;
        reading_->hide();
        bands_->begin();
    });
    addRare("another-type-came-and-will", "E", "another type came, and will do", [this] { acceptOther(); });
    addRare("by-calliper", "S", "which screw, wire or knob it is, by calliper", [this] { byCalliper(); });
    addRare("way-of-working-by-kind", "Y", "way of working: by kind, by the plan, before fitting", [this] {
        session_.kept(session_.book().chooseWay(BagWay((int(session_.build().way) + 1) % 3)));
    });
    addRare("how-deep-measure-all-the", "H", "how deep: measure all, the doubtful, trust the bag", [this] {
        session_.kept(session_.book().chooseDepth(BagDepth((int(session_.build().depth) + 1) % 3)));
    });
    addRare("print-labels-tray-map-or", "P", "print labels, tray map or picking list", [this] { print(); });
    addRare("a-packing-list-that-came", "I", "a packing list that came with the order",
            [this] { emit wants(QStringLiteral("delivery"), QString()); });
    takesNotes([this] {
        const PartsInView v = view();
        const Part* part = v.wanted != nullptr ? v.wanted : v.shown;
        return part == nullptr ? Subject{} : Subject::part(part->ref);
    });
}

PartsInView PartsInPage::view() const {
    const auto lc = meterFor(session_.book().meters(), Unit::farad, 0);
    return partsInView(session_.judged(), wanted_.toStdString(), shown_.toStdString(), lc && lc->zero != 0);
}

void PartsInPage::begin(const QString& about) {
    wanted_ = shown_ = about;
    refresh();
}

void PartsInPage::take() {
    const PartsInView v = view();
    if (v.wanted == nullptr) return;
    switch (v.ask.how) {
        case PartAsk::How::measure:
            session_.read({0, Subject::part(v.wanted->ref), 0, v.wanted->unit, 0, {}, "", 0});
            break;
        case PartAsk::How::count: {
            shown_ = qs(v.wanted->ref);
            wanted_.clear();
            session_.kept(session_.book().markParts(v.ask.refs, PartMark::trusted));
            break;
        }
        case PartAsk::How::look:
            mark(PartMark::seen);
            break;
    }
}

void PartsInPage::again() {
    const Part* part = session_.kit().part(shown_.toStdString());
    if (part != nullptr && part->measurable())
        session_.read({0, Subject::part(part->ref), 0, part->unit, 0, {}, "", 0});
}

void PartsInPage::mark(PartMark mark) {
    const PartsInView v = view();
    if (v.wanted == nullptr) return;
    const QString ref = qs(v.wanted->ref);
    wanted_.clear();
    shown_ = ref;
    session_.kept(session_.book().markPart(ref.toStdString(), mark));
    refresh();
}

void PartsInPage::readMark() {
    const PartsInView v = view();
    const Part* part = wanted_.isEmpty() && v.wanted == nullptr ? v.shown : v.wanted;
    if (part == nullptr) return;
    const QString ref = qs(part->ref);
    askText(QStringLiteral("Printed on %1").arg(ref), ref == looked_ ? seen_ : QString(),
            [this, ref](const QString& text) { useMark(ref, text); });
}

void PartsInPage::useMark(const QString& ref, const QString& printed) {
    const Part* part = session_.kit().part(ref.toStdString());
    if (part == nullptr) return;
    const bool agrees = markAgrees(*part, printed.toStdString());
    const bool read = session_.build().last(Subject::part(part->ref)) != nullptr;
    shown_ = ref;
    wanted_ = agrees || read ? QString() : ref;
    // Where everything is measured, the mark alone does not settle a line.
    const bool settles = agrees && !read && session_.build().depth != BagDepth::measureAll;
    if (session_.kept(session_.book().readMark(part->ref, printed.toStdString(), settles)))
        session_.say(qs(markSentence(*part, printed.toStdString())),
                     agrees ? VerdictState::pass : VerdictState::doubtful);
}

void PartsInPage::acceptOther() {
    const PartsInView v = view();
    const Part* part = v.wanted != nullptr ? v.wanted : v.shown;
    if (part == nullptr) return;
    const std::string ref = part->ref;
    askText(QStringLiteral("Type that came for %1").arg(qs(ref)), QString(),
            [this, ref](const QString& type) {
                askText(QStringLiteral("Its gain group, or -"), QString(),
                        [this, ref, type](const QString& group) {
                            askText(QStringLiteral("Why it will do"), QString(),
                                    [this, ref, type, group](const QString& why) {
                                        QString note = type;
                                        if (group != QLatin1String("-"))
                                            note += QStringLiteral(", gain group ") + group;
                                        note += QStringLiteral(": ") + why;
                                        wanted_.clear();
                                        shown_ = qs(ref);
                                        session_.kept(session_.book().decide(
                                            ref, {Remedy::How::equivalent, note.toStdString()}));
                                    });
                        });
            });
}

void PartsInPage::byCalliper() {
    askText(QStringLiteral("It measures, in mm"), QString(), [this](const QString& text) {
        const auto size = parseQuantity(text.toStdString(), Unit::metre);
        if (!size || !(size->value > 0))
            return session_.say(QStringLiteral("Type what the calliper says, as 5.9 (mm) or 0.25 in."),
                                VerdictState::cannotTell);
        // A plain number is of millimetres.
        const bool plain = text.trimmed().contains(QRegularExpression(QStringLiteral("^[0-9.,]+$")));
        const auto found = hardwareOfSize(session_.kit(), plain ? size->value * 1e-3 : size->value);
        if (found.empty())
            return session_.say(QStringLiteral("No screw, wire or knob of the list has this size."),
                                VerdictState::cannotTell);
        QStringList names;
        for (const OfSize& hit : found) names << qs(hit.part->ref + " " + hit.part->value);
        begin(qs(found.front().part->ref));
        session_.say(QStringLiteral("Of this size: %1.").arg(names.join(QStringLiteral("; "))));
    });
}

void PartsInPage::choose(int by) {
    const auto& parts = session_.judged().partsInOrder();
    const PartsInView v = view();
    const int count = int(parts.size());
    const auto hit = std::find(parts.begin(), parts.end(), v.wanted);
    const int at = hit == parts.end() ? (by > 0 ? -1 : count) : int(hit - parts.begin());
    begin(qs(parts[std::size_t((at + by + count) % count)]->ref));
}

void PartsInPage::whatToDo() {
    const PartsInView v = view();
    if (v.troubles.empty()) {
        session_.say(QStringLiteral("Nothing is wrong so far."));
        return;
    }
    emit wants(QStringLiteral("remedy"), wanted_);
}

std::optional<A4Sheet> PartsInPage::sheet() {
    if (!session_.hasBuild()) return std::nullopt;
    return labels(labelSheet(session_.judged()));
}

void PartsInPage::print() {
    const QString name = qs(session_.kit().id) + QStringLiteral("-") +
                         qs(labelsName(session_.build().way)).replace(QChar(' '), QChar('-')) +
                         QStringLiteral(".pdf");
    writeOut(kPdfFile, name, [sheet = *sheet()] { return pdfOf(sheet); });
}

void PartsInPage::refresh() {
    if (!session_.hasBuild()) return;
    if (session_.kit().part(wanted_.toStdString()) == nullptr) wanted_.clear();
    if (session_.kit().part(shown_.toStdString()) == nullptr) shown_.clear();
    const PartsInView v = view();
    setNow(qs(v.now), qs(v.why));
    if (v.wanted != nullptr && v.wanted->measurable()) {
        const Reading pattern{0, Subject::part(v.wanted->ref), 0, v.wanted->unit, 0, {}, "", 0};
        wantReading(QStringLiteral("%1 reads").arg(qs(v.wanted->ref)), pattern);
    } else {
        wantNothing();
    }
    if (v.shown != nullptr) showReading(v);
    counts_->setText(QStringLiteral("The bag: %1\n%2 (Y), %3 (H)")
                         .arg(qs(v.counts), qs(ombrek::word(session_.build().way)),
                              qs(ombrek::word(session_.build().depth))));
    bag_->show(v.rows, v.wanted ? qs(v.wanted->ref) : QString());
    showTroubles(v);
    showPart(v);
}

void PartsInPage::showReading(const PartsInView& view) {
    const Part& shown = *view.shown;
    reading_->show({qs(shown.ref) + QStringLiteral("   ") + qs(shown.what), qs(view.beside), view.verdict,
                    shown.nominal, shown.measurable() ? QStringLiteral("no reading") : qs(shown.value),
                    shown.measurable() ? QStringLiteral("Put it on the clips, or type what the meter says.")
                                       : QStringLiteral("Nothing to measure: look at its mark."),
                    QString()});
}

void PartsInPage::showPart(const PartsInView& view) {
    if (view.shown == nullptr) return;
    const Part& look = *(view.wanted ? view.wanted : view.shown);
    const QString ref = qs(look.ref);
    part_->setTitle(QStringLiteral("What to look for on %1").arg(ref));
    picture_->show(partLookOf(look));
    QStringList texts;
    texts << qs(look.value) + (look.bag.empty() ? QString() : QStringLiteral(" from bag ") + qs(look.bag)) +
                 (look.mark.empty() ? QString() : QStringLiteral(", marked ") + qs(look.mark)) + QChar('.');
    if (const std::string sense = senseOf(look); !sense.empty())
        texts << QStringLiteral("Way round: %1.").arg(qs(sense));
    if (const auto note = noteText(session_.kit(), session_.build(), Subject::part(look.ref)); !note.empty())
        texts << qs(note);
    if (ref == looked_ && !seen_.isEmpty()) texts << QStringLiteral("On the practice part: %1.").arg(seen_);
    part_->setText(texts.join(QChar('\n')));
    if (ref == looked_) return;
    looked_ = ref;
    seen_.clear();
    session_.practice().look(Subject::part(look.ref),
                             [self = QPointer<PartsInPage>(this), ref](const QString& seen) {
                                 if (!self || self->looked_ != ref || seen.isEmpty()) return;
                                 self->seen_ = seen;
                                 self->refresh();
                             });
}

void PartsInPage::showTroubles(const PartsInView& view) {
    delete troubleList_;
    troubleList_ = nullptr;
    troubles_->setTitle(QStringLiteral("What the bag is telling"));
    troubles_->setText(view.troubles.empty() && view.decider.empty() ? QStringLiteral("Nothing wrong so far.")
                                                                     : qs(view.decider));
    if (view.troubles.empty()) return;
    troubleList_ = new QWidget;
    auto* layout = new QVBoxLayout(troubleList_);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(5);
    constexpr std::size_t most = 4;
    std::size_t shown = 0, settled = 0;
    for (std::size_t i = 0; i < view.troubles.size(); ++i) {
        settled += !view.remedies[i].empty();
        if (!view.remedies[i].empty() || shown == most) continue;
        ++shown;
        layout->addWidget(new TroubleLine(view.troubles[i].state, qs(view.troubles[i].head),
                                          qs(view.troubles[i].sentence)));
    }
    const std::size_t more = view.troubles.size() - settled - shown;
    QStringList rest;
    if (more > 0) rest << QStringLiteral("%1 more").arg(more);
    if (settled > 0) rest << QStringLiteral("%1 settled").arg(settled);
    if (!rest.isEmpty()) {
        auto* label = textLabel(13, false, "soft");
        label->setText(rest.join(QStringLiteral(", ")) + QStringLiteral(": W shows them all"));
        layout->addWidget(label);
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
