#include "desk/session.h"

#include "desk/person.h"
#include "desk/pieces/spoken.h"

#include <QHostAddress>
#include <QStandardPaths>
#include <cmath>

#include "core/quantity/shown.h"
#include "formats/accuracy_text.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "instruments/bench.h"
#include "judged/tune_before.h"
#include "log/log.h"
#include "practice/practice_instruments.h"
#include "station/expected.h"
#include "station/first_light/flow_wanted.h"
#include "station/winding/winding.h"

namespace ombrek {

namespace {

/// Where and how an instrument is spoken to, as the person's yes is remembered.
QString trustedPlace(const Instrument& one) {
    return QStringList{QString::number(int(one.way)), qs(one.address), qs(one.speaks)}.join(QChar('|'));
}

/// The command sets that ship, and the builder's own beside them. What cannot be read is logged: an
/// instrument that wants it says that it has none.
std::vector<CommandSet> commandSets() {
    std::vector<CommandSet> out;
    const QString own = QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) +
                        QStringLiteral("/ombrek/instruments");
    for (const std::filesystem::path& folder :
         {dataFolder() / "instruments", std::filesystem::path(own.toStdString())}) {
        const auto sets = readCommandSets(folder);
        if (!sets) logLine(LogLevel::warning, "command sets: " + sets.error().text());
        for (const CommandSet& set : sets.value_or(std::vector<CommandSet>())) {
            std::erase_if(out, [&](const CommandSet& other) { return other.id == set.id; });
            out.push_back(set);
        }
    }
    return out;
}

}  // namespace

Session::~Session() = default;

BenchClient& Session::practice() { return bench_->practice(); }

Session::Session(Tables tables, std::unique_ptr<Book> book, QObject* parent)
    : QObject(parent),
      tables_(std::move(tables)),
      book_(std::move(book)),
      bench_(std::make_unique<Bench>(commandSets())) {
    bench_->setTrusted(
        [](const Instrument& one) { return one.way == Way::practice || person::trusts(trustedPlace(one)); });
    bench_->setError([this](const Instrument& instrument, Unit unit, double value) {
        const double off = measuredWith(book_->meters(), unit, value, {instrument.name}).uncertainty;
        // A counter repeats itself far better than its crystal is right.
        return unit == Unit::hertz ? std::min(off, usualUncertainty(unit, value)) : off;
    });
    const QString address = qs(book_->preference("instruments"));
    const int colon = int(address.lastIndexOf(QChar(':')));
    bool port = false;
    const quint16 first = address.mid(colon + 1).toUShort(&port);
    // A practice bench elsewhere than on this machine is asked only where the person has said so.
    const bool here =
        QHostAddress(address.left(colon)).isLoopback() || address.startsWith(QStringLiteral("localhost:"));
    if (colon > 0 && port && (here || person::trusts(address)))
        practice().setAddress(address.left(colon), first);
    connect(bench_.get(), &Bench::waits, this, [this](const QString& why) {
        if (waiting_)
            say(why + QStringLiteral(" It is waited for; Esc calls it off."), VerdictState::doubtful);
    });
    connect(&weighing_, &Weighing::weighed, this, [this] {
        weighing_.adoptInto(*judged_);
        emit changed();
    });
    reload({.all = true, .changed = {}, .added = {}});
    book_->onChange([this](const Book::Notice& notice) {
        reload(notice);
        const auto taken = std::exchange(taking_, {});
        for (const Subject& subject : taken) emit this->taken(subject);
        emit changed();
        speakVerdicts(taken);
    });
}

