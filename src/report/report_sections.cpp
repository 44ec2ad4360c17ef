#include "report/report_sections.h"

#include <algorithm>
#include <cmath>

#include "core/quantity/earned.h"
#include "core/quantity/shown.h"
#include "judged/evidence.h"
#include "judged/on_air.h"
#include "judged/repair.h"
#include "report/report_html.h"
#include "station/board/board.h"
#include "station/board/loupe.h"
#include "station/first_light/first_light.h"
#include "station/notes.h"
#include "station/parts_in/parts_in.h"
#include "station/phrases.h"
#include "station/proof/proof.h"
#include "station/subjects.h"
#include "station/tune/tune.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

/// What does not simply pass, with what the builder said of it.
/// @param reason  whether the builder's reason is told here
QString evidenceLine(const Evidence& e, bool reason) {
    QString out = QStringLiteral("<br>%1: %2, %3").arg(esc(e.what), mark(e.state), esc(e.sentence));
    if (e.knownDefect())
        out += QStringLiteral(" <b>Known defect:</b> %1. It forbids: %2.").arg(esc(e.reason), esc(e.forbids));
    else if (e.accepted && reason)
        out += QStringLiteral(" Reason: ") + esc(e.reason) + QChar('.');
    return out;
}

QString gatesSection(const Readiness& readiness) {
    constexpr int kMost = 12;
    std::vector<HtmlRow> rows;
    for (const Gate& gate : readiness.gates) {
        QString state = mark(gate.state());
        if (gate.passedKnowingly && gate.state() != VerdictState::pass)
            state += QStringLiteral("<br>passed knowingly");
        QString evidence = esc(gate.summary());
        const bool one = std::all_of(gate.evidence.begin(), gate.evidence.end(), [&](const Evidence& e) {
            return !e.accepted || (e.reason == gate.reason && !e.knownDefect());
        });
        if (!gate.reason.empty() && one) evidence += QStringLiteral("<br>Reason: ") + esc(gate.reason);
        int named = 0;
        for (const Evidence& e : gate.evidence) {
            if (e.state == VerdictState::pass || (e.state == VerdictState::notDone && !e.accepted)) continue;
            if (++named <= kMost) evidence += evidenceLine(e, !one);
        }
        if (named > kMost) evidence += QStringLiteral("<br>and %1 more").arg(named - kMost);
        rows.push_back({esc(gate.name), state, evidence});
    }
    return QStringLiteral("<h2>Gates</h2>") + table({"Gate", "State", "Evidence"}, rows);
}

/// Taken on the builder's word: in a report that is no pass.
bool trusted(const Build& build, const Coil& coil) {
    return build.coilChecks.contains(coil.ref + "/trust") && build.last(Subject::coil(coil.ref)) == nullptr;
}

QString coilsSection(const Kit& kit, const Build& build) {
    if (kit.coils.empty()) return {};
    std::vector<HtmlRow> rows;
    for (const Coil& coil : kit.coils) {
        QStringList turns;
        for (const Winding& w : coil.windings)
            turns << QString::number(build.winding(coil.ref, w.name).turns);
        const auto cover = coilCover(kit, coil, build);
        rows.push_back({esc(coil.ref + " " + coil.what), esc(coil.core.designation),
                        turns.join(QStringLiteral(" + ")), esc(formatQuantity(coil.target, Unit::henry, 3)),
                        readingText(build.last(Subject::coil(coil.ref))),
                        trusted(build, coil) ? QStringLiteral("<b>trusted</b>, not measured")
                                             : mark(coilVerdict(coil, build).state),
                        cover ? esc(cover->sentence) : QString()});
    }
    return QStringLiteral("<h2>Coils</h2>") +
           table({"Coil", "Core", "Turns", "Wanted", "Measured", "Verdict", "Trimmer"}, rows);
}

QString checksSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    if (kit.checks.empty()) return {};
    std::vector<HtmlRow> rows;
    for (const Check& check : kit.checks) {
        const Verdict& verdict = judged.check(check);
        rows.push_back({esc(check.title), esc(check.at),
                        check.yesNo() ? esc(check.seen) : readingText(build.last(Subject::check(check.id))),
                        mark(verdict.state), esc(verdict.sentence)});
    }
    return QStringLiteral("<h2>First light</h2>") + table({"Check", "At", "Reading", "Verdict", "Why"}, rows);
}

