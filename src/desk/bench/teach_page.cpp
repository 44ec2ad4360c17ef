#include "desk/bench/teach_page.h"

#include <algorithm>
#include <cmath>

#include "core/meter/display_words.h"
#include "desk/bench/line_words.h"
#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "instruments/bench.h"

namespace ombrek {
namespace {

constexpr int kLook = 200;  ///< [ms]
constexpr int kShown = 12;  ///< lines

}  // namespace

TeachPage::TeachPage(Session& session)
    : Page(session, QStringLiteral("Its lines")),
      big_number_(new BigNumber(96)),
      words_(new LineWords),
      sheet_(new Card),
      heard_(new Card),
      how_(new Card),
      list_(new StateList) {
    big()->addWidget(big_number_);
    sheet_->setTitle(QStringLiteral("One line of it"));
    sheet_->addBody(words_);
    big()->addWidget(sheet_, 0);
    big()->addStretch(1);
    heard_->setTitle(QStringLiteral("It sends"));
    heard_->addBody(list_, 1);
    heard_->fillWithBody();
    side()->addWidget(heard_, 1);
    how_->setTitle(QStringLiteral("Nothing, or rubbish?"));
    how_->setText(
        QStringLiteral("Rubbish: the speed is another (W on Instruments). Nothing: some meters send only "
                       "after a key of theirs was held while they were switched on, or want "
                       "dtr or rts behind the speed."));
    side()->addWidget(how_, 0);
    setEnter("this-is-it", "this is it", [this] { thisIsIt(); });
    addKey("a-word", "Right", "Left Right", "a word", [this] { move(1); });
    addRare("the-word-before", "Left", "the word before", [this] { move(-1); });
    addKey("hold-the-line", "Space", "Space", "hold a line, or go on", [this] {
        held_ = !held_;
        refresh();
    });
    addKey("its-unit", "U", "U", "the line says no unit", [this] { askUnit(); });
    addRare("comma-is-the-mark", "C", "a comma is its decimal mark", [this] {
        comma_ = !comma_;
        takeLine(line_);
    });
    addKey("begin-again", "X", "X", "begin again", [this] { begin(name_); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
    connect(words_, &LineWords::clicked, this, [this](int word) {
        at_ = word;
        chosen(word);
    });
    connect(list_, &StateList::picked, this, [this](int row) {
        const Talk* talk = session_.bench().talk(name_.toStdString());
        if (talk == nullptr) return;
        int n = 0;
        for (auto line = talk->lines().rbegin(); line != talk->lines().rend(); ++line) {
            if (line->who != Talk::Who::instrument || n++ != row) continue;
            held_ = true;
            return takeLine(line->bytes);
        }
    });
    timer_.setInterval(kLook);
    connect(&timer_, &QTimer::timeout, this, [this] { listen(); });
}

const Instrument* TeachPage::instrument() const {
    for (const Instrument& one : session_.bench().instruments()) {
        if (qs(one.name) == name_) return &one;
    }
    return nullptr;
}

void TeachPage::begin(const QString& about) {
    name_ = about;
    line_.clear();
    fixed_.clear();
    held_ = false;
    at_ = 0;
    number_ = -1;
    unit_.reset();
    seen_ = 0;
    listen();
    refresh();
}

void TeachPage::showEvent(QShowEvent* event) {
    Page::showEvent(event);
    timer_.start();
}

void TeachPage::hideEvent(QHideEvent* event) {
    timer_.stop();
    Page::hideEvent(event);
}

/// The newest line of it is taken up, unless one is held.
void TeachPage::listen() {
    if (instrument() == nullptr) return;
    if (!listening_) {
        listening_ = true;
        session_.bench().identify(name_.toStdString(),
                                  [self = QPointer<TeachPage>(this)](const Result<QString>&) {
                                      if (self) self->listening_ = false;
                                  });
    }
    const Talk* talk = session_.bench().talk(name_.toStdString());
    if (talk == nullptr || talk->count() == seen_) return;
    seen_ = talk->count();
    for (auto line = talk->lines().rbegin(); line != talk->lines().rend(); ++line) {
        if (line->who != Talk::Who::instrument) continue;
        if (!held_ && line->bytes != line_) takeLine(line->bytes);
        break;
    }
    refresh();
}

/// What was shown before stays shown where the new line has the same shape; else it is guessed anew.
void TeachPage::takeLine(const QByteArray& line) {
    line_ = line;
    const auto words = displayWords(line.toStdString(), comma_);
    const bool holds = number_ >= 0 && number_ < int(words.size()) &&
                       (!unit_ || (*unit_ < int(words.size()) && readUnitWord(words[std::size_t(*unit_)])));
    if (!holds) {
        const auto guess = guessNumber(words, comma_);
        number_ = guess ? int(*guess) : -1;
        unit_ = guess ? std::optional(number_ + 1) : std::nullopt;
        at_ = std::max(number_, 0);
    }
    refresh();
}

std::optional<LinePattern> TeachPage::pattern() const {
    if (number_ < 0) return std::nullopt;
    const auto unit = unit_ ? std::optional(std::size_t(*unit_)) : std::nullopt;
    return learnPattern(line_.toStdString(), std::size_t(number_), unit, fixed_.toStdString(), comma_);
}

void TeachPage::move(int by) {
    const int count = int(displayWords(line_.toStdString(), comma_).size());
    if (count == 0) return;
    held_ = true;
    at_ = (at_ + by + count) % count;
    refresh();
}

/// A number or a unit was shown; what is neither is said to be.
void TeachPage::chosen(int word) {
    held_ = true;
    const auto words = displayWords(line_.toStdString(), comma_);
    if (word < 0 || word >= int(words.size())) return;
    const std::string& text = words[std::size_t(word)];
    if (readShownNumber(text, comma_) || isOverloadWord(text)) {
        number_ = word;
        const bool beside = word + 1 < int(words.size()) && readUnitWord(words[std::size_t(word + 1)]);
        if (beside) {
            unit_ = word + 1;
        } else if (!unit_) {
            session_.say(
                QStringLiteral("That is the number. Now show its unit, or U where the line says none."));
        }
    } else if (readUnitWord(text)) {
        unit_ = word;
        fixed_.clear();
    } else {
        session_.say(QStringLiteral("\"%1\" is no number, and no unit that is known in this form.")
                         .arg(qs(text).left(20)),
                     VerdictState::cannotTell);
    }
    refresh();
}

/// Enter on another word shows that one; with number and unit shown it is kept.
void TeachPage::thisIsIt() {
    const bool shown = at_ == number_ || (unit_ && at_ == *unit_);
    if (line_.isEmpty())
        return session_.say(QStringLiteral("Nothing was heard yet: wait for a line."),
                            VerdictState::cannotTell);
    if (!shown) return chosen(at_);
    keep();
}

void TeachPage::askUnit() {
    held_ = true;
    askText(QStringLiteral("The unit of the number, as pF or kΩ"), fixed_, [this](const QString& text) {
        const auto unit = readUnitWord(text.trimmed().toStdString());
        if (!unit)
            return session_.say(QStringLiteral("Write a unit with its prefix, as pF, uH, mV or kohm."),
                                VerdictState::cannotTell);
        fixed_ = text.trimmed();
        unit_.reset();
        refresh();
    });
}

void TeachPage::keep() {
    const auto shown = pattern();
    const Instrument* one = instrument();
    if (one == nullptr) return;
    if (!shown)
        return session_.say(
            QStringLiteral("The number is shown, its unit is not: show it, or U where the line says none."),
            VerdictState::cannotTell);
    Instrument changed = *one;
    changed.speaks = "lines";
    changed.pattern = shown->text();
    const Sample sample = readLine(*shown, line_.toStdString());
    auto units = unitsOf(changed.measures);
    if (std::find(units.begin(), units.end(), sample.unit) == units.end()) units.push_back(sample.unit);
    changed.measures = measuresText(units);
    if (const auto kept = session_.keepInstrument(changed); !kept)
        return session_.say(qs(kept.error().text()), VerdictState::cannotTell);
    session_.say(QStringLiteral("Kept: its lines are read as \"%1\".").arg(qs(changed.pattern)),
                 VerdictState::pass);
    emit wants(QStringLiteral("bench"), name_);
}

void TeachPage::refresh() {
    const Instrument* one = instrument();
    if (one == nullptr) {
        setNow(QStringLiteral("No instrument is in hand."), QStringLiteral("Esc goes back."));
        return;
    }
    QStringList words;
    for (const std::string& word : displayWords(line_.toStdString(), comma_))
        words << Talk::printable(QByteArray::fromStdString(word));
    words_->show(words, at_, number_, unit_);
    const auto shown = pattern();
    if (line_.isEmpty()) {
        setNow(QStringLiteral("Listening to the %1: put something known on its clips.").arg(name_),
               QStringLiteral("A line that it sends stands here as soon as one comes."));
    } else if (!shown) {
        setNow(number_ < 0 ? QStringLiteral("Which of these is the number? Go to it, and Enter.")
                           : QStringLiteral(
                                 "And which is its unit? Go to it, and Enter; U where the line says none."),
               QStringLiteral("Or click on it. Space holds a line that runs away."));
    } else {
        setNow(QStringLiteral("Does its display show this? Then Enter keeps it."),
               QStringLiteral("Later lines are read by \"%1\"; what is of another shape is no reading.")
                   .arg(qs(shown->text())));
    }
    const Sample sample = shown ? readLine(*shown, line_.toStdString()) : Sample();
    if (sample.kind == Sample::Kind::reading) {
        const SplitText text = splitQuantity(sample.value, sample.unit, 6, Zeros::drop);
        big_number_->show(qs(text.number), qs(text.unit));
    } else {
        big_number_->showWord(sample.kind == Sample::Kind::overload ? QStringLiteral("overload")
                              : line_.isEmpty()                     ? QStringLiteral("listening")
                                                                    : QStringLiteral("which one?"));
    }
    sheet_->setText(line_.isEmpty() ? QString()
                    : held_         ? QStringLiteral("Held. Space goes on.")
                                    : QStringLiteral("The newest; Space holds it."));
    std::vector<StateLine> lines;
    bool marked = false;
    if (const Talk* talk = session_.bench().talk(name_.toStdString())) {
        for (auto line = talk->lines().rbegin(); line != talk->lines().rend() && int(lines.size()) < kShown;
             ++line) {
            if (line->who != Talk::Who::instrument) continue;
            const bool this_ = !marked && line->bytes == line_;
            marked = marked || this_;
            lines.push_back({VerdictState::notDone, line->text, QString(), this_, false, true});
        }
    }
    list_->setLines(std::move(lines));
}

}  // namespace ombrek