/// How the kit in hand stands, for the practice bench: trimmers where they were read last, coils as they are
/// wound and bent.
QByteArray Session::practiceState() const {
    std::string out = "SIM:RES\nSIM:ATT " + plainNumber(powerSetting(powerMethods().front())) + "\n";
    const auto put = [&](const std::string& command, const std::string& subject, double value) {
        out += "SIM:" + command + " \"" + subject + "\"," + plainNumber(value) + "\n";
    };
    if (const auto on = build_.gates.find(kSwitchedOn); on != build_.gates.end())
        out += "SIM:ON " + plainNumber(double(wallClock() - on->second.at)) + "\n";
    if (const Reading* r = build_.last(Subject::supply()); r != nullptr && r->setting(kSupply) > 0)
        put("PROB", r->subject.text(), r->setting(kSupply));
    for (const Adjustment& a : kit_.adjustments) {
        if (const Reading* r = build_.lastEver(Subject::adjustment(a.id)))
            put("PROB", r->subject.text(), r->setting(kPosition));
    }
    for (const Coil& coil : kit_.coils) put("PROB", Subject::coil(coil.ref).text(), mainTurns(coil, build_));
    for (const auto& [subject, factor] : build_.practice)
        put("BENT", subject.substr(subject.find(':') + 1), factor);
    for (const Repair& repair : build_.repairs) {
        if (!repair.open()) out += "SIM:MEND \"" + repair.ref + "\"\n";
    }
    return QByteArray::fromStdString(out);
}

Result<std::int64_t> Session::keepInstrument(const Instrument& instrument) {
    person::trust(trustedPlace(instrument));
    return book_->setInstrument(instrument);
}

void Session::trust(const Instrument& instrument) {
    person::trust(trustedPlace(instrument));
    bench_->setInstruments(book_->instruments());
}

void Session::reload(const Book::Notice& notice) {
    bench_->setInstruments(book_->instruments());
    const auto before = std::move(judged_);
    const std::int64_t was = build_.id;
    const std::string kitText = build_.kitText;
    if (!book_->reread(build_, notice)) build_ = book_->build().value_or(Build());
    hasBuild_ = build_.id != 0 && kitTrouble_.isEmpty();
    const bool sameKit = build_.id == was && build_.kitText == kitText && !kit_.id.empty();
    if (!sameKit) readKitInHand();
    judged_ = std::make_unique<Judged>(kit_, build_, profile());
    if (before && sameKit && !notice.all)
        judged_->takeOver(std::move(*before), [&](std::string_view r) { return notice.touches(r); });
    if (!judged_->storyTold()) weighing_.weigh(*judged_);
}

void Session::readKitInHand() {
    kit_ = {};
    kitTrouble_.clear();
    hasBuild_ = build_.id != 0;
    if (!hasBuild_) return;
    auto kit = readKit(build_.kitText, tables_.cores);
    if (!kit) {
        hasBuild_ = false;
        kitTrouble_ = qs(kit.error().text());
        return;
    }
    kit_ = std::move(*kit);
    practice().setPractice(qs(practiceMark(build_.kitText)), [this] { return practiceState(); });
}

std::shared_ptr<const Drawers> Session::drawers() {
    constexpr std::size_t kSmall = 3000;  // lines read in a few milliseconds
    const int revision = book_->stockRevision();
    if (drawers_ && drawersRead_ == revision) return drawers_;
    if (book_->stockSize() <= kSmall) {
        drawers_ = std::make_shared<Drawers>(book_->stock());
        drawersRead_ = revision;
    } else {
        using Read = Result<std::shared_ptr<const Drawers>>;
        const bool begun = work_.start<Read>(
            [path = book_->path()](const LongWork::Progress&) -> Read {
                auto lines = Book::readStock(path);
                if (!lines) return tl::make_unexpected(lines.error());
                return std::make_shared<const Drawers>(std::move(*lines));
            },
            [this](Read read) {
                if (read) {
                    drawers_ = std::move(*read);
                    emit changed();
                } else {
                    say(qs(read.error().text()), VerdictState::fail);
                }
            });
        if (begun) drawersRead_ = revision;
        if (!drawers_) drawers_ = std::make_shared<Drawers>(std::vector<StockLine>());
    }
    return drawers_;
}

