#include "station/parts_in/bag_story.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>
#include <optional>

#include "station/parts_in/parts_in.h"

namespace ombrek {
namespace {

constexpr const char* kLoose = "loose:";

std::string looseId(const LoosePart& part) { return kLoose + std::to_string(part.id); }

FoundPart foundLoose(const LoosePart& part) {
    return {
        looseId(part), part.kind, part.value, part.uncertainty, markedValues(part.printed, part.kind), ""};
}

/// Everything out of the bag that has a value: the readings, each with the line it was taken for, and the
/// loose parts.
std::vector<FoundPart> foundParts(const Kit& kit, const Build& build) {
    std::map<std::string, const Reading*> last;
    for (const Reading& r : build.readings) {
        if (r.subject.is(Subject::Kind::part)) last[r.subject.id] = &r;
    }
    std::vector<FoundPart> out;
    for (const Part& part : kit.parts) {
        const auto reading = last.find(part.ref);
        const auto mark = build.parts.find(part.ref);
        const bool missing = mark != build.parts.end() && mark->second == PartMark::missing;
        if (!part.measurable() || missing || build.remedies.contains(part.ref)) continue;
        FoundPart found{part.ref, part.kind, NAN, 0, {}, part.ref};
        if (reading != last.end()) {
            found.value = reading->second->value;
            found.error = reading->second->uncertainty;
        }
        if (const auto printed = build.printed.find(part.ref); printed != build.printed.end())
            found.marked = markedValues(printed->second, part.kind);
        const bool seen = mark != build.parts.end();
        if (found.marked.empty() && seen) found.marked = {part.nominal};
        if (std::isfinite(found.value) || !found.marked.empty()) out.push_back(std::move(found));
    }
    for (const LoosePart& part : build.loose) out.push_back(foundLoose(part));
    return out;
}

std::string readingText(const FoundPart& part) {
    if (std::isfinite(part.value))
        return " reads " + formatQuantity(part.value, unitOf(part.kind), 3, Zeros::keep);
    if (!part.marked.empty()) return " is marked " + formatQuantity(part.marked.front(), unitOf(part.kind));
    return "";
}

std::string looseHead(const FoundPart& part) {
    return "A " + std::string(word(part.kind)) + " that" + readingText(part);
}

bool sameNumber(double a, double b) { return a == b || (std::isnan(a) && std::isnan(b)); }

bool same(const WantedPart& a, const WantedPart& b) {
    return a.ref == b.ref && a.kind == b.kind && sameNumber(a.nominal, b.nominal) &&
           sameNumber(a.tolerance, b.tolerance);
}

bool same(const FoundPart& a, const FoundPart& b) {
    return a.id == b.id && a.kind == b.kind && sameNumber(a.value, b.value) && sameNumber(a.error, b.error) &&
           a.marked == b.marked && a.takenFor == b.takenFor;
}

template <class Things>
bool sameAll(const Things& a, const Things& b) {
    return std::equal(a.begin(), a.end(), b.begin(), b.end(),
                      [](const auto& x, const auto& y) { return same(x, y); });
}

/// The whole bag at once; the last answer is kept, since most keys ask again about the same bag.
std::shared_ptr<const BagAnswer> matched(const std::vector<WantedPart>& wanted,
                                         const std::vector<FoundPart>& found, VerdictRule rule) {
    struct Last {
        std::vector<WantedPart> wanted;
        std::vector<FoundPart> found;
        VerdictRule rule;
        std::shared_ptr<const BagAnswer> answer;
    };
    thread_local std::optional<Last> last;
    if (!last || last->rule != rule || !sameAll(last->wanted, wanted) || !sameAll(last->found, found))
        last = Last{wanted, found, rule,
                    std::make_shared<const BagAnswer>(matchBag(wanted, found, rule, false))};
    return last->answer;
}

class Teller {
 public:
    Teller(const Kit& kit, const Build& build)
        : kit_(kit),
          build_(build),
          wanted_(wantedParts(kit)),
          found_(foundParts(kit, build)),
          held_(matched(wanted_, found_, build.rule)),
          answer_(*held_) {}

    BagStory tell() {
        for (const BagPair& pair : answer_.pairs) tellPair(pair);
        for (const BagLeft& left : answer_.surplus) tellSurplus(left);
        for (const Part& part : kit_.parts) tellLine(part);
        BagStory out;
        for (const Part& part : kit_.parts) {
            if (const auto hit = byLine_.find(part.ref); hit != byLine_.end())
                out.troubles.push_back(std::move(hit->second));
        }
        std::move(loose_.begin(), loose_.end(), std::back_inserter(out.troubles));
        out.decider = answer_.decider;
        const std::size_t first = found_.size() - build_.loose.size();
        out.looseCould.assign(answer_.could.begin() + std::ptrdiff_t(first), answer_.could.end());
        return out;
    }

 private:
    const LoosePart* looseOf(const FoundPart& part) const {
        const auto hit = std::find_if(build_.loose.begin(), build_.loose.end(),
                                      [&](const LoosePart& l) { return looseId(l) == part.id; });
        return part.takenFor.empty() && hit != build_.loose.end() ? &*hit : nullptr;
    }

