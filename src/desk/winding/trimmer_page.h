#pragma once

#include "desk/page.h"

namespace ombrek {

class Card;
class ReachView;

/// Will the trimmer reach? The frequencies it covers with a coil, before anything is soldered, and what a
/// turn more or less would do.
class TrimmerPage : public Page {
    Q_OBJECT
 public:
    explicit TrimmerPage(Session& session);
    /// @param about  designator of a coil
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void choose(int by);
    void tryTurns(int by);
    void askStrays();

    QString ref_;
    int more_ = 0;  ///< turns tried, against what is on the core
    ReachView* reach_;
    Card *facts_, *chance_;
    QLabel* sentence_;
};

}  // namespace ombrek
