#pragma once

#include <QObject>
#include <QString>
#include <functional>

#include "core/quantity/problem.h"
#include "kit/instrument.h"

namespace ombrek {

/// Takes readings from SCPI instruments over TCP without ever blocking the window.
///
/// Each reading is one short conversation: connect, say what is probed (on the practice bench), ask, read one
/// line. An instrument that is absent, slow or talks rubbish gives a Problem within the time limit.
class BenchClient : public QObject {
    Q_OBJECT
 public:
    using Answer = std::function<void(Result<double>)>;

    explicit BenchClient(QObject* parent = nullptr) : QObject(parent) {}

    /// Where the four instruments listen: `firstPort` and the three after it. @param practice  they know
    /// SIM:PROBe
    void setAddress(const QString& host, quint16 firstPort, bool practice);
    void setTimeout(int milliseconds) { timeout_ = milliseconds; }
    QString host() const { return host_; }
    quint16 firstPort() const { return firstPort_; }

    /// Ask the instrument for `unit` what it reads at `subject`. @param setting  as PracticeTruth::at takes
    /// it `answer` is called once, from the event loop.
    void take(Unit unit, const QString& subject, double setting, Answer answer);

    /// Tell the practice bench that a coil was squeezed or spread.
    void bend(const QString& coil, double percent, Answer answer);

    /// What is printed on a part of the practice bench, for the builder to see; on a real bench nothing is
    /// asked and the answer is empty.
    void look(const QString& subject, std::function<void(QString)> answer);

    /// Who is at the instrument's place, for the strip: the *IDN? answer, or why there is none.
    void identify(InstrumentRole role, std::function<void(Result<QString>)> answer);

 private:
    using LineAnswer = std::function<void(Result<QString>)>;
    void converse(InstrumentRole role, const QByteArray& text, LineAnswer answer);

    QString host_ = "127.0.0.1";
    quint16 firstPort_ = 5925;
    bool practice_ = true;
    int timeout_ = 2000;
};

}  // namespace ombrek
