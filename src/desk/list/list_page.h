#pragma once

#include "desk/list/list_model.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// A parts list as it comes, before it is a kit: what was made of each row, to be corrected.
class ListPage : public Page {
    Q_OBJECT
 public:
    explicit ListPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;
    const ListModel& model() const { return model_; }

 private:
    void addKeys();
    void open(const QString& file);
    bool openFile(const QString& path) override {
        open(path);
        return true;
    }
    bool takeText(const QString& text) override;
    void paste();
    void take(const ListDraft& draft);
    void read(const ListDraft& draft, std::function<void(ListSource)> then);
    void followBook();
    void keep(const ListDraft::Edit& edit);
    void nextDoubt();
    void choose(int by);
    void chooseColumn(int by);
    void turnColumn();
    void nextVariant();
    void addLine();
    void addBelow(const std::string& text);
    void pasteBelow();
    bool replaces(const ListDraft& draft);
    void correct();
    void accept();
    QString suggestedName() const;
    void build(const QString& name);
    void start(const std::string& text);
    void showRow();

    ListModel model_;
    ListSource base_;      ///< as it was read, before any edit
    ListDraft draft_;      ///< as the book has it
    bool inBook_ = false;  ///< the book keeps it
    std::size_t row_ = 0, column_ = 0;
    std::string replacement_;  ///< offered once over the list that stands here: again means it
    bool asked_ = false;       ///< accepted once with doubts left: again means it
    QLabel *source_, *doubts_;
    Card *rowCard_, *columns_, *rows_;
    StateList *list_, *columnList_;
};

}  // namespace ombrek
