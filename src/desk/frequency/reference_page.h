#pragma once

#include "core/frequency/beat.h"
#include "core/frequency/reference.h"
#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;
class StateList;
class VerdictLine;

/// What the counter's frequencies are worth: known ones against what it reads of them; an offset, or a
/// reference that is off, or both; what may be claimed. A recording of a zero beat is counted here.
class ReferencePage : public Page {
    Q_OBJECT
 public:
    explicit ReferencePage(Session& session);
    void refresh() override;
    bool openFile(const QString& path) override;

 private:
    void addKeys();
    void read();
    void keepTyped(const QString& text);
    void askKnown();
    void choose(int by);
    void showFit();
    void showSize(const ReferenceFit& fit, std::size_t points);
    void showPoints();

    std::size_t at_ = 0;
    double known_ = 0;  ///< asked for, without a reading yet [Hz]
    std::optional<Beat> beat_;
    BigNumber* number_;
    VerdictLine* verdict_;
    Plot* plot_;
    Card *sheet_, *fit_, *points_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