QString partsSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    std::vector<HtmlRow> rows;
    for (const Part& part : kit.parts) {
        const Verdict& verdict = judged.part(part);
        if (verdict.state == VerdictState::pass || verdict.state == VerdictState::notDone) continue;
        rows.push_back({esc(part.ref), esc(part.value), readingText(build.last(Subject::part(part.ref))),
                        mark(verdict.state), esc(verdict.sentence)});
    }
    const BagCount& bag = judged.bag();
    QString out =
        QStringLiteral("<h2>Parts</h2><p>%1 of %2 in, %3 missing, %4 of another value, %5 doubtful.</p>")
            .arg(bag.in)
            .arg(bag.total)
            .arg(bag.missing)
            .arg(bag.wrong)
            .arg(bag.doubtful);
    QStringList onTrust;
    for (const auto& [ref, how] : build.parts) {
        if (how == PartMark::trusted && build.last(Subject::part(ref)) == nullptr && kit.part(ref))
            onTrust << esc(ref);
    }
    if (!onTrust.isEmpty())
        out += QStringLiteral("<p>Taken on trust, not measured: %1.</p>")
                   .arg(onTrust.join(QStringLiteral(", ")));
    return rows.empty() ? out : out + table({"Part", "Wanted", "Reading", "Verdict", "Why"}, rows);
}

/// What was proved on a band; on the only one without its name.
void addProof(const Judged& judged, const std::string& band, std::vector<HtmlRow>& rows) {
    const ProofState& proof = judged.proof(band);
    const Ratings rated = judged.kit().ratings.on(band);
    const QString on = band.empty() ? QString() : QStringLiteral(", ") + esc(band);
    const auto add = [&](const QString& what, const std::string& wanted, const Subject& subject,
                         const Verdict& verdict) {
        const Evidence e = withReading({}, judged, subject);
        rows.push_back({what + on, esc(wanted), e.figure.empty() ? QStringLiteral("–") : esc(e.figure),
                        esc(e.meter), e.at > 0 ? dayOf(e.at) : QString(), mark(verdict.state)});
    };
    add(QStringLiteral("Power"),
        formatQuantity(rated.powerLow, Unit::watt, 3) + " to " +
            formatQuantity(rated.powerHigh, Unit::watt, 3) + " at " +
            formatQuantity(rated.supply, Unit::volt, 3),
        Subject::power(band), proof.powerVerdict);
    add(QStringLiteral("Frequency"),
        formatQuantity(rated.frequency, Unit::hertz, 8) + " ± " +
            formatQuantity(rated.frequencyTolerance, Unit::ppm, 3),
        Subject::frequency(band), proof.frequencyVerdict);
    for (std::size_t i = 0; i < proof.harmonicVerdicts.size(); ++i)
        add(QStringLiteral("Harmonic %1").arg(i + 2),
            "at least " + formatQuantity(proof.required, Unit::decibel, 3) + " below",
            Subject::harmonic(int(i) + 2, band), proof.harmonicVerdicts[i]);
}

QString proofSection(const Judged& judged) {
    const Kit& kit = judged.kit();
    if (!kit.ratings.transmits()) return {};
    std::vector<HtmlRow> rows;
    QString workings;
    for (const std::string& band : kit.ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        addProof(judged, band, rows);
        if (proof.power)
            workings += QStringLiteral("<p>%1%2</p>")
                            .arg(band.empty() ? QString() : esc(band) + QStringLiteral(": "),
                                 esc(proof.power->working.text()).replace('\n', "<br>"));
    }
    const LimitProfile& profile = judged.profile();
    return QStringLiteral("<h2>Proof</h2>") +
           table({"What", "Rated or required", "Measured", "Meter", "Day", "Verdict"}, rows) + workings +
           QStringLiteral("<p>Limit: %1. Source: %2.</p>").arg(esc(profile.name), esc(profile.source));
}

