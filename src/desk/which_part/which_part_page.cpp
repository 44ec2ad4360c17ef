#include "desk/which_part/which_part_page.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "desk/pieces/band_picker.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/part_look.h"
#include "desk/pieces/part_view.h"
#include "desk/pieces/state_list.h"
#include "desk/pieces/text.h"

namespace ombrek {

WhichPartPage::WhichPartPage(Session& session)
    : Page(session, QStringLiteral("Which part is this?")),
      head_(textLabel(20, true)),
      number_(new BigNumber(72)),
      picture_(new PartView),
      bands_(new BandPicker),
      hand_(new Card),
      could_(new Card),
      marks_(new Card),
      others_(new Card),
      couldList_(new StateList),
      markList_(new StateList) {
    auto* sheet = new QWidget;
    auto* layout = new QHBoxLayout(sheet);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* left = new QVBoxLayout;
    left->addWidget(head_);
    left->addWidget(number_);
    layout->addLayout(left, 1);
    layout->addWidget(picture_, 1);
    hand_->addBody(sheet);
    hand_->addBody(bands_);
    hand_->setTitle(QStringLiteral("In your hand"));
    big()->addWidget(hand_);
    could_->setTitle(QStringLiteral("Which line it may be"));
    could_->addBody(couldList_, 1);
    could_->fillWithBody();
    big()->addWidget(could_, 1);
    marks_->setTitle(QStringLiteral("What its mark may say"));
    marks_->addBody(markList_, 1);
    marks_->fillWithBody();
    side()->addWidget(marks_, 3);
    side()->addWidget(others_, 2);
    addKeys();
    connect(couldList_, &StateList::picked, this, [this](int row) {
        chosen_ = std::size_t(row);
        refresh();
    });
    connect(bands_, &BandPicker::left, this, [this] { setFocus(); });
    connect(bands_, &BandPicker::used, this, [this](const QStringList& bands) {
        setFocus();
        if (!bands.isEmpty()) useMark(bands.join(QChar(' ')));
    });
}

void WhichPartPage::addKeys() {
    setEnter("measure-then-put-it-there", "measure, then put it there", [this] { enter(); });
    addKey("what-kind-it-is", "R", "R C L", "what kind it is", [this] { setKind(PartKind::resistor); });
    addKey("type-its-mark", "M", "M", "type its mark", [this] { askMark(); });
    addKey("colour-bands", "K", "K", "colour bands", [this] {
        if (kind_ == PartKind::capacitor) setKind(PartKind::resistor);
        bands_->begin();
    });
    addKey("another-part", "A", "A", "another part", [this] { begin(QString()); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    addRare("a-capacitor", "C", "a capacitor", [this] { setKind(PartKind::capacitor); });
    addRare("a-choke", "L", "a choke", [this] { setKind(PartKind::inductor); });
    addRare("another-kind-diode-transistor-ic", "N", "another kind: diode, transistor, IC, crystal, other",
            [this] { nextKind(); });
    addRare("take-the-marks-word", "T", "take the mark's word", [this] { settle(); });
    addRare("it-was-no-part-of", "Delete", "it was no part of this kit: forget it", [this] {
        if (id_ != 0 && session_.kept(session_.book().dropLoose(id_))) begin(QString());
    });
    const auto choose = [this](int by) {
        const auto count = int(view().could.size());
        if (count > 0) chosen_ = std::size_t((int(chosen_) + by + count) % count);
        refresh();
    };
    addRare("the-next-line", "Down", "the next line", [choose] { choose(1); });
    addRare("the-line-before", "Up", "the line before", [choose] { choose(-1); });
}

void WhichPartPage::begin(const QString& about) {
    id_ = about.toLongLong();
    chosen_ = 0;
    bands_->hide();
    refresh();
}

WhichPartView WhichPartPage::view() const { return whichPartView(session_.judged(), id_, kind_, chosen_); }

/// What the practice bench calls the part in hand.
Subject WhichPartPage::subject() const {
    const auto& loose = session_.build().loose;
    const auto hit =
        std::find_if(loose.begin(), loose.end(), [&](const LoosePart& p) { return p.id == id_; });
    return Subject::loose(int(hit - loose.begin()) + 1);
}

void WhichPartPage::setKind(PartKind kind) {
    kind_ = kind;
    const WhichPartView v = view();
    if (v.part != nullptr && v.part->kind != kind) {
        LoosePart part = *v.part;
        part.kind = kind;
        part.value = NAN;  // a reading in another unit says nothing
        keep(part);
    }
    refresh();
}

/// The kinds that have no value to measure, one after another.
void WhichPartPage::nextKind() {
    static constexpr std::array<PartKind, 5> kinds{PartKind::diode, PartKind::transistor, PartKind::ic,
                                                   PartKind::crystal, PartKind::other};
    const auto now = std::find(kinds.begin(), kinds.end(), kind_);
    setKind(now == kinds.end() || now + 1 == kinds.end() ? kinds.front() : *(now + 1));
}

/// Write the part in hand to the book: a new one is added, one that is there is changed.
void WhichPartPage::keep(const LoosePart& part) {
    chosen_ = 0;
    const bool inHand = part.id == id_;
    if (!session_.kept(session_.book().keepLoose(part))) return;
    if (inHand && part.id == 0 && !session_.build().loose.empty()) id_ = session_.build().loose.back().id;
    refresh();
}

void WhichPartPage::enter() {
    const WhichPartView v = view();
    if (v.part != nullptr && std::isfinite(v.part->value)) {
        settle();
    } else {
        measure();
    }
}

void WhichPartPage::measure() {
    if (unitOf(kind_) == Unit::none)
        return session_.say(QStringLiteral("A %1 has no value to measure: M types what is printed on it.")
                                .arg(qs(word(kind_))),
                            VerdictState::cannotTell);
    // The answer goes to the part that was asked about, whichever is in hand by then.
    session_.measure(unitOf(kind_), subject(), -1,
                     [this, id = id_, kind = kind_](Measured m) { keepReading(id, kind, m); });
}

/// A loose part as the book has it, or a new one.
LoosePart WhichPartPage::loosePart(std::int64_t id, PartKind kind) const {
    for (const LoosePart& part : session_.build().loose) {
        if (part.id == id && id != 0) return part;
    }
    return {0, kind, "", NAN, 0};
}

void WhichPartPage::keepReading(std::int64_t id, PartKind kind, const Measured& measured) {
    LoosePart part = loosePart(id, kind);
    if (part.kind != kind) {
        session_.say(
            QStringLiteral("The reading was of a %1; the part is called a %2 now, and it is not kept.")
                .arg(qs(word(kind)), qs(word(part.kind))),
            VerdictState::doubtful);
        return;
    }
    part.value = std::isfinite(measured.value) ? measured.value : NAN;
    part.uncertainty = measured.uncertainty;
    keep(part);
}

void WhichPartPage::askMark() {
    session_.practice().look(subject(), [self = QPointer<WhichPartPage>(this)](const QString& seen) {
        if (!self) return;
        self->askText(QStringLiteral("Printed on it"), seen,
                      [self](const QString& text) { self->useMark(text); });
    });
}

void WhichPartPage::useMark(const QString& printed) {
    const auto readings = readMark(printed.toStdString(), kind_);
    LoosePart part = loosePart(id_, kind_);
    part.printed = printed.toStdString();
    keep(part);
    if (readings.empty())
        session_.say(QStringLiteral("\"%1\" is no mark that is known for a %2: measure it.")
                         .arg(printed, qs(word(kind_))),
                     VerdictState::cannotTell);
}

void WhichPartPage::settle() {
    const WhichPartView v = view();
    if (v.part == nullptr) return;
    const auto& could = v.could[std::min(chosen_, v.could.size() - 1)];
    const std::string ref = lineFor(session_.judged(), could.refs);
    if (ref.empty()) {
        session_.say(QStringLiteral("It stays among the parts over; F8, then S puts spares into a drawer."));
        begin(QString());
        return;
    }
    if (session_.kept(session_.book().settleLoose(v.part->id, ref, unitOf(v.part->kind)))) {
        session_.say(QStringLiteral("It is %1.").arg(qs(ref)), VerdictState::pass);
        begin(QString());
    }
}

void WhichPartPage::refresh() {
    if (!session_.hasBuild()) return;
    const WhichPartView v = view();
    if (v.part == nullptr) {
        id_ = 0;
    } else {
        kind_ = v.part->kind;
    }
    setNow(qs(v.now), qs(v.why));
    const Unit unit = unitOf(kind_);
    // A part without a line has nothing to be near to: the prefix must be typed, as the meter shows it.
    Reading pattern;
    pattern.unit = unit;
    const auto understand = [this, pattern](const QString& text) {
        return session_.understand(pattern, text);
    };
    if (unit != Unit::none) {
        wantReading(QStringLiteral("It reads"), understand,
                    [this, understand, id = id_, kind = kind_](const QString& text) {
                        const Reading r = understand(text).reading;
                        keepReading(id, kind, {r.value, r.uncertainty});
                    });
    } else {
        wantNothing();
    }
    head_->setText(v.part == nullptr ? QStringLiteral("A ") + qs(word(kind_)) : qs(v.head));
    if (v.part != nullptr && std::isfinite(v.part->value)) {
        const SplitText split = splitQuantity(v.part->value, unit, 4);
        number_->show(qs(split.number), qs(split.unit));
    } else {
        number_->showWord(QStringLiteral("not measured"));
    }
    Part loose;
    loose.kind = kind_;
    loose.value = word(kind_);
    if (v.part != nullptr) {
        loose.mark = v.part->printed;
        if (std::isfinite(v.part->value)) loose.nominal = v.part->value;
    }
    picture_->show(partLookOf(loose));
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < v.could.size(); ++i) {
        const auto& could = v.could[i];
        lines.push_back(
            {could.open ? VerdictState::pass : VerdictState::notDone, qs(could.text),
             qs(decimals(could.odds * 100, could.odds > 0.995 ? 0 : 1)) + QStringLiteral("\u202f%"),
             i == chosen_, false});
    }
    for (const std::string& wanted : v.wanted)
        lines.push_back({VerdictState::notDone, qs(wanted), QString(), false, false});
    could_->setTitle(v.part != nullptr ? QStringLiteral("Which line it may be")
                                       : QStringLiteral("Still wanted of this kind"));
    could_->setText(lines.empty()
                        ? QStringLiteral("Nothing of this kind is short: a part in your hand would be over.")
                        : QString());
    couldList_->setVisible(!lines.empty());
    couldList_->setLines(std::move(lines));
    lines.clear();
    for (const auto& reading : v.readings)
        lines.push_back({reading.wanted ? VerdictState::pass : VerdictState::notDone, qs(reading.value),
                         reading.wanted ? QStringLiteral("still needed") : QStringLiteral("not needed"),
                         false, false});
    markList_->setLines(std::move(lines));
    markList_->setVisible(!v.readings.empty());
    marks_->setText(
        !v.readings.empty()
            ? qs(v.readings.front().meaning)
            : QStringLiteral(
                  "104\u2003figures and zeros\n4k7  R47  2n2\u2003a letter for the point\n68X\u2003"
                  "three characters on a chip\n104K 50V\u2003with tolerance and voltage\nbrown "
                  "black red gold\u2003bands, from either end\n\nEvery reading is offered; what the "
                  "kit still needs comes first."));
    others_->setTitle(QStringLiteral("Without a line"));
    QStringList others;
    for (const auto& other : v.others) others << qs(other);
    others_->setText(others.isEmpty() ? QStringLiteral("No other part.") : others.join(QChar('\n')));
}

}  // namespace ombrek
