#pragma once

#include "desk/page.h"
#include "judged/repair.h"

namespace ombrek {

class Card;
class StateList;

/// Troubles and repairs: what was noticed, found and done, what must be shown again, before and after.
class RepairsPage : public Page {
    Q_OBJECT
 public:
    explicit RepairsPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;

 private:
    void addKeys();
    void notice();
    void seenAgain();
    void askMended();
    void askFound(const Repair& repair);
    void askDone(const Repair& repair);
    void askParts(const Repair& repair);
    void photograph();
    void askRecheck();
    void goOn();
    void choose(int by);
    void showRow();
    const RepairState* inHand() const;

    std::vector<RepairState> states_;
    int at_ = 0;
    StateList *list_, *again_;
    Card *repair_, *shown_, *time_;
    class TimeLine* line_;
};

}  // namespace ombrek
