#include "judged/history.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/quantity/shown.h"
#include "judged/before_plug.h"
#include "judged/evidence.h"
#include "judged/licence.h"
#include "judged/on_air.h"
#include "judged/repair.h"
#include "station/board/loupe.h"
#include "station/first_light/key_down.h"
#include "station/rests_on.h"
#include "station/subjects.h"
#include "station/tune/tune.h"

namespace ombrek {
namespace {

std::string readingText(const Reading& r) {
    if (r.subject.is(Subject::Kind::check) && r.unit == Unit::none)
        return std::string(r.value > 0 ? "it is so" : "it is not so") +
               (r.who.empty() ? "" : ", by " + r.who);
    std::string out = "read " + shownText({r.value, r.beyond}, r.unit);
    if (r.unit == Unit::none && r.settings.contains(kBefore))
        out = "heard " + std::string(heardWord(int(r.value)));
    if (r.subject.is(Subject::Kind::adjustment))
        out += " at " + personNumber(std::round(r.setting(kPosition) * 100)) + "\u202f%";
    if (!r.method.empty()) out += ", " + r.method;
    if (!r.meter.empty() && r.meter != r.method) out += ", " + r.meter;
    if (!r.who.empty()) out += ", by " + r.who;
    return out;
}

void addReadings(const Judged& judged, std::vector<HistoryLine>& out) {
    std::map<Subject, std::set<std::int64_t>> holding;  // ids, by subject
    for (const Reading& r : judged.build().readings) {
        const auto [held, fresh] = holding.try_emplace(r.subject);
        if (fresh) {
            for (const Reading& s : standing(judged.kit(), judged.build(), r.subject))
                held->second.insert(s.id);
        }
        const bool retired = !held->second.contains(r.id);
        const bool newest = !retired && r.id == *held->second.rbegin();
        out.push_back({r.at, stationOf(r.subject.kind), titleOf(judged.kit(), r.subject), readingText(r),
                       newest ? evidenceOf(r.subject, judged).state : VerdictState::notDone, retired});
    }
}

/// Repairs, and what else changed a thing that had been read.
void addChanges(const Judged& judged, std::vector<HistoryLine>& out) {
    const Build& build = judged.build();
    for (const Repair& r : build.repairs) {
        const std::string what = r.ref.empty() ? "the rig" : r.ref;
        if (!r.noticed.empty())
            out.push_back(
                {r.seen, Station::signOff, what, "noticed: " + r.noticed, VerdictState::fail, false});
        if (!r.open())
            out.push_back({r.at, Station::signOff, what,
                           "repaired; found: " + r.found + "; done: " + r.done +
                               (r.parts.empty() ? "" : "; put in: " + r.parts) +
                               (r.who.empty() ? "" : "; by " + r.who),
                           VerdictState::notDone, false});
        for (const Sighting& s : build.sightings) {
            if (s.repair == r.id && r.id != 0)
                out.push_back(
                    {s.at, Station::signOff, what, "there again: " + s.text, VerdictState::doubtful, false});
        }
    }
    for (const AirNote& n : build.air) {
        out.push_back({n.at, Station::signOff, airTitle(n),
                       n.text.empty() ? std::string(word(n.state)) : n.text, n.state, false});
    }
    for (const Change& c : build.changes) {
        const bool read = std::any_of(build.readings.begin(), build.readings.end(), [&](const Reading& r) {
            return r.subject == c.subject && r.id <= c.after;
        });
        if (read && c.at != 0 && c.how != "repaired")
            out.push_back({c.at, stationOf(c.subject.kind), titleOf(judged.kit(), c.subject), c.how,
                           VerdictState::notDone, false});
    }
}

void addBoard(const Judged& judged, std::vector<HistoryLine>& out) {
    const Build& build = judged.build();
    const auto title = [&](const std::string& id) {
        const Step* step = judged.kit().step(id);
        return step != nullptr ? step->title : id;
    };
    for (const auto& [id, record] : build.steps) {
        out.push_back({record.at, Station::board, title(id),
                       record.knowingly ? "passed knowingly: " + record.reason : "done",
                       record.knowingly ? VerdictState::doubtful : VerdictState::pass, false});
    }
    for (const Finding& f : build.findings) {
        out.push_back({f.found, Station::board, f.ref, "found: " + std::string(word(f.what)),
                       VerdictState::fail, false});
        if (f.closed != 0)
            out.push_back({f.closed, Station::board, f.ref, "mended: " + std::string(word(f.what)),
                           VerdictState::pass, false});
    }
    for (const PhotoLine& photo : build.photos)
        out.push_back({photo.at, repairOf(build, photo) != nullptr ? Station::signOff : Station::board,
                       repairOf(build, photo) != nullptr ? repairOf(build, photo)->ref : title(photo.step),
                       photo.after ? "photograph, after" : "photograph, before", VerdictState::notDone,
                       false});
}

/// What a piece of evidence is called now, by what the builder's word on it is kept by.
std::string titleOfEvidence(const Judged& judged, const std::string& kept) {
    for (const Gate& gate : judged.readiness().gates) {
        for (const Evidence& e : gate.evidence) {
            if (e.kept() == kept) return e.what;
        }
    }
    return kept;
}

void addGates(const Judged& judged, std::vector<HistoryLine>& out) {
    const auto& gates = judged.readiness().gates;
    const auto before = beforePlug(judged);
    for (const auto& [id, record] : judged.build().gates) {
        if (const Check* check = id.starts_with("bridge:") ? judged.kit().check(id.substr(7)) : nullptr) {
            out.push_back({record.at, Station::firstLight, check->title, "gap closed: " + check->bridge,
                           VerdictState::pass, false});
            continue;
        }
        if (const auto item = std::find_if(before.begin(), before.end(),
                                           [&, id = id](const PlugItem& i) { return i.gate == id; });
            item != before.end()) {
            out.push_back(
                {record.at, Station::firstLight, item->name, "seen before power", VerdictState::pass, false});
            continue;
        }
        if (const std::size_t stroke = id.find('/'); stroke != std::string::npos) {
            const std::string what = record.forbids.empty() ? "passed knowingly: " : "known defect: ";
            out.push_back({record.at, Station::signOff, titleOfEvidence(judged, id.substr(stroke + 1)),
                           what + record.reason, VerdictState::doubtful, false});
            continue;
        }
        const auto gate =
            std::find_if(gates.begin(), gates.end(), [&, id = id](const Gate& g) { return g.id == id; });
        const bool load = id == kLoadOn, licence = id == "licence";
        const std::string what = load ? "Dummy load" : gate != gates.end() ? gate->name : id;
        out.push_back({record.at, load ? Station::proof : Station::signOff, what,
                       load      ? "on, the builder's word"
                       : licence ? "confirmed by the builder"
                                 : "passed knowingly: " + record.reason,
                       load || licence ? VerdictState::pass : VerdictState::doubtful, false});
    }
}

}  // namespace

std::vector<HistoryLine> history(const Judged& judged) {
    std::vector<HistoryLine> out;
    const Build& build = judged.build();
    out.push_back({build.started, Station::none, judged.kit().name, "begun", VerdictState::notDone, false});
    addReadings(judged, out);
    addChanges(judged, out);
    addBoard(judged, out);
    addGates(judged, out);
    std::stable_sort(out.begin(), out.end(),
                     [](const HistoryLine& a, const HistoryLine& b) { return a.at < b.at; });
    std::reverse(out.begin(), out.end());
    return out;
}

}  // namespace ombrek
