#include "formats/list_words.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/parts/bands.h"
#include "core/parts/marks.h"
#include "core/parts/part_kind.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, 10> kPackages{"0201", "0402", "0603", "0805", "1206",
                                                     "1210", "1812", "2010", "2512", "0612"};

bool allDigits(std::string_view text) {
    return !text.empty() &&
           std::all_of(text.begin(), text.end(), [](char c) { return c >= '0' && c <= '9'; });
}

bool isPackage(std::string_view word) {
    return std::find(kPackages.begin(), kPackages.end(), word) != kPackages.end();
}

/// "mfd" and "MFD" are microfarads in older lists; "ohms" may stand apart.
std::string modern(std::string word) {
    std::string low = lowered(word);
    const auto turn = [&](std::string_view from, std::string_view to) {
        if (low.ends_with(from)) {
            word = word.substr(0, word.size() - from.size()) + std::string(to);
            low = lowered(word);
        }
    };
    turn("mmfd", "pF");
    turn("mfd", "uF");
    turn("ufd", "uF");
    turn("pfd", "pF");
    if (low == "meg") word = "M";
    turn("megohm", "Mohm");
    turn("kohms", "kohm");
    turn("uh", "uH");
    turn("nh", "nH");
    turn("mh", "mH");
    turn("pf", "pF");
    turn("nf", "nF");
    turn("uf", "uF");
    return word;
}

/// The colours a word is made of, "red-red-brown" three; empty when any of it is none.
std::vector<std::string> colourWords(const std::string& text) {
    std::string word = lowered(bare(text));
    for (char& c : word) {
        if (c == '-' || c == '/' || c == ',') c = ' ';
    }
    const auto inside = splitWords(word);
    const bool all =
        std::all_of(inside.begin(), inside.end(), [](const std::string& x) { return isBandColour(x); });
    return all ? inside : std::vector<std::string>();
}

}  // namespace

Words::Words(std::string_view text) : words(splitWords(text)), taken(words.size(), 0) {}

std::string Words::rest() const {
    std::string out;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (taken[i]) continue;
        if (!out.empty()) out += ' ';
        out += words[i];
    }
    const auto clean = trimmed(out);
    std::string text(clean);
    while (!text.empty() && (text.back() == ',' || text.back() == ';' || text.back() == '|')) text.pop_back();
    while (!text.empty() && (text.front() == ',' || text.front() == '|' || text.front() == '-'))
        text.erase(0, 1);
    return std::string(trimmed(text));
}

std::vector<std::string> splitWords(std::string_view text) {
    std::vector<std::string> out;
    std::size_t i = 0;
    while (i < text.size()) {
        std::size_t end = i;
        while (end < text.size() && text[end] != ' ' && text[end] != '\t') {
            if (text.substr(end).starts_with("\u00a0")) break;
            if (text.substr(end).starts_with("\u202f") || text.substr(end).starts_with("\u2009")) break;
            ++end;
        }
        if (end > i) out.emplace_back(text.substr(i, end - i));
        i = end;
        if (i < text.size())
            i += text.substr(i).starts_with("\u00a0") ? 2 : (text[i] == ' ' || text[i] == '\t' ? 1 : 3);
    }
    return out;
}

std::string bare(std::string word) {
    const std::string around = ",;:()[]{}|\"'";
    while (!word.empty() && around.find(word.back()) != std::string::npos) word.pop_back();
    while (!word.empty() && around.find(word.front()) != std::string::npos) word.erase(0, 1);
    while (word.size() > 1 && word.back() == '.') word.pop_back();
    return word;
}

