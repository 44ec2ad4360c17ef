#pragma once

#include <QWidget>
#include <vector>

namespace ombrek {

/// A crystal on the line: where it is, and which set it belongs to.
struct LinedCrystal {
    QString id;
    double frequency = 0;  ///< [Hz]
    int set = -1;          ///< from 0; −1: none
    bool inHand = false;
};

/// A batch of crystals along their frequency, each set under a bracket with its letter and spread.
class CrystalLine : public QWidget {
 public:
    explicit CrystalLine(QWidget* parent = nullptr);
    /// @param sets  the words under each bracket, "A: 12 Hz"
    void show(std::vector<LinedCrystal> crystals, QStringList sets);
    QSize sizeHint() const override { return {560, 240}; }

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    std::vector<LinedCrystal> crystals_;
    QStringList sets_;
};

}  // namespace ombrek
