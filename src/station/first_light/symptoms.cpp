#include "station/first_light/symptoms.h"

#include <algorithm>
#include <sstream>

#include "core/text/letters.h"

namespace ombrek {
namespace {

constexpr double kRuledOut = 0.02;  ///< of its weight that is left: a test may have been made badly
constexpr std::size_t kRefsMost = 4;

bool inLowPass(const Kit& kit, const std::string& ref) {
    const auto has = [&](const std::vector<FilterElement>& filter) {
        return std::any_of(filter.begin(), filter.end(),
                           [&](const FilterElement& e) { return e.ref == ref; });
    };
    return has(kit.lowPass) || std::any_of(kit.ratings.bands.begin(), kit.ratings.bands.end(),
                                           [&](const BandRating& band) { return has(band.lowPass); });
}

/// Whether a part is what one of the words says: its designator, or within its words; and none of those that
/// it must not be.
bool named(const Kit& kit, const Part& part, const std::vector<std::string>& words) {
    const std::string text = lowered(part.what + " " + std::string(word(part.kind)) + " ");
    bool out = false;
    for (const std::string& w : words) {
        if (w.starts_with('-')) {
            if (text.find(lowered(w.substr(1))) != std::string::npos) return false;
        } else if (w == "@low-pass") {
            out = out || inLowPass(kit, part.ref);
        } else {
            out = out || lowered(part.ref) == lowered(w) || text.find(lowered(w)) != std::string::npos;
        }
    }
    return out;
}

bool anyNamed(const Kit& kit, const std::vector<std::string>& words) {
    return words.empty() || std::any_of(kit.parts.begin(), kit.parts.end(),
                                        [&](const Part& part) { return named(kit, part, words); });
}

std::vector<std::string> triedOf(const Build& build, const Symptom& symptom) {
    std::vector<std::string> out;
    const auto hit = build.remarks.find(triedName(symptom));
    if (hit == build.remarks.end()) return out;
    std::istringstream in(hit->second);
    for (std::string line; std::getline(in, line);) out.push_back(line);
    return out;
}

}  // namespace

std::vector<Symptom> symptomsOf(const Kit& kit, const std::vector<Symptom>& shipped) {
    std::vector<Symptom> out;
    for (const Symptom& own : kit.symptoms) {
        out.push_back(own);
        if (own.title.empty()) out.back().title = own.id;
    }
    for (const Symptom& s : shipped) {
        const auto own = std::find_if(out.begin(), out.end(), [&](const Symptom& o) { return o.id == s.id; });
        if (own == out.end()) {
            out.push_back(s);
        } else {
            own->title = s.title;
            own->causes.insert(own->causes.end(), s.causes.begin(), s.causes.end());
        }
    }
    std::stable_partition(out.begin(), out.end(), [&](const Symptom& s) { return anyNamed(kit, s.needs); });
    return out;
}

std::vector<CauseNow> causesNow(const Kit& kit, const Build& build, const Symptom& symptom) {
    const auto tried = triedOf(build, symptom);
    std::vector<CauseNow> out;
    double sum = 0;
    for (const SymptomCause& cause : symptom.causes) {
        CauseNow now{cause, {}, cause.weight, false};
        now.ruledOut = std::find(tried.begin(), tried.end(), cause.suspect) != tried.end();
        if (now.ruledOut) now.share *= kRuledOut;
        for (const Part& part : kit.parts) {
            if (now.refs.size() < kRefsMost && named(kit, part, cause.parts)) now.refs.push_back(part.ref);
        }
        sum += now.share;
        out.push_back(std::move(now));
    }
    for (CauseNow& now : out) now.share /= sum;
    std::stable_sort(out.begin(), out.end(),
                     [](const CauseNow& a, const CauseNow& b) { return a.share > b.share; });
    return out;
}

std::string triedName(const Symptom& symptom) { return "symptom:" + symptom.id; }

/// Once more takes it back.
std::string triedWith(const Build& build, const Symptom& symptom, const std::string& suspect) {
    auto tried = triedOf(build, symptom);
    if (std::erase(tried, suspect) == 0) tried.push_back(suspect);
    std::string out;
    for (const std::string& line : tried) out += (out.empty() ? "" : "\n") + line;
    return out;
}

}  // namespace ombrek
