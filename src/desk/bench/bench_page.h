#pragma once

#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class StateList;

/// The instruments of this bench: what each measures, how it is reached, and how it stands. Enter tries the
/// one in hand.
class BenchPage : public Page {
    Q_OBJECT
 public:
    explicit BenchPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    QString about() const override { return name_; }

 private:
    void addKeys();
    const Instrument* inHand() const;
    void choose(int by);
    void tryIt();
    bool knows(const Instrument& instrument, const QString& words);
    void readIt(const Instrument& instrument);
    void change(const std::function<void(Instrument&)>& how);
    void askFor(const QString& prompt, std::string Instrument::*field);
    void askMeasures();
    void askAverage();
    void nextCommandSet();
    void teach();
    void moveUp();
    void useOrNot();
    void remove();
    void showState();
    QString nextThing(const Instrument& instrument) const;

    QString name_;         ///< of the one in hand
    QString tried_;        ///< the one whose reading is shown
    std::string another_;  ///< who answered in its place, asked about once
    std::string yes_;      ///< the instrument that the next Enter says yes to
    Measured read_;
    Unit readUnit_ = Unit::none;
    QString words_;
    BigNumber* number_;
    Card *sheet_, *facts_, *next_;
    StateList* list_;
};

/// "SCPI over the network", … for lists and cards.
QString wordsOf(Way way);
/// The mark of a state on lists and the strip.
VerdictState markOf(const Session& session, const Instrument& instrument);
/// "bench multimeter", "lines that it sends", …
QString speaksOf(const Session& session, const Instrument& instrument);

}  // namespace ombrek
