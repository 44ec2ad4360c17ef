#pragma once

#include "desk/page.h"
#include "desk/sign_off/sign_off_model.h"

namespace ombrek {

class Card;
class GateList;

/// Station 7: every gate with its evidence, and the report.
class SignOffPage : public Page {
    Q_OBJECT
 public:
    explicit SignOffPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    std::optional<A4Sheet> sheet() override;
    bool prints() const override { return session_.hasBuild(); }

 private:
    void addKeys();
    SignOffView view() const;
    void go();
    void passKnowingly();
    void choose(int by);
    void askReport(bool pdf);

    QString chosen_;
    GateList* gates_;
    Card *evidence_, *report_;
    QWidget* evidenceBody_ = nullptr;
};

}  // namespace ombrek
