#pragma once

#include <QWidget>
#include <vector>

#include "judged/history.h"

namespace ombrek {

/// The rig's history as one line of time, from the bag to today: a stroke for each thing that happened,
/// higher where it was judged, repairs and first contacts with their word.
class TimeLine : public QWidget {
    Q_OBJECT
 public:
    explicit TimeLine(QWidget* parent = nullptr);
    /// @param lines  that are to be seen @param inHand  time of the one that is marked; 0: none
    void show(const std::vector<HistoryLine>& lines, std::int64_t begun, std::int64_t now,
              std::int64_t inHand);
    QSize sizeHint() const override { return {400, 78}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    struct Stroke {
        std::int64_t at;
        VerdictState state;
        bool repair;
        QString word;
    };
    double x(std::int64_t at) const;

    std::vector<Stroke> strokes_;
    std::int64_t from_ = 0, to_ = 1, inHand_ = 0;
};

}  // namespace ombrek
