#pragma once

#include "desk/page.h"
#include "desk/pieces/lines.h"
#include "station/proof/antenna.h"

namespace ombrek {

class BigNumber;
class Card;
class CouplerView;
class StateList;
class VerdictLine;

/// The antenna's side: which loads a coupler matches on which band, where its knobs will stand, what it costs
/// and at what power its capacitors flash over; how near people may come.
class CouplerPage : public Page {
    Q_OBJECT
 public:
    explicit CouplerPage(Session& session);
    void refresh() override;
    bool openFile(const QString& path) override;
    const std::vector<AntennaRow>& rows() const { return rows_; }

 private:
    void addKeys();
    void askCoupler();
    void askLoads();
    void askPower();
    void askGain();
    double watts() const;
    void reckon();
    void choose(int by);
    void showRow();
    void showList();
    Fact exposure(const AntennaRow& row) const;

    std::vector<AntennaRow> rows_;
    std::string reckoned_;   ///< what the rows are of
    LongWork trying_{this};  ///< beside the page's own work: a file may be opened meanwhile
    Coupler coupler_;
    std::size_t at_ = 0;
    BigNumber* number_;
    VerdictLine* verdict_;
    CouplerView* view_;
    Card *drawn_, *loads_, *facts_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
