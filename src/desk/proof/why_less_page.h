#pragma once

#include "desk/page.h"
#include "judged/less_power.h"

namespace ombrek {

class BigNumber;
class Card;
class CausesView;
class VerdictLine;

/// Why a band gives less than it promises: causes by their odds, what speaks for and against each, the one
/// test that decides; at its end a repair, or the builder's own reason to accept it.
class WhyLessPage : public Page {
    Q_OBJECT
 public:
    explicit WhyLessPage(Session& session);
    void refresh() override;
    void begin(const QString& band) override;
    QString about() const override { return qs(band_); }
    const std::vector<PowerCause>& causes() const { return causes_; }

 private:
    void addKeys();
    void nextBand();
    void accept();
    void keep(const QString& said);
    std::string preference() const;
    std::string said() const;
    void showFacts();
    void showCauses();

    std::string band_;
    PowerFacts facts_;
    std::vector<PowerCause> causes_;
    std::size_t at_ = 0;
    BigNumber* number_;
    VerdictLine* verdict_;
    CausesView* list_;
    Card *ranked_, *known_, *test_, *teach_;
};

}  // namespace ombrek
