#pragma once

#include "desk/page.h"

namespace ombrek {

class Card;
class ReadingCard;
class StateList;

/// The data sheets of the bench: accuracy, range, zero and last calibration of each quantity, and what they
/// make of a reading.
class MetersPage : public Page {
    Q_OBJECT
 public:
    explicit MetersPage(Session& session);
    void refresh() override;
    /// @param about  an instrument: its own sheets alone; empty: all
    void begin(const QString& about) override;
    QString about() const override { return of_; }

 private:
    void addKeys();
    const MeterLine& line() const { return lines_[std::size_t(at_)]; }
    void choose(int by);
    void takeZero();
    void keepZero(MeterLine changed, double shown);
    void askAccuracy();
    void askName();
    void askWho();
    void askDate();
    void askRange();
    void askMost();
    std::vector<MeterLine> linesInHand() const;

    std::vector<MeterLine> lines_;
    int at_ = 0;
    QString of_;  ///< the instrument whose sheets are shown; empty: all
    QLabel *head_, *accuracy_, *promise_;
    Card *sheet_, *facts_, *worth_, *rule_;
    StateList* list_;
    QString doubted_;  ///< an accuracy that was asked about
};

}  // namespace ombrek