std::shared_ptr<const StationLog> Session::log() {
    constexpr std::size_t kSmall = 3000;  // contacts read in a few milliseconds
    const int revision = book_->logRevision();
    if (log_ && logRead_ == revision) return log_;
    if (!log_) log_ = std::make_shared<StationLog>();
    if (book_->logSize() <= kSmall) {
        log_ = std::make_shared<StationLog>(StationLog{book_->contacts(), book_->heard()});
        logRead_ = revision;
        return log_;
    }
    using Read = Result<std::shared_ptr<const StationLog>>;
    const bool begun = logWork_.start<Read>(
        [path = book_->path()](const LongWork::Progress&) -> Read {
            auto contacts = Book::readContacts(path);
            if (!contacts) return tl::make_unexpected(contacts.error());
            auto heard = Book::readHeard(path);
            if (!heard) return tl::make_unexpected(heard.error());
            return std::make_shared<const StationLog>(StationLog{std::move(*contacts), std::move(*heard)});
        },
        [this](Read read) {
            if (!read) return say(qs(read.error().text()), VerdictState::fail);
            log_ = std::move(*read);
            emit changed();
        });
    if (begun) logRead_ = revision;
    return log_;
}

void Session::beginKit(const QString& path) {
    auto file = readKitFile(path.toStdString(), tables_.cores);
    if (!file) {
        say(qs(file.error().text()), VerdictState::fail);
        return;
    }
    kept(book_->startBuild(file->kit.name, file->text));
}

bool Session::changeKit(const Result<std::string>& kitText, const std::string& action,
                        const std::vector<Subject>& replaced, const std::vector<std::string>& lookAgain) {
    if (!kitText) {
        say(qs(kitText.error().text()), VerdictState::cannotTell);
        return false;
    }
    if (const auto kit = readKit(*kitText, tables_.cores); !kit) {
        say(qs(kit.error().text()), VerdictState::cannotTell);
        return false;
    }
    return kept(book_->changeKit(*kitText, action, replaced, lookAgain));
}

bool Session::kept(const Result<void>& result) {
    if (!result) {
        logLine(LogLevel::warning, "refused: " + result.error().text());
        say(qs(result.error().text()), VerdictState::fail);
    } else if (refused_) {
        say(QString());  // what was refused before is refused no more
    }
    refused_ = !result;
    return result.has_value();
}

Reading Session::withCircumstances(Reading reading, Unit shownIn, double shown, const ShownOn& on) const {
    using Kind = Subject::Kind;
    const PowerMethod& way = powerMethod(reading.method);
    if (reading.subject.is(Kind::power) && way.percent > 0) {
        reading.meter = way.name;
        reading.sheet = personNumber(way.percent) + "\u202f%";
    } else if (const auto line = meterFor(book_->meters(), shownIn, shown, on);
               line && reading.method != kByTrace) {
        reading.meter = !on.instrument.empty() ? on.instrument
                        : line->name.empty()   ? std::string(word(instrumentFor(shownIn)))
                                               : line->name;
        reading.sheet = accuracyText(*line);
    }
    reading.who = book_->preference("who");
    const Kind kind = reading.subject.kind;
    const bool supplied = kind == Kind::power || kind == Kind::current || kind == Kind::harmonic ||
                          kind == Kind::frequency || kind == Kind::adjustment;
    const Reading* supply = supplied ? build_.last(Subject::supply()) : nullptr;
    if (supply != nullptr && std::isfinite(supply->value) && !reading.settings.contains(kSupply))
        reading.settings[std::string(kSupply)] = supply->value;
    return reading;
}

bool Session::keep(std::vector<Reading> readings) {
    taking_.clear();
    for (Reading& reading : readings) {
        if (reading.meter.empty() && reading.who.empty())
            reading = withCircumstances(reading, reading.unit, reading.value);
        taking_.push_back(reading.subject);
    }
    const bool done = kept(book_->takeReadings(readings));
    taking_.clear();
    return done;
}

Probe Session::probeOf(Unit unit, const Subject& subject, double setting) const {
    return {unit, flowWanted(kit_, subject, unit), subject, setting};
}

