#pragma once

#include "core/plan/schedule.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class Plot;

/// This sitting: where one was, what it will want, what to keep and what not to do yet; the pace, and the
/// evening by which the build will be finished.
class SittingPage : public Page {
    Q_OBJECT
 public:
    explicit SittingPage(Session& session);
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void setEvenings(const QString& text);
    void writeCalendar();
    void reckon();
    void showOdds();

    QString asked_;  ///< what the odds were reckoned for
    std::vector<FreeTime> evenings_;
    std::optional<FinishOdds> odds_;
    Card *return_, *ahead_, *pace_, *finish_;
    class WantView* wants_;
};

}  // namespace ombrek
