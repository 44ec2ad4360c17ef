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
    std::string out =
        std::to_string(count(VerdictState::pass)) + " of " + std::to_string(evidence.size()) + " pass";
    for (const auto state : {VerdictState::fail, VerdictState::doubtful, VerdictState::cannotTell}) {
        if (const auto n = count(state)) out += ", " + std::to_string(n) + " " + std::string(word(state));
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
