#pragma once

#include "core/proof/as_measured.h"
#include "desk/page.h"
#include "station/proof/filter.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;
class StateList;
class VerdictLine;

/// The low-pass as it was built: what it loses, what it leaves of the harmonics before any power is applied,
/// how far parts within their errors move that, which coil to squeeze or spread; and what an analyser's file
/// of it says of its parts.
class FilterPage : public Page {
    Q_OBJECT
 public:
    explicit FilterPage(Session& session);
    void refresh() override;
    void begin(const QString& band) override;
    QString about() const override { return qs(band_); }
    bool openFile(const QString& path) override;

 private:
    void addKeys();
    void nextBand();
    void aim();
    void writeFile();
    void reckonBand();
    void say();
    QString turnsMore() const;
    bool finalsRead() const;
    void showPlot();
    void showAdvice();
    void showParts();
    void showStories();

    std::string band_;
    SqueezeFor aim_ = SqueezeFor::suppression;
    std::vector<FilterPart> filter_;
    FilterQuestion question_;
    FilterFigures figures_;
    std::vector<Squeeze> advice_;
    TurnsMore more_;  ///< where squeezing is not enough
    FilterBand trials_;
    LongWork trying_{this};             ///< beside the page's own work: a curve may be opened meanwhile
    std::vector<FilterPart> reckoned_;  ///< what the trials are of
    std::vector<FilterPoint> measured_;
    std::vector<FilterStory> stories_;
    std::string storiesOf_;  ///< band
    BigNumber* number_;
    VerdictLine* verdict_;
    Plot* plot_;
    Card *sheet_, *advised_, *parts_, *told_, *teach_;
    StateList *list_, *tales_;
};

}  // namespace ombrek
