#include "practice/truth.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>
#include <random>

#include "core/coil/winding.h"
#include "core/parts/part_kind.h"
#include "formats/json_fields.h"
#include "practice/resonance_curve.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

constexpr double kNothing = std::numeric_limits<double>::quiet_NaN();

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
        for (const auto& ref : top.texts("dead")) out.dead.insert(ref);
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
    if (dead_ || !mended_.empty()) circuit_.reset();
    dead_ = false;
    mended_.clear();
    hot_ = 0;
    onFor_ = -1;
    bends_.clear();
    // Trimmers as they come, anywhere; what can do harm is delivered at its safe end.
    for (const Adjustment& a : kit_.adjustments)
        settings_[Subject::adjustment(a.id)] = a.safe == SafeEnd::none  ? 0.4
                                               : a.safe == SafeEnd::low ? 0.0
                                                                        : 1.0;
}

void PracticeTruth::mend(const std::string& ref) {
    const auto is = [&](const std::string& what) { return what.substr(0, what.find(' ')) == ref; };
    const auto finals = finalsOf(kit_);
    const bool revived = dead_ && std::any_of(finals.begin(), finals.end(), is);
    const bool other = std::any_of(bag_.faults.begin(), bag_.faults.end(), is) || bag_.parts.contains(ref) ||
                       bag_.missing.contains(ref);
    if (revived) dead_ = false, hot_ = 0;
    if ((mended_.insert(ref).second && other) || revived) circuit_.reset();
}

double PracticeTruth::scatter(const std::string& name) const { return scatterOf(bag_.seed, name); }

