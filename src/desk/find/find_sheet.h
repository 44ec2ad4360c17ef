#pragma once

#include <QWidget>

#include "desk/find/find_model.h"

namespace ombrek {

class Session;
class Rooms;

/// One field over everything of the kit and the program, over the page. Typing narrows, Up and Down choose,
/// Enter goes there or does it, Esc leaves; the parts of what is chosen are ringed on the board.
class FindSheet : public QWidget {
    Q_OBJECT
 public:
    FindSheet(Rooms& rooms, Session& session);
    /// Over the whole window, with an empty field.
    void open();
    int found() const { return int(rows_.size()); }

 protected:
    void paintEvent(QPaintEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

 private:
    void gather();
    void narrow();
    void choose(int row);
    void go();
    void leave();

    Rooms& rooms_;
    Session& session_;
    std::vector<Findable> all_;
    std::vector<std::size_t> rows_;
    int at_ = 0;
    class FindField* field_;
    class QLabel* count_;
    class StateList* list_;
    class BoardMap* map_;
    class Card* board_;
};

}  // namespace ombrek
