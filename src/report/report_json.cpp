#include "report/report_json.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "formats/adif.h"
#include "judged/evidence.h"
#include "judged/not_measured.h"
#include "judged/on_air.h"
#include "judged/repair.h"
#include "judged/sign_off.h"
#include "report/report_html.h"
#include "station/notes.h"
#include "station/subjects.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

Json number(double value) { return std::isfinite(value) ? Json(value) : Json(); }
Json day(std::int64_t at) { return at > 0 ? Json(dayOf(at).toStdString()) : Json(); }
Json state(VerdictState s) { return std::string(word(s)); }

Json ofReading(const Reading* r) {
    if (r == nullptr) return nullptr;
    return {{"value", number(r->value)},
            {"uncertainty", r->uncertainty},
            {"unit", std::string(symbol(r->unit))},
            {"at_least", r->beyond},
            {"meter", r->meter.empty() ? r->method : r->meter},
            {"data_sheet", r->sheet},
            {"day", day(r->at)}};
}

Json ofEvidence(const Evidence& e) {
    Json out{{"what", e.what}, {"state", state(e.state)}, {"why", e.sentence}};
    if (!e.band.empty()) out["band"] = e.band;
    if (!e.figure.empty()) {
        out["figure"] = e.figure;
        out["value"] = number(e.value);
        out["uncertainty"] = e.uncertainty;
    }
    if (!e.meter.empty()) out["meter"] = e.meter;
    if (e.at > 0) out["day"] = day(e.at);
    if (e.onTrust) out["on_trust"] = true;
    if (e.accepted || e.lapsed) {
        out["passed_knowingly"] = e.accepted;
        out["reason"] = e.reason;
    }
    if (e.knownDefect()) out["forbids"] = e.forbids;
    return out;
}

Json ofGates(const Readiness& readiness) {
    Json out = Json::array();
    for (const Gate& gate : readiness.gates) {
        Json all = Json::array();
        for (const Evidence& e : gate.evidence) all.push_back(ofEvidence(e));
        out.push_back({{"id", gate.id},
                       {"name", gate.name},
                       {"state", state(gate.state())},
                       {"open", gate.open()},
                       {"passed_knowingly", gate.passedKnowingly},
                       {"reason", gate.reason},
                       {"evidence", all}});
    }
    return out;
}

Json ofBands(const Judged& judged) {
    Json out = Json::array();
    if (!judged.kit().ratings.transmits()) return out;
    for (const std::string& band : judged.kit().ratings.bandNames()) {
        const ProofState& proof = judged.proof(band);
        const Ratings rated = judged.kit().ratings.on(band);
        Json harmonics = Json::array();
        for (std::size_t i = 0; i < proof.harmonicVerdicts.size(); ++i) {
            const Evidence e = withReading({}, judged, Subject::harmonic(int(i) + 2, band));
            harmonics.push_back({{"order", i + 2},
                                 {"below_db", number(e.value)},
                                 {"uncertainty_db", e.uncertainty},
                                 {"required_db", proof.required},
                                 {"state", state(proof.harmonicVerdicts[i].state)}});
        }
        out.push_back({{"band", band},
                       {"power_w", proof.power ? number(proof.power->watts) : Json()},
                       {"power_uncertainty_w", proof.power ? number(proof.power->uncertainty) : Json()},
                       {"supply_v", proof.supplyKnown ? number(proof.supply) : Json()},
                       {"power_rated_w", rated.power},
                       {"power_state", state(proof.powerVerdict.state)},
                       {"frequency_hz", proof.frequency ? number(*proof.frequency) : Json()},
                       {"frequency_rated_hz", rated.frequency},
                       {"frequency_state", state(proof.frequencyVerdict.state)},
                       {"harmonics", harmonics}});
    }
    return out;
}

Json ofCoils(const Judged& judged) {
    Json out = Json::array();
    for (const Coil& coil : judged.kit().coils) {
        Json windings = Json::array();
        for (const Winding& w : coil.windings)
            windings.push_back({{"name", w.name}, {"turns", judged.build().winding(coil.ref, w.name).turns}});
        out.push_back({{"ref", coil.ref},
                       {"what", coil.what},
                       {"core", coil.core.designation},
                       {"windings", windings},
                       {"wanted_h", coil.target},
                       {"measured", ofReading(judged.build().last(Subject::coil(coil.ref)))},
                       {"state", state(judged.coil(coil).state)}});
    }
    return out;
}

Json ofParts(const Judged& judged) {
    Json out = Json::array();
    for (const Part& part : judged.kit().parts) {
        const Evidence e = evidenceOf(Subject::part(part.ref), judged);
        out.push_back({{"ref", part.ref},
                       {"value", part.value},
                       {"state", state(e.state)},
                       {"on_trust", e.onTrust},
                       {"measured", ofReading(judged.build().last(Subject::part(part.ref)))}});
        if (const auto hit = judged.build().remedies.find(part.ref); hit != judged.build().remedies.end())
            out.back()["substitute"] = hit->second.note;
    }
    return out;
}

