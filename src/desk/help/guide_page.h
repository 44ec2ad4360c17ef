#pragma once

#include "desk/page.h"

class QTextBrowser;

namespace ombrek {

class StateList;

/// The shipped guide, its glossary, and About, to be read in the window.
class GuidePage : public Page {
    Q_OBJECT
 public:
    explicit GuidePage(Session& session);
    /// @param about  "winding.md", "word bifilar", "words TEXT": those that stand in the text, "about";
    /// empty: the first page
    void begin(const QString& about) override;
    void refresh() override {}
    QString copied() const override;

 private:
    void choose(int by);
    void showEntry(std::size_t at);
    void showWords(const std::vector<struct GuideEntry>& words, const QString& head);

    std::size_t at_ = 0;
    QTextBrowser* text_;
    StateList* list_;
};

}  // namespace ombrek
