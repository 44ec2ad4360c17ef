#pragma once

#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// Every setting on one page, in effect at once; beside each where it is kept.
class SettingsPage : public Page {
    Q_OBJECT
 public:
    explicit SettingsPage(Session& session);
    /// @param about  key of a setting; may be empty
    void begin(const QString& about) override;
    void refresh() override;
    QString about() const override;

 private:
    void choose(int by);
    void change(int by);
    void set(const QString& value);

    std::size_t row_ = 0;
    StateList *list_, *choices_;
    Card* about_;
};

}  // namespace ombrek
