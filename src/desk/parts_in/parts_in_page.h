#pragma once

#include "desk/page.h"

namespace ombrek {

class BagRows;
class BandPicker;
class Card;
class PartView;
class ReadingCard;
struct PartsInView;

/// Station 1: the bag against the list, one part on the clips at a time.
class PartsInPage : public Page {
    Q_OBJECT
 public:
    explicit PartsInPage(Session& session);
    void refresh() override;
    std::optional<A4Sheet> sheet() override;
    bool prints() const override { return session_.hasBuild(); }
    /// @param about  designator to ask for
    void begin(const QString& about) override;
    void setBigOnly(bool on) override;
    void setCompact(bool on) override;

 private:
    void addKeys();
    PartsInView view() const;
    void take();
    void again();
    void mark(PartMark mark);
    void readMark();
    void useMark(const QString& ref, const QString& printed);
    void acceptOther();
    void byCalliper();
    void choose(int by);
    void whatToDo();
    void print();
    void showReading(const PartsInView& view);
    void showTroubles(const PartsInView& view);
    void showPart(const PartsInView& view);

    QString wanted_, shown_, looked_, seen_;
    QLabel* counts_;
    ReadingCard* reading_;
    BagRows* bag_;
    BandPicker* bands_;
    PartView* picture_;
    Card *troubles_, *part_;
    QWidget* troubleList_ = nullptr;
};

}  // namespace ombrek
