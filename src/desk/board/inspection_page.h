#pragma once

#include "desk/page.h"
#include "station/inspection.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;

/// Under the loupe: the joints of this sitting one after the other, then every polarised part against the
/// print. What is found becomes a task.
class InspectionPage : public Page {
    Q_OBJECT
 public:
    explicit InspectionPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;

 private:
    enum class Pass { joints, senses, all };
    void good();
    void found(Finding::What what);
    void choose(int by);
    /// What is to be looked at in the pass in hand, by designator.
    std::vector<const Part*> wanted() const;
    QString sentenceFor(const Part& part) const;

    Pass pass_ = Pass::joints;
    int at_ = 0;
    BoardMap* map_;
    Card *joint_, *task_;
    QWidget* looks_;
    StateList* list_;
};

}  // namespace ombrek
