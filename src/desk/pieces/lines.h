#pragma once

#include <QString>

#include "core/quantity/verdict.h"

namespace ombrek {

/// A name and its value on a card, with a verdict's mark before it where there is one.
struct Fact {
    QString name, value;
    VerdictState state = VerdictState::notDone;
    bool marked = false;  ///< show the verdict's mark before the value
    bool operator==(const Fact&) const = default;
};

/// One line of a list: its verdict's mark, what it is, and a word at the right.
struct StateLine {
    VerdictState state = VerdictState::notDone;
    QString text, right;
    bool current = false;  ///< in hand now: a copper dot instead of the mark
    bool barred = false;   ///< a hold point or gate: drawn with a bar
    bool plain = false;    ///< nothing that is judged: no mark unless it is in hand
    bool operator==(const StateLine&) const = default;
};

}  // namespace ombrek
