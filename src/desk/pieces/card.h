#pragma once

#include <QFrame>
#include <QLabel>
#include <QVBoxLayout>
#include <vector>

#include "desk/pieces/lines.h"

namespace ombrek {

/// A framed sheet with a title, rows of name and value, and a paragraph.
class Card : public QFrame {
    Q_OBJECT
 public:
    explicit Card(QWidget* parent = nullptr);

    using Fact = ombrek::Fact;
    void setTitle(const QString& title);
    void setFacts(const std::vector<Fact>& facts);
    void setText(const QString& text);
    /// A line with the caution mark; empty hides it.
    void setCaution(const QString& text);
    /// Room for a widget of one's own, above the paragraph.
    void addBody(QWidget* widget, int stretch = 0);
    /// Lines closer together, where the column is short of room.
    virtual void setClose(bool on);
    /// Height that setting it closer wins, or has won [px].
    virtual int closeSaves() const;
    /// The body takes all room; while it is hidden, the text keeps at the top.
    void fillWithBody();
    bool fills() const { return fills_; }
    /// Height above which the card would stand empty [px]: that of its list with all rows, where a list is
    /// its body; without bounds otherwise.
    int most() const;

 protected:
    void resizeEvent(QResizeEvent* event) override;

 private:
    void wrapValues();

    QVBoxLayout* layout_;
    QLabel* title_;
    QWidget* facts_ = nullptr;
    std::vector<QLabel*> names_, values_;  ///< in facts_
    std::vector<Fact> shown_;              ///< by facts_
    QVBoxLayout* body_;
    QLabel* text_;
    class CautionLine* caution_;
    bool close_ = false, fills_ = false;
};

}  // namespace ombrek
