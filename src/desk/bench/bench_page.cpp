#include "desk/bench/bench_page.h"

#include <cmath>

#include "desk/pieces/big_number.h"
#include "desk/pieces/card.h"
#include "desk/pieces/state_list.h"
#include "formats/accuracy_text.h"
#include "instruments/bench.h"
#include "instruments/scpi_device.h"

namespace ombrek {
namespace {

/// SCPI and lines go over the same cables; what a way speaks is chosen only there.
bool choosesWords(Way way) { return way == Way::tcp || way == Way::serial || way == Way::usbtmc; }

}  // namespace

QString wordsOf(Way way) {
    switch (way) {
        case Way::practice:
            return QStringLiteral("practice bench");
        case Way::tcp:
            return QStringLiteral("network");
        case Way::serial:
            return QStringLiteral("serial port");
        case Way::usbtmc:
            return QStringLiteral("USB (usbtmc)");
        case Way::sigrok:
            return QStringLiteral("libsigrok");
        case Way::folder:
            return QStringLiteral("folder");
    }
    return {};
}

VerdictState markOf(const Session& session, const Instrument& instrument) {
    using Is = BenchState::Is;
    switch (session.bench().state(instrument.name).is) {
        case Is::there:
            return VerdictState::pass;
        case Is::silent:
            return VerdictState::fail;
        case Is::disagrees:
            return VerdictState::doubtful;
        default:
            return VerdictState::notDone;
    }
}

QString speaksOf(const Session& session, const Instrument& instrument) {
    if (instrument.speaks == "lines") return QStringLiteral("lines that it sends");
    for (const CommandSet& set : session.bench().sets()) {
        if (set.id == instrument.speaks) return QStringLiteral("SCPI: ") + qs(set.name);
    }
    return choosesWords(instrument.way) ? QStringLiteral("not chosen") : wordsOf(instrument.way);
}

BenchPage::BenchPage(Session& session)
    : Page(session, QStringLiteral("Instruments")),
      number_(new BigNumber(96)),
      sheet_(new Card),
      facts_(new Card),
      next_(new Card),
      list_(new StateList) {
    big()->addWidget(number_);
    big()->addWidget(sheet_, 0);
    facts_->setTitle(QStringLiteral("As the book has it"));
    big()->addWidget(facts_, 0);
    big()->addStretch(1);
    auto* all = new Card;
    all->setTitle(QStringLiteral("Your bench"));
    all->addBody(list_, 1);
    all->fillWithBody();
    side()->addWidget(all, 2);
    next_->setTitle(QStringLiteral("Before you connect"));
    next_->setCaution(QStringLiteral("A lead joins the meter's ground to the computer's: never on mains."));
    next_->setText(QStringLiteral("A lead with isolation is the safe one."));
    side()->addWidget(next_, 0);
    addKeys();
    connect(list_, &StateList::picked, this, [this](int row) {
        const auto& all = session_.bench().instruments();
        if (row >= 0 && row < int(all.size())) name_ = qs(all[std::size_t(row)].name);
        refresh();
    });
    connect(&session_.bench(), &Bench::stateChanged, this, [this](const QString&) {
        if (isVisible()) showState();
    });
}

void BenchPage::addKeys() {
    setEnter("try-it", "try it", [this] { tryIt(); });
    addKey("an-instrument", "Down", "Up Down", "an instrument", [this] { choose(1); });
    addRare("the-instrument-before", "Up", "the instrument before", [this] { choose(-1); });
    addKey("add-an-instrument", "A", "A", "add one",
           [this] { emit wants(QStringLiteral("add-instrument"), QString()); });
    addKey("what-it-measures", "M", "M", "what it measures", [this] { askMeasures(); });
    addKey("its-command-set", "S", "S", "its command set", [this] { nextCommandSet(); });
    addKey("its-lines", "L", "L", "show its number in a line", [this] { teach(); });
    addKey("what-was-said", "T", "T", "what was said", [this] { emit wants(QStringLiteral("talk"), name_); });
    addRare("where-it-is", "W", "where it is",
            [this] { askFor(QStringLiteral("Where it is"), &Instrument::address); });
    addRare("name-it", "N", "name it",
            [this] { askFor(QStringLiteral("Its name on your bench"), &Instrument::name); });
    addRare("average", "V", "readings in one", [this] { askAverage(); });
    addRare("ask-it-first", "Shift+Up", "ask it before the others", [this] { moveUp(); });
    addKey("use-it-or-not", "U", "U", "use it, or lay it aside", [this] { useOrNot(); });
    addRare("off-the-list", "Delete", "take it off the list", [this] { remove(); });
    addRare("its-data-sheet", "D", "its data sheet", [this] { emit wants(QStringLiteral("meters"), name_); });
    addKey("back", "Esc", "Esc", "back", [this] { emit left(); });
}

const Instrument* BenchPage::inHand() const {
    const auto& all = session_.bench().instruments();
    for (const Instrument& one : all) {
        if (qs(one.name) == name_) return &one;
    }
    return all.empty() ? nullptr : &all.front();
}

void BenchPage::begin(const QString& about) {
    if (!about.isEmpty()) name_ = about;
    refresh();
}

void BenchPage::choose(int by) {
    const auto& all = session_.bench().instruments();
    if (all.empty()) return;
    const int count = int(all.size());
    const int at = int(inHand() - all.data());
    name_ = qs(all[std::size_t((at + by + count) % count)].name);
    refresh();
}

/// Who it is, and what it shows of the first thing that it measures.
void BenchPage::tryIt() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    if (!session_.bench().trusts(*one) && std::exchange(yes_, one->name) != one->name) {
        session_.say(QStringLiteral("The %1 came with this book. Enter again: it may be asked, at %2.")
                         .arg(qs(one->name), qs(one->address)),
                     VerdictState::doubtful);
        return;
    }
    if (!session_.bench().trusts(*one)) {
        session_.trust(*one);
        one = inHand();  // the list was made anew
        if (one == nullptr) return;
    }
    tried_ = name_ = qs(one->name);
    readUnit_ = Unit::none;
    words_.clear();
    session_.say(QStringLiteral("Asking the %1 …").arg(name_));
    session_.bench().identify(
        one->name, [self = QPointer<BenchPage>(this), instrument = *one](const Result<QString>& words) {
            if (!self) return;
            if (!words)
                return self->session_.say(
                    QStringLiteral("The %1: %2").arg(qs(instrument.name), qs(words.error().sentence)),
                    VerdictState::cannotTell);
            self->words_ = words->left(120).simplified();
            self->words_.replace(0, 1, self->words_.left(1).toUpper());
            self->session_.say(QStringLiteral("The %1 is there: %2").arg(qs(instrument.name), self->words_),
                               VerdictState::pass);
            if (self->knows(instrument, *words)) self->readIt(instrument);
            self->refresh();
        });
}

