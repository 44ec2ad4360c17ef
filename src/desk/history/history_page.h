#pragma once

#include "desk/history/history_model.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class FindField;
class StateList;

/// Every reading, step, gate and finding of the build in hand, filtered as one types.
class HistoryPage : public Page {
    Q_OBJECT
 public:
    explicit HistoryPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void choose(int by);
    void showRow();

    HistoryView view_;
    int at_ = 0;
    FindField* find_;
    QLabel* found_;
    class TimeLine* time_;
    StateList* list_;
    Card* row_;
};

}  // namespace ombrek
