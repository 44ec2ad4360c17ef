#pragma once

#include "core/frequency/dial.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// The dial as it will be printed, on its paper.
class DialView : public QWidget {
 public:
    explicit DialView(QWidget* parent = nullptr);
    /// Nothing: an empty scale.
    void show(std::optional<Dial> dial);
    QSize sizeHint() const override { return {560, 300}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    std::optional<Dial> dial_;
};

/// The range that is tuned: frequencies at positions of the knob, against what is wanted; and the dial to be
/// printed to size.
class DialPage : public Page {
    Q_OBJECT
 public:
    explicit DialPage(Session& session);
    void refresh() override;
    bool prints() const override { return true; }
    std::optional<A4Sheet> sheet() override;

 private:
    void addKeys();
    Result<Dial> dial() const;
    QString titleText() const;
    void read();
    void keepTyped(const QString& text);
    void askWanted();
    void askSize();
    void write(bool svg);
    void choose(int by);
    void showRange(const Result<Dial>& dial);
    void showPoints();

    DialShape shape_;
    double position_ = 0;  ///< of the next reading, as the knob is read
    std::size_t at_ = 0;
    DialView* view_;
    Card *sheet_, *range_, *points_, *teach_;
    StateList* list_;
};

}  // namespace ombrek
