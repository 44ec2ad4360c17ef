#pragma once

#include "desk/page.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;
struct BoardView;
struct Placement;

/// Station 3: the plan in the chosen order, the step in hand on the board's map, hold points and look-aheads.
class BoardPage : public Page {
    Q_OBJECT
 public:
    explicit BoardPage(Session& session);
    void refresh() override;
    /// A part, a value or a step: the map shows it.
    void begin(const QString& about) override;
    /// A placement table.
    bool openFile(const QString& path) override;
    std::optional<A4Sheet> sheet() override;
    bool prints() const override { return session_.hasBuild(); }

 private:
    void addKeys();
    void addRoomKeys();
    BoardView view() const;
    bool mustLookAhead() const;
    void lookAhead();
    void showMap(const BoardView& v);
    void showStep(const BoardView& v);
    void nextOrder();
    void find();
    void show(std::vector<std::string> parts);
    void layAside();
    void askLaidAside(std::vector<std::string> wanted);
    void mended();
    void countPause();
    void askPlaces();
    void readPlaces(const QString& file);
    void buildSheet();
    void takePlaces(const Placement& placement);
    bool saysFirst(const Step& step);
    void done();
    void changePlan(const Result<std::vector<Step>>& steps, const char* action);
    void move(int by);
    void join();
    void split();
    void addStep();
    QString askBench() const;
    void passKnowingly();
    void remark();
    void choose(int by);

    QString chosen_;
    std::string unwoundSaid_;       ///< step of which it was said that its coils are not wound
    std::int64_t lookedAhead_ = 0;  ///< end of the stretch of work before which the look-ahead was opened
    bool mirrored_ = false, alike_ = false;
    double zoom_ = 1;
    std::vector<std::string> found_;
    BoardMap* map_;
    Card *step_, *plan_;
    QWidget* stepBody_ = nullptr;
    StateList* list_;
};

}  // namespace ombrek
