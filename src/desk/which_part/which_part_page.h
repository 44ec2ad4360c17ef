#pragma once

#include "desk/page.h"
#include "desk/which_part/which_part_model.h"

namespace ombrek {

class BandPicker;
class BigNumber;
class Card;
class PartView;
class StateList;

/// A part that has lost its place: what its mark says, and which line of the kit it must be.
class WhichPartPage : public Page {
    Q_OBJECT
 public:
    explicit WhichPartPage(Session& session);
    /// @param about  id of a loose part; empty: a new one is taken in hand
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void addKeys();
    WhichPartView view() const;
    void setKind(PartKind kind);
    void enter();
    void measure();
    void askMark();
    void useMark(const QString& printed);
    void settle();
    void keep(const LoosePart& part);
    void keepReading(std::int64_t id, PartKind kind, const Measured& measured);
    void nextKind();
    LoosePart loosePart(std::int64_t id, PartKind kind) const;
    Subject subject() const;

    PartKind kind_ = PartKind::resistor;  ///< looked for
    std::int64_t id_ = 0;                 ///< of the part in hand, in the book
    std::size_t chosen_ = 0;
    QLabel* head_;
    BigNumber* number_;
    PartView* picture_;
    BandPicker* bands_;
    Card *hand_, *could_, *marks_, *others_;
    StateList *couldList_, *markList_;
};

}  // namespace ombrek
