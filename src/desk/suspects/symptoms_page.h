#pragma once

#include "desk/page.h"
#include "station/first_light/symptoms.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;

/// "It is no voltage": what is seen, heard or smelt, what may be behind it, and the test for each.
class SymptomsPage : public Page {
    Q_OBJECT
 public:
    explicit SymptomsPage(Session& session);
    void refresh() override;

 private:
    void showMap();
    void notThat();
    void itWasThat();
    void chooseSymptom(int by);
    void chooseCause(int by);

    std::vector<Symptom> symptoms_;
    std::vector<CauseNow> causes_;
    std::size_t at_ = 0, cause_ = 0;
    Card *causesCard_, *symptomsCard_;
    BoardMap* map_;
    StateList *causesList_, *symptomsList_;
};

}  // namespace ombrek
