#pragma once

#include "desk/page.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;
struct BoardView;

/// Station 3: the plan in the chosen order, the step in hand on the board's map, hold points and look-aheads.
class BoardPage : public Page {
    Q_OBJECT
 public:
    explicit BoardPage(Session& session);
    void refresh() override;

 private:
    void addKeys();
    BoardView view() const;
    void done();
    void passKnowingly();
    void remark();
    void choose(int by);

    QString chosen_;
    bool mirrored_ = false;
    BoardMap* map_;
    Card *step_, *plan_;
    QWidget* stepBody_ = nullptr;
    StateList* list_;
};

}  // namespace ombrek
