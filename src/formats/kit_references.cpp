#include "formats/kit_references.h"

#include <set>

#include "formats/json_fields.h"
#include "station/board/work.h"
#include "station/subjects.h"

namespace ombrek {
namespace {

class References {
 public:
    explicit References(const Kit& kit) : kit_(kit) {}

    void check() const {
        unique("parts", kit_.parts, &Part::ref);
        unique("coils", kit_.coils, &Coil::ref);
        unique("steps", kit_.steps, &Step::id);
        unique("checks", kit_.checks, &Check::id);
        unique("adjustments", kit_.adjustments, &Adjustment::id);
        coils();
        steps();
        adjustments();
        restsOn();
        lowPass(kit_.lowPass, "");
        for (std::size_t i = 0; i < kit_.ratings.bands.size(); ++i)
            lowPass(kit_.ratings.bands[i].lowPass, "/ratings" + at("bands", i));
    }

 private:
    const Kit& kit_;

    void lowPass(const std::vector<FilterElement>& filter, const std::string& of) const {
        for (std::size_t i = 0; i < filter.size(); ++i)
            need(known(filter[i].ref), of + at("low_pass", i) + "/ref", filter[i].ref);
    }

    static std::string at(const std::string& list, std::size_t i) {
        return "/" + list + "/" + std::to_string(i);
    }

    static void need(bool ok, const std::string& path, const std::string& name) {
        if (!ok)
            throw JsonFault{{path, "\"" + name + "\" is named here, but the kit has nothing of that name."}};
    }

    template <class Records>
    static void unique(const std::string& list, const Records& records,
                       std::string Records::value_type::*key) {
        std::set<std::string> seen;
        for (std::size_t i = 0; i < records.size(); ++i) {
            if (!seen.insert(records[i].*key).second) {
                throw JsonFault{{at(list, i), "\"" + records[i].*key + "\" is there twice."}};
            }
        }
    }

    bool known(const std::string& ref) const {
        return kit_.part(ref) != nullptr || kit_.coil(ref) != nullptr;
    }

    void coils() const {
        for (std::size_t i = 0; i < kit_.coils.size(); ++i) {
            const auto& tune = kit_.coils[i].tune;
            if (!tune) continue;
            const Part* trimmer = kit_.part(tune->trimmer);
            const std::string path = at("coils", i) + "/tune";
            need(trimmer != nullptr, path + "/trimmer", tune->trimmer);
            if (!(trimmer->high > trimmer->low))
                throw JsonFault{{path + "/trimmer", "This part has no low and high."}};
            for (const std::string& ref : tune->fixed) {
                const Part* part = kit_.part(ref);
                need(part != nullptr && part->kind == PartKind::capacitor, path + "/fixed", ref);
            }
            if (tankOf(kit_, *tune).at(0.0) <= 0)
                throw JsonFault{{path, "There is no capacitance across this coil."}};
        }
    }

    void steps() const {
        for (std::size_t i = 0; i < kit_.steps.size(); ++i) {
            const Step& step = kit_.steps[i];
            for (const auto& ref : step.fits) need(known(ref), at("steps", i) + "/fits", ref);
            for (const Step::Keep& keep : step.keeps)
                need(kit_.step(keep.until) != nullptr, at("steps", i) + "/keep/until", keep.until);
            if (!step.hold) continue;
            for (const auto& subject : step.hold->needs) {
                need(exists(kit_, subject), at("steps", i) + "/hold/needs", subject.text());
            }
        }
        for (std::size_t i = 0; i < kit_.lookAheads.size(); ++i) {
            need(kit_.step(kit_.lookAheads[i].from) != nullptr, at("look_aheads", i) + "/from",
                 kit_.lookAheads[i].from);
            need(kit_.step(kit_.lookAheads[i].until) != nullptr, at("look_aheads", i) + "/until",
                 kit_.lookAheads[i].until);
        }
        const auto order = stepOrder(kit_, Order::manual);
        if (!order) throw JsonFault{{"/steps, " + order.error().place, order.error().sentence}};
    }

    void restsOn() const {
        for (std::size_t i = 0; i < kit_.restsOn.size(); ++i) {
            const RestsOn& row = kit_.restsOn[i];
            need(exists(kit_, row.what), at("rests_on", i) + "/what", row.what.text());
            for (const Subject& on : row.on) need(exists(kit_, on), at("rests_on", i) + "/on", on.text());
        }
    }

    void adjustments() const {
        for (std::size_t i = 0; i < kit_.adjustments.size(); ++i) {
            const Adjustment& a = kit_.adjustments[i];
            need(known(a.adjuster), at("adjustments", i) + "/adjuster", a.adjuster);
            need(a.coil.empty() || kit_.coil(a.coil) != nullptr, at("adjustments", i) + "/coil", a.coil);
            for (const std::string& partner : a.partners)
                need(partner != a.id && kit_.adjustment(partner) != nullptr,
                     at("adjustments", i) + "/partners", partner);
            for (const std::string& id : a.after)
                need(id != a.id && kit_.adjustment(id) != nullptr, at("adjustments", i) + "/after", id);
            for (const Subject& subject : a.needs)
                need(exists(kit_, subject), at("adjustments", i) + "/needs", subject.text());
            for (const std::string& ref : a.each)
                need(kit_.part(ref) != nullptr, at("adjustments", i) + "/each", ref);
        }
    }
};

}  // namespace

void checkReferences(const Kit& kit) { References(kit).check(); }

}  // namespace ombrek
