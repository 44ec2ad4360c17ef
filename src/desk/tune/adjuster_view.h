#pragma once

#include <QWidget>

namespace ombrek {

/// A plate trimmer seen from above: where its rotor stands now and where it should go.
class TrimmerView : public QWidget {
 public:
    explicit TrimmerView(QWidget* parent = nullptr);
    void show(double position, double wanted);

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    double position_ = 0.5, wanted_ = 0.5;
};

}  // namespace ombrek
