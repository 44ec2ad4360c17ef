#pragma once

#include "desk/page.h"
#include "desk/sign_off/sign_off_model.h"
#include "report/report_words.h"

namespace ombrek {

class Card;
class GateList;
class StateList;

/// Station 7: every gate with what it rests on, what the rig is fit for, the report, and the ways on from here.
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
    void addReportKeys();
    SignOffView view() const;
    const Evidence* evidenceInHand(const SignOffView& v) const;
    void go();
    void passKnowingly();
    void acceptDefect();
    void takeWordBack();
    void choose(int by);
    void chooseEvidence(int by);
    void showEvidence(const SignOffView& v);
    void askReport(bool pdf);
    void askCard();
    void askJson();
    void askNextBuilder();
    ReportWords words() const { return reportWordsOf(session_.book(), session_.build(), wallClock()); }

    QString chosen_;
    int evidence_ = -1;  ///< in hand; −1: the gate as a whole
    GateList* gates_;
    StateList* list_;
    Card *evidenceCard_, *detail_, *fit_;
};

}  // namespace ombrek
