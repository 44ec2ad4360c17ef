#pragma once

#include "desk/page.h"
#include "station/proof/chain.h"
#include "station/proof/power_table.h"

namespace ombrek {

class Card;
class Plot;
class PowerGrid;
class StateList;

/// Every band at every supply: powers and currents, read field by field; the curve against the supply; what
/// stands behind the socket, and whether it bears what will come.
class PowersPage : public Page {
    Q_OBJECT
 public:
    explicit PowersPage(Session& session);
    void refresh() override;
    void begin(const QString& band) override;
    QString about() const override { return qs(band()); }

 private:
    void addKeys();
    std::string band() const;
    double supply() const;
    double drive() const;
    void move(int bands, int supplies);
    void take();
    void takeTyped(const QString& text);
    Session::Entered understand(const QString& text) const;
    Reading pattern(const Subject& subject, Unit unit) const;
    bool supplyStands() const;
    void askChain();
    void askDrive();
    void say();
    void showGrid();
    void showCurve();
    void showCell();
    KeyDownAsk arrives() const;
    void showArrivals();

    std::size_t band_ = 0, supply_ = 0;
    bool chosen_ = false;  ///< by the builder; else what tells most is in hand
    PowerTable table_;
    PowerGrid* grid_;
    Plot* plot_;
    Card *fields_, *curve_, *cell_, *chain_, *teach_;
    StateList* arrivals_;
};

}  // namespace ombrek
