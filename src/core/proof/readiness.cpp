#include "core/proof/readiness.h"

#include <algorithm>

namespace ombrek {

VerdictState Gate::state() const {
    std::vector<VerdictState> states;
    for (const Evidence& e : evidence) states.push_back(e.state);
    return worst(states);
}

std::string Gate::summary() const {
    const auto count = [&](VerdictState state) {
        return std::count_if(evidence.begin(), evidence.end(),
                             [&](const Evidence& e) { return e.state == state; });
    };
    const auto trusted = std::count_if(evidence.begin(), evidence.end(), [](const Evidence& e) {
        return e.onTrust && e.state == VerdictState::pass;
    });
    std::string out = std::to_string(count(VerdictState::pass) - trusted) + " of " +
                      std::to_string(evidence.size()) + " pass";
    if (trusted > 0) out += ", " + std::to_string(trusted) + " on trust";
    for (const auto state : {VerdictState::fail, VerdictState::doubtful, VerdictState::cannotTell}) {
        if (const auto n = count(state)) out += ", " + std::to_string(n) + " " + std::string(word(state));
    }
    return out;
}

namespace {

/// How far a state is from a pass.
int distance(VerdictState state) {
    return state == VerdictState::pass      ? 0
           : state == VerdictState::notDone ? 1
           : state == VerdictState::fail    ? 3
                                            : 2;
}

int distanceIn(const std::string& basis, const std::string& what) {
    for (const auto state :
         {VerdictState::fail, VerdictState::cannotTell, VerdictState::doubtful, VerdictState::notDone}) {
        const std::string line = std::string(word(state)) + "\t" + what + "\n";
        const auto at = basis.find(line);
        if (at == 0 || (at != std::string::npos && basis[at - 1] == '\n')) return distance(state);
    }
    return basis.empty() ? 2 : 0;
}

}  // namespace

std::string basisOf(const std::vector<Evidence>& evidence) {
    std::string out;
    for (const Evidence& e : evidence) {
        if (e.state != VerdictState::pass) out += std::string(word(e.state)) + "\t" + e.what + "\n";
    }
    return out;
}

std::string worseThan(const std::string& basis, const std::vector<Evidence>& evidence) {
    std::string out;
    for (const Evidence& e : evidence) {
        if (distance(e.state) > distanceIn(basis, e.what)) out += (out.empty() ? "" : ", ") + e.what;
    }
    return out;
}

int Readiness::earned() const {
    return int(std::count_if(gates.begin(), gates.end(),
                             [](const Gate& g) { return g.state() == VerdictState::pass; }));
}

int Readiness::open() const {
    return int(std::count_if(gates.begin(), gates.end(), [](const Gate& g) { return g.open(); }));
}

const Gate* Readiness::next() const {
    const auto hit = std::find_if(gates.begin(), gates.end(), [](const Gate& g) { return !g.open(); });
    return hit == gates.end() ? nullptr : &*hit;
}

}  // namespace ombrek