    void tellPair(const BagPair& pair) {
        const FoundPart& found = found_[pair.found];
        const std::string& line = wanted_[pair.wanted].ref;
        if (const LoosePart* loose = looseOf(found)) {
            loose_.push_back({BagTrouble::What::loose, "", loose->id, looseHead(found), pair.reason,
                              pair.verdict.state, pair.odds, line});
        } else if (pair.what == BagCase::misplaced && !settled(line)) {
            byLine_[found.takenFor] = {
                BagTrouble::What::misplaced, found.takenFor, 0,   head(found), pair.reason,
                VerdictState::fail,          pair.odds,      line};
        } else if (pair.what == BagCase::mismarked && found.takenFor == line) {
            byLine_[line] = {
                BagTrouble::What::mismarked,
                line,
                0,
                line + " is marked " + build_.printed.at(line) + ",\u00a0mismarked",
                pair.reason,
                pair.verdict.state == VerdictState::pass ? VerdictState::doubtful : pair.verdict.state,
                pair.odds,
                ""};
        } else if (pair.what == BagCase::substituted && found.takenFor == line) {
            anotherValue(found, pair.odds);
        }
    }

    void tellSurplus(const BagLeft& left) {
        const FoundPart& found = found_[left.index];
        if (const LoosePart* loose = looseOf(found)) {
            loose_.push_back({BagTrouble::What::over, "", loose->id, looseHead(found), left.reason,
                              VerdictState::doubtful, left.odds, ""});
        } else {
            anotherValue(found, left.odds);
        }
    }

    /// The part taken for a line is of a value that no open line wants.
    void anotherValue(const FoundPart& found, double odds) {
        const Part& part = *kit_.part(found.takenFor);
        const Verdict verdict = partVerdict(part, build_);
        std::string why = verdict.sentence;
        if (!found.marked.empty() && build_.printed.contains(part.ref)) {
            const double marked = found.marked.front();
            const bool says = limitsAround(marked, part.tolerance).holds(found.value);
            if (says && !markAgrees(part, build_.printed.at(part.ref)))
                why += " Its mark says so too: a part of another value was packed.";
            if (markAgrees(part, build_.printed.at(part.ref)))
                why += " Its mark says " + part.value + ": out of tolerance or mismarked.";
        }
        byLine_[part.ref] = {BagTrouble::What::anotherValue,
                             part.ref,
                             0,
                             head(found),
                             why,
                             verdict.state == VerdictState::notDone ? VerdictState::fail : verdict.state,
                             odds,
                             ""};
    }

    /// What is to be said of a line itself, unless the whole bag has said it.
    void tellLine(const Part& part) {
        if (byLine_.contains(part.ref)) return;
        const Verdict verdict = partVerdict(part, build_);
        if (verdict.state == VerdictState::pass || verdict.state == VerdictState::notDone) return;
        const auto mark = build_.parts.find(part.ref);
        const bool missing = mark != build_.parts.end() && mark->second == PartMark::missing;
        const Reading* reading = build_.last(Subject::part(part.ref));
        BagTrouble out{
            BagTrouble::What::missing, part.ref,           0, part.ref + " " + part.value + " not found",
            missingWhy(part),          VerdictState::fail, 1, ""};
        if (!missing) {
            out.what = verdict.state == VerdictState::fail ? BagTrouble::What::anotherValue
                                                           : BagTrouble::What::doubtful;
            out.head = part.ref + " " + part.value;
            if (reading != nullptr && std::isfinite(verdict.reading))
                out.head += " reads " + formatQuantity(reading->value, reading->unit, 3, Zeros::keep);
            out.sentence = verdict.sentence;
            out.state = verdict.state;
        }
        byLine_[part.ref] = std::move(out);
    }

    /// A line that is short while a part is over hints at one packed for the other.
    std::string missingWhy(const Part& part) const {
        for (const BagPair& pair : answer_.pairs) {
            const FoundPart& found = found_[pair.found];
            if (wanted_[pair.wanted].ref == part.ref && found.takenFor != part.ref)
                return "It may be the part " +
                       (found.takenFor.empty() ? "you could not name" : "taken for " + found.takenFor) + ".";
        }
        for (const BagLeft& left : answer_.surplus) {
            const FoundPart& found = found_[left.index];
            if (found.kind == part.kind && found.takenFor.empty())
                return "One that" + readingText(found) + " is over: packed in its place?";
        }
        return "No part out of the bag can be it.";
    }

    bool settled(const std::string& ref) const { return build_.remedies.contains(ref); }

    std::string head(const FoundPart& found) const {
        return found.takenFor + " " + kit_.part(found.takenFor)->value + readingText(found);
    }

    const Kit& kit_;
    const Build& build_;
    std::vector<WantedPart> wanted_;
    std::vector<FoundPart> found_;
    std::shared_ptr<const BagAnswer> held_;
    const BagAnswer& answer_;
    std::map<std::string, BagTrouble> byLine_;
    std::vector<BagTrouble> loose_;
};

}  // namespace

std::vector<WantedPart> wantedParts(const Kit& kit) {
    std::vector<WantedPart> out;
    for (const Part& part : kit.parts) {
        if (part.measurable()) out.push_back({part.ref, part.kind, part.nominal, part.tolerance});
    }
    return out;
}

std::vector<double> markedValues(const std::string& printed, PartKind kind) {
    std::vector<double> out;
    if (printed.empty()) return out;
    for (const MarkReading& reading : readMark(printed, kind)) out.push_back(reading.value);
    return out;
}

BagStory bagStory(const Kit& kit, const Build& build) { return Teller(kit, build).tell(); }

std::vector<Explanation> couldBe(const Kit& kit, const Build& build, const LoosePart& part) {
    Build with = build;
    with.loose = {part};
    with.loose.front().id = -1;
    return bagStory(kit, with).looseCould.front();
}

}  // namespace ombrek