QString Session::harm(Unit unit, const Subject& subject) const {
    const Instrument* asked = instrumentOf(bench_->instruments(), unit);
    const Check* check = subject.is(Subject::Kind::check) ? kit_.check(subject.id) : nullptr;
    if (asked == nullptr || check == nullptr || check->unit != unit) return {};
    const bool limited = std::isfinite(check->limits.high);
    const double there = limited ? check->limits.high : check->limits.low;
    const bool practice = asked->way == Way::practice;
    const auto line = meterFor(book_->meters(), unit, there, {practice ? std::string() : asked->name});
    if (!line || !std::isfinite(there) || !(std::fabs(there) > line->most)) return {};
    return QStringLiteral(
               "%1 may stand there, and the %2 takes %3 at most (F9). Use another, and type the reading.")
        .arg(qs(formatQuantity(there, unit, 3)), qs(asked->name), qs(formatQuantity(line->most, unit, 3)));
}

void Session::callOff() {
    if (waiting_) bench_->callOff();
}

void Session::take(Unit unit, const Subject& subject, double setting,
                   std::function<void(const BenchReading&, Measured)> use) {
    if (waiting_) return;
    if (const QString why = harm(unit, subject); !why.isEmpty()) return say(why, VerdictState::cannotTell);
    const Instrument* asked = instrumentOf(bench_->instruments(), unit);
    const bool own = asked != nullptr && asked->way != Way::practice;
    waiting_ = true;
    say(own ? QStringLiteral("Asking the %1 until it stands … Esc calls it off.").arg(qs(asked->name))
            : QStringLiteral("Asking the %1 …").arg(qs(word(instrumentFor(unit)))));
    const std::int64_t buildAsked = build_.id;
    bench_->take(probeOf(unit, subject, setting), [this, unit, use = std::move(use),
                                                   buildAsked](const Result<BenchReading>& reading) {
        waiting_ = false;
        if (!reading) {
            say(qs(reading.error().text()), VerdictState::cannotTell);
            return;
        }
        if (buildAsked != build_.id)
            return say(QStringLiteral("The answer was for another kit, and is not kept."),
                       VerdictState::notDone);
        if (reading->value == -INFINITY)
            return say(QStringLiteral("It is below its range: are the clips the other way round?"),
                       VerdictState::cannotTell);
        if (const auto why = impossible(reading->value, unit)) return say(qs(*why), VerdictState::cannotTell);
        say(QString());
        Measured measured = measuredWith(book_->meters(), unit, reading->value, reading->on);
        // Over the range of a meter is no more than that: open only where the range says so.
        if (measured.beyond && !reading->on.instrument.empty()) {
            if (!(reading->on.range > 0))
                return say(
                    QStringLiteral("It is over its range, and does not say which. Turn it higher; in its "
                                   "highest, type where that ends, as >20M."),
                    VerdictState::cannotTell);
            measured.value = reading->on.range;
        }
        use(*reading, measured);
        const auto line = meterFor(book_->meters(), unit, reading->value, reading->on);
        if (line && std::fabs(reading->value) > line->most && std::isfinite(line->most))
            say(QStringLiteral("More than its meter takes: clips off. It takes %1 at most.")
                    .arg(qs(formatQuantity(line->most, unit, 3))),
                VerdictState::fail);
    });
}

void Session::measure(Unit unit, const Subject& subject, double setting, std::function<void(Measured)> use) {
    take(unit, subject, setting,
         [use = std::move(use)](const BenchReading&, const Measured& measured) { use(measured); });
}

/// What a hand is asked about when it types it, an instrument is asked again: the same twice is kept.
void Session::keepUnlessAbsurd(const Reading& reading) {
    constexpr double kAlike = 0.2;
    const std::string why = surprise(kit_, reading);
    const bool again = absurd_ && absurd_->subject == reading.subject &&
                       std::fabs(absurd_->value - reading.value) <= kAlike * std::fabs(reading.value);
    if (!why.empty() && !again) {
        absurd_ = reading;
        return say(qs(why) + QStringLiteral(
                                 " Not kept. Look at range and clips; read again, the same twice is kept."),
                   VerdictState::doubtful);
    }
    absurd_.reset();
    keep(reading);
}

