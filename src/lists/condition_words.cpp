#include "lists/condition_words.h"

#include <algorithm>
#include <set>

#include "lists/kind_evidence.h"
#include "lists/phrase_file.h"
#include "lists/token.h"

namespace ombrek {
namespace {

struct Words {
    std::vector<PhraseRow> conditions;  ///< longest first
    PhraseSet phrases;                  ///< theirs, in the same order
    std::set<std::string> said, hint, apply;
};

const Words& words() {
    static const Words all = [] {
        Words out;
        for (PhraseRow& row : readPhrases("conditions.txt")) {
            std::set<std::string>* set = row.sense == "said"    ? &out.said
                                         : row.sense == "hint"  ? &out.hint
                                         : row.sense == "apply" ? &out.apply
                                                                : nullptr;
            if (set == nullptr) {
                out.conditions.push_back(std::move(row));
                continue;
            }
            for (const Word& word : wordsIn(row.text)) set->insert(word.text);
        }
        std::stable_sort(
            out.conditions.begin(), out.conditions.end(),
            [](const PhraseRow& a, const PhraseRow& b) { return a.text.size() > b.text.size(); });
        for (const PhraseRow& row : out.conditions) out.phrases.add(row.text);
        return out;
    }();
    return all;
}

/// How much a condition says: what is out of its socket or keyed says more than that there is power.
int rank(const std::string& means) {
    if (means == "power on" || means == "first power") return 0;
    return means == "ICs out" ? 2 : 1;
}

bool anyOf(std::string_view text, const std::set<std::string>& set) {
    const auto all = wordsIn(std::string(text));
    return std::any_of(all.begin(), all.end(), [&](const Word& w) { return set.contains(w.text); });
}

}  // namespace

std::vector<ConditionSaid> conditionsSaid(std::string_view text) {
    const std::string low = lowerText(text);
    std::vector<ConditionSaid> out;
    for (const auto& [number, at] : words().phrases.places(low)) {
        const PhraseRow& row = words().conditions[number];
        const std::size_t begin = at, end = at + row.text.size();
        // A shorter one inside or across a longer one is that one's words.
        const bool taken = std::any_of(out.begin(), out.end(), [&](const ConditionSaid& said) {
            return begin < said.end && said.begin < end;
        });
        if (!taken) out.push_back({row.sense, begin, end});
    }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.begin < b.begin; });
    return out;
}

std::string conditionIn(std::string_view text) {
    std::string out;
    for (const ConditionSaid& said : conditionsSaid(text)) {
        if (out.empty() || rank(said.means) > rank(out)) out = said.means;
    }
    return out;
}

bool conditionsDiffer(std::string_view text) {
    std::set<std::string> kinds;
    bool off = false, on = false;
    for (const ConditionSaid& said : conditionsSaid(text)) {
        (said.means == "power off" ? off : on) = true;
        if (rank(said.means) == 1) kinds.insert(said.means);
    }
    return (off && on) || kinds.size() > 1;
}

bool saysConditionAlone(std::string_view text) {
    const auto said = conditionsSaid(text);
    if (said.empty()) return false;
    std::string rest = lowerText(text);
    for (const ConditionSaid& s : said)
        std::fill(rest.begin() + std::ptrdiff_t(s.begin), rest.begin() + std::ptrdiff_t(s.end), ' ');
    const auto left = wordsIn(rest);
    return std::all_of(left.begin(), left.end(), [](const Word& w) {
        return words().said.contains(w.text) || w.text.size() == 1 || wholeNumber(w.text, 3);
    });
}

bool mayChangeCondition(std::string_view text) { return anyOf(text, words().hint); }

bool saysApply(std::string_view text) { return anyOf(text, words().apply); }

}  // namespace ombrek
