#include "station/subjects.h"

#include <array>
#include <charconv>
#include <cmath>

#include "core/quantity/earned.h"
#include "core/quantity/shown.h"
#include "station/judged.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

using Kind = Subject::Kind;

Evidence evidence(std::string what, const Verdict& verdict, const char* notYet) {
    return {std::move(what), verdict.state, verdict.sentence.empty() ? notYet : verdict.sentence};
}

bool marked(const Build& build, const std::string& ref, PartMark mark) {
    const auto hit = build.parts.find(ref);
    return hit != build.parts.end() && hit->second == mark;
}

Evidence partEvidence(const Part& part, const Judged& judged) {
    Evidence out = evidence(part.ref + " " + part.value, judged.part(part), "Not seen yet.");
    out.onTrust = marked(judged.build(), part.ref, PartMark::trusted) &&
                  judged.build().last(Subject::part(part.ref)) == nullptr;
    return out;
}

Evidence coilEvidence(const Coil& coil, const Judged& judged) {
    Evidence out = evidence(coil.ref + " " + coil.what, judged.coil(coil), "Not wound and measured yet.");
    out.onTrust = judged.build().last(Subject::coil(coil.ref)) == nullptr &&
                  judged.build().coilChecks.contains(coil.ref + "/trust");
    return out;
}

/// Of a place of the circuit: "Voltage at q1_d in receive".
std::string pointTitle(const std::string& id) {
    return (id.starts_with("ohms ") ? "Ohms at " + id.substr(5) : "Voltage at " + id);
}

Evidence stepEvidence(const Step& step, const Judged& judged) {
    const bool done = judged.build().done(step.id);
    return {step.title, done ? VerdictState::pass : VerdictState::notDone, done ? "Done." : "Not done yet."};
}

/// The order of a harmonic; 0 when it is none that the kit's limit speaks of.
int orderOf(const Kit& kit, const std::string& id) {
    int order = 0;
    const auto [end, error] = std::from_chars(id.data(), id.data() + id.size(), order);
    const bool whole = error == std::errc{} && end == id.data() + id.size();
    return whole && order >= 2 && order <= kit.ratings.harmonics ? order : 0;
}

/// One kind of subject: whether the kit has it, its unit, its title and what is judged of it. The last three
/// are asked only of what exists.
struct KindRow {
    Kind kind;
    bool (*exists)(const Kit&, const std::string& id);
    Unit (*unit)(const Kit&, const std::string& id);
    std::string (*title)(const Kit&, const std::string& id);
    Evidence (*evidence)(const Judged&, const Subject& subject);
};

bool transmits(const Kit& kit, const std::string&) { return kit.ratings.transmits(); }

bool named(const Kit&, const std::string& id) { return !id.empty(); }
Unit hertz(const Kit&, const std::string&) { return Unit::hertz; }
Evidence nothingPromised(const Judged&, const Subject& s) {
    return {s.id, VerdictState::notDone, "Nothing is promised there."};
}