/// Whether it is the one that the list knows; the first that tells who it is becomes that one, and another
/// only when it is tried twice.
bool BenchPage::knows(const Instrument& instrument, const QString& words) {
    const std::string who =
        choosesWords(instrument.way) && instrument.speaks != "lines" ? identityOf(words) : "";
    if (who.empty() || who == instrument.identity) return true;
    if (!instrument.identity.empty() && std::exchange(another_, who) != who) {
        session_.say(
            QStringLiteral("Another answers there than the list knows, %1. Enter again takes it as the %2.")
                .arg(qs(who), qs(instrument.name)),
            VerdictState::doubtful);
        return false;
    }
    Instrument changed = instrument;
    changed.identity = who;
    const auto kept = session_.keepInstrument(changed);
    if (!kept) session_.say(qs(kept.error().text()), VerdictState::cannotTell);
    return kept.has_value();
}

void BenchPage::readIt(const Instrument& instrument) {
    // The practice bench reads points of a kit, and there is none here.
    const auto units = unitsOf(instrument.measures);
    if (instrument.way == Way::practice || units.empty()) return;
    const Unit unit = units.front();
    const Instrument* asked = instrumentOf(session_.bench().instruments(), unit);
    if (asked == nullptr || asked->name != instrument.name)
        return session_.say(
            QStringLiteral("It is there; another stands before it for %1 (Shift+Up).").arg(qs(plural(unit))),
            VerdictState::pass);
    session_.measure(unit, Subject::openClips(), -1,
                     [self = QPointer<BenchPage>(this), unit, name = qs(instrument.name)](Measured m) {
                         if (!self) return;
                         self->tried_ = name;
                         self->read_ = m;
                         self->readUnit_ = unit;
                         self->refresh();
                     });
}

