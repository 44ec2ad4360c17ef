#pragma once

#include <QObject>
#include <QString>
#include <array>
#include <cmath>
#include <functional>

#include "core/quantity/problem.h"
#include "kit/instrument.h"
#include "kit/subject.h"

namespace ombrek {

/// Takes readings from SCPI instruments over TCP without ever blocking the window.
///
/// An instrument is asked who it is before its first reading, and for the word of its bench (bench_key.h);
/// nothing more is said to one that does not know it, and no reading of it is taken. Each reading is one
/// short conversation: connect, let what it says unasked go by, ask, read one line. An instrument that is
/// absent, slow or talks rubbish gives a Problem within the time limit.
class BenchClient : public QObject {
    Q_OBJECT
 public:
    using Answer = std::function<void(Result<double>)>;
    using Ports = std::array<quint16, 4>;

    explicit BenchClient(QObject* parent = nullptr) : QObject(parent) {}

    /// Where the four instruments listen: `firstPort` and the three after it.
    void setAddress(const QString& host, quint16 firstPort);
    void setPorts(const QString& host, const Ports& ports);
    void setTimeout(int milliseconds) { timeout_ = milliseconds; }
    QString host() const { return host_; }
    quint16 firstPort() const { return ports_[0]; }

    /// Which kit the practice bench must be on (see practiceMark), and how that kit stands: SIM lines that
    /// say where its adjusters are, what is wound and bent. Asked for before each question to the practice
    /// bench.
    void setPractice(const QString& kitMark, std::function<QByteArray()> state);
    /// Whether the instrument of this role has proved that it is of the practice bench.
    bool isPractice(InstrumentRole role) const;

    /// Ask the instrument for `unit` what it reads at `subject`. @param setting  as PracticeTruth::at takes
    /// it `answer` is called once, from the event loop; an overload is infinite.
    void take(Unit unit, const Subject& subject, double setting, const Answer& answer);

    /// What is printed on a part of the practice bench, for the builder to see; on a real bench nothing is
    /// asked and the answer is empty.
    /// @param setting  where an adjuster stands now; negative: as it was
    /// @param before   where it stood, to be compared with by ear; NaN: no comparison
    void look(const Subject& subject, const std::function<void(QString)>& answer, double setting = -1,
              double before = NAN);

    /// Who is at the instrument's place, for the strip: the *IDN? answer, or why there is none.
    void identify(InstrumentRole role, std::function<void(Result<QString>)> answer);

 private:
    using LineAnswer = std::function<void(Result<QString>)>;
    /// What an instrument has said of itself.
    struct Identity {
        enum class State { unknown, absent, silent, known } state = State::unknown;
        QString line;
        bool proved = false;  ///< it knows the bench's word
    };
    void converse(InstrumentRole role, const QByteArray& text, LineAnswer answer);
    void prove(InstrumentRole role, std::function<void(bool)> then);
    void whenKnown(InstrumentRole role, std::function<void(Result<void>)> then);
    Result<void> onThisKit(InstrumentRole role) const;

    QString host_ = QStringLiteral("127.0.0.1");
    Ports ports_{5925, 5926, 5927, 5928};
    std::array<Identity, 4> identities_;
    QString kitMark_;
    std::function<QByteArray()> state_;
    int timeout_ = 2000;
};

}  // namespace ombrek