const std::array<KindRow, 14>& kinds() {
    static const std::array<KindRow, 14> rows{{
        {Kind::part, [](const Kit& k, const std::string& id) { return k.part(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.part(id)->unit; },
         [](const Kit& k, const std::string& id) { return id + " " + k.part(id)->value; },
         [](const Judged& j, const Subject& s) { return partEvidence(*j.kit().part(s.id), j); }},
        {Kind::coil, [](const Kit& k, const std::string& id) { return k.coil(id) != nullptr; },
         [](const Kit&, const std::string&) { return Unit::henry; },
         [](const Kit& k, const std::string& id) { return id + " " + k.coil(id)->what; },
         [](const Judged& j, const Subject& s) { return coilEvidence(*j.kit().coil(s.id), j); }},
        {Kind::check, [](const Kit& k, const std::string& id) { return k.check(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.check(id)->unit; },
         [](const Kit& k, const std::string& id) { return k.check(id)->title; },
         [](const Judged& j, const Subject& s) {
             const Check& check = *j.kit().check(s.id);
             return evidence(check.title, j.check(check), "Not checked yet.");
         }},
        {Kind::adjustment, [](const Kit& k, const std::string& id) { return k.adjustment(id) != nullptr; },
         [](const Kit& k, const std::string& id) { return k.adjustment(id)->unit; },
         [](const Kit& k, const std::string& id) { return k.adjustment(id)->title; },
         [](const Judged& j, const Subject& s) {
             const Adjustment& a = *j.kit().adjustment(s.id);
             return Evidence{a.title, j.tune(a).state, j.tune(a).sentence};
         }},
        {Kind::step, [](const Kit& k, const std::string& id) { return k.step(id) != nullptr; },
         [](const Kit&, const std::string&) { return Unit::none; },
         [](const Kit& k, const std::string& id) { return k.step(id)->title; },
         [](const Judged& j, const Subject& s) { return stepEvidence(*j.kit().step(s.id), j); }},
        {Kind::node, [](const Kit& k, const std::string& id) { return !k.circuit.empty() && !id.empty(); },
         [](const Kit&, const std::string& id) { return id.starts_with("ohms ") ? Unit::ohm : Unit::volt; },
         [](const Kit&, const std::string& id) { return pointTitle(id); },
         [](const Judged&, const Subject& s) {
             return Evidence{pointTitle(s.id), VerdictState::notDone, "Nothing is promised there."};
         }},
        {Kind::reference, named, hertz, [](const Kit&, const std::string& id) { return "Counter at " + id; },
         nothingPromised},
        {Kind::crystal, named, hertz, [](const Kit&, const std::string& id) { return "Crystal " + id; },
         nothingPromised},
        {Kind::dial, named, hertz, [](const Kit&, const std::string& id) { return "Dial at " + id; },
         nothingPromised},
        {Kind::supply, transmits, [](const Kit&, const std::string&) { return Unit::volt; },
         [](const Kit&, const std::string&) { return std::string("Supply while transmitting"); },
         [](const Judged& j, const Subject& s) {
             const bool read = j.proof(s.band).supplyKnown;
             return Evidence{"Supply while transmitting", read ? VerdictState::pass : VerdictState::notDone,
                             read ? "Read." : "Not measured yet."};
         }},
        {Kind::power, transmits, [](const Kit&, const std::string&) { return Unit::watt; },
         [](const Kit&, const std::string&) { return std::string("Power at the rated supply"); },
         [](const Judged& j, const Subject& s) {
             return evidence("Power at the rated supply", j.proof(s.band).powerVerdict, "Not measured yet.");
         }},
        {Kind::current, transmits, [](const Kit&, const std::string&) { return Unit::ampere; },
         [](const Kit&, const std::string&) { return std::string("Current with the key down"); },
         nothingPromised},
        {Kind::frequency, transmits, [](const Kit&, const std::string&) { return Unit::hertz; },
         [](const Kit&, const std::string&) { return std::string("Frequency"); },
         [](const Judged& j, const Subject& s) {
             return evidence("Frequency", j.proof(s.band).frequencyVerdict, "Not measured yet.");
         }},
        {Kind::harmonic,
         [](const Kit& k, const std::string& id) { return k.ratings.transmits() && orderOf(k, id) > 0; },
         [](const Kit&, const std::string&) { return Unit::decibel; },
         [](const Kit&, const std::string& id) { return "Harmonic " + id; },
         [](const Judged& j, const Subject& s) {
             return evidence("Harmonic " + s.id,
                             j.proof(s.band).harmonicVerdicts.at(std::size_t(orderOf(j.kit(), s.id) - 2)),
                             "Not measured yet.");
         }},
    }};
    return rows;
}

const KindRow* rowOf(const Kit& kit, const Subject& subject) {
    for (const KindRow& row : kinds()) {
        if (row.kind != subject.kind) continue;
        // A dial may name a band of its own; what is proved is proved on the kit's bands.
        const bool band =
            subject.band.empty() || subject.is(Kind::dial) || kit.ratings.band(subject.band) != nullptr;
        return band && row.exists(kit, subject.id) ? &row : nullptr;
    }
    return nullptr;
}

}  // namespace

bool exists(const Kit& kit, const Subject& subject) { return rowOf(kit, subject) != nullptr; }

Unit unitOf(const Kit& kit, const Subject& subject) {
    const KindRow* row = rowOf(kit, subject);
    return row == nullptr ? Unit::none : row->unit(kit, subject.id);
}

std::string titleOf(const Kit& kit, const Subject& subject) {
    const KindRow* row = rowOf(kit, subject);
    if (row == nullptr) return subject.text();
    return row->title(kit, subject.id) + (subject.band.empty() ? "" : ", " + subject.band);
}

namespace {

/// As measured; of a power its watts, whatever way it was taken.
void sayFigure(Evidence& out, const Judged& judged, const Reading& r) {
    out.value = r.value;
    out.uncertainty = r.uncertainty;
    Unit unit = r.unit;
    const auto& power = judged.proof(r.subject.band).power;
    if (r.subject.is(Kind::power) && power) {
        out.value = power->watts;
        out.uncertainty = power->uncertainty;
        unit = Unit::watt;
    }
    if (unit == Unit::none) return;
    out.figure = r.beyond || !std::isfinite(r.value) ? shownText({r.value, r.beyond}, unit)
                                                     : earnedText(out.value, out.uncertainty, unit);
    if (r.subject.is(Kind::power) && judged.proof(r.subject.band).supplyKnown)
        out.figure += " at " + formatQuantity(judged.proof(r.subject.band).supply, Unit::volt, 3);
}

}  // namespace

Evidence withReading(Evidence out, const Judged& judged, const Subject& subject) {
    out.band = subject.band;
    out.subject = subject.text();
    const auto reading = lastStanding(judged.kit(), judged.build(), subject);
    if (!reading) return out;
    sayFigure(out, judged, *reading);
    out.at = reading->at;
    out.meter = reading->meter.empty() ? reading->method : reading->meter;
    if (!reading->sheet.empty()) out.meter += ", " + reading->sheet;
    return out;
}

Evidence evidenceOf(const Subject& subject, const Judged& judged) {
    const KindRow* row = rowOf(judged.kit(), subject);
    if (row == nullptr) return {subject.text(), VerdictState::notDone, "The kit has nothing by this name."};
    return withReading(row->evidence(judged, subject), judged, subject);
}

}  // namespace ombrek
