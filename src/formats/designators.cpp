#include "formats/designators.h"

#include <algorithm>
#include <array>

#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr int kLongestRange = 200;

struct Prefix {
    std::string_view letters;
    PartKind kind;
};
// Common practice; IEC 60617 and older national letters side by side.
constexpr std::array<Prefix, 45> kPrefixes{
    {{"R", PartKind::resistor},   {"RN", PartKind::resistor},  {"RV", PartKind::trimmer},
     {"VR", PartKind::trimmer},   {"RP", PartKind::trimmer},   {"POT", PartKind::trimmer},
     {"TP", PartKind::other},     {"C", PartKind::capacitor},  {"CV", PartKind::trimmer},
     {"VC", PartKind::trimmer},   {"CT", PartKind::trimmer},   {"TC", PartKind::trimmer},
     {"L", PartKind::coil},       {"RFC", PartKind::inductor}, {"CH", PartKind::inductor},
     {"FB", PartKind::other},     {"T", PartKind::coil},       {"TR", PartKind::coil},
     {"D", PartKind::diode},      {"LED", PartKind::diode},    {"ZD", PartKind::diode},
     {"CR", PartKind::diode},     {"Q", PartKind::transistor}, {"VT", PartKind::transistor},
     {"U", PartKind::ic},         {"IC", PartKind::ic},        {"VREG", PartKind::ic},
     {"Y", PartKind::crystal},    {"X", PartKind::crystal},    {"XT", PartKind::crystal},
     {"XTAL", PartKind::crystal}, {"J", PartKind::other},      {"JP", PartKind::other},
     {"P", PartKind::other},      {"CN", PartKind::other},     {"CON", PartKind::other},
     {"K", PartKind::other},      {"RL", PartKind::other},     {"RY", PartKind::other},
     {"S", PartKind::other},      {"SW", PartKind::other},     {"F", PartKind::other},
     {"M", PartKind::other},      {"BT", PartKind::other},     {"H", PartKind::other}}};

bool isUpper(char c) { return c >= 'A' && c <= 'Z'; }
bool isDigit(char c) { return c >= '0' && c <= '9'; }
bool isWordChar(char c) {
    return isUpper(c) || isDigit(c) || (c >= 'a' && c <= 'z') || c == '_' ||
           static_cast<unsigned char>(c) >= 0x80;
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
std::optional<std::pair<Designator, std::size_t>> designatorAt(std::string_view text, std::size_t at) {
    if (at > 0 && isWordChar(text[at - 1])) return std::nullopt;
    std::size_t end = at;
    while (end < text.size() && isWordChar(text[end]) && static_cast<unsigned char>(text[end]) < 0x80) ++end;
    auto found = readDesignator(text.substr(at, end - at));
    if (!found || isCore(*found, text.substr(end))) return std::nullopt;
    return std::pair{*found, end};
}

std::size_t skipBlanks(std::string_view text, std::size_t at) {
    while (at < text.size() && (text[at] == ' ' || text[at] == '\t')) ++at;
    return at;
}

/// Length of a sign for "to" at a place: "-", "–", "..", "…", "to", "thru"; 0 if none.
std::size_t toSign(std::string_view text) {
    static constexpr std::array<std::string_view, 10> signs{"\u2013", "\u2014", "\u2026", "\u2010", "...",
                                                            "..",     "thru ",  "to ",    "bis ",   "-"};
    for (const auto sign : signs) {
        if (text.starts_with(sign)) return sign.size();
    }
    return 0;
}

/// Length of a sign for "and" between designators.
std::size_t andSign(std::string_view text) {
    static constexpr std::array<std::string_view, 8> signs{",", ";", "&", "+", "/", "and ", "und ", "et "};
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
std::optional<RangeEnd> rangeEnd(std::string_view text, std::size_t at, const Designator& first) {
    if (const auto full = designatorAt(text, at)) {
        if (full->first.prefix != first.prefix) return std::nullopt;
        return RangeEnd{full->first, full->second};
    }
    std::size_t end = at;
    int number = 0;
    while (end < text.size() && isDigit(text[end]) && end - at < 4)
        number = number * 10 + (text[end++] - '0');
    if (end == at || (end < text.size() && isWordChar(text[end])) || number <= first.number)
        return std::nullopt;
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

DesignatorRun readRun(std::string_view text, std::size_t at, const Designator& head, std::size_t headEnd) {
    DesignatorRun run;
    run.begin = at;
    Designator one = head;
    std::size_t end = headEnd;
    while (true) {
        const std::size_t next = skipBlanks(text, end);
        const std::size_t sign = toSign(text.substr(next));
        const auto last = sign ? rangeEnd(text, skipBlanks(text, next + sign), one) : std::nullopt;
        if (last) {
            addRange(run, one, last->last);
            end = last->end;
        } else {
            run.refs.push_back(one.text());
            if (sign && skipBlanks(text, next + sign) >= text.size()) run.goesOn = true;
        }
        std::size_t more = skipBlanks(text, end);
        while (const std::size_t join = andSign(text.substr(more))) {
            more = skipBlanks(text, more + join);
            if (more >= text.size()) run.goesOn = true;
        }
        const auto following = more < text.size() ? designatorAt(text, more) : std::nullopt;
        if (!following) break;
        one = following->first;
        end = following->second;
    }
    run.end = run.goesOn ? text.size() : end;
    return run;
}

}  // namespace

std::optional<Designator> readDesignator(std::string_view word) {
    std::size_t letters = 0;
    while (letters < word.size() && isUpper(word[letters])) ++letters;
    std::size_t digits = letters;
    while (digits < word.size() && isDigit(word[digits])) ++digits;
    const std::size_t count = digits - letters;
    if (letters == 0 || count == 0 || count > 4 || word.size() - digits > 1) return std::nullopt;
    const auto prefix = word.substr(0, letters);
    const bool known =
        std::any_of(kPrefixes.begin(), kPrefixes.end(), [&](const Prefix& p) { return p.letters == prefix; });
    if (!known) return std::nullopt;
    const std::string_view suffix = word.substr(digits);
    const bool letter = suffix.empty() || (isUpper(suffix[0]) || (suffix[0] >= 'a' && suffix[0] <= 'f'));
    if (!letter) return std::nullopt;
    Designator out{std::string(prefix), 0, std::string(suffix)};
    for (const char c : word.substr(letters, count)) out.number = out.number * 10 + (c - '0');
    return out;
}

PartKind kindOf(const Designator& designator) {
    for (const Prefix& p : kPrefixes) {
        if (p.letters == designator.prefix) return p.kind;
    }
    return PartKind::other;
}

std::vector<DesignatorRun> designatorRuns(std::string_view text) {
    std::vector<DesignatorRun> out;
    for (std::size_t at = 0; at < text.size();) {
        const auto head = isUpper(text[at]) ? designatorAt(text, at) : std::nullopt;
        if (!head) {
            ++at;
            continue;
        }
        out.push_back(readRun(text, at, head->first, head->second));
        at = std::max(out.back().end, at + 1);
    }
    return out;
}

std::optional<DesignatorRun> onlyDesignators(std::string_view text) {
    const auto whole = trimmed(text);
    auto runs = designatorRuns(whole);
    if (runs.size() != 1 || runs[0].begin != 0 || runs[0].end < whole.size()) return std::nullopt;
    return runs[0];
}

}  // namespace ombrek
