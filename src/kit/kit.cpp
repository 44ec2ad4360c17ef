#include "kit/kit.h"

#include <algorithm>

namespace ombrek {
namespace {

template <class Records, class Key>
auto* found(const Records& records, const std::string& key, Key Records::value_type::*member) {
    const auto hit = std::find_if(records.begin(), records.end(),
                                  [&](const auto& record) { return record.*member == key; });
    return hit == records.end() ? nullptr : &*hit;
}

}  // namespace

const Part* Kit::part(const std::string& ref) const {
    const auto known = partPlaces_.find(ref);
    if (known != partPlaces_.end() && known->second < parts.size() && parts[known->second].ref == ref)
        return &parts[known->second];
    if (known != partPlaces_.end() || partsPlaced_ != parts.size()) {
        partPlaces_.clear();
        for (std::size_t i = 0; i < parts.size(); ++i) partPlaces_.try_emplace(parts[i].ref, i);
        partsPlaced_ = parts.size();
    }
    return found(parts, ref, &Part::ref);
}
const Coil* Kit::coil(const std::string& ref) const { return found(coils, ref, &Coil::ref); }
const Step* Kit::step(const std::string& id) const { return found(steps, id, &Step::id); }
const Check* Kit::check(const std::string& id) const { return found(checks, id, &Check::id); }
const Adjustment* Kit::adjustment(const std::string& id) const {
    return found(adjustments, id, &Adjustment::id);
}

const std::vector<FilterElement>& Kit::lowPassOn(const std::string& band) const {
    const BandRating* of = ratings.band(band);
    return of == nullptr || of->lowPass.empty() ? lowPass : of->lowPass;
}

std::vector<std::string> Ratings::bandNames() const {
    if (bands.empty()) return {""};
    std::vector<std::string> out;
    for (const BandRating& b : bands) out.push_back(b.name);
    return out;
}

const BandRating* Ratings::band(const std::string& name) const {
    const auto hit =
        std::find_if(bands.begin(), bands.end(), [&](const BandRating& b) { return b.name == name; });
    return hit == bands.end() ? nullptr : &*hit;
}

Ratings Ratings::on(const std::string& name) const {
    Ratings out = *this;
    if (const BandRating* b = band(name)) {
        out.power = b->power;
        out.powerLow = b->powerLow;
        out.powerHigh = b->powerHigh;
        out.frequency = b->frequency;
    }
    return out;
}

TankCapacitance tankOf(const Kit& kit, const CoilTune& tune) {
    TankCapacitance out;
    out.stray = tune.stray;
    for (const std::string& ref : tune.fixed) {
        if (const Part* part = kit.part(ref)) out.fixed += part->nominal;
    }
    if (const Part* trimmer = kit.part(tune.trimmer)) {
        out.trimmerLow = trimmer->low;
        out.trimmerHigh = trimmer->high;
    }
    return out;
}

std::vector<LadderElement> lowPassOf(const Kit& kit, const std::string& band) {
    std::vector<LadderElement> out;
    for (const FilterElement& element : kit.lowPassOn(band)) {
        if (const Coil* coil = kit.coil(element.ref)) {
            out.push_back(
                {element.series ? LadderElement::Kind::seriesL : LadderElement::Kind::shuntL, coil->target});
        } else if (const Part* part = kit.part(element.ref)) {
            out.push_back(
                {element.series ? LadderElement::Kind::seriesC : LadderElement::Kind::shuntC, part->nominal});
        }
    }
    const bool whole =
        std::all_of(out.begin(), out.end(), [](const LadderElement& e) { return e.value > 0; });
    return whole ? out : std::vector<LadderElement>();
}

}  // namespace ombrek
