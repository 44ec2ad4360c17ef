#pragma once

#include "desk/pieces/long_work.h"
#include "judged/judged.h"

namespace ombrek {

/// Weighs a large bag off the window's thread: 4,500 readings take a third of a second, too long for a key.
/// Meanwhile the story of a moment ago is told, and says so. A small bag is left to Judged itself.
class Weighing : public QObject {
    Q_OBJECT
 public:
    using QObject::QObject;

    /// To be called with every new moment of the book. `judged` is given the last story when that may still
    /// be told, and `weighed` comes when the new one is known.
    void weigh(const Judged& judged);
    /// The newest story into a Judged of the moment it was weighed for.
    void adoptInto(const Judged& judged) const { judged.adopt(story_); }

 signals:
    /// The bag's story is told: `adoptInto` gives it away.
    void weighed();

 private:
    void start();

    LongWork work_;
    int asked_ = 0;  ///< moments so far
    Kit kit_;        ///< what is weighed next
    Build build_;
    std::int64_t of_ = 0;  ///< the build that `story_` is of
    BagStory story_;
};

}  // namespace ombrek
