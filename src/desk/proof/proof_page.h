#pragma once

#include "desk/page.h"
#include "station/first_light/key_down.h"
#include "station/proof/chain.h"
#include "station/proof/proof.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;
class StateList;
class VerdictLine;
struct ProofView;

/// Station 6: power by any method at the supply used, frequency, harmonics against the chosen limits, beside
/// the rated figures.
class ProofPage : public Page {
    Q_OBJECT
 public:
    explicit ProofPage(Session& session);
    void refresh() override;
    void begin(const QString& band) override;
    void setBigOnly(bool on) override;

 private:
    void addKeys();
    ProofView view() const;
    Reading pattern(const ProofView& v) const;
    void take();
    LoadAsk load() const;
    KeyDownAsk arrives(const ProofView& v) const;
    void choose(int by);
    void nextMethod();
    void askSetting();
    void nextProfile();
    void nextBand();
    std::string band() const;
    void showPower(const ProofView& v);
    QString budgetText() const;

    std::optional<Subject> chosen_;
    std::optional<std::string> band_;  ///< chosen; nothing: the first that is not measured
    bool working_ = false;
    BigNumber* number_;
    VerdictLine* verdict_;
    Plot* plot_;
    Card *power_, *items_, *sheet_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
