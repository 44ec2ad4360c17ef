#pragma once

#include <QObject>
#include <QTimer>
#include <functional>
#include <memory>

#include "core/meter/sample.h"
#include "formats/command_set.h"
#include "instruments/talk.h"
#include "kit/instrument.h"
#include "kit/subject.h"

namespace ombrek {

class BenchClient;

/// What is to be read where.
struct Probe {
    Unit unit = Unit::none;
    Flow flow = Flow::either;
    Subject subject{};
    double setting = -1;  ///< as PracticeTruth::at takes it; only the practice bench wants to know
};

/// One instrument of the list, by whatever way it is reached. Every question is answered once, from the event
/// loop, within its own time; a device that goes while it is asked answers that it went.
class Device : public QObject {
    Q_OBJECT
 public:
    using Answer = std::function<void(Sample)>;
    using Words = std::function<void(Result<QString>)>;

    ~Device() override;
    /// One thing that it shows. @pre nothing is being asked
    void ask(const Probe& probe, Answer answer);
    /// Who it says it is, or that it speaks at all.
    void identify(Words answer);
    bool asking() const { return bool(answer_) || bool(words_); }
    /// What is asked is wanted no more: it is answered at once that it was called off.
    void callOff();

    /// It is let go: whatever it holds open is free at once.
    virtual void close() {}
    /// Its first word is its last: nothing is gained by asking again.
    virtual bool standsAtOnce() const { return false; }
    /// Between two questions [ms].
    virtual int settle(const Probe&) const { return 0; }
    /// How a power supply is set; null: it is none that can be.
    virtual const CommandSet::Supply* supply() const { return nullptr; }
    /// Set voltage and current limit, and read them back. The output is not touched; where it says that it is
    /// on, nothing is set.
    virtual void setSupply(double volts, double amperes, Words answer);

    Talk& talk() { return talk_; }

 protected:
    virtual void startAsking(const Probe& probe) = 0;
    virtual void startIdentifying() = 0;
    virtual void stopAsking() {}
    void answer(Sample sample);
    void answerWords(Result<QString> words);
    void answerWithin(int milliseconds) { late_.start(milliseconds); }
    /// Nothing came in time. By default: it is silent.
    virtual void tooLate();
    const Answer& answering() const { return answer_; }
    explicit Device(QObject* parent);
    Words words_;

 private:
    Answer answer_;
    Talk talk_;
    QTimer late_;
};

/// By the instrument's way. @param practice  the client of the practice bench
/// A Problem says what is wrong with its address.
Result<std::unique_ptr<Device>> makeDevice(const Instrument& instrument, const std::vector<CommandSet>& sets,
                                           BenchClient& practice);

}  // namespace ombrek
