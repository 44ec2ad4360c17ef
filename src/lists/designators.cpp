#include "lists/designators.h"

#include <algorithm>
#include <array>

#include "core/text/letters.h"
#include "lists/kind_evidence.h"

namespace ombrek {
namespace {

constexpr int kLongestRange = 200;
constexpr int kLongestSpaced = 60;  ///< of one whose end is a bare number behind a dash with blanks

bool isUpper(char c) { return c >= 'A' && c <= 'Z'; }
bool isLower(char c) { return c >= 'a' && c <= 'z'; }
bool isWordChar(char c) {
    return isUpper(c) || isDigit(c) || isLower(c) || c == '_' || static_cast<unsigned char>(c) >= 0x80;
}

/// "M3 x 6", "M3 screw": a thread.
bool isThread(const Designator& d, std::string_view after) {
    if (d.prefix != "M" || d.number < 1 || d.number > 8 || !d.suffix.empty()) return false;
    while (!after.empty() && after[0] == ' ') after.remove_prefix(1);
    const std::string next = lowerText(after.substr(0, after.find_first_of(" ,;:")));
    static constexpr std::string_view words[] = {"x",        "\u00d7",   "screw",     "screws",    "nut",
                                                 "nuts",     "washer",   "washers",   "bolt",      "bolts",
                                                 "standoff", "spacer",   "schraube",  "schrauben", "mutter",
                                                 "muttern",  "tornillo", "tornillos", "tuerca",    "tuercas"};
    return std::any_of(std::begin(words), std::end(words), [&](std::string_view w) { return next == w; }) ||
           (next.size() > 1 && next[0] == 'x' && isDigit(next[1]));
}

/// "T50-6" and "T37-43" are cores: a usual outer size, a dash, a mix, and no blank.
bool isCore(const Designator& d, std::string_view after) {
    static constexpr std::array<int, 19> sizes{12, 16, 20, 25, 27, 30,  37,  44,  50, 51,
                                               60, 68, 72, 80, 94, 106, 130, 157, 200};
    if (after.size() < 2 || after[0] != '-' || !isDigit(after[1])) return false;
    int second = 0;
    for (std::size_t i = 1; i < after.size() && isDigit(after[i]) && i < 5; ++i)
        second = second * 10 + (after[i] - '0');
    const bool size = d.prefix == "T" && std::find(sizes.begin(), sizes.end(), d.number) != sizes.end();
    return size || second <= d.number;
}

/// A designator that starts at `at` and ends at a word's end.
std::optional<std::pair<Designator, std::size_t>> designatorAt(std::string_view text, std::size_t at,
                                                               Letters letters) {
    if (at > 0 && isWordChar(text[at - 1])) return std::nullopt;
    std::size_t end = at;
    while (end < text.size() && isWordChar(text[end]) && static_cast<unsigned char>(text[end]) < 0x80) ++end;
    auto found = readDesignator(text.substr(at, end - at), letters);
    if (!found || isCore(*found, text.substr(end)) || isThread(*found, text.substr(end))) return std::nullopt;
    return std::pair{*found, end};
}

std::size_t skipBlanks(std::string_view text, std::size_t at) {
    while (at < text.size() && (text[at] == ' ' || text[at] == '\t')) ++at;
    return at;
}

/// Length of a sign for "to" at a place: "-", "–", "..", "…", "to", "thru"; 0 if none.
std::size_t toSign(std::string_view text) {
    static constexpr std::array<std::string_view, 18> signs{
        "\u2013", "\u2014", "\u2026",  "\u2010", "\u2011", "...",  "..",     "thru ", "through ",
        "to ",    "bis ",   "\u00e0 ", "al ",    "a ",     "t/m ", "hasta ", "~",     "-"};
    for (const auto sign : signs) {
        if (text.starts_with(sign)) return sign.size();
    }
    return 0;
}

/// Length of a sign for "and" between designators.
std::size_t andSign(std::string_view text) {
    static constexpr std::array<std::string_view, 14> signs{",",   ";",   "&",  "+",  "/",   "and ", "und ",
                                                            "u. ", "et ", "y ", "e ", "ed ", "en ",  "plus "};
    for (const auto sign : signs) {
        if (text.starts_with(sign)) return sign.size();
    }
    return 0;
}

struct RangeEnd {
    Designator last;
    std::size_t end;
};

/// What follows a to-sign: "C8", or a plain "8" after "C5".
std::optional<RangeEnd> rangeEnd(std::string_view text, std::size_t at, const Designator& first,
                                 RunRules rules) {
    if (const auto full = designatorAt(text, at, rules.letters)) {
        if (full->first.prefix != first.prefix) return std::nullopt;
        return RangeEnd{full->first, full->second};
    }
    const bool spaced = at > 0 && text[at - 1] == ' ';
    if (!rules.shortNumbers && spaced) return std::nullopt;  // "R2 - 4 kohm"
    std::size_t end = at;
    int number = 0;
    while (end < text.size() && isDigit(text[end]) && end - at < 4)
        number = number * 10 + (text[end++] - '0');
    const bool fraction = end + 1 < text.size() && text[end] == '.' && isDigit(text[end + 1]);
    if (end == at || fraction || (end < text.size() && isWordChar(text[end])) || number <= first.number)
        return std::nullopt;
    // "R2 – 470 (yellow violet brown)": a value behind a dash, not 469 parts.
    const bool explained = text.substr(end).starts_with(" (");
    if (spaced && (explained || number - first.number > kLongestSpaced)) return std::nullopt;
    return RangeEnd{{first.prefix, number, ""}, end};
}

void addRange(DesignatorRun& run, const Designator& first, const Designator& last) {
    const int from = std::min(first.number, last.number), to = std::max(first.number, last.number);
    if (last.number < first.number)
        run.doubt = "The range " + first.text() + "-" + last.text() + " runs backwards.";
    if (to - from > kLongestRange) {
        run.doubt = "The range " + first.text() + "-" + last.text() + " is longer than " +
                    std::to_string(kLongestRange) + "; only its ends were taken.";
        run.refs.push_back(first.text());
        run.refs.push_back(last.text());
        return;
    }
    for (int n = from; n <= to; ++n) run.refs.push_back(first.prefix + std::to_string(n));
}

/// A plain number at a place, one more designator of the same letters: the "5" of "R4,5". It ends where a
/// word ends, and it counts upwards.
std::optional<RangeEnd> shortNumber(std::string_view text, std::size_t at, const Designator& before) {
    std::size_t end = at;
    int number = 0;
    while (end < text.size() && isDigit(text[end]) && end - at < 4)
        number = number * 10 + (text[end++] - '0');
    const bool ends = end == text.size() ||
                      (!isWordChar(text[end]) && text[end] != '.' && text[end] != '%' && text[end] != '(');
    if (end == at || end - at > 3 || !ends || number <= before.number) return std::nullopt;
    return RangeEnd{{before.prefix, number, ""}, end};
}

/// "Cout" behind "C1,": a name of the same letter without a number, a list's end or its colon behind it.
std::string nameWithoutNumber(std::string_view text, const Designator& before) {
    std::size_t end = 0;
    while (end < text.size() && (isUpper(text[end]) || isLower(text[end]) || text[end] == '_')) ++end;
    const std::string_view name = text.substr(0, end);
    const std::string_view after = trimmed(text.substr(end));
    const bool ends = after.empty() || std::string_view(",;:=").find(after[0]) != std::string_view::npos;
    return name.size() > 1 && name.size() < 9 && ends && name.starts_with(before.prefix) ? std::string(name)
                                                                                         : std::string();
}

DesignatorRun readRun(std::string_view text, std::size_t at, const Designator& head, std::size_t headEnd,
                      RunRules rules) {
    DesignatorRun run;
    run.begin = at;
    Designator one = head;
    std::size_t end = headEnd;
    while (true) {
        const std::size_t next = skipBlanks(text, end);
        const std::size_t sign = toSign(text.substr(next));
        const auto last = sign ? rangeEnd(text, skipBlanks(text, next + sign), one, rules) : std::nullopt;
        if (last) {
            addRange(run, one, last->last);
            one = last->last;
            end = last->end;
        } else {
            run.refs.push_back(one.text());
            if (sign && skipBlanks(text, next + sign) >= text.size()) run.goesOn = true;
        }
        std::size_t more = skipBlanks(text, end);
        bool joined = false;
        while (const std::size_t join = andSign(text.substr(more))) {
            joined = true;
            more = skipBlanks(text, more + join);
            if (more >= text.size()) run.goesOn = true;
        }
        auto following = more < text.size()
                             ? designatorAt(text, more, joined ? rules.letters : Letters::usual)
                             : std::nullopt;
        if (!following && joined && rules.shortNumbers && more < text.size()) {
            if (const auto number = shortNumber(text, more, one)) following = {number->last, number->end};
        }
        // Without a comma only more of the same letters go on: in "D1 BAT85" the second is a type.
        // Behind a wider gap only the next number does.
        // "J3, A2100-ND": behind other letters, what goes on with a dash and capitals is a type.
        if (following && following->first.prefix != one.prefix && following->second + 1 < text.size() &&
            text[following->second] == '-' && isUpper(text[following->second + 1]))
            following.reset();
        const bool gap = following && !joined && more > end + 1 && following->first.number != one.number + 1;
        if (following && !joined && (gap || following->first.prefix != one.prefix)) following.reset();
        if (!following) {
            if (const auto name = joined ? nameWithoutNumber(text.substr(more), one) : ""; !name.empty())
                run.doubt = "\"" + name + "\" beside " + one.text() + " has no number; it was left out.";
            break;
        }
        one = following->first;
        end = following->second;
    }
    run.end = run.goesOn ? text.size() : end;
    return run;
}

}  // namespace

std::optional<Designator> readDesignator(std::string_view word, Letters letters) {
    const auto letter = [&](char c) {
        return isUpper(c) || (letters == Letters::any && (isLower(c) || c == '_'));
    };
    std::size_t first = 0;
    while (first < word.size() && letter(word[first])) ++first;
    std::size_t digits = first;
    while (digits < word.size() && isDigit(word[digits])) ++digits;
    const std::size_t count = digits - first;
    if (first == 0 || first > 8 || count == 0 || count > 4 || word.size() - digits > 1) return std::nullopt;
    const auto prefix = word.substr(0, first);
    if (letters == Letters::usual && !usualLetters(prefix)) return std::nullopt;
    const std::string_view suffix = word.substr(digits);
    if (!suffix.empty() && !isUpper(suffix[0]) && !(suffix[0] >= 'a' && suffix[0] <= 'f'))
        return std::nullopt;
    Designator out{std::string(prefix), 0, std::string(suffix)};
    for (const char c : word.substr(first, count)) out.number = out.number * 10 + (c - '0');
    return out;
}

std::string lettersOf(std::string_view designator) {
    std::size_t end = 0;
    while (end < designator.size() && !isDigit(designator[end])) ++end;
    return std::string(designator.substr(0, end));
}

std::vector<DesignatorRun> designatorRuns(std::string_view text, RunRules rules) {
    std::vector<DesignatorRun> out;
    for (std::size_t at = 0; at < text.size();) {
        const bool starts = isUpper(text[at]) || (rules.letters == Letters::any && isLower(text[at]));
        const auto head = starts ? designatorAt(text, at, rules.letters) : std::nullopt;
        if (!head) {
            ++at;
            continue;
        }
        out.push_back(readRun(text, at, head->first, head->second, rules));
        at = std::max(out.back().end, at + 1);
    }
    // A designator of letters alone, "PCB" or "ANT", where one must stand.
    const auto whole = trimmed(text);
    const bool name = !whole.empty() && whole.size() <= 12 &&
                      std::all_of(whole.begin(), whole.end(), [](char c) { return isUpper(c) || c == '_'; });
    if (out.empty() && rules.letters == Letters::any && name) {
        DesignatorRun run;
        run.refs = {std::string(whole)};
        run.end = text.size();
        out.push_back(run);
    }
    return out;
}

std::optional<DesignatorRun> onlyDesignators(std::string_view text, RunRules rules) {
    const auto whole = trimmed(text);
    auto runs = designatorRuns(whole, rules);
    if (runs.size() != 1 || runs[0].begin != 0 || runs[0].end < whole.size()) return std::nullopt;
    return runs[0];
}

}  // namespace ombrek
