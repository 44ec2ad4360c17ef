#pragma once

#include "desk/page.h"
#include "judged/on_air.h"

namespace ombrek {

class Card;
class GateList;
class StateList;

/// From the finished rig to the first contact, in six steps.
class AirPage : public Page {
    Q_OBJECT
 public:
    explicit AirPage(Session& session);
    void begin(const QString& step) override;
    void refresh() override;

 private:
    void addKeys();
    void right();
    void wrong();
    void note(VerdictState state, const std::string& text, double value = NAN);
    Session::Entered understand(const QString& text) const;
    void take(const QString& text);
    void chooseItem(int by);
    void chooseStep(int by);
    bool barred();
    void sayNow();
    void showSteps();
    void showItem();
    const AirStepState* step() const;
    const AirItemState* item() const;

    std::vector<AirStepState> states_;
    int step_ = -1, item_ = -1;  ///< chosen by the builder; −1: what is next
    GateList* steps_;
    StateList* items_;
    Card *listen_, *what_, *caution_;
};

}  // namespace ombrek
