#pragma once

#include <QWidget>

#include "core/quantity/verdict.h"

namespace ombrek {

/// A verdict as everywhere: its shape, its word, its sentence.
class VerdictLine : public QWidget {
 public:
    explicit VerdictLine(QWidget* parent = nullptr);
    /// Its shape, its word and the sentence.
    void show(VerdictState state, const QString& sentence);
    QSize sizeHint() const override { return {360, 74}; }
    int heightForWidth(int width) const override;

 protected:
    void paintEvent(QPaintEvent* event) override;

 private:
    VerdictState state_ = VerdictState::notDone;
    QString sentence_;
};

}  // namespace ombrek
