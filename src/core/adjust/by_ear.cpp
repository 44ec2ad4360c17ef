#include "core/adjust/by_ear.h"

#include <algorithm>
#include <cmath>

namespace ombrek {
namespace {

constexpr double kSame = 1e-6;      ///< positions nearer than this are one [travel]
constexpr double kEnd = 0.02;       ///< from here on an end is tried itself [travel]
constexpr double kFinest = 0.0005;  ///< no trimmer is turned more finely [travel]
constexpr double kNarrow = 0.1;     ///< alike up to an end over more than this tells nothing of the coil
constexpr double kGolden = 0.382;
constexpr double kKnown = 0.3;  ///< of the width that sounds the same: so well its edges are to be known

bool same(double a, double b) { return std::abs(a - b) < kSame; }
std::string travel(double position) { return decimals(std::clamp(position, 0.0, 1.0) * 100, 1) + " %"; }

/// What is known of the loudest place.
class Loudest {
 public:
    explicit Loudest(double start) : best(start), left(start), right(start) {}

    void take(const HeardPoint& h) {
        if (same(h.before, h.position)) return;
        if (same(h.before, best)) return against(h.position, h.louder);
        if (same(h.position, best)) return against(h.before, -h.louder);
    }

    double best;         ///< the loudest so far
    double left, right;  ///< the outermost that sound like it
    double low = 0, high = 1;
    bool lowSofter = false, highSofter = false;  ///< the bounds were heard to be softer
    bool middle = false;                         ///< the middle of those alike was tried, and is alike

