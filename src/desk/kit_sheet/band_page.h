#pragma once

#include <optional>

#include "desk/page.h"
#include "station/rebuild.h"

namespace ombrek {

class Card;
class Plot;
class StateList;

/// The kit's filters for a band that was not supplied, looked at before they become a variant.
class BandPage : public Page {
    Q_OBJECT
 public:
    explicit BandPage(Session& session);
    /// @param about  a band, "3.5M..3.8M"; empty: it is asked
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void ask();
    void askLowPass();
    void reckon(const QString& band);
    void take();

    std::optional<Rebuilt> rebuilt_;
    bool prototype_ = false;
    Card *curve_, *elements_, *again_;
    Plot* plot_;
    StateList* list_;
    class QTextBrowser* text_;
};

}  // namespace ombrek
