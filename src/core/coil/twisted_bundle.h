#pragma once

#include <vector>

namespace ombrek {

/// One test with the continuity range: a lead at this end against leads at the other.
struct WireTest {
    int lead = 0;             ///< at this end, from 0
    std::vector<int> others;  ///< at the other end, held together
};

/// What is known of a bundle of twisted wires whose ends look alike.
///
/// Ask `next`, make the test, tell the answer; after at most Σ⌈log2 k⌉, k = n … 2, answers every lead has its
/// other end. Source: halving what is left.
class TwistedBundle {
 public:
    /// @param wires  2 to 12 @throws std::domain_error
    explicit TwistedBundle(int wires);
    bool known() const;
    /// The next test. Only while not known.
    WireTest next() const;
    void answer(bool continuity);
    /// The other end of each lead at this end; −1 while not known.
    const std::vector<int>& otherEnds() const { return ends_; }
    /// Tests at most for so many wires.
    static int mostTests(int wires);

 private:
    void settle();
    std::vector<int> ends_;
    std::vector<int> left_;        ///< ends at the other side without a lead
    std::vector<int> candidates_;  ///< for the lead in hand
    int lead_ = 0;
};

}  // namespace ombrek
