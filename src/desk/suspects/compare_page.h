#pragma once

#include "core/circuit/compare.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// Bands or functions side by side: what the dead ones share and the live ones do not.
class ComparePage : public Page {
    Q_OBJECT
 public:
    explicit ComparePage(Session& session);
    void refresh() override;
    bool takeText(const QString& text) override;

 private:
    std::vector<Channel> kept() const;
    void keep(const std::vector<Channel>& channels);
    void add(const QString& line);
    void turn();
    void choose(int by);

    Card *table_, *causes_;
    StateList *rows_, *list_;
    std::size_t at_ = 0;
};

}  // namespace ombrek
