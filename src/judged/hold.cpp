#include "judged/hold.h"

#include <algorithm>
#include <cctype>

#include "core/text/letters.h"
#include "judged/evidence.h"
#include "station/said.h"

namespace ombrek {
namespace {

/// Words in small letters: letters, figures and decimal marks between them.
std::vector<std::string> wordsIn(const std::string& text) {
    std::vector<std::string> out(1);
    for (const char c : lowered(text) + " ") {
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
                           [&](const Part& part) { return lowered(part.ref) == word; });
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

}  // namespace ombrek
