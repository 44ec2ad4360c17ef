#pragma once

#include "desk/page.h"
#include "judged/licence.h"

namespace ombrek {

class BandStrip;
class Card;
class StateList;

/// The builder's own limits, band by band, and the rig held against them.
class LicencePage : public Page {
    Q_OBJECT
 public:
    explicit LicencePage(Session& session);
    void refresh() override;

 private:
    void addKeys();
    void takeRegion(int region);
    void askLimit(const BandLimit* known);
    void keep(const std::vector<BandLimit>& limits);
    void remove();
    void turnMode();
    void choose(int by);

    std::vector<BandLimit> limits_;
    std::vector<LicenceLine> lines_;
    int at_ = 0;  ///< limit in hand
    BandStrip* strip_;
    StateList* list_;
    Card *rig_, *own_, *about_;
};

}  // namespace ombrek