/// Hold points gone past knowingly with their reason, and everything the loupe found.
QString boardSection(const Kit& kit, const Build& build) {
    std::vector<HtmlRow> holds, findings;
    for (const Step& step : kit.steps) {
        const auto record = build.steps.find(step.id);
        if (record == build.steps.end() || !record->second.knowingly) continue;
        // Books before version 4 kept the reason as the step's remark.
        const auto remark = build.remarks.find(step.id);
        const std::string& reason = !record->second.reason.empty() || remark == build.remarks.end()
                                        ? record->second.reason
                                        : remark->second;
        holds.push_back({esc(step.title), when(record->second.at), esc(reason)});
    }
    for (const Finding& f : build.findings)
        findings.push_back({esc(f.ref), esc(std::string(word(f.what))), when(f.found),
                            f.closed == 0 ? QStringLiteral("<b>open</b>") : when(f.closed)});
    QString out;
    if (!holds.empty())
        out += QStringLiteral("<h2>Hold points passed knowingly</h2>") +
               table({"Hold", "When", "Reason"}, holds);
    if (!findings.empty())
        out += QStringLiteral("<h2>Under the loupe</h2>") +
               table({"Part", "Finding", "Found", "Mended"}, findings);
    return out;
}

QString remarksSection(const Kit& kit, const Build& build) {
    std::vector<HtmlRow> rows;
    for (const Step& step : kit.steps) {
        const auto remark = build.remarks.find(step.id);
        if (remark != build.remarks.end()) rows.push_back({esc(step.title), esc(remark->second)});
    }
    return rows.empty() ? QString() : QStringLiteral("<h2>Remarks</h2>") + table({"Step", "Remark"}, rows);
}

/// Where the rig is otherwise than its paper.
QString notesSection(const Kit& kit, const Build& build) {
    std::vector<HtmlRow> errata, otherwise;
    for (const Note& note : notesOf(kit, build)) {
        if (!note.erratum.empty()) errata.push_back({esc(note.title), esc(note.erratum)});
        if (!note.otherwise.empty()) otherwise.push_back({esc(note.title), esc(note.otherwise)});
    }
    QString out;
    if (!errata.empty())
        out += QStringLiteral("<h2>Errata of the paper</h2>") + table({"At", "What it has wrong"}, errata);
    if (!otherwise.empty())
        out += QStringLiteral("<h2>Made otherwise than the paper says</h2>") +
               table({"At", "What, and why"}, otherwise);
    return out;
}

/// What a repair made doubtful, before and since.
QString againTable(const RepairState& state) {
    std::vector<HtmlRow> rows;
    for (const AgainLine& line : state.again)
        rows.push_back({esc(line.title), line.before.empty() ? QStringLiteral("–") : esc(line.before),
                        line.after.empty() ? QStringLiteral("not shown again") : esc(line.after),
                        esc(line.change), mark(line.state)});
    return rows.empty() ? QString()
                        : QStringLiteral("<h3>%1, shown again</h3>").arg(esc(state.repair->ref)) +
                              table({"What", "Before", "Since", "Change", "Now"}, rows);
}

QString repairsSection(const Judged& judged) {
    std::vector<HtmlRow> rows;
    QString again;
    for (const RepairState& state : repairStates(judged)) {
        const Repair& r = *state.repair;
        QString what = esc(r.noticed);
        if (!r.found.empty()) what += (what.isEmpty() ? QString() : QStringLiteral("<br>")) + esc(r.found);
        for (const Sighting* s : state.sightings)
            what += QStringLiteral("<br>again %1: %2").arg(dayOf(s->at), esc(s->text));
        rows.push_back({dayOf(r.open() ? r.seen : r.at), esc(r.ref), what,
                        esc(r.done) +
                            (r.parts.empty() ? QString() : QStringLiteral("<br>put in: ") + esc(r.parts)) +
                            (r.who.empty() ? QString() : QStringLiteral("<br>by ") + esc(r.who)),
                        r.open()         ? QStringLiteral("<b>open</b>")
                        : state.closed() ? QStringLiteral("closed")
                                         : QStringLiteral("<b>%1 to be shown again</b>").arg(state.open())});
        again += againTable(state);
    }
    return rows.empty() ? QString()
                        : QStringLiteral("<h2>Repairs</h2>") +
                              table({"Day", "Part", "Noticed and found", "Done", "State"}, rows) + again;
}

/// Lines whose part is another than the list wants, and where it came from.
QString substitutesSection(const Judged& judged) {
    const Build& build = judged.build();
    std::vector<HtmlRow> rows;
    for (const Part& part : judged.kit().parts) {
        const auto remedy = build.remedies.find(part.ref);
        const std::string otherwise = otherwiseAt(build, Subject::part(part.ref));
        if (remedy == build.remedies.end() && otherwise.empty()) continue;
        rows.push_back({esc(part.ref), esc(part.value),
                        remedy == build.remedies.end() ? QString() : esc(remedyText(build, part.ref)),
                        remedy == build.remedies.end() ? QString() : esc(remedy->second.note),
                        esc(otherwise)});
    }
    return rows.empty() ? QString()
                        : QStringLiteral("<h2>Parts from elsewhere</h2>") +
                              table({"Part", "Wanted", "From", "What came", "Why otherwise"}, rows);
}

