#include "instruments/bench.h"

#include <algorithm>
#include <cmath>

#include "instruments/folder_device.h"

namespace ombrek {
namespace {

constexpr int kAgain = 50;  ///< after a sample that was none, before the next question [ms]

bool same(const Instrument& a, const Instrument& b) {
    return a.way == b.way && a.address == b.address && a.speaks == b.speaks && a.pattern == b.pattern &&
           a.identity == b.identity && a.used == b.used;
}

}  // namespace

/// A reading on its way.
struct Bench::Taking {
    std::string name;
    Probe probe;
    Standing standing;
    Answer answer;  ///< none: it was answered
    QElapsedTimer since;
};

Bench::Bench(std::vector<CommandSet> sets, QObject* parent) : QObject(parent), sets_(std::move(sets)) {}
Bench::~Bench() = default;

void Bench::setInstruments(const std::vector<Instrument>& instruments) {
    instruments_ = instruments;
    std::map<std::string, Seat> seats;
    for (const Instrument& one : instruments) {
        Seat& seat = seats[one.name];
        const auto before = seats_.find(one.name);
        // One that came with a book has no device till the builder says yes.
        const bool said = before != seats_.end() && (before->second.device || !trusts(one));
        if (said && same(before->second.instrument, one)) {
            seat = std::move(before->second);
            seat.instrument = one;
            seats_.erase(before);
            continue;
        }
        seat.instrument = one;
        if (!one.used) continue;
        if (!trusts(one)) {
            seat.trouble =
                "it came with this book, and nothing is sent to it before you say yes: Ctrl+R, Enter.";
            seat.state = {BenchState::Is::silent, QString::fromStdString(seat.trouble)};
            continue;
        }
        auto device = makeDevice(one, sets_, practice_);
        if (!device) {
            seat.trouble = device.error().sentence;
            seat.state = {BenchState::Is::silent, QString::fromStdString(seat.trouble)};
            continue;
        }
        seat.device = std::move(*device);
        if (auto* folder = qobject_cast<FolderDevice*>(seat.device.get())) {
            connect(folder, &FolderDevice::arrived, this,
                    [this, name = QString::fromStdString(one.name)](const QString& file) {
                        emit fileArrived(name, file);
                    });
        }
    }
    // Those that are gone answer before they go, and go after the turn in which they may be speaking.
    std::swap(seats, seats_);
    for (auto& [name, seat] : seats) {
        if (!seat.device) continue;
        seat.device->callOff();
        seat.device->close();
        seat.device.release()->deleteLater();
    }
}

Bench::Seat* Bench::seatOf(const std::string& name) {
    const auto hit = seats_.find(name);
    return hit == seats_.end() ? nullptr : &hit->second;
}
const Bench::Seat* Bench::seatOf(const std::string& name) const {
    return const_cast<Bench*>(this)->seatOf(name);
}

BenchState Bench::state(const std::string& name) const {
    const Seat* seat = seatOf(name);
    return seat == nullptr ? BenchState() : seat->state;
}

const Talk* Bench::talk(const std::string& name) const {
    const Seat* seat = seatOf(name);
    return seat == nullptr || !seat->device ? nullptr : &seat->device->talk();
}

void Bench::say(Seat& seat, BenchState::Is is, const QString& words) {
    if (seat.state.is == is && seat.state.words == words) return;
    seat.state = {is, words};
    emit stateChanged(QString::fromStdString(seat.instrument.name));
}

Result<Bench::Seat*> Bench::seatFor(const Probe& probe) {
    const Instrument* instrument = instrumentOf(instruments_, probe.unit);
    if (instrument == nullptr)
        return problem("", "No instrument in use measures " + std::string(plural(probe.unit)) +
                               "; type the reading, or add one: Ctrl+R.");
    Seat* seat = seatOf(instrument->name);
    if (seat == nullptr || !seat->device)
        return problem("The " + instrument->name, seat == nullptr ? "it is not there." : seat->trouble);
    return seat;
}

BenchReading Bench::readingOf(const Instrument& instrument, const Sample& sample) {
    BenchReading out;
    out.value = sample.value;
    out.instrument = instrument;
    if (instrument.way != Way::practice) out.on = {instrument.name, sample.range, sample.count};
    return out;
}

namespace {

/// Answers of the practice bench carry their own place.
Problem troubleOf(const Instrument& instrument, const std::string& why) {
    if (instrument.way == Way::practice) return {"", why};
    return {"The " + instrument.name, why};
}

}  // namespace

void Bench::take(const Probe& probe, const Answer& answer) {
    auto seat = seatFor(probe);
    if (!seat) return answer(tl::make_unexpected(seat.error()));
    const Instrument& instrument = (*seat)->instrument;
    const auto error = [this, instrument, unit = probe.unit](double value) {
        return error_ ? error_(instrument, unit, value) : usualUncertainty(unit, value);
    };
    auto taking = std::make_shared<Taking>(Taking{
        instrument.name, probe, Standing(probe.unit, probe.flow, error, instrument.average), answer, {}});
    taking->since.start();
    takings_.push_back(taking);
    goOn(taking);
}

void Bench::goOn(const std::shared_ptr<Taking>& taking) {
    if (!taking->answer) return;
    Seat* seat = seatOf(taking->name);
    if (seat == nullptr || !seat->device) return heard(taking, noSample("it was taken off the list.", true));
    if (seat->device->asking()) {  // a glance, or a question who it is
        QTimer::singleShot(kAgain, this, [this, taking] { goOn(taking); });
        return;
    }
    say(*seat, BenchState::Is::busy, QStringLiteral("reading"));
    seat->device->ask(taking->probe, [this, taking](const Sample& sample) { heard(taking, sample); });
}

void Bench::heard(const std::shared_ptr<Taking>& taking, const Sample& sample) {
    if (!taking->answer) return;
    Seat* seat = seatOf(taking->name);
    const auto finish = [&](Result<BenchReading> result) {
        takings_.erase(std::remove(takings_.begin(), takings_.end(), taking), takings_.end());
        if (seat != nullptr) {
            const bool none = sample.kind == Sample::Kind::none;
            say(*seat,
                result ? BenchState::Is::there
                : none ? BenchState::Is::silent
                       : BenchState::Is::disagrees,
                result ? QString() : QString::fromStdString(result.error().sentence));
        }
        std::exchange(taking->answer, nullptr)(std::move(result));
    };
    if (seat == nullptr || !seat->device)
        return finish(tl::make_unexpected(Problem{"The " + taking->name, sample.why}));
    const bool atOnce = seat->device->standsAtOnce();
    const bool stands = taking->standing.take(sample) == Standing::State::stands;
    if (stands) return finish(readingOf(seat->instrument, taking->standing.value()));
    const std::string why = unfit(sample, taking->probe.unit, taking->probe.flow);
    if (atOnce && sample.kind != Sample::Kind::none && why.empty())
        return finish(readingOf(seat->instrument, sample));
    const bool patience = taking->since.elapsed() < patience_;
    // One that says what it has to say will not say otherwise for being asked again at once.
    if (atOnce || sample.gone || !patience)
        return finish(tl::make_unexpected(
            troubleOf(seat->instrument, atOnce || sample.gone ? why : taking->standing.why())));
    if (!why.empty()) {
        const QString told = QString::fromStdString(troubleOf(seat->instrument, why).text());
        say(*seat, BenchState::Is::busy, QString::fromStdString(why));
        emit waits(told);
    }
    const int pause = why.empty() ? seat->device->settle(taking->probe) : kAgain;
    QTimer::singleShot(pause, this, [this, taking] { goOn(taking); });
}

void Bench::glance(const Probe& probe, const Answer& answer) {
    auto seat = seatFor(probe);
    if (!seat) return answer(tl::make_unexpected(seat.error()));
    const Instrument instrument = (*seat)->instrument;
    if ((*seat)->device->asking())
        return answer(problem("The " + instrument.name, "it is being asked already; wait for its answer."));
    (*seat)->device->ask(probe, [this, probe, instrument, answer](const Sample& sample) {
        const std::string why = unfit(sample, probe.unit, probe.flow);
        if (Seat* now = seatOf(instrument.name))
            say(*now,
                why.empty()                         ? BenchState::Is::there
                : sample.kind == Sample::Kind::none ? BenchState::Is::silent
                                                    : BenchState::Is::disagrees,
                QString::fromStdString(why));
        if (!why.empty()) return answer(tl::make_unexpected(troubleOf(instrument, why)));
        answer(readingOf(instrument, sample));
    });
}

void Bench::callOff() {
    for (const auto& taking : std::vector(takings_)) {
        if (!taking->answer) continue;
        const Answer answer = std::exchange(taking->answer, nullptr);
        if (Seat* seat = seatOf(taking->name)) {
            if (seat->device) seat->device->callOff();
            say(*seat, BenchState::Is::unknown, QString());
        }
        answer(problem("", "It was called off."));
    }
    takings_.clear();
}

void Bench::identify(const std::string& name, const std::function<void(Result<QString>)>& answer) {
    Seat* seat = seatOf(name);
    if (seat == nullptr) return answer(problem("", "it is not in the list."));
    if (!seat->instrument.used) return answer(problem("", "it is laid aside."));
    if (!seat->device) return answer(problem("", seat->trouble));
    if (seat->device->asking()) return answer(problem("", "it is being asked already; wait for its answer."));
    say(*seat, BenchState::Is::busy, QStringLiteral("asking"));
    seat->device->identify([this, name, answer](Result<QString> words) {
        if (Seat* now = seatOf(name))
            say(*now, words ? BenchState::Is::there : BenchState::Is::silent,
                words ? *words : QString::fromStdString(words.error().sentence));
        answer(std::move(words));
    });
}

const Instrument* Bench::supply() const {
    for (const Instrument& one : instruments_) {
        const Seat* seat = seatOf(one.name);
        if (seat != nullptr && seat->device && seat->device->supply() != nullptr) return &one;
    }
    return nullptr;
}

void Bench::setSupply(const std::string& name, double volts, double amperes,
                      const std::function<void(Result<QString>)>& answer) {
    Seat* seat = seatOf(name);
    if (seat == nullptr || !seat->device) return answer(problem("", "it is not there."));
    if (seat->device->asking()) return answer(problem("", "it is being asked already; wait for its answer."));
    seat->device->setSupply(volts, amperes, answer);
}

}  // namespace ombrek
