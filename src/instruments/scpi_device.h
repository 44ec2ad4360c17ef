#pragma once

#include <deque>

#include "instruments/cable.h"
#include "instruments/device.h"

namespace ombrek {

/// A reply of a SCPI instrument as a sample of the unit that was asked for. @param place  which of its
/// numbers A reply that names a unit is held against the question. Source: SCPI-1999, volume 1, 7.2.1.
Sample readScpiReply(std::string_view line, Unit asked, Flow flow, int place = 0);

/// Maker, model and serial number of an answer to *IDN? (IEEE 488.2, 10.14); the firmware may change. Empty
/// for what is none.
std::string identityOf(const QString& answer);

/// SCPI over any cable, with the words of its command set. One question at a time; what was said before it
/// was asked, or twice, is no answer. After a question that was not answered the cable is taken off and put
/// on again, so that a late answer is not taken for the next.
class ScpiDevice : public Device {
    Q_OBJECT
 public:
    /// @param identity  as `identityOf` gives it: another that answers in its place is refused. Empty: any
    ScpiDevice(std::unique_ptr<Cable> cable, CommandSet set, std::string identity = "",
               QObject* parent = nullptr);
    void close() override { giveUp(); }
    /// For how long an answer may turn out to be two [ms].
    void setQuiet(int milliseconds) { quiet_.setInterval(milliseconds); }
    int settle(const Probe& probe) const override;
    const CommandSet::Supply* supply() const override { return set_.supply ? &*set_.supply : nullptr; }
    void setSupply(double volts, double amperes, Words answer) override;

 protected:
    void startAsking(const Probe& probe) override;
    void startIdentifying() override;
    void stopAsking() override;
    void tooLate() override;

 private:
    /// A line to be said, and what is done with its answer; none: it has no answer.
    struct Say {
        std::string line;
        std::function<void(const QByteArray&)> use;
    };
    Say whoFirst();
    void say(std::vector<Say> lines);
    void next();
    void take(const QByteArray& bytes);
    void gone(const QString& why);
    void fail(const std::string& why);
    void write(const std::string& line);
    void giveUp();

    std::unique_ptr<Cable> cable_;
    CommandSet set_;
    std::deque<Say> lines_;  ///< the first of them may be waiting for its answer
    std::string identity_;
    bool waiting_ = false, opening_ = false, ready_ = false;
    QByteArray unread_;
    std::string prepared_;  ///< the question that the set-up lines were said for
    QTimer quiet_;          ///< the moment in which a second line would come
    QByteArray reply_;
    bool askedErrors_ = false;
};

}  // namespace ombrek
