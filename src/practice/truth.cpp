#include "practice/truth.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>
#include <random>

#include "core/coil/winding.h"
#include "core/parts/part_kind.h"
#include "formats/json_fields.h"

namespace ombrek {
namespace {

constexpr double kHotTimes = 4;  ///< of the current that is wanted: a final without its sink (from memory)
constexpr int kHotReadings = 4;
constexpr double kNothing = std::numeric_limits<double>::quiet_NaN();
constexpr double kOscillates = 0.25;  ///< of its usual current, below which an oscillator stops
constexpr double kLoadedQ = 25.0;     ///< of a tuned circuit in the rig

/// Amplitude of a tuned circuit off resonance, 0 … 1.
double resonanceCurve(double frequency, double tuned) {
    const double x = kLoadedQ * (frequency / tuned - tuned / frequency);
    return 1.0 / std::sqrt(1.0 + x * x);
}

double scatterOf(std::uint64_t seed, const std::string& name) {
    std::uint64_t hash = 1469598103934665603ULL ^ seed;  // FNV-1a
    for (const unsigned char c : name) hash = (hash ^ c) * 1099511628211ULL;
    std::mt19937_64 engine(hash);
    return double(engine() >> 11) * 0x1.0p-52 - 1.0;
}

}  // namespace

Result<PracticeBag> readPracticeBag(const std::string& json) {
    try {
        const auto document = parseJson(json);
        JsonFields top(document, "");
        if (top.text("format") != "ombrek-bench")
            top.fault("format", "A practice bag says \"format\": \"ombrek-bench\".");
        if (top.whole("version", 1, 1000) != 1)
            top.fault("version", "This practice bag is of a newer version than 1.");
        PracticeBag out;
        out.kitFile = top.text("kit");
        out.seed = static_cast<std::uint64_t>(top.whole("seed", 0, 2000000000));
        const auto eachIn = [&](const char* name, auto read) {
            if (!top.has(name)) return;
            JsonFields fields = top.object(name);
            for (const auto& [ref, value] : document[name].items()) read(fields, ref);
        };
        eachIn("parts", [&](JsonFields& f, const std::string& ref) {
            out.parts[ref] = f.quantity(ref, Unit::none, 1e-15, 1e12);
        });
        eachIn("coils",
               [&](JsonFields& f, const std::string& ref) { out.coils[ref] = f.number(ref, -50, 50); });
        eachIn("marks", [&](JsonFields& f, const std::string& ref) { out.marks[ref] = f.text(ref); });
        for (JsonFields& row : top.objects("over")) {
            const auto kind = partKind(row.text("kind"));
            if (!kind || unitOf(*kind) == Unit::none)
                row.fault("kind", "A part over is a resistor, capacitor or inductor.");
            out.over.push_back(
                {*kind, row.quantity("value", unitOf(*kind), 1e-15, 1e12), row.text("mark", "")});
            row.finish();
        }
        for (const auto& ref : top.texts("missing")) out.missing.insert(ref);
        out.faults = top.texts("faults");
        top.finish();
        return out;
    } catch (const JsonFault& fault) {
        return tl::make_unexpected(fault.problem);
    } catch (const nlohmann::json::exception&) {
        return problem("", "This practice bag holds a value that cannot be read.");
    }
}

PracticeTruth::PracticeTruth(Kit kit, PracticeBag bag) : kit_(std::move(kit)), bag_(std::move(bag)) {
    reset();
}

void PracticeTruth::reset() {
    settings_.clear();
    if (dead_) circuit_.reset();
    dead_ = false;
    hot_ = 0;
    bends_.clear();
    // Trimmers as they come, anywhere; what can do harm is delivered at its safe end.
    for (const Adjustment& a : kit_.adjustments)
        settings_[Subject::adjustment(a.id)] = a.safe == SafeEnd::none  ? 0.4
                                               : a.safe == SafeEnd::low ? 0.0
                                                                        : 1.0;
}

double PracticeTruth::scatter(const std::string& name) const { return scatterOf(bag_.seed, name); }

PracticeCircuit& PracticeTruth::circuit() {
    if (!circuit_) {
        circuit_ = std::make_unique<PracticeCircuit>(
            kit_, [seed = bag_.seed](const std::string& name) { return scatterOf(seed, name); });
        for (const std::string& fault : bag_.faults) circuit_->seed(fault);
        for (const Part& p : kit_.parts) {
            if (p.unit == Unit::ohm) circuit_->setPart(p.ref, part(p.ref));
        }
    }
    for (const Adjustment& a : kit_.adjustments) {
        if (!a.adjuster.empty()) circuit_->setWiper(a.adjuster, position(a.id));
    }
    return *circuit_;
}

double PracticeTruth::part(const std::string& ref) const {
    const Part* part = kit_.part(ref);
    if (part == nullptr || bag_.missing.contains(ref) || part->nominal <= 0) return kNothing;
    if (const auto wrong = bag_.parts.find(ref); wrong != bag_.parts.end()) {
        return wrong->second * (1 + 0.01 * scatter("part:" + ref));
    }
    return part->nominal * (1 + 0.6 * part->tolerance / 100 * scatter("part:" + ref));
}

const PracticeBag::Over* PracticeTruth::overPart(const std::string& id) const {
    const auto at = id.find_first_not_of("0123456789") == std::string::npos && id.size() < 4 && !id.empty()
                        ? std::stoul(id)
                        : 0;
    return at >= 1 && at <= bag_.over.size() ? &bag_.over[at - 1] : nullptr;
}

std::string PracticeTruth::mark(const Subject& subject) const {
    const std::string& id = subject.id;
    if (subject.is(Subject::Kind::loose)) return overPart(id) ? overPart(id)->mark : "";
    const Part* part = kit_.part(id);
    if (!subject.is(Subject::Kind::part) || part == nullptr || bag_.missing.contains(id)) return "";
    const auto other = bag_.marks.find(id);
    return other == bag_.marks.end() ? part->mark : other->second;
}

Unit PracticeTruth::unitOfPart(const Subject& subject) const {
    const std::string& id = subject.id;
    if (subject.is(Subject::Kind::loose)) return overPart(id) ? unitOf(overPart(id)->kind) : Unit::none;
    const Part* part = subject.is(Subject::Kind::part) ? kit_.part(id) : nullptr;
    return part == nullptr ? Unit::none : part->unit;
}

double PracticeTruth::inductance(const std::string& ref) const {
    const Coil* coil = kit_.coil(ref);
    if (coil == nullptr) return kNothing;
    const auto turns = settings_.find(Subject::coil(ref));
    const int wound = turns == settings_.end() ? coil->windings.front().turns
                                               : static_cast<int>(std::clamp(turns->second, 0.0, 10000.0));
    if (wound < 1) return kNothing;
    const auto seeded = bag_.coils.find(ref);
    const double deviation = seeded != bag_.coils.end()
                                 ? seeded->second
                                 : 0.4 * coil->core.alTolerancePercent * scatter("coil:" + ref);
    const auto bent = bends_.find(ref);
    return ombrek::inductance(coil->core, wound) * (1 + deviation / 100) *
           (bent == bends_.end() ? 1.0 : bent->second);
}

double PracticeTruth::position(const std::string& id) const {
    const auto hit = settings_.find(Subject::adjustment(id));
    return hit == settings_.end() ? 0.5 : hit->second;
}

double PracticeTruth::tuned(const CoilTune& tune, const std::string& coil, double position) const {
    TankCapacitance tank = tankOf(kit_, tune);
    tank.fixed = 0;
    for (const std::string& ref : tune.fixed) tank.fixed += part(ref);
    const double henry = inductance(coil);
    return reckonable(henry, tank, tune.low, tune.high)
               ? resonance(henry, tank.at(std::clamp(position, 0.0, 1.0)))
               : kNothing;
}

double PracticeTruth::peakResponse(const Adjustment& a) {
    const Coil* coil = kit_.coil(a.coil);
    const bool band = coil != nullptr && coil->tune;
    const double amplitude =
        band ? resonanceCurve(kit_.ratings.frequency > 0 ? kit_.ratings.frequency
                                                         : std::sqrt(coil->tune->low * coil->tune->high),
                              tuned(*coil->tune, coil->ref, position(a.id)))
             : resonanceCurve(1.0, 1.0 + 0.05 * (position(a.id) - 0.5));
    if (a.unit == Unit::watt) return power();
    return 0.8 * amplitude * circuit().works("receive");
}

double PracticeTruth::setResponse(const Adjustment& a) {
    const double x = a.safe == SafeEnd::high ? 1 - position(a.id) : position(a.id);
    if (a.unit == Unit::hertz && circuit().works(a.id) < kOscillates) return kNothing;
    if (const Coil* coil = kit_.coil(a.coil); coil != nullptr && coil->tune)
        return tuned(*coil->tune, a.coil, x);
    if (a.unit == Unit::hertz) {  // a trimmer pulls a crystal by a hundred parts per million or so
        return a.target * (1 + 200e-6 * (0.45 + 0.1 * scatter("adjust:" + a.id) - x) / (1 + 0.5 * x));
    }
    if (a.unit == Unit::ampere) {
        if (const auto drawn = circuit().currentBy(a.adjuster, x, "key down")) return *drawn;
    }
    const double over = std::max(0.0, x - 0.3);  // a bias: nothing, then a square law
    return 6.0 * a.target * over * over;
}

/// Finals saturated by their supply behind the polarity diode, driven through the tuned transmit coil, less
/// the filter's loss.
double PracticeTruth::power() {
    double drive = 1.0;
    for (const Adjustment& a : kit_.adjustments) {
        const Coil* coil = kit_.coil(a.coil);
        if (a.unit != Unit::watt || coil == nullptr || !coil->tune) continue;
        drive = resonanceCurve(kit_.ratings.frequency, tuned(*coil->tune, coil->ref, position(a.id)));
    }
    const double rated = kit_.ratings.power * (1.02 + 0.04 * scatter("power"));
    if (!kit_.ratings.transmits() || !(kit_.ratings.frequency > 0)) return kNothing;
    const double loss = insertionLoss(lowPassOf(kit_), kit_.ratings.frequency, kit_.ratings.ohms);
    const double works = circuit().works("transmit");
    return rated * drive * drive * works * works * std::pow(10.0, -loss / 10);
}

double PracticeTruth::harmonic(int order) const {
    if (order < 2 || order > 99 || !(kit_.ratings.frequency > 0)) return kNothing;
    const double raw = order % 2 == 0 ? 12.0 : 16.0;  // dB below the carrier at the finals
    double filtered = raw;
    if (!kit_.lowPass.empty()) {
        std::vector<LadderElement> ladder = lowPassOf(kit_);
        for (std::size_t i = 0; i < ladder.size(); ++i) {
            const std::string& ref = kit_.lowPass[i].ref;
            ladder[i].value = kit_.coil(ref) != nullptr ? inductance(ref) : part(ref);
            if (!(ladder[i].value > 0)) return kNothing;
        }
        const double f = kit_.ratings.frequency;
        filtered +=
            insertionLoss(ladder, order * f, kit_.ratings.ohms) - insertionLoss(ladder, f, kit_.ratings.ohms);
    }
    return std::min(filtered, 70.0 + scatter("floor"));  // the analyser's own floor
}

/// A bridge that balances near the middle of each adjuster, on a floor; partners pull each other by a third.
double PracticeTruth::nulled(const Adjustment& a) const {
    const auto off = [&](const std::string& id) {
        return position(id) - 0.47 - 0.1 * scatter("adjust:" + id);
    };
    std::vector<double> all{off(a.id)};
    for (const std::string& id : a.partners) all.push_back(off(id));
    double left = 0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        double sum = all[i];
        for (std::size_t j = 0; j < all.size(); ++j) sum += j == i ? 0 : 0.35 * all[j];
        left = std::hypot(left, sum);
    }
    return 0.01 + left;
}

