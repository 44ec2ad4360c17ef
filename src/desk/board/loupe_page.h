#pragma once

#include "desk/board/loupe_model.h"
#include "desk/page.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;

/// Under the loupe: the joints of this sitting one after the other, then every polarised part against the
/// print. What is found becomes a task.
class LoupePage : public Page {
    Q_OBJECT
 public:
    explicit LoupePage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void good();
    void found(Finding::What what);
    void choose(int by);
    LoupeView view() const;

    LoupePass pass_ = LoupePass::joints;
    std::size_t at_ = 0;
    BoardMap* map_;
    Card *joint_, *task_;
    QWidget* looks_;
    StateList* list_;
};

}  // namespace ombrek
