#include "judged/less_power.h"

#include <algorithm>
#include <cmath>

#include "core/text/letters.h"
#include "judged/judged.h"
#include "station/proof/filter.h"
#include "station/proof/power_table.h"
#include "station/rests_on.h"
#include "station/said.h"

namespace ombrek {
namespace {

/// What a builder may say: a word, the unit of its figure, where it goes.
struct SaidRow {
    const char* word;
    Unit unit;  ///< percent: over what it should be; none: a plain number
    double PowerFacts::*into;
    double low, high;
};
constexpr SaidRow kSaid[] = {
    {"swr", Unit::none, &PowerFacts::loadSwr, 1, 100},
    {"drive", Unit::percent, &PowerFacts::drive, 0, 300},
    {"audio", Unit::percent, &PowerFacts::audio, 0, 300},
    {"idle", Unit::percent, &PowerFacts::bias, 0, 1000},
    {"gain", Unit::decibel, &PowerFacts::toGain, 0, 30},
    {"loss", Unit::decibel, &PowerFacts::filterLoss, -3, 60},
    {"key up", Unit::volt, &PowerFacts::unloaded, 0.1, 200},
    {"key down", Unit::volt, &PowerFacts::supply, 0.1, 200},
    {"current", Unit::ampere, &PowerFacts::current, 0, 100},
    {"other", Unit::watt, &PowerFacts::other, 0, 1e4},
    {"others", Unit::percent, &PowerFacts::otherBands, 0, 300},
};

Problem notUnderstood(std::string_view thing) {
    return {"",
            "\"" + std::string(thing.substr(0, 40)) +
                "\" is not understood: swr 1.8, drive 70 %, idle 80 %, gain 0.5 dB, key up 13.9 V, other 2.4 "
                "W, warm 2 of 3, jumps yes, voice."};
}

/// "warm 2 of 3".
bool readWarm(const std::vector<std::string>& words, PowerFacts& out) {
    if (words.size() != 4 || words[0] != "warm" || words[2] != "of") return false;
    const auto some = parseQuantity(words[1]), all = parseQuantity(words[3]);
    if (!some || !all || !(all->value >= 1) || all->value > 32 || some->value < 0 || some->value > all->value)
        return false;
    out.finals = all->value;
    out.handed = some->value / all->value;
    return true;
}

bool readThing(const Kit& kit, const Ratings& rated, const std::string& given, PowerFacts& out) {
    const std::string thing = lowered(given);
    const auto words = wordsSaid(thing);
    if (words.empty() || readWarm(words, out)) return true;
    if (words.size() == 1 && words[0] == "voice") return out.voice = true;
    if (words[0] == "jumps" && words.size() <= 2) {
        out.jumps = words.size() == 2 && (words[1] == "no" || words[1] == "not") ? 0 : 1;
        return words.size() == 1 || words[1] == "yes" || words[1] == "no" || words[1] == "not";
    }
    for (const SaidRow& row : kSaid) {
        const std::string word = row.word;
        if (!thing.starts_with(word + " ")) continue;
        const auto value = parseQuantity(given.substr(word.size() + 1), row.unit);
        if (!value || (value->unit != row.unit && value->unit != Unit::none) || value->value < row.low ||
            value->value > row.high)
            return false;
        double against = row.unit == Unit::percent ? 100 : 1;
        if (row.unit == Unit::volt) against = rated.supply;
        if (row.unit == Unit::watt) against = rated.power;
        if (row.unit == Unit::ampere) against = (kit.ratings.currentLow + kit.ratings.currentHigh) / 2;
        if (!(against > 0)) return false;
        out.*row.into = value->value / against;
        return true;
    }
    return false;
}

/// How far the worst coil of the output is off [%]; NaN where none was measured.
double worstCoil(const Kit& kit, const Build& build, const std::string& band) {
    double out = NAN;
    for (const FilterElement& e : kit.lowPassOn(band)) {
        const Coil* coil = kit.coil(e.ref);
        const Reading* read = coil ? build.last(Subject::coil(e.ref)) : nullptr;
        if (read == nullptr || !(coil->target > 0)) continue;
        const double off = 100 * std::abs(read->value / coil->target - 1);
        if (!(out >= off)) out = off;
    }
    return out;
}

bool anyMeasured(const std::vector<FilterPart>& filter) {
    return std::any_of(filter.begin(), filter.end(),
                       [](const FilterPart& p) { return p.coil() && p.measured; });
}

/// Decibels that the adjusters of the output still gave when they were looked at: nothing once all stand.
double stillToGain(const Judged& judged) {
    double out = NAN;
    for (const Adjustment& a : judged.kit().adjustments) {
        if (a.unit != Unit::watt || a.kind != Adjustment::Kind::peak) continue;
        if (judged.tune(a).state == VerdictState::pass) out = std::isnan(out) ? 0 : out;
    }
    return out;
}

}  // namespace

Result<PowerFacts> readPowerWords(const Kit& kit, const std::string& band, std::string_view said) {
    PowerFacts out;
    const Ratings rated = kit.ratings.on(band);
    for (const std::string& thing : thingsSaid(said)) {
        if (!readThing(kit, rated, thing, out)) return tl::make_unexpected(notUnderstood(thing));
    }
    return out;
}

PowerFacts powerFacts(const Judged& judged, const std::string& band, std::string_view said) {
    const Kit& kit = judged.kit();
    const Build& build = judged.build();
    PowerFacts out = readPowerWords(kit, band, said).value_or(PowerFacts());
    const ProofState& proof = judged.proof(band);
    const Ratings rated = kit.ratings.on(band);
    if (!proof.power || !(rated.power > 0)) return out;
    // Against the promise as it stands: that the supply was another one is a cause among others.
    out.power = proof.power->watts / rated.power;
    out.powerError = proof.power->uncertainty / rated.power;
    if (std::isnan(out.supply) && proof.supplyKnown) out.supply = proof.supply / rated.supply;
    if (out.finals == 0) out.finals = kit.ratings.finals;
    const PowerTable table = powerTable(kit, build);
    double others = 0;
    int count = 0;
    for (std::size_t b = 0; b < table.bands.size(); ++b) {
        const PowerCell& cell = table.at(b, table.rated);
        if (table.bands[b] == band) {
            const double usual = (kit.ratings.currentLow + kit.ratings.currentHigh) / 2;
            if (std::isnan(out.current) && std::isfinite(cell.current) && usual > 0)
                out.current = cell.current / usual;
        } else if (cell.reading && cell.promised > 0) {
            others += cell.power.watts / cell.promised;
            ++count;
        }
    }
    if (count > 0 && std::isnan(out.otherBands)) out.otherBands = others / count;
    const auto built = filterAsBuilt(kit, build, band), wanted = filterAsWanted(kit, band);
    if (std::isnan(out.filterLoss) && !built.empty() && anyMeasured(built)) {
        const FilterQuestion q = filterQuestion(kit, build, judged.profile(), 0, band);
        out.filterLoss = filterFigures(elementsOf(built), q).loss - filterFigures(elementsOf(wanted), q).loss;
    }
    out.coil = worstCoil(kit, build, band);
    if (std::isnan(out.toGain)) out.toGain = stillToGain(judged);
    return out;
}

std::string whatToLookAt(const PowerFacts& facts) {
    struct Ask {
        double PowerFacts::*fact;
        double low, high;  ///< two answers that it may have
        const char* question;
    };
    static const Ask asks[] = {
        {&PowerFacts::supply, 0.8, 1, "Read the supply at the socket with the key down: key down 12.4 V."},
        {&PowerFacts::unloaded, 0.8, 1, "Read the supply with the key up: key up 13.8 V."},
        {&PowerFacts::other, 0.7, 1, "Read the same power by another way: other 3.2 W."},
        {&PowerFacts::current, 0.67, 1, "Read the current with the key down."},
        {&PowerFacts::loadSwr, 1.1, 2.5, "Measure the load alone: swr 1.1."},
        {&PowerFacts::drive, 0.75, 1, "Read the drive at the finals against the manual: drive 90 %."},
        {&PowerFacts::handed, 0.67, 1,
         "Which finals warm up? Power off, supply out, then feel: warm 2 of 3."},
        {&PowerFacts::toGain, 0, 1.5, "Turn the tuned stages a little: gain 0.1 dB."},
        {&PowerFacts::bias, 0.6, 1, "Read the finals' idle current against what was set: idle 100 %."},
        {&PowerFacts::jumps, 0, 1, "Press with a dry stick along the signal's way: jumps yes, or jumps no."}};
    const auto now = causesOfLess(facts);
    if (now.empty()) return "";
    std::string best;
    double most = 0.08;  // less than this changes nothing that one would do
    for (const Ask& ask : asks) {
        if (!std::isnan(facts.*ask.fact) || (ask.fact == &PowerFacts::handed && facts.finals < 2)) continue;
        double moved = 0;
        for (const double answer : {ask.low, ask.high}) {
            PowerFacts then = facts;
            then.*ask.fact = answer;
            for (const PowerCause& c : causesOfLess(then)) {
                const auto before =
                    std::find_if(now.begin(), now.end(), [&](const auto& n) { return n.id == c.id; });
                moved += std::abs(c.odds - before->odds) / 4;
            }
        }
        if (moved <= most) continue;
        most = moved;
        best = ask.question;
    }
    return best;
}

}  // namespace ombrek
