#include "core/circuit/compare.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <map>
#include <set>
#include <sstream>

#include "core/text/letters.h"

namespace ombrek {
namespace {

using Works = Channel::Works;

// Common practice.
constexpr double kDeadWith = 0.97;     ///< a channel with the bad part does not work
constexpr double kDeadWithout = 0.04;  ///< one without it does not work for a reason of its own
constexpr double kWeakShare = 0.3;     ///< weak is that much like dead
constexpr double kOnePart = 1.0;       ///< a single part is to blame
constexpr double kOneKind = 0.15;      ///< or all of a kind, of one age or one batch
constexpr double kSoon = 1.5;          ///< a jump so soon after a press is of the press [s]
constexpr double kJumpsWhenPressed = 0.6;
constexpr double kJump = 0.05;

/// How usual it is that parts of a kind fail together: contacts age, enamelled tails are badly tinned.
struct KindShare {
    std::string_view kind;
    double share;
};
constexpr KindShare kKinds[] = {{"K", 3}, {"S", 2}, {"J", 2}, {"L", 1.5}, {"T", 1.5}, {"D", 1}};
constexpr double kOtherKind = 0.5;
double shareOf(const std::string& kind) {
    for (const KindShare& k : kKinds) {
        if (k.kind == kind) return k.share;
    }
    return kOtherKind;
}

struct WorksWord {
    std::string_view word;
    Works works;
};
constexpr WorksWord kWords[] = {{"works", Works::yes}, {"ok", Works::yes},     {"good", Works::yes},
                                {"live", Works::yes},  {"weak", Works::weak},  {"low", Works::weak},
                                {"dead", Works::no},   {"nothing", Works::no}, {"no", Works::no}};

std::string kindOf(const std::string& ref) {
    std::string out;
    for (const char c : ref) {
        if (!std::isalpha(static_cast<unsigned char>(c))) break;
        out += c;
    }
    return out;
}

bool has(const std::vector<std::string>& all, const std::string& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

/// Logarithm of what a channel does, given whether it is hit.
double logOf(Works works, bool hit) {
    const double dead = hit ? kDeadWith : kDeadWithout;
    switch (works) {
        case Works::no:
            return std::log(dead);
        case Works::weak:
            return std::log(kWeakShare * dead);
        default:
            return std::log(1 - dead);
    }
}

template <class T>
void normalise(std::vector<T>& rows) {
    double best = -1e300, sum = 0;
    for (const T& row : rows) best = std::max(best, row.odds);
    for (T& row : rows) sum += row.odds = std::exp(row.odds - best);
    for (T& row : rows) row.odds /= sum;
}

std::string listed(const std::vector<std::string>& names) {
    std::string out;
    for (std::size_t i = 0; i < names.size(); ++i)
        out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return out;
}

}  // namespace

std::string_view word(Works works) {
    return works == Works::yes ? "works" : works == Works::weak ? "weak" : "dead";
}

Result<Channel> readChannel(const std::string& line) {
    std::istringstream in(line);
    Channel out;
    bool told = false;
    for (std::string w; in >> w;) {
        while (!w.empty() && (w.back() == ':' || w.back() == ',' || w.back() == ';')) w.pop_back();
        const std::string low = lowered(w);
        const auto hit = std::find_if(std::begin(kWords), std::end(kWords),
                                      [&](const WorksWord& x) { return x.word == low; });
        if (!told && hit != std::end(kWords)) {
            out.works = hit->works;
            told = true;
        } else if (!told) {
            out.name += (out.name.empty() ? "" : " ") + w;
        } else if (!w.empty() && !has(out.uses, w)) {
            for (char& c : w) c = char(std::toupper(static_cast<unsigned char>(c)));
            out.uses.push_back(w);
        }
    }
    if (!told) return problem("", "Say whether it works, is weak or dead: \"30m dead K3 L5\".");
    if (out.name.empty()) return problem("", "Give it a name first: \"30m dead K3 L5\".");
    return out;
}

std::vector<SharedCause> sharedCauses(const std::vector<Channel>& channels) {
    const bool anyDead =
        std::any_of(channels.begin(), channels.end(), [](const Channel& c) { return c.works == Works::no; });
    if (!anyDead) return {};
    std::set<std::string> parts, kinds;
    for (const Channel& c : channels) {
        for (const std::string& ref : c.uses) {
            parts.insert(ref);
            kinds.insert(kindOf(ref));
        }
    }
    std::vector<SharedCause> out;
    for (const std::string& part : parts) {
        SharedCause cause{part, false, std::log(kOnePart), {part}};
        for (const Channel& c : channels) cause.odds += logOf(c.works, has(c.uses, part));
        out.push_back(std::move(cause));
    }
    for (const std::string& kind : kinds) {
        // All of a kind have aged alike; some have gone: each channel that has one may be dead of it.
        SharedCause cause{kind, true, std::log(kOneKind * shareOf(kind)), {}};
        int dead = 0;
        for (const Channel& c : channels) {
            const bool uses = std::any_of(c.uses.begin(), c.uses.end(),
                                          [&](const std::string& ref) { return kindOf(ref) == kind; });
            cause.odds += !uses ? logOf(c.works, false)
                          : c.works == Works::yes
                              ? std::log(0.5)
                              : std::log(0.5) + (c.works == Works::weak ? std::log(kWeakShare) : 0);
            if (!uses || c.works != Works::no) continue;
            ++dead;
            for (const std::string& ref : c.uses) {
                if (kindOf(ref) == kind && !has(cause.parts, ref)) cause.parts.push_back(ref);
            }
        }
        // One dead channel says nothing of a kind.
        if (dead >= 2 && cause.parts.size() >= 2) out.push_back(std::move(cause));
    }
    if (out.empty()) return out;
    normalise(out);
    std::stable_sort(out.begin(), out.end(),
                     [](const SharedCause& a, const SharedCause& b) { return a.odds > b.odds; });
    return out;
}

std::string comparedWords(const std::vector<Channel>& channels) {
    std::vector<std::string> dead;
    for (const Channel& c : channels) {
        if (c.works == Works::no) dead.push_back(c.name);
    }
    if (channels.empty()) return "Write down one band or function a line, and whether it works.";
    if (dead.empty()) return "None of them is dead.";
    const auto causes = sharedCauses(channels);
    const std::string who = (dead.size() == 1 ? "The dead one, " : "The dead ones, ") + listed(dead) + ", ";
    if (causes.empty())
        return who + (dead.size() == 1 ? "is" : "are") + " written down without parts: add what each uses.";
    const SharedCause& first = causes.front();
    if (first.kind) {
        const bool second = causes.size() > 1 && causes[1].kind && causes[1].odds > 0.4 * first.odds;
        return who + "share nothing but the kind of part, " + listed(first.parts) +
               (second ? ", or " + listed(causes[1].parts) : "") +
               ": bypass one and look whether it comes back.";
    }
    std::vector<std::string> like{first.what};
    for (std::size_t i = 1; i < causes.size() && like.size() < 4; ++i) {
        if (!causes[i].kind && causes[i].odds > 0.95 * first.odds) like.push_back(causes[i].what);
    }
    return who + (dead.size() == 1 ? "has " : "share ") + listed(like) +
           ", which no live one needs: look there first.";
}

std::vector<double> jumpsOf(const std::vector<RunningReading>& readings) {
    // What it moves by itself: the middle of all steps.
    std::vector<double> steps;
    for (std::size_t i = 1; i < readings.size(); ++i)
        steps.push_back(std::abs(readings[i].value - readings[i - 1].value));
    std::vector<double> sorted = steps;
    std::sort(sorted.begin(), sorted.end());
    const double noise = sorted.empty() ? 0 : sorted[sorted.size() / 2];
    std::vector<double> out;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const double least = std::max(6 * noise, kJump * std::abs(readings[i].value));
        // Not a number, or beyond the range, and back again: that is a jump, too.
        const bool lost = std::isfinite(readings[i].value) != std::isfinite(readings[i + 1].value);
        if (lost || steps[i] > std::max(least, 1e-12)) out.push_back(readings[i + 1].at);
    }
    return out;
}

std::vector<PlaceOdds> placesByJumps(const std::vector<RunningReading>& readings,
                                     const std::vector<Press>& presses) {
    const auto jumps = jumpsOf(readings);
    const auto soon = [&](double at) {
        return std::any_of(jumps.begin(), jumps.end(), [&](double j) { return j >= at && j <= at + kSoon; });
    };
    const auto ofAPress = [&](double jump) {
        return std::any_of(presses.begin(), presses.end(),
                           [&](const Press& p) { return jump >= p.at && jump <= p.at + kSoon; });
    };
    // Jumps that come by themselves, between presses; at least half of one is believed.
    const double time = readings.size() < 2 ? 0 : readings.back().at - readings.front().at;
    const double free = std::max(1.0, time - kSoon * double(presses.size()));
    const double alone =
        0.5 + double(std::count_if(jumps.begin(), jumps.end(), [&](double j) { return !ofAPress(j); }));
    const double byChance = std::min(0.5, 1 - std::exp(-alone / free * kSoon));
    std::map<std::string, PlaceOdds> places;
    for (const Press& p : presses) {
        PlaceOdds& row = places[p.place];
        row.place = p.place;
        ++row.presses;
        row.jumps += soon(p.at);
    }
    std::vector<PlaceOdds> out;
    for (const auto& [name, row] : places) {
        PlaceOdds ranked = row;
        const int quiet = row.presses - row.jumps;
        ranked.odds = row.jumps * std::log(kJumpsWhenPressed / byChance) +
                      quiet * std::log((1 - kJumpsWhenPressed) / (1 - byChance));
        out.push_back(std::move(ranked));
    }
    out.push_back({"", 0, 0, 0});
    normalise(out);
    std::stable_sort(out.begin(), out.end() - 1,
                     [](const PlaceOdds& a, const PlaceOdds& b) { return a.odds > b.odds; });
    return out;
}

}  // namespace ombrek