/// One action on the book; the name in hand follows a new name.
void BenchPage::change(const std::function<void(Instrument&)>& how) {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    Instrument changed = *one;
    how(changed);
    const auto kept = session_.keepInstrument(changed);
    if (!kept) return session_.say(qs(kept.error().text()), VerdictState::cannotTell);
    name_ = qs(changed.name);
    refresh();
}

void BenchPage::askFor(const QString& prompt, std::string Instrument::*field) {
    const Instrument* one = inHand();
    if (one == nullptr || one->way == Way::practice)
        return session_.say(
            QStringLiteral("The practice bench is where the strip has it (B), and keeps its name."));
    askText(prompt, qs(one->*field), [this, field](const QString& text) {
        const std::string typed = text.simplified().left(200).toStdString();
        change([&](Instrument& i) { i.*field = typed; });
    });
}

void BenchPage::askMeasures() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    askText(QStringLiteral("What it measures, of V A Ω F H Hz dBm dB"), qs(one->measures),
            [this](const QString& text) {
                const QString typed =
                    QString(text)
                        .replace(QStringLiteral("ohm"), QStringLiteral("Ω"), Qt::CaseInsensitive)
                        .replace(QChar(','), QChar(' '))
                        .simplified();
                const auto units = unitsOf(typed.toStdString());
                if (int(units.size()) != int(typed.split(QChar(' '), Qt::SkipEmptyParts).size()))
                    return session_.say(QStringLiteral("Write units with blanks between: V A Ω, or F H."),
                                        VerdictState::cannotTell);
                change([&](Instrument& i) { i.measures = measuresText(units); });
            });
}

void BenchPage::askAverage() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    askText(QStringLiteral("Readings in one, 1 to 100"), QString::number(one->average),
            [this](const QString& text) {
                bool number = false;
                const int count = text.trimmed().toInt(&number);
                if (!number || count < 1 || count > 100)
                    return session_.say(QStringLiteral("A number from 1 to 100."), VerdictState::cannotTell);
                change([&](Instrument& i) { i.average = count; });
            });
}

/// The next one, and what it measures by it.
void BenchPage::nextCommandSet() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    if (!choosesWords(one->way))
        return session_.say(QStringLiteral("A command set is for the network, a serial port or USB."));
    const auto& sets = session_.bench().sets();
    if (sets.empty())
        return session_.say(QStringLiteral("No command sets were found."), VerdictState::cannotTell);
    std::size_t at = 0;
    for (std::size_t i = 0; i < sets.size(); ++i) {
        if (sets[i].id == one->speaks) at = (i + 1) % sets.size();
    }
    std::vector<Unit> units;
    for (const CommandSet::Query& q : sets[at].queries) {
        if (std::find(units.begin(), units.end(), q.unit) == units.end()) units.push_back(q.unit);
    }
    change([&](Instrument& i) {
        i.speaks = sets[at].id;
        i.measures = measuresText(units);
    });
}

void BenchPage::teach() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    if (!choosesWords(one->way))
        return session_.say(QStringLiteral("Lines come over the network, a serial port or USB."));
    if (one->speaks != "lines") change([](Instrument& i) { i.speaks = "lines"; });
    emit wants(QStringLiteral("teach"), name_);
}

void BenchPage::moveUp() {
    const auto& all = session_.bench().instruments();
    std::int64_t first = 0;
    for (const Instrument& other : all) first = std::min(first, other.place);
    const Instrument* one = inHand();
    if (one != nullptr && one->way == Way::practice)
        return session_.say(QStringLiteral(
            "Your own instruments are asked before the practice bench; lay them aside to practise (U)."));
    change([&](Instrument& i) { i.place = first - 1; });
}

void BenchPage::useOrNot() {
    change([](Instrument& i) { i.used = !i.used; });
}

void BenchPage::remove() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    if (one->way == Way::practice)
        return session_.say(QStringLiteral("The practice bench stays in the list; U lays it aside."));
    if (session_.kept(session_.book().removeInstrument(one->name)))
        session_.say(QStringLiteral("Off the list; its data sheets stay. Z takes that back."));
}

