#pragma once

#include "core/proof/readiness.h"
#include "desk/page.h"

namespace ombrek {

class Card;
class GateList;

/// Station 7: every gate with its evidence, and the report.
class SignOffPage : public Page {
    Q_OBJECT
 public:
    explicit SignOffPage(Session& session);
    void refresh() override;

 signals:
    /// The builder wants to earn a gate at its station.
    void wantsStation(const QString& name);

 private:
    void addKeys();
    const Gate* gate() const;
    void go();
    void passKnowingly();
    void choose(int by);
    void askReport(bool pdf);

    Readiness readiness_;
    QString chosen_;
    GateList* gates_;
    Card *evidence_, *report_;
    QWidget* evidenceBody_ = nullptr;
};

}  // namespace ombrek
