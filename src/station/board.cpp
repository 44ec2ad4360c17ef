#include "station/board.h"

#include <algorithm>
#include <cctype>

#include "station/judged.h"
#include "station/parts_in.h"
#include "station/said.h"
#include "station/subjects.h"
#include "station/tune.h"
#include "station/winding.h"
#include "station/work.h"

namespace ombrek {
namespace {

/// Words in small letters: letters, figures and decimal marks between them.
std::vector<std::string> wordsIn(const std::string& text) {
    std::vector<std::string> out(1);
    for (const char c : smallLetters(text) + " ") {
        const auto byte = static_cast<unsigned char>(c);
        if (std::isalnum(byte) != 0 || byte >= 0x80 || c == '.' || c == ',') {
            out.back() += c;
        } else if (!out.back().empty()) {
            while (out.back().ends_with('.') || out.back().ends_with(',')) out.back().pop_back();
            if (!out.back().empty()) out.emplace_back();
        }
    }
    out.pop_back();
    return out;
}

bool holdsAll(const std::vector<std::string>& all, const std::vector<std::string>& wanted) {
    return std::all_of(wanted.begin(), wanted.end(), [&](const std::string& w) {
        return std::find(all.begin(), all.end(), w) != all.end();
    });
}

/// Whether a value within the check's limits stands in the words: "5 V", "4.9v".
bool namesItsValue(const std::vector<std::string>& words, const Check& check) {
    for (std::size_t i = 0; i < words.size(); ++i) {
        for (const std::string& text :
             {words[i], i + 1 < words.size() ? words[i] + words[i + 1] : std::string()}) {
            // The words are in small letters.
            std::string unit = text;
            if (unit.ends_with('v')) unit.back() = 'V';
            if (unit.ends_with('a')) unit.back() = 'A';
            const auto q = parseQuantity(unit);
            const bool said = q && q->unit == check.unit;
            if (said && q->value >= check.limits.low && q->value <= check.limits.high) return true;
        }
    }
    return false;
}

/// Whether a step's words mean this check: its place by all its words; where the step names no part at all,
/// by the rest of the place and the value.
bool speaksOf(const std::vector<std::string>& words, const Check& check, const Kit& kit) {
    const auto named = [&](const std::string& word) {
        return std::any_of(kit.parts.begin(), kit.parts.end(),
                           [&](const Part& part) { return smallLetters(part.ref) == word; });
    };
    const auto place = wordsIn(check.at);
    if (place.empty()) return false;
    if (holdsAll(words, place)) return true;
    if (std::any_of(words.begin(), words.end(), named)) return false;
    std::vector<std::string> rest;
    std::copy_if(place.begin(), place.end(), std::back_inserter(rest),
                 [&](const std::string& w) { return !named(w); });
    return !rest.empty() && holdsAll(words, rest) && namesItsValue(words, check);
}

}  // namespace

std::vector<Evidence> holdEvidence(const Step& step, const Judged& judged) {
    std::vector<Evidence> out;
    if (!step.hold) return out;
    for (const Subject& need : step.hold->needs) out.push_back(evidenceOf(need, judged));
    if (!out.empty() || !step.fits.empty()) return out;
    // "Pin 8 must show 5 V" beside a check of pin 8: it is the reading that passes it.
    const auto words = wordsIn(step.title + " " + step.hold->say);
    for (const Check& check : judged.kit().checks) {
        if (speaksOf(words, check, judged.kit())) out.push_back(evidenceOf(Subject::check(check.id), judged));
    }
    return out;
}

bool holdEarned(const Step& step, const Judged& judged) {
    const auto evidence = holdEvidence(step, judged);
    return std::all_of(evidence.begin(), evidence.end(),
                       [](const Evidence& e) { return e.state == VerdictState::pass; });
}

const Step* nextStep(const Kit& kit, const std::vector<std::size_t>& order, const Build& build) {
    for (const std::size_t i : order) {
        if (!build.done(kit.steps[i].id)) return &kit.steps[i];
    }
    return nullptr;
}

const Step* mustComeFirst(const Step& step, const Kit& kit, const Build& build) {
    const auto has = [](const std::vector<std::string>& ids, const std::string& id) {
        return std::find(ids.begin(), ids.end(), id) != ids.end();
    };
    for (const Step& other : kit.steps) {
        const bool before = has(step.after, other.id) || has(other.before, step.id);
        if (before && !build.done(other.id)) return &other;
    }
    return nullptr;
}

std::vector<LookAhead> lookAheadsAt(const Step& step, const Kit& kit, const Build& build) {
    std::vector<LookAhead> out;
    for (const LookAhead& ahead : kit.lookAheads) {
        const bool begun = ahead.from == step.id || build.done(ahead.from);
        if (begun && !build.done(ahead.until)) out.push_back(ahead);
    }
    for (const std::string& id : step.before) {
        const Step* later = kit.step(id);
        if (later != nullptr && !build.done(id))
            out.push_back({step.id, id, "Not yet: " + later->title + "."});
    }
    for (const std::string& ref : step.fits) {  // a coil that Tune may still change
        const Coil* coil = kit.coil(ref);
        const std::string say = coil != nullptr ? mayStillChange(kit, *coil, build) : "";
        if (!say.empty()) out.push_back({step.id, "", say});
    }
    return out;
}

std::vector<KeepAhead> keepsAt(const Step& step, const Kit& kit, const Build& build) {
    std::vector<KeepAhead> out;
    for (const Step& earlier : kit.steps) {
        if (earlier.id != step.id && !build.done(earlier.id)) continue;
        for (const Step::Keep& keep : earlier.keeps) {
            const auto same = [&](const KeepAhead& k) { return k.what == keep.what; };
            if (build.done(keep.until) || std::any_of(out.begin(), out.end(), same)) continue;
            const auto kept = build.kept.find(keep.what);
            out.push_back({&earlier, kit.step(keep.until), keep.what, keep.count,
                           kept == build.kept.end() ? 0 : kept->second});
        }
    }
    return out;
}

std::vector<std::string> partsNotIn(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Part* part = kit.part(ref);
        if (part != nullptr && partVerdict(*part, build).state != VerdictState::pass) out.push_back(ref);
    }
    return out;
}

std::vector<std::string> coilsNotReady(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Coil* coil = kit.coil(ref);
        if (coil != nullptr && coilVerdict(*coil, build).state != VerdictState::pass) out.push_back(ref);
    }
    return out;
}

std::vector<std::string> coilsUntouched(const Step& step, const Kit& kit, const Build& build) {
    std::vector<std::string> out;
    for (const std::string& ref : step.fits) {
        const Coil* coil = kit.coil(ref);
        if (coil != nullptr && !wound(*coil, build) && build.last(Subject::coil(ref)) == nullptr)
            out.push_back(ref);
    }
    return out;
}

PlanTime planTime(const Kit& kit, const Build& build, const Pace::Left& left) {
    PlanTime out;
    out.left = left;
    for (const Step& step : kit.steps)
        (build.done(step.id) ? out.plannedDone : out.plannedLeft) += step.minutes;
    for (const auto* list : {&build.sittings, &build.away}) {
        for (const Sitting& s : *list) out.spent += double(s.end - s.start) / 60.0;
    }
    return out;
}

Pace::Left timeLeft(const Kit& kit, const Build& build) {
    const auto left = workLeft(kit, build);
    return left.empty() ? Pace::Left() : Pace(workDone(kit, build)).left(left, 400);
}

}  // namespace ombrek