void Session::read(Reading wanted) {
    const bool power = wanted.unit == Unit::watt;
    const Unit asked = power ? Unit::dbm : wanted.unit;
    const bool supply = wanted.subject.is(Subject::Kind::supply);
    const double setting =
        supply ? wanted.setting(kSupply, -1) : wanted.setting(kPosition, wanted.setting(kTurns, -1));
    take(asked, wanted.subject, setting,
         [this, wanted, asked, power](const BenchReading& shown, const Measured& measured) mutable {
             wanted.value = measured.value;
             wanted.unit = asked;
             wanted.uncertainty = measured.uncertainty;
             wanted.beyond = measured.beyond;
             if (wanted.method.empty()) wanted.method = std::string(word(instrumentFor(asked)));
             wanted = withCircumstances(std::move(wanted), asked, shown.value, shown.on);
             keepUnlessAbsurd(power ? inWatts(wanted, powerSetting(powerMethods().front())) : wanted);
         });
}

Session::Entered Session::understand(Reading wanted, const QString& text) const {
    Entered out;
    const auto shown = parseShown(text.toStdString(), wanted.unit, expectedOf(kit_, wanted).value);
    if (!shown) {
        out.trouble = qs(shown.error().sentence);
        return out;
    }
    const Measured measured = typedWith(book_->meters(), wanted.unit, shown->value);
    wanted.value = measured.value;
    wanted.beyond = shown->beyond;
    wanted.uncertainty = shown->beyond ? 0 : measured.uncertainty;
    if (wanted.subject.is(Subject::Kind::power) && !shown->beyond)
        wanted.uncertainty = readingError(powerMethod(wanted.method), shown->value, measured.uncertainty);
    if (wanted.method.empty()) wanted.method = "typed";
    if (wanted.subject.is(Subject::Kind::power) &&
        (wanted.beyond || (wanted.unit == Unit::volt && wanted.value < 0)))
        out.trouble = QStringLiteral("A power wants a number that is not negative.");
    out.shows = qs(shownText({shown->value, shown->beyond}, wanted.unit));
    out.doubt = qs(surprise(kit_, wanted));
    const Unit shownIn = wanted.unit;
    out.reading = withCircumstances(std::move(wanted), shownIn, shown->value);
    return out;
}

void Session::type(Reading wanted, const QString& text) {
    Entered entered = understand(std::move(wanted), text);
    if (!entered.trouble.isEmpty()) return say(entered.trouble, VerdictState::cannotTell);
    say(QString());
    keep(entered.reading);
}

void Session::answer(const Subject& check, bool yes) {
    keep(Reading{0, check, yes ? 1.0 : 0.0, Unit::none, 0, {}, "seen", 0});
}

Voice& Session::voice() {
    if (!voice_) voice_ = std::make_unique<Voice>();
    return *voice_;
}

void Session::speakVerdicts(const std::vector<Subject>& subjects) {
    if (!hasBuild_ || subjects.empty() || book_->preference("sound") != "verdicts") return;
    QStringList words;
    for (const Subject& subject : subjects) words << spokenVerdict(*judged_, subject);
    words.removeAll(QString());
    if (!words.isEmpty()) voice().say(words.join(QStringLiteral(". ")));
}

double Session::powerSetting(const PowerMethod& method) const {
    const auto kept = parseQuantity(book_->preference("power " + std::string(method.setting)));
    return kept && !method.setting.empty() ? kept->value : method.usualSetting;
}

const PowerMethod& Session::powerWay() const { return powerMethod(book_->preference("power way")); }

bool Session::bent(const std::string& coil, double percent) {
    const Instrument* asked = instrumentOf(bench_->instruments(), Unit::henry);
    const bool practice = asked != nullptr && asked->way == Way::practice &&
                          bench_->practice().isPractice(InstrumentRole::lcMeter);
    return kept(book_->bent(coil, practice ? 1 + percent / 100 : 1.0));
}

void Session::lookForBook() {
    book_->lookForFile();
    const QString told =
        qs(book_->rescuedTo().empty() && book_->readOnly() ? book_->readOnlyReason() : book_->rescuedTo());
    if (told == toldRescue_) return;
    toldRescue_ = told;
    say(told, book_->readOnly() ? VerdictState::fail : VerdictState::doubtful);
}

void Session::say(const QString& line, VerdictState state) { emit said(line, state); }

}  // namespace ombrek
