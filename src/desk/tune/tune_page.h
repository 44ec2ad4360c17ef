#pragma once

#include "desk/page.h"
#include "desk/tune/tune_model.h"
#include "station/key_down.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;
class StateList;
class TrimmerView;
class VerdictLine;

/// Station 5: an adjuster's readings as a curve, the best position, the end stop and its remedy in turns.
class TunePage : public Page {
    Q_OBJECT
 public:
    explicit TunePage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    void setBigOnly(bool on) override;

 private:
    void addKeys();
    const Adjustment* adjustment() const;
    TuneView view() const;
    Reading pattern(const Adjustment& a) const;
    void go();
    void hear(int louder);
    void turn(double by);
    void choose(int by);

    QString chosen_, placed_;  ///< the adjustment in hand, and the one that `position_` is of
    double position_ = 0.5;
    Plot* plot_;
    BigNumber* number_;
    TrimmerView* trimmer_;
    VerdictLine* verdict_;
    Card *facts_, *others_, *sheet_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
