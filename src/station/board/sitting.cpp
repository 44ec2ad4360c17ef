#include "station/board/sitting.h"

#include <algorithm>
#include <set>

#include "station/board/loupe.h"
#include "station/board/work.h"

namespace ombrek {
namespace {

constexpr std::int64_t kNight = 3 * 3600;  ///< a pause beyond this ends the evening [s]

const Step* stepOf(const Kit& kit, const std::string& id) { return kit.step(id); }

void addWant(std::vector<SittingAhead::Want>& list, const std::string& what, const std::string& why) {
    const auto hit =
        std::find_if(list.begin(), list.end(), [&](const auto& want) { return want.what == what; });
    if (hit == list.end()) list.push_back({what, why});
}

std::string keptSoFar(const Step::Keep& keep, const Build& build) {
    const auto kept = build.kept.find(keep.what);
    return std::to_string(keep.count) + " " + keep.what + ", " +
           std::to_string(kept == build.kept.end() ? 0 : kept->second) + " kept so far";
}

}  // namespace

std::vector<Evening> eveningsOf(const Kit& kit, const Build& build) {
    std::vector<Evening> out;
    for (const Sitting& s : build.sittings) {
        const bool goesOn = !out.empty() && s.start >= out.back().start && s.start - out.back().end < kNight;
        if (!goesOn) out.push_back({s.start, s.end, 0, {}});
        out.back().end = std::max(out.back().end, s.end);
    }
    std::vector<std::pair<std::int64_t, std::string>> done;
    for (const auto& [id, record] : build.steps) {
        if (kit.step(id) != nullptr) done.emplace_back(record.at, id);
    }
    std::sort(done.begin(), done.end());
    for (Evening& evening : out) {
        evening.minutes = benchMinutes(build, evening.start, evening.end);
        for (const auto& [at, id] : done) {
            if (at >= evening.start && at <= evening.end) evening.steps.push_back(id);
        }
    }
    return out;
}

bool newSitting(const Build& build, std::int64_t now) {
    return !build.sittings.empty() && now - build.sittings.back().end >= kNight;
}

std::optional<Sitting> pauseToAskAbout(const Build& build) {
    if (build.sittings.size() < 2) return std::nullopt;
    const Sitting pause{build.sittings[build.sittings.size() - 2].end, build.sittings.back().start};
    if (pause.end - pause.start < kAway || pause.end - pause.start >= kNight) return std::nullopt;
    for (const Sitting& s : build.away) {
        if (s.start == pause.start) return std::nullopt;
    }
    return pause;
}

SittingAhead sittingAhead(const Kit& kit, const Build& build, const std::vector<std::size_t>& order,
                          double minutes) {
    SittingAhead out;
    const Pace pace(workDone(kit, build));
    std::set<std::string> now;
    for (const std::size_t i : order) {
        const Step& step = kit.steps[i];
        if (build.done(step.id)) continue;
        const double takes = step.minutes * pace.factor(workOf(kit, step));
        if (!out.steps.empty() && out.minutes + takes > minutes) break;
        out.steps.push_back(&step);
        out.minutes += takes;
        now.insert(step.id);
    }
    for (const Step* step : out.steps) {
        for (const std::string& tool : step->tools) addWant(out.tools, tool, "for: " + step->title);
        for (const Step::Keep& keep : step->keeps) {
            const Step* until = stepOf(kit, keep.until);
            addWant(out.keeps, keptSoFar(keep, build), "for: " + (until ? until->title : keep.until));
        }
        if (step->hold) out.holds.push_back({step->title, step->hold->say});
        for (const LookAhead& ahead : lookAheadsAt(*step, kit, build)) {
            const Step* until = stepOf(kit, ahead.until);
            addWant(out.notYet, ahead.say, until ? "until: " + until->title : "");
        }
    }
    return out;
}

std::optional<WhereOneWas> whereOneWas(const Kit& kit, const Build& build) {
    const auto evenings = eveningsOf(kit, build);
    const auto worked =
        std::find_if(evenings.rbegin(), evenings.rend(), [](const Evening& e) { return !e.steps.empty(); });
    if (worked == evenings.rend()) return std::nullopt;
    WhereOneWas out;
    out.last = kit.step(worked->steps.back())->title;
    for (const std::string& id : worked->steps) {
        const Step& step = *kit.step(id);
        out.touched.insert(out.touched.end(), step.fits.begin(), step.fits.end());
        const auto remark = build.remarks.find(id);
        if (remark != build.remarks.end() && !remark->second.empty())
            out.odd.push_back(step.title + ": " + remark->second);
        if (build.steps.at(id).knowingly) out.odd.push_back("Passed knowingly: " + step.title);
    }
    for (const Finding& finding : build.findings) {
        if (finding.closed == 0)
            out.odd.push_back(finding.ref + ": " + std::string(word(finding.what)) + ", still open");
    }
    return out;
}

}  // namespace ombrek