QString adjustmentsSection(const Judged& judged) {
    std::vector<HtmlRow> rows;
    for (const Adjustment& a : judged.kit().adjustments) {
        const TuneState& state = judged.tune(a);
        const Evidence e = withReading({}, judged, Subject::adjustment(a.id));
        rows.push_back({esc(a.title), esc(a.adjuster), e.figure.empty() ? QStringLiteral("–") : esc(e.figure),
                        e.at > 0 ? dayOf(e.at) : QString(), mark(state.state), esc(state.sentence)});
    }
    return rows.empty() ? QString()
                        : QStringLiteral("<h2>Adjustments</h2>") +
                              table({"What", "By", "Reads", "Day", "Verdict", "Why"}, rows);
}

/// What was heard and seen on the way to the first contact, and the first contact itself.
QString airSection(const Judged& judged, const ReportWords& words) {
    std::vector<HtmlRow> rows;
    const Contact* first = words.first ? &*words.first : nullptr;
    for (const AirStepState& step : airStates(judged, first)) {
        for (const AirItemState& item : step.items) {
            if (item.state == VerdictState::notDone) continue;
            rows.push_back({esc(step.step->title),
                            esc(item.item->title) +
                                (item.band.empty() ? QString() : QStringLiteral(", ") + esc(item.band)),
                            mark(item.state), esc(item.sentence),
                            item.note != nullptr ? dayOf(item.note->at) : QString()});
        }
    }
    return rows.empty() ? QString()
                        : QStringLiteral("<h2>On the air</h2>") +
                              table({"Step", "What", "Verdict", "Heard", "Day"}, rows);
}

QString metersSection(const Judged& judged, const ReportWords& words) {
    std::vector<HtmlRow> rows;
    for (const MeterLine& m : words.meters) {
        QStringList sheet;
        constexpr double kPpm = 1e4;  // in a per cent
        if (m.percent > 0)
            sheet << (m.percent < 0.01 ? esc(personNumber(m.percent * kPpm)) + QStringLiteral(" ppm")
                                       : esc(personNumber(m.percent)) + QStringLiteral(" %"));
        if (m.digits > 0) sheet << QStringLiteral("%1 digits of %2").arg(m.digits).arg(m.counts);
        if (m.floor > 0)
            sheet << esc(formatQuantity(m.floor, m.unit == Unit::dbm ? Unit::decibel : m.unit, 2));
        const bool old = calibrationIsOld(m, words.now);
        rows.push_back({esc(m.name.empty() ? std::string(word(instrumentFor(m.unit))) : m.name),
                        esc(std::string(plural(m.unit))), sheet.join(QStringLiteral(" + ")),
                        m.calibrated > 0
                            ? dayOf(m.calibrated) + (old ? QStringLiteral(", over a year ago") : QString())
                            : QStringLiteral("not known")});
    }
    if (rows.empty()) return {};
    const bool guarded = judged.build().rule == VerdictRule::guardBand;
    return QStringLiteral("<h2>Meters</h2>") +
           table({"Instrument", "Measures", "Data sheet", "Calibrated"}, rows) +
           QStringLiteral("<p>Rule of verdict: %1. ± is the expanded uncertainty U = 2u, about 19 of 20.</p>")
               .arg(
                   guarded
                       ? QStringLiteral("guarded; what lies nearer to a limit than the meter's own error "
                                        "is doubtful, not a pass")
                       : QStringLiteral("simple; the value alone decides, the meter's error does not count"));
}

}  // namespace

QString reportSections(const Judged& judged, const ReportWords& words) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    return gatesSection(judged.readiness()) + proofSection(judged) + repairsSection(judged) +
           airSection(judged, words) + adjustmentsSection(judged) + coilsSection(kit, build) +
           checksSection(judged) + partsSection(judged) + substitutesSection(judged) +
           boardSection(kit, build) + notesSection(kit, build) + remarksSection(kit, build) +
           metersSection(judged, words);
}

}  // namespace ombrek
