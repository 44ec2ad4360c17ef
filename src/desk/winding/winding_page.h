#pragma once

#include "desk/page.h"

namespace ombrek {

class Card;
class CoilView;
class StateList;
struct WindingView;

/// Station 2: the counter, the measured inductance and what to do about it.
class WindingPage : public Page {
    Q_OBJECT
 public:
    explicit WindingPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    std::optional<A4Sheet> sheet() override;
    bool prints() const override { return session_.hasBuild() && !session_.kit().coils.empty(); }

 private:
    void addKeys();
    WindingView view() const;
    void count(int by);
    void go();
    void measure();
    void bent();
    void reopen();
    void choose(int by);
    void check(const std::string& what, const std::string& how);
    void strip(const std::string& way);
    void prove(bool beeps);
    void trust();
    void recount();
    void printCutList();
    void sayTens(int turns);
    void nextSound();
    bool leftHanded() const;
    QString chosenRef() const;

    QString chosen_;
    CoilView* coil_;
    Card *facts_, *cutList_;
    StateList* list_;
};

}  // namespace ombrek