double PracticeTruth::adjustment(const std::string& id) {
    const Adjustment* a = kit_.adjustment(id);
    if (a == nullptr) return kNothing;
    if (a->kind == Adjustment::Kind::null) return nulled(*a);
    return a->kind == Adjustment::Kind::peak ? peakResponse(*a) : setResponse(*a);
}

/// A final whose bias is left far too high dies of the heat: at the fourth reading in a row, so that it may
/// be turned down in time.
double PracticeTruth::warmed(const std::string& id, double reads) {
    const Adjustment* a = kit_.adjustment(id);
    if (a == nullptr || a->safe == SafeEnd::none || a->unit != Unit::ampere || dead_) return reads;
    hot_ = reads > kHotTimes * (a->target + a->tolerance) ? hot_ + 1 : 0;
    if (hot_ < kHotReadings) return reads;
    for (const RestsOn& row : kit_.restsOn) {
        if (row.what != Subject::adjustment(id)) continue;
        for (const Subject& on : row.on) {
            dead_ = circuit().seed(on.id + " drain and source shorted") ||
                    circuit().seed(on.id + " collector and emitter shorted");
            if (dead_) return adjustment(id);
        }
    }
    return reads;
}

double PracticeTruth::check(const std::string& id) {
    const Check* check = kit_.check(id);
    if (check == nullptr || check->yesNo()) return kNothing;  // nobody's instrument sees or hears
    for (const Adjustment& a : kit_.adjustments) {            // a check of an oscillator reads the oscillator
        if (check->unit == Unit::hertz && a.kind == Adjustment::Kind::set && check->limits.holds(a.target)) {
            return adjustment(a.id);
        }
    }
    if (const auto reads = circuit().check(id)) return *reads;
    const double u = scatter("check:" + id);
    if (std::isinf(check->limits.high)) return check->limits.low * (3 + u);
    if (std::isinf(check->limits.low)) return check->limits.high * (0.4 + 0.2 * u);
    return (check->limits.low + check->limits.high) / 2 + 0.35 * u * check->limits.halfWidth();
}