std::optional<double> takeUnit(Words& w, Unit unit, double least, double most) {
    const auto read = [&](std::string text) -> std::optional<double> {
        for (const std::string_view sign : {"±", "+/-", "+-"}) {
            if (text.starts_with(sign)) text.erase(0, sign.size());
        }
        if (text.ends_with("DC") || text.ends_with("dc")) text.resize(text.size() - 2);
        if (unit == Unit::volt && text.ends_with('v')) text.back() = 'V';
        if (unit == Unit::watt && text.ends_with('w')) text.back() = 'W';
        if (const auto slash = text.find('/'); slash != std::string::npos && slash + 2 <= text.size()) {
            const auto below = parseQuantity(text.substr(slash + 1), unit);
            const auto above = parseQuantity(text.substr(0, slash));
            if (!below || below->unit != unit || !(below->value > 0) || !above) return std::nullopt;
            return allDigits(text.substr(slash + 1)) ? std::nullopt
                                                     : std::optional(above->value / below->value);
        }
        if (text.empty() || (text.back() >= '0' && text.back() <= '9')) return std::nullopt;
        const auto value = parseQuantity(text);
        if (!value || value->unit != unit) return std::nullopt;
        return value->value;
    };
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        if (w.taken[i]) continue;
        auto value = read(bare(w.words[i]));
        const bool two = !value && i + 1 < w.words.size() && !w.taken[i + 1];
        if (two) {
            const std::string next = bare(w.words[i + 1]);
            if (next == symbol(unit) ||
                (unit == Unit::volt && (next == "VDC" || next == "v" || next == "volt")) ||
                (unit == Unit::watt && (next == "watt" || next == "w")))
                value = read(bare(w.words[i]) + std::string(symbol(unit)));
        }
        if (!value || *value < least || *value > most) continue;
        w.take(i);
        if (two) w.take(i + 1);
        return value;
    }
    return std::nullopt;
}

std::string takeMark(Words& w) {
    for (std::size_t i = 0; i + 1 < w.words.size(); ++i) {
        const std::string word = lowered(bare(w.words[i]));
        if (word != "marked" && word != "marking" && word != "mark" && word != "code" && word != "labelled" &&
            word != "printed")
            continue;
        std::string mark;
        const bool open = w.words[i].starts_with('(') || w.words[i].starts_with('[');
        w.take(i);
        for (std::size_t k = i + 1; k < w.words.size(); ++k) {
            const std::string next = bare(w.words[k]);
            const bool colour = isBandColour(lowered(next));
            if (k > i + 1 && !open && !colour) break;
            mark += (mark.empty() ? "" : " ") + next;
            w.take(k);
            const bool closes =
                w.words[k].ends_with(')') || w.words[k].ends_with("),") || w.words[k].ends_with(']');
            if (closes || (!open && !colour)) break;
        }
        return mark;
    }
    std::string colours;
    std::size_t count = 0;
    std::vector<std::size_t> from;
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        const auto inside = colourWords(w.words[i]);
        if (inside.empty()) continue;
        from.push_back(i);
        count += inside.size();
        for (const auto& colour : inside) colours += (colours.empty() ? "" : " ") + colour;
    }
    if (count < 3) return "";
    for (const std::size_t i : from) w.take(i);
    return colours;
}

ValueWords takeValue(Words& w, PartKind kind) {
    const Unit unit = unitOf(kind);
    ValueWords out;
    std::vector<std::size_t> of;
    const auto keep = [&](double value, std::string text, bool isBare, std::vector<std::size_t> words) {
        if (out.count > 0 && (isBare || std::fabs(value / out.nominal - 1) < 1e-6)) {
            if (!isBare)
                for (const auto i : words) w.take(i);
            return;
        }
        ++out.count;
        if (out.count > 1) return;
        out.nominal = value;
        out.text = std::move(text);
        out.bare = isBare;
        of = std::move(words);
    };
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        if (w.taken[i]) continue;
        const std::string one = modern(bare(w.words[i]));
        if (one.empty()) continue;
        if (i + 1 < w.words.size() && !w.taken[i + 1] && (one.back() >= '0' && one.back() <= '9')) {
            const std::string next = modern(bare(w.words[i + 1]));
            const bool unitWord = !next.empty() && !(next[0] >= '0' && next[0] <= '9') && next.size() <= 5;
            const auto both = unitWord ? parseQuantity(one + next, unit) : Result<Quantity>(problem("", ""));
            if (both && both->value > 0) {
                keep(both->value, one + " " + next, false, {i, i + 1});
                ++i;
                continue;
            }
        }
        if (allDigits(one) || one.find_first_not_of("0123456789.,") == std::string::npos) continue;
        const auto value = parseQuantity(one, unit);
        if (value && value->value > 0) keep(value->value, one, false, {i});
    }
    for (const auto i : of) w.take(i);
    return out;
}

