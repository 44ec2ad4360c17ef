#include "lists/limit_words.h"

#include <algorithm>
#include <map>
#include <set>

#include "lists/phrase_file.h"

namespace ombrek {
namespace {

using Sense = LimitSaid::Sense;

constexpr int kMostFillers = 3;

Sense senseOf(const std::string& word) {
    static const std::map<std::string, Sense> all{{"less", Sense::less},
                                                  {"more", Sense::more},
                                                  {"range", Sense::range},
                                                  {"about", Sense::about},
                                                  {"load", Sense::load}};
    const auto hit = all.find(word);
    return hit == all.end() ? Sense::none : hit->second;
}

struct Phrase {
    Sense sense = Sense::none;
    bool aside = false;
    std::vector<std::string> words;
    std::size_t numbers = 0, weight = 0;  ///< letters that must be there
};

struct Phrases {
    std::vector<Phrase> limits;  ///< "aside" among them
    std::map<std::string, std::vector<std::size_t>, std::less<>>
        byFirst;  ///< of limits, by the first word; "": any word
    std::set<std::string> negations, fillers;
};

const Phrases& phrases() {
    static const Phrases all = [] {
        Phrases out;
        for (const PhraseRow& row : readPhrases("limits.txt")) {
            if (row.sense == "negation" || row.sense == "filler") {
                (row.sense == "filler" ? out.fillers : out.negations).insert(row.text);
                continue;
            }
            Phrase phrase{senseOf(row.sense), row.sense == "aside", {}, 0, 0};
            // "~ #" of an "about" sign is itself; elsewhere "~" stands for fillers.
            for (const Word& word : wordsIn(row.text)) {
                phrase.words.push_back(word.text);
                phrase.numbers += word.text == "#";
                phrase.weight += word.text == "~" ? 0 : word.text.size();
            }
            if (row.sense == "about" && phrase.words.front() == "~") phrase.words.front() = "~sign";
            out.limits.push_back(std::move(phrase));
        }
        std::stable_sort(out.limits.begin(), out.limits.end(),
                         [](const Phrase& a, const Phrase& b) { return a.weight > b.weight; });
        for (std::size_t i = 0; i < out.limits.size(); ++i) {
            const std::string& first = out.limits[i].words.front();
            out.byFirst[first == "~" ? "" : first == "~sign" ? "~" : first].push_back(i);
        }
        return out;
    }();
    return all;
}

/// The words of a text with its numbers as "#".
struct Masked {
    std::vector<Word> words;
    std::vector<std::size_t> number;  ///< of each "#", by its word; else npos
};

Masked masked(const std::string& text, const std::vector<std::pair<std::size_t, std::size_t>>& numbers) {
    std::string hidden = text;
    for (const auto& [begin, end] : numbers) {
        std::fill(hidden.begin() + std::ptrdiff_t(begin), hidden.begin() + std::ptrdiff_t(end), ' ');
        hidden[begin] = '#';
    }
    Masked out;
    std::size_t next = 0;
    for (Word& word : wordsIn(hidden)) {
        // A sign before a number is its own word; "#" never grows together with letters.
        const bool number = word.text.find('#') != std::string::npos;
        out.number.push_back(number ? next++ : std::string::npos);
        if (number) word.text = "#";
        out.words.push_back(std::move(word));
    }
    return out;
}

/// A phrase from a word on. @return the word behind it; 0: it does not stand here
std::size_t matchAt(const Masked& text, std::size_t at, const Phrase& phrase, std::size_t from,
                    std::vector<std::size_t>& numbers) {
    for (std::size_t i = from; i < phrase.words.size(); ++i) {
        if (phrase.words[i] == "~") {
            for (int fillers = 0; fillers <= kMostFillers; ++fillers) {
                auto more = numbers;
                if (const std::size_t end = matchAt(text, at, phrase, i + 1, more); end > 0) {
                    numbers = std::move(more);
                    return end;
                }
                if (at >= text.words.size() || !phrases().fillers.contains(text.words[at].text)) return 0;
                ++at;
            }
            return 0;
        }
        if (at >= text.words.size()) return 0;
        const std::string& wanted = phrase.words[i] == "~sign" ? "~" : phrase.words[i];
        if (text.words[at].text != wanted) return 0;
        if (wanted == "#") numbers.push_back(text.number[at]);
        ++at;
    }
    return at;
}

/// Where each phrase may stand, by its first word: the phrases in their order, each from the left.
std::vector<std::pair<std::size_t, std::size_t>> placesOf(const Masked& text) {
    std::vector<std::pair<std::size_t, std::size_t>> out;
    const auto& byFirst = phrases().byFirst;
    for (std::size_t at = 0; at < text.words.size(); ++at) {
        for (const std::string_view first : {std::string_view(text.words[at].text), std::string_view()}) {
            const auto hit = byFirst.find(first);
            if (hit == byFirst.end()) continue;
            for (const std::size_t phrase : hit->second) out.emplace_back(phrase, at);
        }
    }
    std::sort(out.begin(), out.end());
    return out;
}

bool concerns(const Phrase& phrase, const std::vector<std::size_t>& numbers, std::size_t which) {
    if (phrase.aside) return true;
    if (numbers.size() == 2) return which > 0 && numbers[0] == which - 1 && numbers[1] == which;
    return numbers.size() == 1 && numbers[0] == which;
}

}  // namespace

LimitSaid limitSaid(const std::string& text, const std::vector<std::pair<std::size_t, std::size_t>>& numbers,
                    std::size_t which) {
    LimitSaid out;
    out.unread = phrases().limits.empty();
    const Masked said = masked(text, numbers);
    std::vector<bool> taken(said.words.size(), false);
    for (const auto& [one, at] : placesOf(said)) {
        const Phrase& phrase = phrases().limits[one];
        if (phrase.sense != Sense::none && out.sense != Sense::none) continue;
        std::vector<std::size_t> found;
        const std::size_t end = taken[at] ? 0 : matchAt(said, at, phrase, 0, found);
        if (end == 0 || !concerns(phrase, found, which)) continue;
        for (std::size_t i = at; i < end; ++i) {
            taken[i] = taken[i] || said.number[i] == std::string::npos;
            if (phrase.sense != Sense::none && said.number[i] == std::string::npos)
                out.words.emplace_back(said.words[i].begin, said.words[i].end);
        }
        if (phrase.sense != Sense::none) out.sense = phrase.sense;
    }
    for (std::size_t i = 0; i < said.words.size(); ++i)
        out.negated = out.negated || (!taken[i] && phrases().negations.contains(said.words[i].text));
    return out;
}

}  // namespace ombrek
