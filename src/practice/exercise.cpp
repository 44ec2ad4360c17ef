#include "practice/exercise.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "circuit/models.h"
#include "core/quantity/quantity.h"
#include "core/text/letters.h"

namespace ombrek {
namespace {

using What = CircuitReading::Quantity;

constexpr int kDraws = 200;     ///< faults tried until one is noticed
constexpr double kHeard = 0.8;  ///< of a function, below which somebody complains

bool twoLeads(const Fault& f) {
    return !f.element.empty() &&
           std::string_view("rcld").find(char(std::tolower(f.element[0]))) != std::string_view::npos;
}

bool ofGrade(const Fault& f, int grade) {
    const bool value = f.kind == Fault::Kind::value && std::isfinite(f.factor) && f.factor < 1000;
    if (f.element.empty() || std::tolower(f.element[0]) == 'v') return false;
    return grade >= 3 || (!value && (grade == 2 || twoLeads(f)));
}

double scatterOf(std::uint32_t seed, const std::string& name) {
    std::seed_seq words(name.begin(), name.end());
    std::mt19937 engine(words);
    return double((engine() ^ (seed * 2654435761U)) % 2000001U) / 1e6 - 1;
}

}  // namespace

Exercise::Exercise(Kit kit, std::uint32_t seed, int grade)
    : kit_(std::move(kit)), seed_(seed), grade_(std::clamp(grade, 1, 3)) {
    auto circuit = readKitCircuit(kit_.circuit, shippedModels());
    if (!circuit) return;
    circuit_ = std::move(*circuit);
    rig_ = std::make_unique<PracticeCircuit>(
        kit_, [seed](const std::string& name) { return scatterOf(seed, name); });
    if (!rig_->there()) return;
    std::vector<Fault> faults = rig_->faults();
    std::erase_if(faults, [&](const Fault& f) { return !ofGrade(f, grade_); });
    std::mt19937 engine(seed * 3U + std::uint32_t(grade_));
    for (int draw = 0; draw < kDraws && !faults.empty(); ++draw) {
        const Fault& fault = faults[engine() % faults.size()];
        rig_->mend();
        if (!rig_->seed(fault.ref + " " + fault.what) || !noticed(*rig_)) continue;
        truth_ = fault;
        return;
    }
}

/// Whether somebody notices: the first check in the kit's order that does not pass, else a function.
bool Exercise::noticed(PracticeCircuit& rig) {
    for (const Check& check : kit_.checks) {
        const auto probe = probeOf(circuit_, kit_, check);
        const CircuitState* state = probe ? circuit_.state(probe->state) : nullptr;
        if (!probe || (state != nullptr && state->powerOff)) continue;
        const auto reads = rig.check(check.id);
        if (!reads || (*reads >= check.limits.low && *reads <= check.limits.high)) continue;
        symptom_ = *probe;
        symptom_.value = *reads;
        complaint_ =
            check.title + " reads " + formatQuantity(std::round(*reads * 1e4) / 1e4, check.unit, 3) + ".";
        return true;
    }
    for (const auto& [name, stages] : circuit_.paths) {
        const double works = rig.works(name);
        if (works >= kHeard) continue;
        symptom_ = {name, "0", What::works, works, 0, stages.front().state, 0};
        complaint_ = "\"" + name + "\" " + (works < 0.3 ? "does nothing" : "is weak") +
                     ", and every check of the kit passes.";
        return true;
    }
    return false;
}

std::vector<std::string> Exercise::states() const {
    std::vector<std::string> out;
    for (const CircuitState& state : circuit_.states) {
        if (!state.powerOff) out.push_back(state.name);
    }
    if (out.empty()) out.emplace_back();
    return out;
}

double Exercise::read(const CircuitReading& probe) { return rig_->node(probeWords(probe)).value_or(NAN); }

bool Exercise::swap(const std::string& ref) {
    ++swaps_;
    return lowered(ref) == lowered(truth_.ref);
}

}  // namespace ombrek
