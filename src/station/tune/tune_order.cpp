#include "station/tune/tune_order.h"

#include <algorithm>
#include <cctype>
#include <tuple>

#include "core/text/says.h"
#include "station/tune/tune_ways.h"

namespace ombrek {
namespace {

bool found(const Adjustment& a) {
    return a.kind == Adjustment::Kind::peak || a.kind == Adjustment::Kind::null;
}
bool ofPower(const Adjustment& a) { return a.unit == Unit::watt || a.unit == Unit::dbm; }

/// A place in the common order: what belongs there, and why it comes there. The first that fits counts.
struct Place {
    int rank;
    bool (*belongs)(const Adjustment&, const std::string& words);
    const char* reason;
};
constexpr Place kPlaces[] = {
    {0, [](const Adjustment& a, const std::string&) { return a.kind == Adjustment::Kind::contrast; },
     "first what must be seen to read anything else"},
    {12, [](const Adjustment& a, const std::string&) { return a.kind == Adjustment::Kind::bias; },
     "after all that needs no power, before any drive reaches the finals"},
    {12,
     [](const Adjustment& a, const std::string& words) {
         return a.unit == Unit::ampere || holdsWord(words, {"bias"});
     },
     "after all that needs no power, before any drive reaches the finals"},
    {1,
     [](const Adjustment& a, const std::string& words) {
         return a.sets() && a.unit == Unit::hertz &&
                holdsWord(words, {"reference", "clock", "master", "counter", "standard"});
     },
     "every other frequency is read against it"},
    {2,
     [](const Adjustment& a, const std::string& words) {
         return a.sets() && a.unit == Unit::hertz && holdsWord(words, {"bfo", "carrier", "cio", "beat"});
     },
     "the carrier's place decides what the filter passes"},
    {10,
     [](const Adjustment&, const std::string& words) {
         return holdsWord(words, {"offset", "rit", "shift"});
     },
     "once both ways are tuned"},
    {3,
     [](const Adjustment& a, const std::string&) {
         return a.kind == Adjustment::Kind::range || (a.sets() && a.unit == Unit::hertz);
     },
     "the band-pass is peaked at a frequency that must be right first"},
    {13, [](const Adjustment& a, const std::string&) { return found(a) && ofPower(a); },
     "power is drawn: the bias is set by now"},
    {11,
     [](const Adjustment& a, const std::string& words) {
         return found(a) && holdsWord(words, {"transmit", "tx", "driver", "drive"});
     },
     "after the receiver, which lets you hear it"},
    {4,
     [](const Adjustment& a, const std::string& words) {
         return a.kind == Adjustment::Kind::peak && holdsWord(words, {"if", "intermediate"});
     },
     "from the last stage to the first: each is heard through those behind it"},
    {5, [](const Adjustment& a, const std::string&) { return a.kind == Adjustment::Kind::peak; },
     "with the range right, to the loudest"},
    {7, [](const Adjustment& a, const std::string&) { return a.kind == Adjustment::Kind::null; },
     "a null wants a strong signal: the band-pass is peaked by now"},
    {9, [](const Adjustment&, const std::string&) { return true; },
     "levels, once all stages pass what they should"},
};

const Place& placeOf(const Adjustment& a) {
    const std::string words = (a.title + " " + a.reads);
    for (const Place& place : kPlaces) {
        if (place.belongs(a, words)) return place;
    }
    return kPlaces[std::size(kPlaces) - 1];
}

constexpr int kIf = 4, kBias = 12;

/// What is of the rig as a whole, then what is received, band by band, then the bias, then power, band by
/// band.
int stageOf(int rank) { return rank < kIf ? 0 : rank < kBias ? 1 : rank == kBias ? 2 : 3; }

/// The digits of a designator, the last stage having the highest.
int numberOf(const std::string& ref) {
    int out = 0;
    for (const char c : ref) {
        if (std::isdigit(static_cast<unsigned char>(c)) && out < 100000) out = out * 10 + (c - '0');
    }
    return out;
}

struct Candidate {
    std::size_t at = 0;
    int rank = 0;
    std::size_t band = 0;  ///< by its first mention
    const Place* place = nullptr;
};

std::vector<Candidate> inCommonOrder(const Kit& kit) {
    std::vector<Candidate> out;
    std::vector<std::string> bands;
    for (std::size_t i = 0; i < kit.adjustments.size(); ++i) {
        const Adjustment& a = kit.adjustments[i];
        auto band = std::find(bands.begin(), bands.end(), a.band);
        if (band == bands.end()) band = bands.insert(band, a.band);
        const Place& place = placeOf(a);
        out.push_back({i, place.rank, a.band.empty() ? 0 : std::size_t(band - bands.begin()) + 1, &place});
    }
    std::stable_sort(out.begin(), out.end(), [&](const Candidate& a, const Candidate& b) {
        const auto key = [](const Candidate& c) { return std::tuple(stageOf(c.rank), c.band, c.rank); };
        if (key(a) != key(b)) return key(a) < key(b);
        if (a.rank == kIf)
            return numberOf(kit.adjustments[a.at].adjuster) > numberOf(kit.adjustments[b.at].adjuster);
        return false;
    });
    return out;
}

}  // namespace

std::vector<TuneTurn> tuningOrder(const Kit& kit, bool common) {
    std::vector<Candidate> waiting;
    if (common) {
        waiting = inCommonOrder(kit);
    } else {
        for (std::size_t i = 0; i < kit.adjustments.size(); ++i) waiting.push_back({i, 0, 0, nullptr});
    }
    std::vector<TuneTurn> out;
    const auto done = [&](const std::string& id) {
        return kit.adjustment(id) == nullptr ||
               std::any_of(out.begin(), out.end(), [&](const TuneTurn& t) { return t.adjustment->id == id; });
    };
    while (!waiting.empty()) {
        auto next = std::find_if(waiting.begin(), waiting.end(), [&](const Candidate& c) {
            const Adjustment& a = kit.adjustments[c.at];
            return std::all_of(a.after.begin(), a.after.end(), done);
        });
        if (next == waiting.end()) next = waiting.begin();  // a ring
        const Adjustment& a = kit.adjustments[next->at];
        TuneTurn turn{&a, next->place == nullptr ? "" : next->place->reason};
        if (!a.after.empty() && kit.adjustment(a.after.front()) != nullptr)
            turn.reason = "rests on \"" + kit.adjustment(a.after.front())->title + "\"";
        out.push_back(std::move(turn));
        waiting.erase(next);
    }
    return out;
}

std::vector<TuneTurn> tuningOrder(const Kit& kit, const Build& build) {
    return tuningOrder(kit, commonOrder(build));
}

}  // namespace ombrek
