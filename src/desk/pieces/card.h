#pragma once

#include <QFrame>
#include <QLabel>
#include <QPointer>
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
    /// What the card is about; empty hides the line.
    void setTitle(const QString& title);
    /// Names at the left, what they are at the right.
    void setFacts(const std::vector<Fact>& facts);
    /// A paragraph, plain text.
    void setText(const QString& text);
    /// A line with the caution mark; empty hides it.
    void setCaution(const QString& text);
    /// Room for a widget of one's own, above the paragraph.
    void addBody(QWidget* widget, int stretch = 0);
    QString caution() const;
    const QLabel* cautionLabel() const;
    /// Lines closer together, where the column is short of room.
    virtual void setClose(bool on);
    /// Only its caution, where there is no room for more.
    void setBrief(bool on);
    /// Left out for want of room, whatever the page wants; it comes back when that ends.
    void leaveOut(bool out);
    /// Whether the page shows it, be there room or not.
    bool wanted() const { return wanted_; }
    /// Never left out: it bears a caution, or is one.
    bool keeps() const { return isCaution_ || !caution().isEmpty(); }
    /// All of it is what one must read before going on.
    void setIsCaution(bool on) { isCaution_ = on; }
    void setVisible(bool on) override;
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
    bool close_ = false, fills_ = false, brief_ = false;
    bool wanted_ = true, leftOut_ = false, isCaution_ = false;
    std::vector<QPointer<QWidget>> put_;  ///< hidden while it is brief
};

}  // namespace ombrek
