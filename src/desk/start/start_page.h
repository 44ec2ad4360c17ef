#pragma once

#include <vector>

#include "desk/page.h"
#include "desk/start/start_model.h"

namespace ombrek {

class StateList;

/// What an empty book shows: how to begin, and the kits that ship with the application. Also where another
/// build is chosen.
class StartPage : public Page {
    Q_OBJECT
 public:
    explicit StartPage(Session& session);
    void refresh() override;

 private:
    void choose(int by);
    void begin();
    void findKits();
    void restore(const std::string& day);

    std::vector<StartEntry> kits_, entries_;
    int at_ = 0;
    bool copies_ = false;  ///< the daily copies stand in the list

    StateList* list_;
    class Card* how_;
};

}  // namespace ombrek
