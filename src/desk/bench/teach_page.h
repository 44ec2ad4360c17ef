#pragma once

#include <QTimer>

#include "core/meter/line_pattern.h"
#include "desk/page.h"

namespace ombrek {

class BigNumber;
class Card;
class LineWords;
class StateList;

/// A device that sends lines: one of them is shown, and the builder shows in it the number and its unit.
class TeachPage : public Page {
    Q_OBJECT
 public:
    explicit TeachPage(Session& session);
    void refresh() override;
    void begin(const QString& about) override;
    QString about() const override { return name_; }

 protected:
    void showEvent(QShowEvent* event) override;
    void hideEvent(QHideEvent* event) override;

 private:
    const Instrument* instrument() const;
    void listen();
    void takeLine(const QByteArray& line);
    void move(int by);
    void chosen(int word);
    void thisIsIt();
    void askUnit();
    void keep();
    std::optional<LinePattern> pattern() const;

    QString name_, fixed_;
    QByteArray line_;  ///< as it came
    bool held_ = false, comma_ = false, listening_ = false;
    int at_ = 0, number_ = -1;
    std::optional<int> unit_;
    qint64 seen_ = 0;
    QTimer timer_;
    BigNumber* big_number_;
    LineWords* words_;
    Card *sheet_, *heard_, *how_;
    StateList* list_;
};

}  // namespace ombrek
