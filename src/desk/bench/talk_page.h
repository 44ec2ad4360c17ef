#pragma once

#include <QTimer>

#include "desk/page.h"

namespace ombrek {

class Card;
class StateList;

/// What was said to an instrument and heard from it, as it happens. Enter saves it for a report of a fault.
class TalkPage : public Page {
    Q_OBJECT
 public:
    explicit TalkPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    QString about() const override { return name_; }

 protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

 private:
    void follow();
    void save();
    QString name_;
    bool held_ = false;
    qint64 seen_ = -1;
    QTimer timer_;
    StateList* list_;
    Card *all_, *about_;
};

}  // namespace ombrek
