#pragma once

#include "desk/first_light/before_power.h"
#include "desk/first_light/first_light_model.h"
#include "desk/page.h"
#include "station/first_light/key_down.h"

namespace ombrek {

class Card;
class CheckStrips;
class ReadingCard;

/// Station 4: the checks before and at first power, in order, with gates.
class FirstLightPage : public Page {
    Q_OBJECT
 public:
    explicit FirstLightPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    void setBigOnly(bool on) override;
    void setCompact(bool on) override;
    /// The card "Before the plug goes in", as far as any of it is open.
    void showBefore();

 private:
    void take();
    void notSo();
    void again();
    void setSupply();
    bool mayRead(const FirstLightView& v);
    QString underFacts(const FirstLightView& v) const;
    void choose(int by);
    LoadAsk loadFor(const Check& check) const;

    void reckon();

    QString chosen_, shown_;
    ReadingCard* reading_;
    CheckStrips* strips_;
    Card *touch_, *before_;
    ExpectedReadings expected_;  ///< by the kit's circuit
    std::string reckonedFor_;
    LongWork reckoning_{this};
    bool compact_ = false;
};

}  // namespace ombrek
