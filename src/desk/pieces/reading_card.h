#pragma once

#include "desk/pieces/card.h"

namespace ombrek {

class BigNumber;
class Gauge;
class VerdictLine;

/// One reading, large: what it is of, the number, the verdict, and where it lies between its limits.
class ReadingCard : public Card {
 public:
    explicit ReadingCard(QWidget* parent = nullptr);

    struct Content {
        QString head, beside;
        Verdict verdict;     ///< limits and unit also before there is a reading
        double nominal = 0;  ///< drawn on the scale; NaN: none
        QString word;        ///< large in place of a number, when there is none
        QString waiting;     ///< said in place of a verdict's sentence while nothing is read
        QString hint = {};   ///< under the scale, in place of what the bar means for a meter
    };
    /// The number, its verdict and what goes with it.
    void show(const Content& content);
    /// Twice the size, for reading from across the bench.
    void setDoubled(bool on);
    /// A smaller number and no explanation under the scale.
    void setCompact(bool on);
    void setClose(bool on) override;

 private:
    void size();

    bool doubled_ = false, compact_ = false, close_ = false;
    QLabel *head_, *beside_, *hint_;
    BigNumber* number_;
    VerdictLine* verdict_;
    Gauge* gauge_;
};

}  // namespace ombrek
