#pragma once

#include "desk/page.h"
#include "desk/paper/paper_model.h"

namespace ombrek {

class Card;
class StateList;

/// A station's own material, entered or pasted from the paper: what was made of each line, to be corrected
/// before it becomes the kit's.
class PaperPage : public Page {
    Q_OBJECT
 public:
    explicit PaperPage(Session& session);
    /// @param about  a word of paperRow, and " paste" behind it to take the clipboard at once
    void begin(const QString& about) override;
    void refresh() override;
    bool openFile(const QString& path) override {
        open(path);
        return true;
    }
    bool takeText(const QString& text) override;
    const PaperModel& model() const { return model_; }

 private:
    void read(std::string text);
    std::string holds() const;
    void followBook();
    void paste();
    void open(const QString& file);
    void choose(int by);
    void say();
    void add();
    void drop();
    void take();

    PaperModel model_;
    std::size_t row_ = 0;
    bool asked_ = false;  ///< taken once with doubts left: again means it
    QLabel *source_, *doubts_;
    Card *rowCard_, *all_, *how_;
    StateList* list_;
};

}  // namespace ombrek
