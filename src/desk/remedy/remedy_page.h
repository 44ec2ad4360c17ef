#pragma once

#include "desk/page.h"
#include "desk/remedy/remedy_model.h"

namespace ombrek {

class Card;
class ReadingCard;
class StateList;

/// What to do about a line that is short or wrong: look again, the builder's drawers, shopping, the supplier.
class RemedyPage : public Page {
    Q_OBJECT
 public:
    explicit RemedyPage(Session& session);
    /// @param about  designator of the trouble to begin with; empty: the first that is not settled
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void addKeys();
    void act();
    void promise();
    void found();
    void choose(int by);
    void next(int by);
    void decide(Remedy::How how);
    void shopping();
    void letter();
    void showPlaces();

    std::shared_ptr<const Drawers> stock_;
    RemedyView view_;
    std::size_t at_ = 0, offer_ = 0;
    ReadingCard* reading_;
    Card *places_, *drawers_, *troubles_;
    QWidget* placeList_ = nullptr;
    StateList *offers_, *list_;
};

}  // namespace ombrek