/// The BFO's error is the rig's error.
double PracticeTruth::frequency() {
    double offset = 60.0 * scatter("frequency");
    for (const Adjustment& a : kit_.adjustments) {
        if (a.unit == Unit::hertz && a.kind == Adjustment::Kind::set && a.coil.empty())
            offset += adjustment(a.id) - a.target;
    }
    return kit_.ratings.frequency + offset;
}

double PracticeTruth::at(const Subject& subject, double setting) {
    if (setting >= 0 && std::isfinite(setting)) settings_[subject] = setting;
    const std::string& id = subject.id;
    switch (subject.kind) {
        case Subject::Kind::part:
            return part(id);
        case Subject::Kind::loose:
            return overPart(id) ? overPart(id)->value * (1 + 0.02 * scatter("loose:" + id)) : kNothing;
        case Subject::Kind::coil:
            return inductance(id);
        case Subject::Kind::check:
            return check(id);
        case Subject::Kind::adjustment:
            return warmed(id, adjustment(id));
        case Subject::Kind::node:
            return circuit().node(id).value_or(kNothing);
        case Subject::Kind::power:
            return power();
        case Subject::Kind::supply:
            return kit_.ratings.supply * (1 + 0.004 * scatter("supply"));
        case Subject::Kind::frequency:
            return frequency();
        case Subject::Kind::harmonic: {
            int order = 0;
            const auto [end, error] = std::from_chars(id.data(), id.data() + id.size(), order);
            return error == std::errc{} && end == id.data() + id.size() ? harmonic(order) : kNothing;
        }
        default:
            return kNothing;
    }
}

void PracticeTruth::bend(const std::string& coil, double percent) {
    const auto before = bends_.find(coil);
    setBent(coil, (before == bends_.end() ? 1.0 : before->second) * (1 + percent / 100));
}

void PracticeTruth::setBent(const std::string& coil, double factor) {
    if (std::isfinite(factor)) bends_[coil] = std::clamp(factor, 0.88, 1.12);
}

}  // namespace ombrek
