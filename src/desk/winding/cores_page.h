#pragma once

#include "core/coil/which_core.h"
#include "desk/page.h"
#include "desk/winding/cores_model.h"

namespace ombrek {

class BigNumber;
class Card;
class StateList;

/// Another core for a coil, with its turns and what gets worse; and which core an unknown ring is.
class CoresPage : public Page {
    Q_OBJECT
 public:
    explicit CoresPage(Session& session);
    /// @param about  designator of a coil
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void choose(int by);
    void identify(const QString& text);
    CoresView view() const;

    QString ref_, typed_;
    std::size_t at_ = 0;
    BigNumber* number_;
    Card *chosen_, *how_;
    QLabel* worse_;
    StateList* list_;
};

}  // namespace ombrek
