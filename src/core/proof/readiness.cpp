#include "core/proof/readiness.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <optional>

#include "core/text/enumerators.h"

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

/// A line of a basis about one thing.
struct BasisLine {
    int distance = 0;  ///< of its state from a pass
    double value = NAN, uncertainty = 0;
};

std::vector<std::string> cells(const std::string& line) {
    std::vector<std::string> out{""};
    for (const char c : line) {
        if (c == '\t')
            out.emplace_back();
        else
            out.back() += c;
    }
    return out;
}

double numberOf(const std::string& text) {
    double out = NAN;
    std::from_chars(text.data(), text.data() + text.size(), out);
    return out;
}

/// As books have them, however they are shown.
constexpr std::array<std::string_view, 5> kStates{"pass", "doubtful", "fail", "cannot tell", "not done"};
static_assert(kStates.size() == enumerators<VerdictState>());
std::string_view keptState(VerdictState state) { return kStates[std::size_t(state)]; }

std::optional<BasisLine> lineOf(const std::string& basis, const Evidence& evidence) {
    for (std::size_t at = 0; at < basis.size();) {
        const std::size_t end = std::min(basis.find('\n', at), basis.size());
        const auto cell = cells(basis.substr(at, end - at));
        at = end + 1;
        // Older books have it by its title.
        if (cell.size() < 2 || (cell[1] != evidence.kept() && cell[1] != evidence.what)) continue;
        for (const auto state :
             {VerdictState::fail, VerdictState::cannotTell, VerdictState::doubtful, VerdictState::notDone}) {
            if (cell[0] != keptState(state)) continue;
            BasisLine out{distance(state), NAN, 0};
            if (cell.size() > 3) out.value = numberOf(cell[2]), out.uncertainty = numberOf(cell[3]);
            return out;
        }
    }
    return std::nullopt;
}

/// It was read anew, and is something else; or what was read then is of a thing that was changed since.
bool moved(const BasisLine& then, const Evidence& now) {
    constexpr double kTwentieth = 0.05;
    if (!std::isfinite(then.value)) return false;
    if (!std::isfinite(now.value)) return true;
    const double by = std::abs(now.value - then.value);
    const auto known = [](double u) { return std::isfinite(u) ? u : 0; };
    return by > std::hypot(known(then.uncertainty), known(now.uncertainty)) &&
           by > kTwentieth * std::abs(then.value);
}

std::string exactly(double value) {
    char out[32];
    return {out, std::to_chars(out, out + sizeof out, value).ptr};
}

}  // namespace

std::string basisOf(const std::vector<Evidence>& evidence) {
    std::string out;
    for (const Evidence& e : evidence) {
        if (e.state == VerdictState::pass) continue;
        out += std::string(keptState(e.state)) + "\t" + e.kept();
        if (std::isfinite(e.value)) out += "\t" + exactly(e.value) + "\t" + exactly(e.uncertainty);
        out += "\n";
    }
    return out;
}

bool speaksFor(const std::string& basis, const Evidence& evidence) {
    if (basis.empty()) return distance(evidence.state) <= 2;
    const auto line = lineOf(basis, evidence);
    return distance(evidence.state) <= (line ? line->distance : 0) && !(line && moved(*line, evidence));
}

void accept(Evidence& evidence, const GateWord& word) {
    if (evidence.state == VerdictState::pass) return;
    evidence.accepted = speaksFor(word.basis, evidence);
    evidence.lapsed = !evidence.accepted;
    evidence.reason = word.reason;
    evidence.forbids = word.forbids;
}

void settle(Gate& gate) {
    gate.passedKnowingly = gate.state() != VerdictState::pass;
    for (const Evidence& e : gate.evidence) {
        if (e.bars()) gate.passedKnowingly = false;
        if (e.accepted && gate.reason.empty()) gate.reason = e.reason;
        if (e.lapsed) gate.lapsed += (gate.lapsed.empty() ? "" : ", ") + e.what;
    }
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
