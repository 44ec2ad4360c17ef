#include "station/tune/tune_rounds.h"

#include <algorithm>
#include <cmath>

#include "core/proof/power.h"

namespace ombrek {
namespace {

bool names(const Adjustment& of, const std::string& id) {
    return std::find(of.partners.begin(), of.partners.end(), id) != of.partners.end();
}

/// How good a reading is: decibels for what is found, minus what is missed for what is set.
double worth(const Adjustment& a, const Reading& r) {
    if (a.sets()) return -std::abs(r.value - a.target);
    const double size = std::max(std::abs(r.value), 1e-12);
    const bool decibels = r.unit == Unit::dbm || r.unit == Unit::decibel;
    const double db = decibels ? r.value : (r.unit == Unit::watt ? 10 : 20) * std::log10(size);
    return a.kind == Adjustment::Kind::null ? -db : db;
}

struct Taken {
    const Adjustment* of;
    Reading reading;
};

std::vector<Taken> takenOf(const Build& build, const std::vector<const Adjustment*>& together) {
    std::vector<Taken> out;
    for (const Adjustment* a : together) {
        const Subject subject = Subject::adjustment(a->id);
        for (const Reading& r : build.all(subject)) {
            if (r.unit == a->unit && r.id > build.changedAfter(subject)) out.push_back({a, r});
        }
    }
    std::sort(out.begin(), out.end(),
              [](const Taken& a, const Taken& b) { return a.reading.id < b.reading.id; });
    return out;
}

/// What the last turns of a round are worth: of what is set the worst, else the last.
double worthOf(const Round& round) {
    double out = INFINITY;
    for (const RoundTurn& turn : round.turns) {
        Reading r;
        r.value = turn.reading;
        r.unit = turn.adjustment->unit;
        const double w = worth(*turn.adjustment, r);
        out = turn.adjustment->sets() ? std::min(out, w) : w;
    }
    return out;
}

void compare(const Round& before, Round& round) {
    round.gained = worthOf(round) - worthOf(before);
    for (const RoundTurn& turn : round.turns) {
        for (const RoundTurn& was : before.turns) {
            if (was.adjustment == turn.adjustment)
                round.moved = std::max(round.moved, std::abs(turn.to - was.to));
        }
    }
}

}  // namespace

std::vector<const Adjustment*> partnersOf(const Kit& kit, const Adjustment& a) {
    std::vector<const Adjustment*> out;
    for (const Adjustment& other : kit.adjustments) {
        if (other.id == a.id || names(a, other.id) || names(other, a.id)) out.push_back(&other);
    }
    return out;
}

std::vector<Round> roundsOf(const Build& build, const std::vector<const Adjustment*>& together) {
    std::vector<Round> out;
    for (const Taken& t : takenOf(build, together)) {
        const double at = t.reading.setting(kPosition);
        const bool goesOn =
            !out.empty() && !out.back().turns.empty() && out.back().turns.back().adjustment == t.of;
        const bool had =
            !out.empty() && std::any_of(out.back().turns.begin(), out.back().turns.end(),
                                        [&](const RoundTurn& r) { return r.adjustment == t.of; });
        if (out.empty() || (had && !goesOn)) out.emplace_back();
        if (!goesOn || out.back().turns.empty()) out.back().turns.push_back({t.of, at, at, 0, 0});
        RoundTurn& turn = out.back().turns.back();
        turn.to = at;
        turn.reading = t.reading.value;
        ++turn.readings;
    }
    for (std::size_t i = 1; i < out.size(); ++i) compare(out[i - 1], out[i]);
    return out;
}

std::string roundSentence(const std::vector<Round>& rounds, std::size_t at) {
    const Round& round = rounds.at(at);
    std::string out = "Round " + std::to_string(at + 1);
    if (at == 0) return out + ": the first.";
    const Adjustment& a = *round.turns.front().adjustment;
    const double size = std::abs(round.gained);
    out += round.gained < 0 ? " lost " : " gained ";
    out += a.sets() ? formatQuantity(size, a.unit, 2) : decimals(size, 1) + " dB";
    return out + "; moved " + decimals(round.moved * 100, 1) + "\u202f% at most.";
}

}  // namespace ombrek
