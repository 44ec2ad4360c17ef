#include "core/adjust/seen.h"

#include <algorithm>

namespace ombrek {
namespace {

constexpr double kApart = 0.05;  ///< no window of a contrast is narrower [travel], common practice

}  // namespace

PeakEstimate seekSeen(const std::vector<SeenPoint>& looked) {
    PeakEstimate out;
    std::vector<double> at;
    for (const SeenPoint& p : looked) {
        if (p.position >= 0 && p.position <= 1) at.push_back(p.position);
    }
    if (at.empty()) {
        out.nextPosition = 0.5;
        out.sentence = "Look at half travel first.";
        return out;
    }
    const SeenPoint& last = looked.back();
    out.position = out.nextPosition = last.position;
    if (last.seen) {
        out.state = VerdictState::pass;
        out.sentence = "It is seen.";
        return out;
    }
    for (const SeenPoint& p : looked) {
        if (!p.seen) continue;
        out.state = VerdictState::doubtful;
        out.position = out.nextPosition = p.position;
        out.sentence = "It was seen before: back to where.";
        return out;
    }
    std::sort(at.begin(), at.end());
    at.insert(at.begin(), -at.front());  // so that an end is looked at itself
    at.push_back(2 - at.back());
    double widest = 0;
    for (std::size_t i = 1; i < at.size(); ++i) {
        if (at[i] - at[i - 1] <= widest) continue;
        widest = at[i] - at[i - 1];
        out.nextPosition = std::clamp((at[i] + at[i - 1]) / 2, 0.0, 1.0);
    }
    if (widest <= kApart) {
        out.state = VerdictState::fail;
        out.sentence =
            "It is seen nowhere: this is not the adjuster's fault. Look at the feed and the leads.";
        return out;
    }
    out.state = VerdictState::doubtful;
    out.sentence = "Not there yet: no picture is usually contrast.";
    return out;
}

}  // namespace ombrek
