#pragma once

#include <QBoxLayout>

#include "desk/suspects/suspects_model.h"

namespace ombrek {

class BoardMap;
class Card;
class StateList;

/// The board with the suspects and the next point marked, the suspects with their odds, and what speaks for
/// and against the one in hand.
class SuspectsBoard : public QObject {
    Q_OBJECT
 public:
    SuspectsBoard(QVBoxLayout* big, QVBoxLayout* side, QObject* parent);
    /// The board with the suspects ringed by their odds.
    void show(const Kit& kit, const SuspectsView& view);
    /// Without a circuit, or before anything is known.
    void showNothing(const Kit& kit, const QString& why);

 signals:
    /// A suspect was clicked, by its place in the list.
    void picked(int row);

 private:
    void showMap(const Kit& kit, const SuspectsView& view);

    BoardMap* map_;
    Card *suspects_, *evidence_;
    StateList *list_, *readings_;
};

}  // namespace ombrek
