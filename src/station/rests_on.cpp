#include "station/rests_on.h"

#include <algorithm>
#include <cmath>

#include "core/text/letters.h"
#include "kit/designator.h"
#include "station/said.h"

namespace ombrek {
namespace {

constexpr double kMoved = 0.02;  ///< of the travel: so much moves what a neighbour peaks or nulls
constexpr double kMovedTone =
    0.002;  ///< of the travel, of a frequency: a hundredth of it is far too much there

void add(std::vector<Subject>& out, const Subject& subject) {
    if (std::find(out.begin(), out.end(), subject) == out.end()) out.push_back(subject);
}

void addCoil(const Kit& kit, const std::string& ref, std::vector<Subject>& out) {
    const Coil* coil = kit.coil(ref);
    if (coil == nullptr) return;
    add(out, Subject::coil(ref));
    if (!coil->tune) return;
    add(out, Subject::part(coil->tune->trimmer));
    for (const std::string& fixed : coil->tune->fixed) add(out, Subject::part(fixed));
}

void addAdjustment(const Kit& kit, const Adjustment& a, std::vector<Subject>& out) {
    add(out, Subject::part(a.adjuster));
    addCoil(kit, a.coil, out);
}

bool neighbours(const Adjustment& a, const Adjustment& b) {
    const auto names = [](const Adjustment& of, const std::string& id) {
        return std::find(of.partners.begin(), of.partners.end(), id) != of.partners.end();
    };
    return &a != &b && (a.adjuster == b.adjuster || (!a.coil.empty() && a.coil == b.coil) || names(a, b.id) ||
                        names(b, a.id));
}

/// Every adjustment that is read in one of these units, with what it rests on.
void addTuned(const Kit& kit, std::initializer_list<Unit> units, std::vector<Subject>& out) {
    for (const Adjustment& a : kit.adjustments) {
        if (std::find(units.begin(), units.end(), a.unit) == units.end()) continue;
        add(out, Subject::adjustment(a.id));
        addAdjustment(kit, a, out);
    }
}

/// Whether a word of this kind stands in a part's duty.
bool dutyNames(const Part& part, const std::string& name) {
    bool out = false;
    std::string words = part.what;
    for (char& c : words) {
        if (c == ',' || c == ';' || c == '/' || c == '(' || c == ')') c = ' ';
    }
    for (const std::string& word : wordsSaid(words)) out |= lowered(word) == lowered(name);
    return out;
}

/// An adjustment, its neighbours on the same coil, and the transistors that a bias is of.
void ofAdjustment(const Kit& kit, const Subject& subject, std::vector<Subject>& out) {
    const Adjustment* a = kit.adjustment(subject.id);
    if (a == nullptr) return;
    addAdjustment(kit, *a, out);
    for (const std::string& ref : a->each) add(out, Subject::part(ref));
    for (const Adjustment& other : kit.adjustments) {
        if (neighbours(*a, other)) add(out, Subject::adjustment(other.id));
    }
}

/// The parts that a check is made at, what feeds it, and those to look at when it fails.
void ofCheck(const Kit& kit, const Subject& subject, std::vector<Subject>& out) {
    const Check* check = kit.check(subject.id);
    if (check == nullptr) return;
    eachWord(check->at + " " + check->suspects + " " + check->from, [&](const std::string& word) {
        if (kit.part(word) != nullptr) add(out, Subject::part(word));
        if (kit.coil(word) != nullptr) add(out, Subject::coil(word));
    });
}

/// What tunes and filters the output.
void ofOutput(const Kit& kit, const Subject& subject, std::vector<Subject>& out) {
    addTuned(kit, {Unit::watt, Unit::ampere}, out);
    for (const FilterElement& e : kit.lowPassOn(subject.band))
        add(out, kit.coil(e.ref) ? Subject::coil(e.ref) : Subject::part(e.ref));
    for (const std::string& ref : finalsOf(kit)) add(out, Subject::part(ref));
    if (subject.band.empty()) return;
    for (const Part& part : kit.parts) {
        if (dutyNames(part, subject.band)) add(out, Subject::part(part.ref));
    }
}

void ofFrequency(const Kit& kit, const Subject&, std::vector<Subject>& out) {
    addTuned(kit, {Unit::hertz}, out);
}

/// What rests on what, by the kind of the reading: part → check, coil and capacitors → adjustment →
/// power and harmonics, oscillators → frequency.
struct Rule {
    Subject::Kind kind;
    void (*add)(const Kit&, const Subject& subject, std::vector<Subject>& out);
};
constexpr Rule kRules[] = {{Subject::Kind::adjustment, ofAdjustment}, {Subject::Kind::check, ofCheck},
                           {Subject::Kind::frequency, ofFrequency},   {Subject::Kind::power, ofOutput},
                           {Subject::Kind::current, ofOutput},        {Subject::Kind::harmonic, ofOutput}};

/// What the kit itself says, of a subject and of all that it rests on.
void addOfKit(const Kit& kit, const Subject& subject, std::vector<Subject>& out) {
    const auto extend = [&](const Subject& what) {
        for (const RestsOn& row : kit.restsOn) {
            if (row.what != what) continue;
            for (const Subject& on : row.on) {
                if (on != subject) add(out, on);
            }
        }
    };
    extend(subject);
    for (std::size_t i = 0; i < out.size(); ++i) extend(Subject(out[i]));  // it grows meanwhile
}

/// Where an adjuster stood when a reading was taken: at its own last reading before it; nothing before any.
std::optional<double> stoodAt(const Build& build, const Subject& subject, std::int64_t reading) {
    std::optional<double> out;
    for (const Reading& r : build.all(subject)) {
        if (r.id <= reading) out = r.setting(kPosition);
    }
    return out;
}

bool holds(const Build& build, const Reading& reading, const Subject& on) {
    if (reading.id <= build.changedAfter(on)) return false;
    if (!on.is(Subject::Kind::adjustment)) return true;
    const Reading* now = build.last(on);
    const auto then = stoodAt(build, on, reading.id);
    if (now == nullptr || now->id < reading.id) return true;
    const double allowed = reading.unit == Unit::hertz ? kMovedTone : kMoved;
    return then && std::fabs(*then - now->setting(kPosition)) <= allowed;
}

}  // namespace

std::vector<std::string> finalsOf(const Kit& kit) {
    std::vector<std::string> out;
    const auto put = [&](const std::string& ref) {
        if (std::find(out.begin(), out.end(), ref) == out.end()) out.push_back(ref);
    };
    for (const Part& part : kit.parts) {
        if (part.kind != PartKind::other && part.kind != PartKind::transistor) continue;
        if (dutyNames(part, "final") || dutyNames(part, "finals")) put(part.ref);
    }
    for (const Adjustment& a : kit.adjustments) {
        for (const std::string& ref : a.each) put(ref);
    }
    return out;
}

std::vector<Subject> judgedSubjects(const Kit& kit) {
    std::vector<Subject> out;
    for (const Coil& c : kit.coils) out.push_back(Subject::coil(c.ref));
    for (const Check& c : kit.checks) out.push_back(Subject::check(c.id));
    for (const Adjustment& a : kit.adjustments) out.push_back(Subject::adjustment(a.id));
    if (!kit.ratings.transmits()) return out;
    for (const std::string& band : kit.ratings.bandNames()) {
        out.push_back(Subject::power(band));
        if (kit.ratings.currentHigh > 0) out.push_back(Subject::current(band));
        out.push_back(Subject::frequency(band));
        for (int order = 2; order <= kit.ratings.harmonics; ++order)
            out.push_back(Subject::harmonic(order, band));
    }
    return out;
}

std::vector<Subject> shownAgain(const Kit& kit, const std::string& ref) {
    std::vector<Subject> out;
    const Part* part = kit.part(ref);
    if (part != nullptr && part->measurable() && kit.coil(ref) == nullptr) out.push_back(Subject::part(ref));
    for (const Subject& s : judgedSubjects(kit)) {
        const auto on = restsOn(kit, s);
        const auto is = [&](const Subject& what) {
            return (what.is(Subject::Kind::part) || what.is(Subject::Kind::coil)) && what.id == ref;
        };
        if (is(s) || std::any_of(on.begin(), on.end(), is)) out.push_back(s);
    }
    return out;
}

std::vector<Subject> restsOn(const Kit& kit, const Subject& subject) {
    std::vector<Subject> out;
    for (const Rule& rule : kRules) {
        if (rule.kind == subject.kind) rule.add(kit, subject, out);
    }
    addOfKit(kit, subject, out);
    return out;
}

std::vector<Reading> standing(const Kit& kit, const Build& build, const Subject& subject) {
    std::vector<Reading> out = build.all(subject);
    if (out.empty()) return out;
    for (const Subject& on : restsOn(kit, subject))
        std::erase_if(out, [&](const Reading& r) { return !holds(build, r, on); });
    return out;
}

std::optional<Reading> lastStanding(const Kit& kit, const Build& build, const Subject& subject) {
    const Reading* last = build.last(subject);
    if (last == nullptr) return std::nullopt;
    for (const Subject& on : restsOn(kit, subject)) {
        if (!holds(build, *last, on)) return std::nullopt;
    }
    return *last;
}

std::vector<Subject> restingOn(const Kit& kit, const Build& build, const Subject& on) {
    std::vector<Subject> out;
    for (const Reading& r : build.readings) {
        if (std::find(out.begin(), out.end(), r.subject) != out.end()) continue;
        const std::vector<Subject> rests = restsOn(kit, r.subject);
        const bool does = r.subject == on || std::find(rests.begin(), rests.end(), on) != rests.end();
        if (does && lastStanding(kit, build, r.subject)) out.push_back(r.subject);
    }
    return out;
}

std::string changedSince(const Kit& kit, const Build& build, const Subject& subject) {
    const Reading* was = build.lastEver(subject);
    if (was == nullptr) return "";
    std::vector<Subject> all = restsOn(kit, subject);
    all.insert(all.begin(), subject);
    for (const Subject& on : all) {
        if (holds(build, *was, on)) continue;
        const Adjustment* a = on.is(Subject::Kind::adjustment) ? kit.adjustment(on.id) : nullptr;
        return (a != nullptr ? "\"" + a->title + "\"" : on.id) + " was changed since: measure again.";
    }
    return "";
}

}  // namespace ombrek
