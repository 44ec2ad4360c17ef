#pragma once

#include <QElapsedTimer>

#include "core/circuit/compare.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// "Works when squeezed": readings run while places are pressed; the place whose presses go with the jumps is
/// named.
class SqueezePage : public Page {
    Q_OBJECT
 public:
    explicit SqueezePage(Session& session);
    void refresh() override;
    /// For tests, and for what was noted elsewhere.
    void take(double at, double value);
    void press(double at, const QString& place);
    const std::vector<PlaceOdds>& odds() const { return odds_; }

 private:
    void read();
    void addPlace(const QString& place);
    void choose(int by);
    double now();

    std::vector<QString> places_;
    std::vector<RunningReading> readings_;
    std::vector<Press> presses_;
    std::vector<PlaceOdds> odds_;
    std::size_t at_ = 0;
    QElapsedTimer clock_;
    Card *placesCard_, *readingsCard_;
    StateList *list_, *last_;
};

}  // namespace ombrek
