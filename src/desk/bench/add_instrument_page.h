#pragma once

#include "desk/page.h"
#include "instruments/look_around.h"

namespace ombrek {

class Card;
class StateList;

/// Where an instrument may be: what was found on this machine, and what is typed. Enter takes it into the
/// list.
class AddInstrumentPage : public Page {
    Q_OBJECT
 public:
    explicit AddInstrumentPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;

 private:
    void look();
    void choose(int by);
    void add();
    void take(const Found& found);

    std::vector<Found> found_;
    int at_ = 0;
    StateList* list_;
    Card *about_, *places_;
};

}  // namespace ombrek