/// What is still to be done for it.
QString BenchPage::nextThing(const Instrument& i) const {
    if (!i.used) return QStringLiteral("It is laid aside: U uses it again.");
    if (choosesWords(i.way) && i.speaks.empty())
        return QStringLiteral(
            "Say how it speaks: S turns through the command sets; L, if it sends lines by itself.");
    if (i.speaks == "lines" && i.pattern.empty())
        return QStringLiteral("Show where the number stands in its lines: L.");
    if (i.measures.empty() && i.way != Way::folder) return QStringLiteral("Say what it measures: M.");
    return {};
}

void BenchPage::showState() {
    std::vector<StateLine> lines;
    const Instrument* mine = inHand();
    for (const Instrument& one : session_.bench().instruments()) {
        const BenchState state = session_.bench().state(one.name);
        const QString right = !one.used                               ? QStringLiteral("aside")
                              : state.is == BenchState::Is::busy      ? QStringLiteral("busy")
                              : state.is == BenchState::Is::silent    ? QStringLiteral("silent")
                              : state.is == BenchState::Is::disagrees ? QStringLiteral("disagrees")
                              : one.measures.empty()                  ? wordsOf(one.way)
                              : one.way == Way::practice              ? QStringLiteral("the rest")
                                                                      : qs(one.measures);
        lines.push_back({markOf(session_, one), qs(one.name), right, &one == mine, false});
    }
    list_->setLines(std::move(lines));
    if (mine == nullptr) return;
    const BenchState state = session_.bench().state(mine->name);
    const bool tried = tried_ == qs(mine->name);
    if (tried && readUnit_ != Unit::none) {
        if (read_.beyond) {
            number_->showWord(QStringLiteral("over its range"));
        } else {
            const SplitText text = splitQuantity(read_.value, readUnit_, readUnit_ == Unit::hertz ? 8 : 4);
            number_->show(qs(text.number), qs(text.unit));
        }
    } else {
        number_->showWord(state.is == BenchState::Is::there       ? QStringLiteral("there")
                          : state.is == BenchState::Is::silent    ? QStringLiteral("silent")
                          : state.is == BenchState::Is::busy      ? QStringLiteral("busy")
                          : state.is == BenchState::Is::disagrees ? QStringLiteral("disagrees")
                                                                  : QStringLiteral("not tried"));
    }
    sheet_->setTitle(qs(mine->name));
    QString said = state.words.isEmpty() && tried ? words_ : state.words;
    if (tried && readUnit_ != Unit::none && !read_.beyond)
        said = QStringLiteral("It stands, and is known to ±%1.\n%2")
                   .arg(qs(formatQuantity(read_.uncertainty, readUnit_, 2)), words_);
    sheet_->setText(said.isEmpty() ? QStringLiteral("Nothing was heard from it yet.") : said);
}

void BenchPage::refresh() {
    const Instrument* one = inHand();
    if (one == nullptr) return;
    name_ = qs(one->name);
    const QString next = nextThing(*one);
    setNow(next.isEmpty() ? QStringLiteral("Clips on something you know, then Enter tries the %1.").arg(name_)
                          : next,
           QStringLiteral("Whatever measures the unit is asked, yours before the practice bench. One that is "
                          "silent is told of, "
                          "never replaced."));
    std::vector<Fact> facts{
        {QStringLiteral("Reached by"), wordsOf(one->way)},
        {QStringLiteral("Where"),
         one->address.empty() ? QStringLiteral("as the strip says (B)") : qs(one->address)},
        {QStringLiteral("Speaks"), speaksOf(session_, *one)},
        {QStringLiteral("Measures"), one->measures.empty() ? QStringLiteral("not said") : qs(one->measures)}};
    if (!one->identity.empty()) facts.push_back({QStringLiteral("Is"), qs(one->identity)});
    if (!one->pattern.empty()) facts.push_back({QStringLiteral("Its line"), qs(one->pattern)});
    if (one->average > 1) facts.push_back({QStringLiteral("Readings in one"), QString::number(one->average)});
    for (const Unit unit : unitsOf(one->measures)) {
        if (one->way == Way::practice) break;
        const auto line = meterFor(session_.book().meters(), unit, 0, {one->name});
        if (line)
            facts.push_back({qs(plural(unit)), line->name == one->name
                                                   ? qs(accuracyText(*line))
                                                   : QStringLiteral("as usual: D writes its own")});
    }
    facts_->setFacts(facts);
    showState();
}

}  // namespace ombrek