 private:
    void against(double x, int louder) {
        if (louder > 0) {
            // What sounded like the old one is no louder than the new: it bounds the peak.
            if (x > best) {
                if (x >= right)
                    lower(best);
                else {
                    lower(left);
                    upper(right);
                }
            } else {
                if (x <= left)
                    upper(best);
                else {
                    lower(left);
                    upper(right);
                }
            }
            best = left = right = x;
            middle = false;
        } else if (louder < 0) {
            if (x > best)
                upper(x);
            else
                lower(x);
            left = std::max(left, low);
            right = std::min(right, high);
        } else {
            if (x > left && x < right) middle = true;
            left = std::min(left, x);
            right = std::max(right, x);
        }
    }
    void lower(double x) {
        if (x > low || same(x, low)) low = x, lowSofter = true;
    }
    void upper(double x) {
        if (x < high || same(x, high)) high = x, highSofter = true;
    }
};

/// The next place to try against the loudest; itself when nothing is left to try.
double toTry(const Loudest& l) {
    const double width = l.right - l.left;
    if (width < kSame) {
        // An end that was not tried yet, when it is near; else into the wider side.
        if (!l.lowSofter && l.best - l.low < kEnd && l.best > l.low) return l.low;
        if (!l.highSofter && l.high - l.best < kEnd && l.best < l.high) return l.high;
        const double below = l.best - l.low, above = l.high - l.best;
        if (std::max(below, above) < kFinest) return l.best;
        return above > below ? l.best + kGolden * above : l.best - kGolden * below;
    }
    const double centre = (l.left + l.right) / 2;
    if (!l.middle && std::abs(centre - l.best) > kFinest) return centre;
    // The edges of what sounds the same.
    const double below = l.left - l.low, above = l.high - l.right;
    if (std::max(below, above) <= std::max(kFinest, kKnown * width)) {
        // Nothing was heard to be softer there yet: the end itself is tried.
        if (!l.lowSofter && below > kSame) return l.low;
        if (!l.highSofter && above > kSame) return l.high;
        return l.best;
    }
    if (above > below) return !l.highSofter && above < kEnd ? l.high : l.right + above / 2;
    return !l.lowSofter && below < kEnd ? l.low : l.left - below / 2;
}

double middleOf(const Loudest& l) { return ((l.left + l.low) / 2 + (l.right + l.high) / 2) / 2; }

/// "loudest", "highest", "quietest", "least".
std::string bestWord(Hearing h) {
    if (h.marks) return h.least ? "least" : "highest";
    return h.least ? "quietest" : "loudest";
}
std::string capital(std::string text) {
    text[0] = char(text[0] - 'a' + 'A');
    return text;
}

void endStop(PeakEstimate& out, bool low, Hearing hearing) {
    out.kind = low ? PeakEstimate::Kind::atLeast : PeakEstimate::Kind::atMost;
    out.state = VerdictState::fail;
    out.nextPosition = low ? 0 : 1;
    if (hearing.least || hearing.marks) {
        out.sentence = capital(bestWord(hearing)) + " at the adjuster's " + (low ? "least" : "most");
        out.sentence += hearing.least ? ": the null lies beyond it, or there is none."
                        : low         ? ": the coil has too many turns."
                                      : ": the coil has too few turns.";
        return;
    }
    out.sentence = low ? "Loudest at the trimmer's least: the coil has too many turns."
                       : "Loudest at the trimmer's most: the coil has too few turns.";
}

}  // namespace

const char* heardWord(int louder) { return louder > 0 ? "louder" : louder < 0 ? "softer" : "the same"; }

PeakEstimate peakByEar(const std::vector<HeardPoint>& all, Hearing hearing) {
    PeakEstimate out;
    std::vector<HeardPoint> heard;
    for (HeardPoint h : all) {
        if (hearing.least) h.louder = -h.louder;
        if (h.before >= 0 && h.before <= 1 && h.position >= 0 && h.position <= 1) heard.push_back(h);
    }
    if (heard.empty()) {
        out.nextPosition = 0.62;
        out.sentence = hearing.marks ? "Read it at half travel, then at " + travel(out.nextPosition) + "."
                                     : "Listen at half travel, then at " + travel(out.nextPosition) +
                                           ": louder, the same or softer?";
        return out;
    }
    Loudest l(heard.front().before);
    for (const HeardPoint& h : heard) l.take(h);
    const double stands = heard.back().position;
    out.kind = PeakEstimate::Kind::inside;
    out.state = VerdictState::doubtful;
    out.low = l.low;
    out.high = l.high;
    out.position = middleOf(l);
    const double next = toTry(l);
    const std::string best = bestWord(hearing);
    if (!same(next, l.best) && hearing.marks) {
        out.nextPosition = next;
        out.sentence =
            "Read it at " + travel(next) + "; the " + best + " so far is at " + travel(l.best) + ".";
        return out;
    }
    if (!same(next, l.best)) {
        out.nextPosition = same(stands, l.best) ? next : l.best;
        out.sentence = same(stands, l.best)
                           ? "Listen at " + travel(next) + ": louder, the same or softer than here?"
                           : "Back to the " + best + " so far, " + travel(l.best) + ".";
        return out;
    }
    // Loudest at an end, or alike up to it.
    const bool low = l.left <= kSame, high = l.right >= 1 - kSame;
    if ((low || high) && l.right - l.left > kNarrow) {
        out.state = VerdictState::cannotTell;
        out.nextPosition = l.best;
        const std::string alike = hearing.marks ? "It shows the same " : "It sounds the same ";
        out.sentence = low && high
                           ? alike + "everywhere: is there a signal, and is it this adjuster that is turned?"
                           : alike + "up to the end: so it cannot be told whether the coil is right.";
    } else if (low || high) {
        endStop(out, low, hearing);
    } else if (std::abs(stands - out.position) <= std::max(kFinest, 0.1 * (l.high - l.low))) {
        out.state = VerdictState::pass;
        out.nextPosition = stands;
        out.sentence = hearing.marks || hearing.least
                           ? "It stands at the " + best + ", " + travel(stands) + " of the travel."
                           : "It stands where nothing is louder, " + travel(stands) + " of the travel.";
    } else {
        out.nextPosition = out.position;
        out.sentence = capital(best) + " in the middle, at " + travel(out.position) + "; turn there.";
    }
    return out;
}

}  // namespace ombrek
