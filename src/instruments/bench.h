#pragma once

#include <QElapsedTimer>
#include <map>

#include "core/meter/standing.h"
#include "instruments/bench_client.h"
#include "instruments/device.h"

namespace ombrek {

/// What the bench read: a number, and where it was shown.
struct BenchReading {
    double value = 0;  ///< infinite for an overload [SI]
    ShownOn on;        ///< an instrument of no name is the practice bench: its sheets are everybody's
    Instrument instrument;
};

/// How an instrument stands, for the strip and the list.
struct BenchState {
    enum class Is { unknown, there, silent, busy, disagrees } is = Is::unknown;
    QString words;  ///< who it says it is, or what is wrong with it
};

/// All instruments of the list at once. A reading goes to the one that measures the unit, and is taken when
/// it stands. An instrument that is silent is said to be; another is never asked in its place.
class Bench : public QObject {
    Q_OBJECT
 public:
    using Answer = std::function<void(Result<BenchReading>)>;
    /// What the instrument's own error is at a value [the unit's].
    using ErrorAt = std::function<double(const Instrument&, Unit, double)>;

    explicit Bench(std::vector<CommandSet> sets, QObject* parent = nullptr);
    ~Bench() override;

    /// The list as it is now. Those that stay as they are go on undisturbed.
    void setInstruments(const std::vector<Instrument>& instruments);
    const std::vector<Instrument>& instruments() const { return instruments_; }
    /// Which instruments the builder has said yes to; nothing is opened of another. Without it: all.
    void setTrusted(std::function<bool(const Instrument&)> trusted) { trusted_ = std::move(trusted); }
    bool trusts(const Instrument& one) const { return !trusted_ || trusted_(one); }
    void setError(ErrorAt error) { error_ = std::move(error); }

    /// A reading that stands; `answer` is called once. For the practice bench see BenchClient::take.
    void take(const Probe& probe, const Answer& answer);
    /// What it shows now, whether it stands or not: for a live scale.
    void glance(const Probe& probe, const Answer& answer);
    /// Whatever is being taken is not wanted any more; it is answered so.
    void callOff();
    /// Ask one who it is.
    void identify(const std::string& name, const std::function<void(Result<QString>)>& answer);
    /// See Device::setSupply.
    void setSupply(const std::string& name, double volts, double amperes,
                   const std::function<void(Result<QString>)>& answer);
    /// The first in use that is a supply; null: none is.
    const Instrument* supply() const;

    /// How an instrument answers now.
    BenchState state(const std::string& name) const;
    /// What was said to it and heard from it; null for one that has no device.
    const Talk* talk(const std::string& name) const;
    const std::vector<CommandSet>& sets() const { return sets_; }
    BenchClient& practice() { return practice_; }
    /// How long a reading may take to stand [ms].
    void setPatience(int milliseconds) { patience_ = milliseconds; }

 signals:
    /// An instrument answers otherwise than it did.
    void stateChanged(const QString& name);
    /// A reading is waited for, and this is why it is none yet.
    void waits(const QString& why);
    void fileArrived(const QString& instrument, const QString& file);

 private:
    struct Seat {
        Instrument instrument;
        std::unique_ptr<Device> device;  ///< none: `trouble` says why
        BenchState state;
        std::string trouble;
    };
    struct Taking;
    Seat* seatOf(const std::string& name);
    const Seat* seatOf(const std::string& name) const;
    Result<Seat*> seatFor(const Probe& probe);
    void goOn(const std::shared_ptr<Taking>& taking);
    void heard(const std::shared_ptr<Taking>& taking, const Sample& sample);
    void say(Seat& seat, BenchState::Is is, const QString& words);
    static BenchReading readingOf(const Instrument& instrument, const Sample& sample);

    std::vector<CommandSet> sets_;
    BenchClient practice_;
    std::vector<Instrument> instruments_;
    std::map<std::string, Seat> seats_;
    std::vector<std::shared_ptr<Taking>> takings_;
    ErrorAt error_;
    std::function<bool(const Instrument&)> trusted_;
    int patience_ = 12000;
};

}  // namespace ombrek
