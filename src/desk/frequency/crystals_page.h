#pragma once

#include "desk/page.h"
#include "station/proof/frequencies.h"

namespace ombrek {

class BigNumber;
class Card;
class CrystalLine;
class StateList;

/// A batch of crystals: measured one after another, sorted, and matched into sets for a ladder filter.
class CrystalsPage : public Page {
    Q_OBJECT
 public:
    explicit CrystalsPage(Session& session);
    void refresh() override;
    bool takeText(const QString& text) override;

 private:
    void addKeys();
    /// What was typed of a crystal: its number (else the next), a frequency, and a load in series.
    struct Typed {
        QString id;
        double frequency = 0, load = 0;
    };
    std::optional<Typed> typed(const QString& text) const;
    void keep(const Typed& typed, const char* method);
    void keepLoss(const QString& text);
    QString nextId() const;
    QString inHand() const;
    void measure();
    void choose(int by);
    void askMark();
    void askSize();
    void askCarrier();
    void showSets();
    void showOne();

    std::vector<BatchCrystal> batch_;
    std::size_t at_ = 0;
    std::size_t size_ = 4;  ///< of a set
    double marked_ = 0;     ///< on them [Hz]; 0: not said
    CrystalLine* line_;
    BigNumber* number_;
    Card *sheet_, *one_, *all_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
