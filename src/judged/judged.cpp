#include "judged/judged.h"

#include "station/board/work.h"
#include "station/first_light/first_light.h"
#include "station/winding/winding.h"

namespace ombrek {
namespace {

template <class Records, class Judge>
auto judgeAll(const Records& records, Judge judge) {
    std::vector<decltype(judge(records.front()))> out;
    out.reserve(records.size());
    for (const auto& record : records) out.push_back(judge(record));
    return out;
}

/// What was judged of a record, by its place among all.
template <class Records, class Judgements>
auto& ofRecord(const Records& records, const Judgements& judgements,
               const typename Records::value_type& record) {
    return judgements.at(std::size_t(&record - records.data()));
}

}  // namespace

const std::vector<std::size_t>& Judged::order() const {
    return order_.of([&] { return stepOrder(kit_, build_.order).value_or(std::vector<std::size_t>{}); });
}

void Judged::takeOver(Judged&& before, const std::function<bool(std::string_view)>& touched) {
    const auto none = [&](std::initializer_list<std::string_view> records) {
        return std::none_of(records.begin(), records.end(), touched);
    };
    // What each rests on among the records of a book; the rule, way and order stand in "build".
    const bool order = none({"build"}), reading = none({"build", "reading", "epoch"});
    const bool bag = reading && none({"part", "printed", "loose_part", "remedy", "promise"});
    const bool coils = reading && none({"winding", "coil_check"});
    const bool word = reading && none({"gate", "choice"});
    const bool steps = order && none({"step", "away"});
    const auto keep = [](bool untouched, auto& here, auto& there) {
        if (untouched) here = std::move(there);
    };
    keep(order, order_, before.order_);
    keep(order && none({"step"}), partsInOrder_, before.partsInOrder_);
    keep(bag, parts_, before.parts_);
    keep(bag, bag_, before.bag_);
    keep(bag, story_, before.story_);
    keep(coils, coils_, before.coils_);
    keep(word, checks_, before.checks_);
    keep(word && coils, tunes_, before.tunes_);  // a remedy counts in the turns on the core
    if (word) proofs_ = std::move(before.proofs_);
    keep(bag && coils && steps, timeLeft_, before.timeLeft_);
    keep(bag && coils && word && steps && none({"finding", "looked", "preference"}), readiness_,
         before.readiness_);
}

const Verdict& Judged::part(const Part& part) const {
    const auto& all = parts_.of(
        [&] { return judgeAll(kit_.parts, [&](const Part& p) { return partVerdict(p, build_); }); });
    return ofRecord(kit_.parts, all, part);
}

const BagStory& Judged::story() const {
    return story_.of([&] { return bagStory(kit_, build_); });
}

const Verdict& Judged::coil(const Coil& coil) const {
    const auto& all = coils_.of(
        [&] { return judgeAll(kit_.coils, [&](const Coil& c) { return coilVerdict(c, build_); }); });
    return ofRecord(kit_.coils, all, coil);
}

const Verdict& Judged::check(const Check& check) const {
    const auto& all = checks_.of(
        [&] { return judgeAll(kit_.checks, [&](const Check& c) { return checkVerdict(kit_, c, build_); }); });
    return ofRecord(kit_.checks, all, check);
}

const TuneState& Judged::tune(const Adjustment& adjustment) const {
    const auto& all = tunes_.of([&] {
        return judgeAll(kit_.adjustments, [&](const Adjustment& a) { return tuneState(kit_, a, build_); });
    });
    return ofRecord(kit_.adjustments, all, adjustment);
}

const ProofState& Judged::proof(const std::string& band) const {
    const std::string name = band.empty() ? kit_.ratings.bandNames().front() : band;
    const auto hit = proofs_.find(name);
    return hit != proofs_.end()
               ? hit->second
               : proofs_.emplace(name, proofState(kit_, build_, profile_, name)).first->second;
}

const PlanTime& Judged::planTime() const {
    return planTime_.of(
        [&] { return ombrek::planTime(kit_, build_, timeLeft_.of([&] { return timeLeft(kit_, build_); })); });
}

}  // namespace ombrek
