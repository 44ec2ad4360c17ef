#pragma once

#include "desk/page.h"
#include "station/winding/coil_figures.h"

namespace ombrek {

class BigNumber;
class Card;
class Plot;

/// The figures of a coil before the wire is cut: what it will be with these turns, this wire and this core,
/// and what if. Tried only; the book is not touched.
class FiguresPage : public Page {
    Q_OBJECT
 public:
    explicit FiguresPage(Session& session);
    /// @param about  designator of a coil
    void begin(const QString& about) override;
    void refresh() override;

 private:
    void change(const QString& text);
    void addTurns(int by);

    QString ref_;
    CoilIdea idea_;
    bool changed_ = false;
    BigNumber* number_;
    QLabel* band_;
    Card *coil_, *facts_;
    Plot* curve_;
};

}  // namespace ombrek
