#pragma once

#include <QWidget>
#include <vector>

#include "core/adjust/adjuster.h"
#include "core/quantity/verdict.h"

namespace ombrek {

/// One of the adjusters that pull each other.
struct PartnerRow {
    QString adjuster, title;  ///< "R31", "phase"
    Adjuster turned;
    double position = 0.5;
    double wanted = 0.5;  ///< NaN: it is not its turn
    VerdictState state = VerdictState::notDone;
    QString right;  ///< "to 54 %", "done", "after R31"
    bool inHand = false;
};

/// Adjusters that pull each other, each as a knob with where it stands.
class PartnersView : public QWidget {
    Q_OBJECT
 public:
    explicit PartnersView(QWidget* parent = nullptr);
    /// Those that pull each other, each where it stands.
    void show(std::vector<PartnerRow> rows);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {240, sizeHint().height()}; }

 signals:
    /// A partner was clicked.
    void picked(int row);

 protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;

 private:
    std::vector<PartnerRow> rows_;
};

}  // namespace ombrek