PracticeCircuit& PracticeTruth::circuit() {
    if (!circuit_) {
        circuit_ = std::make_unique<PracticeCircuit>(
            kit_, [seed = bag_.seed](const std::string& name) { return scatterOf(seed, name); });
        for (const std::string& fault : bag_.faults) {
            if (!mended_.contains(fault.substr(0, fault.find(' ')))) circuit_->seed(fault);
        }
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
    const bool good = mended_.contains(ref);
    if (part == nullptr || (bag_.missing.contains(ref) && !good) || part->nominal <= 0) return kNothing;
    if (good) return part->nominal * (1 + 0.6 * part->tolerance / 100 * scatter("mended:" + ref));
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

std::string PracticeTruth::mark(const Subject& subject) {
    const std::string& id = subject.id;
    if (subject.is(Subject::Kind::loose)) return overPart(id) ? overPart(id)->mark : "";
    if (subject.is(Subject::Kind::adjustment)) return shown(subject, NAN);
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

/// The supply as the builder set it, else as the kit wants it [V].
double PracticeTruth::supply() const {
    const auto set = settings_.find(Subject::supply());
    const double volts = set != settings_.end() && set->second > 0 ? set->second : kit_.ratings.supply;
    return volts * (1 + 0.004 * scatter("supply"));
}

/// Finals that work, of those that share the power.
double PracticeTruth::alive() const {
    const double finals = std::max(1, kit_.ratings.finals);
    const auto dead = std::count_if(bag_.dead.begin(), bag_.dead.end(),
                                    [&](const std::string& ref) { return !mended_.contains(ref); });
    return std::max(0.0, finals - double(dead)) / finals;
}

/// The low-pass as it really is; empty where a part of it is not in.
std::vector<LadderElement> PracticeTruth::lowPass(const std::string& band) const {
    std::vector<LadderElement> out = lowPassOf(kit_, band);
    for (std::size_t i = 0; i < out.size(); ++i) {
        const std::string& ref = kit_.lowPassOn(band)[i].ref;
        out[i].value = kit_.coil(ref) != nullptr ? inductance(ref) : part(ref);
        if (!(out[i].value > 0)) return {};
    }
    return out;
}

/// Drive through the tuned transmit coil, 1 at its peak.
double PracticeTruth::drive(const std::string& band) const {
    double out = 1.0;
    for (const Adjustment& a : kit_.adjustments) {
        const Coil* coil = kit_.coil(a.coil);
        if (a.unit != Unit::watt || coil == nullptr || !coil->tune) continue;
        out = resonanceCurve(kit_.ratings.on(band).frequency, tuned(*coil->tune, coil->ref, position(a.id)));
    }
    return out;
}

/// Finals saturated by their supply behind the polarity diode, less the filter's loss. Without bands it loses
/// what the kit's own filter does; with bands what was wound counts.
double PracticeTruth::power(const std::string& band) {
    const Ratings rated = kit_.ratings.on(band);
    if (!rated.transmits() || !(rated.frequency > 0)) return kNothing;
    const auto built = kit_.ratings.bands.empty() ? lowPassOf(kit_) : lowPass(band);
    if (built.empty() && !kit_.lowPassOn(band).empty() && !kit_.ratings.bands.empty()) return 0;
    const double loss = insertionLoss(built, rated.frequency, rated.ohms);
    const double works = circuit().works("transmit"), driven = drive(band);
    const double volts = settings_.contains(Subject::supply()) ? supply() / rated.supply : 1;
    return rated.power * (1.02 + 0.04 * scatter("power" + band)) * driven * driven * works * works * volts *
           volts * std::pow(alive(), 1.5) * std::pow(10.0, -loss / 10);
}

/// With the key down: as the kit promises, by its supply and by the finals that work.
double PracticeTruth::current(const std::string& band) {
    const Ratings& rated = kit_.ratings;
    const double usual = rated.currentHigh > 0 ? (rated.currentLow + rated.currentHigh) / 2
                                               : rated.on(band).power / (0.55 * rated.supply);
    return usual * (1 + 0.05 * scatter("current" + band)) * supply() / rated.supply * alive() *
           (0.3 + 0.7 * drive(band)) * circuit().works("transmit");
}

double PracticeTruth::harmonic(int order, const std::string& band) const {
    const Ratings rated = kit_.ratings.on(band);
    if (order < 2 || order > 99 || !(rated.frequency > 0)) return kNothing;
    const double raw = order % 2 == 0 ? 12.0 : 16.0;  // dB below the carrier at the finals
    double filtered = raw;
    if (!kit_.lowPassOn(band).empty()) {
        const std::vector<LadderElement> ladder = lowPass(band);
        if (ladder.empty()) return kNothing;
        const double f = rated.frequency;
        filtered += insertionLoss(ladder, order * f, rated.ohms) - insertionLoss(ladder, f, rated.ohms);
    }
    return std::min(filtered, 70.0 + scatter("floor"));  // the analyser's own floor
}

double PracticeTruth::check(const std::string& id) {
    const Check* check = kit_.check(id);
    if (check == nullptr || check->yesNo()) return kNothing;  // nobody's instrument sees or hears
    for (const Adjustment& a : kit_.adjustments) {            // a check of an oscillator reads the oscillator
        if (check->unit == Unit::hertz && a.sets() && check->limits.holds(a.target)) {
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
double PracticeTruth::frequency(const std::string& band) {
    double offset = 60.0 * scatter("frequency");
    for (const Adjustment& a : kit_.adjustments) {
        if (a.unit == Unit::hertz && a.sets() && a.coil.empty()) offset += adjustment(a.id) - a.target;
    }
    return kit_.ratings.on(band).frequency + offset;
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
        case Subject::Kind::reference:
            return counted(subject);
        case Subject::Kind::dial:
            return dialled(subject);
        case Subject::Kind::crystal:
            return crystal(id);
        case Subject::Kind::power:
            return power(subject.band);
        case Subject::Kind::current:
            return current(subject.band);
        case Subject::Kind::supply:
            return supply();
        case Subject::Kind::frequency:
            return frequency(subject.band);
        case Subject::Kind::harmonic: {
            int order = 0;
            const auto [end, error] = std::from_chars(id.data(), id.data() + id.size(), order);
            return error == std::errc{} && end == id.data() + id.size() ? harmonic(order, subject.band)
                                                                        : kNothing;
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