ValueWords takeBareValue(Words& w, PartKind kind) {
    ValueWords out;
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        const std::string one = bare(w.words[i]);
        if (w.taken[i] || one.empty() || one.find_first_not_of("0123456789.,") != std::string::npos) continue;
        if (isPackage(one)) continue;
        double value = 0;
        if (kind == PartKind::resistor || !allDigits(one)) {
            const auto plain = parseQuantity(one);
            value = plain ? plain->value : 0;
            if (kind == PartKind::capacitor) value *= value < 1 ? 1e-6 : 1e-12;
            if (kind == PartKind::inductor) value *= 1e-6;
        } else if (const auto marks = readMark(one, kind); !marks.empty()) {
            value = marks.front().value;
        }
        if (!(value > 0)) continue;
        w.take(i);
        return {value, one, true, 1};
    }
    return out;
}

int readQuantity(std::string_view text) {
    std::string word = lowered(bare(std::string(trimmed(text))));
    for (const std::string_view tail : {"pieces", "pcs", "pc", "off", "stk", "ea", "x"}) {
        if (word.ends_with(tail)) word = std::string(trimmed(word.substr(0, word.size() - tail.size())));
    }
    if (word.starts_with("x")) word.erase(0, 1);
    if (!allDigits(word) || word.size() > 5) return 0;
    return std::stoi(word);
}

int takeQuantity(Words& w, std::size_t refs) {
    std::vector<std::size_t> numbers;
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        if (w.taken[i]) continue;
        const std::string one = lowered(bare(w.words[i]));
        const bool times =
            one.size() > 1 && (one.back() == 'x' || one.front() == 'x') && readQuantity(one) > 0;
        const std::string next = i + 1 < w.words.size() ? lowered(bare(w.words[i + 1])) : "";
        const bool pieces =
            allDigits(one) && (next == "pcs" || next == "pc" || next == "off" || next == "x" ||
                               next == "pieces" || next == "stk" || next == "ea" || next == "×");
        const std::string before = i > 0 ? lowered(bare(w.words[i - 1])) : "";
        const bool named = allDigits(one) && (before == "qty" || before == "quantity" || before == "menge");
        if (times || pieces || named) {
            w.take(i);
            if (pieces) w.take(i + 1);
            if (named) w.take(i - 1);
            return readQuantity(one);
        }
        if (allDigits(one) && one.size() <= 3 && !isPackage(one)) numbers.push_back(i);
    }
    const bool ends = !numbers.empty() && (numbers.back() + 1 == w.words.size() || numbers.front() == 0);
    if (!ends) return 0;
    auto agrees = std::find_if(numbers.rbegin(), numbers.rend(),
                               [&](std::size_t i) { return std::size_t(readQuantity(w.words[i])) == refs; });
    const std::size_t chosen = agrees != numbers.rend()               ? *agrees
                               : numbers.back() + 1 == w.words.size() ? numbers.back()
                                                                      : numbers.front();
    const bool atEnd = chosen + 1 == w.words.size() || chosen == 0;
    if (!atEnd && agrees == numbers.rend()) return 0;
    w.take(chosen);
    return readQuantity(w.words[chosen]);
}

}  // namespace ombrek
