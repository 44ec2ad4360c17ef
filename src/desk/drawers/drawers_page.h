#pragma once

#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class FindField;
class StateList;

/// The builder's own stock: found as one types, by value, range, rating and words.
class DrawersPage : public Page {
    Q_OBJECT
 public:
    explicit DrawersPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;
    bool openFile(const QString& path) override {
        takeIn(path);
        return true;
    }
    FindField& field() { return *find_; }
    /// Lines that fit what is typed, as indices into the drawers.
    const std::vector<std::size_t>& shown() const { return rows_; }

 protected:
    void keyPressEvent(QKeyEvent* event) override;

 private:
    void addKeys();
    const StockLine* line() const;
    /// What is typed, found; the line of this id stays in hand where it is found, too.
    void search(std::int64_t id);
    std::int64_t inHand() const;
    void choose(int by);
    void count(int by);
    void addTyped();
    void change();
    void takeIn(const QString& file);
    void putSpares();
    void showLine();

    std::shared_ptr<const Drawers> drawers_;
    std::vector<Promise> promises_;
    std::vector<std::size_t> rows_;
    int at_ = 0;
    FindField* find_;
    BigNumber* number_;
    QLabel *what_, *found_;
    StateList* list_;
    Card *line_, *help_;
};

}  // namespace ombrek