Json ofRepairs(const Judged& judged) {
    Json out = Json::array();
    for (const RepairState& r : repairStates(judged)) {
        Json again = Json::array(), seen = Json::array();
        for (const AgainLine& line : r.again)
            again.push_back({{"subject", line.subject.text()},
                             {"before", line.before},
                             {"after", line.after},
                             {"shown", line.shown}});
        for (const Sighting* s : r.sightings) seen.push_back({{"day", day(s->at)}, {"what", s->text}});
        out.push_back({{"ref", r.repair->ref},
                       {"noticed", r.repair->noticed},
                       {"found", r.repair->found},
                       {"done", r.repair->done},
                       {"parts", r.repair->parts},
                       {"by", r.repair->who},
                       {"day", day(r.repair->at)},
                       {"closed", r.closed()},
                       {"shown_again", again},
                       {"sightings", seen}});
    }
    return out;
}

Json ofAir(const Judged& judged, const ReportWords& words) {
    Json out = Json::array();
    for (const AirStepState& step : airStates(judged, words.first ? &*words.first : nullptr)) {
        Json items = Json::array();
        for (const AirItemState& i : step.items)
            items.push_back(
                {{"id", i.item->id}, {"band", i.band}, {"state", state(i.state)}, {"what", i.sentence}});
        out.push_back({{"step", step.step->id}, {"state", state(step.state)}, {"items", items}});
    }
    return out;
}

Json ofFirst(const ReportWords& words) {
    if (!words.first) return nullptr;
    const Contact& c = *words.first;
    return {{"utc", adifDate(c.at) + " " + adifTime(c.at)},
            {"call", c.call},
            {"band", c.band},
            {"mode", c.mode},
            {"km", words.way ? number(words.way->kilometres) : Json()}};
}

Json ofMeters(const ReportWords& words) {
    Json out = Json::array();
    for (const MeterLine& m : words.meters)
        out.push_back({{"name", m.name.empty() ? std::string(word(instrumentFor(m.unit))) : m.name},
                       {"unit", std::string(symbol(m.unit))},
                       {"percent", m.percent},
                       {"digits", m.digits},
                       {"counts", m.counts},
                       {"floor", m.floor},
                       {"calibrated", day(m.calibrated)}});
    return out;
}

}  // namespace

std::string reportAsJson(const Judged& judged, const ReportWords& words) {
    const Kit& kit = judged.kit();
    const Readiness& ready = judged.readiness();
    Json fit = Json::array(), defects = Json::array(), notes = Json::array();
    for (const FitFor& f : fitFor(judged))
        fit.push_back(
            {{"for", f.what}, {"band", f.band}, {"fit", f.fit}, {"knowingly", f.knowingly}, {"why", f.why}});
    for (const KnownDefect& d : knownDefects(ready))
        defects.push_back({{"what", d.what}, {"reason", d.reason}, {"forbids", d.forbids}});
    for (const Note& n : notesOf(kit, judged.build()))
        notes.push_back({{"at", n.title}, {"erratum", n.erratum}, {"otherwise", n.otherwise}});
    const Json out{
        {"format", "ombrek-report"},
        {"version", 1},
        {"software", "Ombrek " OMBREK_VERSION},
        {"made", when(words.now).toStdString()},
        {"kit", {{"id", kit.id}, {"name", kit.name}, {"variant", kit.variant}, {"upgrades", kit.upgrades}}},
        {"builder",
         {{"name", words.name.toStdString()},
          {"call", words.call.toStdString()},
          {"locator", words.locator.toStdString()}}},
        {"begun", day(judged.build().started)},
        {"rule", judged.build().rule == VerdictRule::guardBand ? "guard-band" : "simple"},
        {"limit", {{"name", judged.profile().name}, {"source", judged.profile().source}}},
        {"gates_earned", ready.earned()},
        {"gates_open", ready.open()},
        {"gates_all", ready.gates.size()},
        {"fit_for", fit},
        {"bands", ofBands(judged)},
        {"gates", ofGates(ready)},
        {"known_defects", defects},
        {"repairs", ofRepairs(judged)},
        {"on_the_air", ofAir(judged, words)},
        {"first_contact", ofFirst(words)},
        {"contacts", words.contacts},
        {"coils", ofCoils(judged)},
        {"parts", ofParts(judged)},
        {"notes", notes},
        {"meters", ofMeters(words)},
        {"not_measured", notMeasured(judged)},
        {"state_sha256", words.state.toStdString()}};
    return out.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

}  // namespace ombrek
