#pragma once

#include "desk/page.h"
#include "desk/suspects/suspects_model.h"
#include "practice/exercise.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;

/// "Find the fault": a rig with one hidden fault to measure, name and mend; afterwards what would have told
/// more.
class ExercisePage : public Page {
    Q_OBJECT
 public:
    explicit ExercisePage(Session& session);
    void refresh() override;
    /// Hand out the rig of a number; the same number is the same rig.
    void handOut(std::uint32_t seed, int grade);
    const Exercise* exercise() const { return exercise_.get(); }
    bool over() const { return over_; }
    /// Where the fault finder would have measured now; empty when nothing would tell more.
    std::string bestPoint() const;
    /// Take a point in hand, "q1_d in receive".
    void point(const QString& words);
    void measure();
    void name(const QString& ref);

 private:
    /// One measurement: what it was worth, and what would have been worth most.
    struct Turn {
        TakenReading taken;
        double worth = 0, best = 0;  ///< [nat]
        std::string bestPoint;
    };
    void judge();
    void show();
    void showPoints();
    void chooseState(int by);
    void choose(int by);
    void finish(bool found);
    std::vector<CircuitReading> readings() const;

    std::shared_ptr<Exercise> exercise_;
    SharedRig rig_;
    std::vector<Turn> turns_;
    std::vector<std::string> points_;  ///< nodes of the state in hand
    std::size_t state_ = 0, at_ = 0;
    bool over_ = false, found_ = false, hint_ = false;
    BoardMap* map_;
    Card *where_, *taken_;
    StateList *pointList_, *takenList_;
};

}  // namespace ombrek
