#include "desk/which_part/which_part_page.h"

#include <cmath>

#include "desk/pieces/band_picker.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
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
    setEnter("measure, then put it there", [this] { enter(); });
    addKey("R", "R C L", "what kind it is", [this] { setKind(PartKind::resistor); });
    addKey("M", "M", "type its mark", [this] { askMark(); });
    addKey("K", "K", "colour bands", [this] {
        if (kind_ == PartKind::capacitor) setKind(PartKind::resistor);
        bands_->begin();
    });
    addKey("A", "A", "another part", [this] { begin(QString()); });
    addKey("Esc", "Esc", "back", [this] { emit left(); });
    const auto rare = [this](const char* key, const char* does, std::function<void()> act) {
        addKey(key, key, does, std::move(act), false);
    };
    rare("C", "a capacitor", [this] { setKind(PartKind::capacitor); });
    rare("L", "a choke", [this] { setKind(PartKind::inductor); });
    rare("T", "take the mark's word", [this] { settle(); });
    rare("Delete", "it was no part of this kit: forget it", [this] {
        if (id_ != 0 && session_.keep(session_.book().dropLoose(id_))) begin(QString());
    });
    const auto choose = [this](int by) {
        const auto count = int(view().could.size());
        if (count > 0) chosen_ = std::size_t((int(chosen_) + by + count) % count);
        refresh();
    };
    rare("Down", "the next line", [choose] { choose(1); });
    rare("Up", "the line before", [choose] { choose(-1); });
}

void WhichPartPage::begin(const QString& about) {
    id_ = about.toLongLong();
    chosen_ = 0;
    bands_->hide();
    refresh();
}

WhichPartView WhichPartPage::view() const {
    return whichPartView(session_.kit(), session_.build(), id_, kind_, chosen_);
}

/// What the practice bench calls the part in hand.
QString WhichPartPage::subject() const {
    const auto& loose = session_.build().loose;
    const auto hit =
        std::find_if(loose.begin(), loose.end(), [&](const LoosePart& p) { return p.id == id_; });
    return QStringLiteral("loose:%1").arg(hit - loose.begin() + 1);
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

/// Write the part in hand to the book: a new one is added, one that is there is changed.
void WhichPartPage::keep(const LoosePart& part) {
    chosen_ = 0;
    if (!session_.keep(session_.book().keepLoose(part))) return;
    if (part.id == 0 && !session_.build().loose.empty()) id_ = session_.build().loose.back().id;
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
    session_.measure(unitOf(kind_), subject(), -1, [this](Measured m) { keepReading(m); });
}

/// The part in hand as the book has it, or a new one.
LoosePart WhichPartPage::inHand() const {
    const WhichPartView v = view();
    return v.part != nullptr ? *v.part : LoosePart{0, kind_, "", NAN, 0};
}

void WhichPartPage::keepReading(const Measured& measured) {
    LoosePart part = inHand();
    part.value = measured.value;
    part.uncertainty = measured.uncertainty;
    keep(part);
}

void WhichPartPage::askMark() {
    session_.bench().look(subject(), [self = QPointer<WhichPartPage>(this)](QString seen) {
        if (!self) return;
        self->askText(QStringLiteral("Printed on it"), seen,
                      [self](const QString& text) { self->useMark(text); });
    });
}

void WhichPartPage::useMark(const QString& printed) {
    const auto readings = readMark(printed.toStdString(), kind_);
    LoosePart part = inHand();
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
    const std::string ref = lineFor(session_.kit(), session_.build(), could.refs);
    if (ref.empty()) {
        session_.say(QStringLiteral("It stays among the parts over; F8, then S puts spares into a drawer."));
        begin(QString());
        return;
    }
    if (session_.keep(session_.book().settleLoose(v.part->id, ref, unitOf(v.part->kind)))) {
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
    wantReading(QStringLiteral("It reads"), [this, unit](const QString& text) {
        const auto typed = parseQuantity(text.toStdString(), unit);
        if (!typed) return session_.say(qs(typed.error().text()), VerdictState::cannotTell);
        keepReading(measuredWith(session_.book().meters(), unit, typed->value));
    });
    head_->setText(v.part == nullptr ? QStringLiteral("A ") + qs(word(kind_)) : qs(v.head));
    if (v.part != nullptr && std::isfinite(v.part->value)) {
        const SplitText split = splitQuantity(v.part->value, unit, 4);
        number_->show(qs(split.number), qs(split.unit));
    } else {
        number_->showWord(QStringLiteral("not measured"));
    }
    picture_->show({kind_, qs(word(kind_)), v.part != nullptr ? qs(v.part->printed) : QString(), QString()});
    std::vector<StateLine> lines;
    for (std::size_t i = 0; i < v.could.size(); ++i) {
        const auto& could = v.could[i];
        lines.push_back(
            {could.open ? VerdictState::pass : VerdictState::notDone, qs(could.text),
             QStringLiteral("%1\u202f%").arg(could.odds * 100, 0, 'f', could.odds > 0.995 ? 0 : 1),
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
