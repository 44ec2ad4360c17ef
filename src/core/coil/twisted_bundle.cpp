#include "core/coil/twisted_bundle.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <stdexcept>

namespace ombrek {

TwistedBundle::TwistedBundle(int wires) : ends_(std::size_t(std::max(wires, 0)), -1) {
    if (wires < 2 || wires > 12) throw std::domain_error("a bundle has 2 to 12 wires");
    left_.resize(std::size_t(wires));
    std::iota(left_.begin(), left_.end(), 0);
    candidates_ = left_;
}

bool TwistedBundle::known() const { return left_.empty(); }

WireTest TwistedBundle::next() const {
    const auto half = std::ptrdiff_t((candidates_.size() + 1) / 2);
    return {lead_, {candidates_.begin(), candidates_.begin() + half}};
}

void TwistedBundle::answer(bool continuity) {
    if (known()) return;
    const auto half = candidates_.begin() + std::ptrdiff_t((candidates_.size() + 1) / 2);
    if (continuity)
        candidates_.erase(half, candidates_.end());
    else
        candidates_.erase(candidates_.begin(), half);
    settle();
}

void TwistedBundle::settle() {
    while (!left_.empty() && candidates_.size() == 1) {
        const int end = candidates_.front();
        ends_[std::size_t(lead_)] = end;
        left_.erase(std::find(left_.begin(), left_.end(), end));
        candidates_ = left_;
        ++lead_;
    }
}

int TwistedBundle::mostTests(int wires) {
    int out = 0;
    for (int k = wires; k >= 2; --k) out += int(std::ceil(std::log2(k) - 1e-12));
    return out;
}

}  // namespace ombrek
