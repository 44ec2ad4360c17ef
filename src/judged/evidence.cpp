#include "judged/evidence.h"

#include <cmath>
#include <map>

#include "core/quantity/earned.h"
#include "core/quantity/shown.h"
#include "station/rests_on.h"
#include "station/subjects.h"

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

Evidence stepEvidence(const Step& step, const Judged& judged) {
    const bool done = judged.build().done(step.id);
    return {step.title, done ? VerdictState::pass : VerdictState::notDone, done ? "Done." : "Not done yet."};
}

Evidence supplyEvidence(bool read) {
    return {"Supply while transmitting", read ? VerdictState::pass : VerdictState::notDone,
            read ? "Read." : "Not measured yet."};
}

/// What is judged of each kind; of the others nothing is promised. Asked only of what the kit has.
const std::map<Kind, Evidence (*)(const Judged&, const Subject&)>& judgements() {
    static const std::map<Kind, Evidence (*)(const Judged&, const Subject&)> rows{
        {Kind::part, [](const Judged& j, const Subject& s) { return partEvidence(*j.kit().part(s.id), j); }},
        {Kind::coil, [](const Judged& j, const Subject& s) { return coilEvidence(*j.kit().coil(s.id), j); }},
        {Kind::check,
         [](const Judged& j, const Subject& s) {
             const Check& check = *j.kit().check(s.id);
             return evidence(check.title, j.check(check), "Not checked yet.");
         }},
        {Kind::adjustment,
         [](const Judged& j, const Subject& s) {
             const Adjustment& a = *j.kit().adjustment(s.id);
             return Evidence{a.title, j.tune(a).state, j.tune(a).sentence};
         }},
        {Kind::step, [](const Judged& j, const Subject& s) { return stepEvidence(*j.kit().step(s.id), j); }},
        {Kind::supply,
         [](const Judged& j, const Subject& s) { return supplyEvidence(j.proof(s.band).supplyKnown); }},
        {Kind::power,
         [](const Judged& j, const Subject& s) {
             return evidence("Power at the rated supply", j.proof(s.band).powerVerdict, "Not measured yet.");
         }},
        {Kind::frequency,
         [](const Judged& j, const Subject& s) {
             return evidence("Frequency", j.proof(s.band).frequencyVerdict, "Not measured yet.");
         }},
        {Kind::harmonic,
         [](const Judged& j, const Subject& s) {
             const auto at = std::size_t(harmonicOrder(j.kit(), s.id) - 2);
             return evidence("Harmonic " + s.id, j.proof(s.band).harmonicVerdicts.at(at),
                             "Not measured yet.");
         }},
    };
    return rows;
}

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
    out.subject = out.key = subject.text();
    const auto reading = lastStanding(judged.kit(), judged.build(), subject);
    if (!reading) return out;
    sayFigure(out, judged, *reading);
    out.at = reading->at;
    out.meter = reading->meter.empty() ? reading->method : reading->meter;
    if (!reading->sheet.empty()) out.meter += ", " + reading->sheet;
    return out;
}

Evidence evidenceOf(const Subject& subject, const Judged& judged) {
    if (!exists(judged.kit(), subject))
        return {subject.text(), VerdictState::notDone, "The kit has nothing by this name."};
    const auto row = judgements().find(subject.kind);
    if (row != judgements().end()) return withReading(row->second(judged, subject), judged, subject);
    const std::string title = titleOf(judged.kit(), subject);
    return withReading({title, VerdictState::notDone, "Nothing is promised there."}, judged, subject);
}

}  // namespace ombrek
