#pragma once

#include "desk/page.h"

namespace ombrek {

class BagRows;
class Card;
class ReadingCard;
struct PartsInView;

/// Station 1: the bag against the list, one part on the clips at a time.
class PartsInPage : public Page {
    Q_OBJECT
 public:
    explicit PartsInPage(Session& session);
    void refresh() override;
    void setBigOnly(bool on) override;
    void setCompact(bool on) override;

 private:
    void addKeys();
    void take();
    void again();
    void mark(PartMark mark);
    void choose(int by);
    void showReading(const PartsInView& view);
    void showTroubles(const PartsInView& view);

    QString wanted_, shown_;
    QLabel* counts_;
    ReadingCard* reading_;
    BagRows* bag_;
    Card *troubles_, *part_;
    QWidget* troubleList_ = nullptr;
};

}  // namespace ombrek
