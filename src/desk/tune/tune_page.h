#pragma once

#include <QTimer>

#include "desk/page.h"
#include "desk/tune/key_clock.h"
#include "desk/tune/tune_model.h"

namespace ombrek {

class AdjusterView;
class BigNumber;
class Card;
class PartnersView;
class Plot;
class StateList;
class VerdictLine;

/// Station 5: an adjuster's readings as a curve, the best position, the end stop and its remedy in turns;
/// those that pull each other, in rounds.
class TunePage : public Page {
    Q_OBJECT
 public:
    explicit TunePage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    void setBigOnly(bool on) override;
    QString about() const override { return chosen_; }

 private:
    void addKeys();
    void addAnswers();
    void addRooms();
    const Adjustment* adjustment() const;
    TuneView view() const;
    Reading pattern(const Adjustment& a) const;
    void go();
    void readNow();
    void look();
    void keepAnswer(double value, Settings more, const char* method);
    void hear(int louder);
    void listen();
    void seen(bool so);
    void turn(double by);
    void askPosition();
    void askSchool();
    void askWand();
    void askLifted();
    void countKey();
    void choose(int by);
    void take(const QString& id);
    void wantMark(const Adjustment& a);
    void showNumber(const TuneView& v);
    void showCards(TuneView& v);
    void showKey(const TuneView& v);
    void setAbles(const Adjustment& a);

    QString chosen_, placed_;  ///< the adjustment in hand, and the one that `position_` is of
    double position_ = 0.5;
    KeyClock clock_;
    QTimer minute_;  ///< while it warms up
    Plot* plot_;
    BigNumber* number_;
    AdjusterView* adjuster_;
    VerdictLine* verdict_;
    Card *facts_, *others_, *sheet_, *teach_, *together_, *ways_;
    PartnersView* partners_;
    StateList *list_, *wayList_;
};

}  // namespace ombrek
