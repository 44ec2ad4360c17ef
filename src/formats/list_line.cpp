#include "formats/list_line.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "core/parts/bag.h"
#include "core/parts/bands.h"
#include "core/parts/marks.h"
#include "core/quantity/preferred.h"
#include "formats/designators.h"
#include "formats/encoding.h"

namespace ombrek {
namespace {

constexpr std::array<std::string_view, 10> kPackages{"0201", "0402", "0603", "0805", "1206",
                                                     "1210", "1812", "2010", "2512", "0612"};

struct KindWord {
    std::string_view word;
    PartKind kind;
};
/// Words of a description that say what a part is, stronger than its designator's letter.
constexpr std::array<KindWord, 46> kKindWords{{{"trimmer", PartKind::trimmer},
                                               {"variable", PartKind::trimmer},
                                               {"varicon", PartKind::trimmer},
                                               {"trimpot", PartKind::trimmer},
                                               {"trimcap", PartKind::trimmer},
                                               {"preset", PartKind::trimmer},
                                               {"potentiometer", PartKind::other},
                                               {"pot", PartKind::other},
                                               {"poti", PartKind::other},
                                               {"socket", PartKind::other},
                                               {"connector", PartKind::other},
                                               {"header", PartKind::other},
                                               {"switch", PartKind::other},
                                               {"relay", PartKind::other},
                                               {"fuse", PartKind::other},
                                               {"screw", PartKind::other},
                                               {"jack", PartKind::other},
                                               {"crystal", PartKind::crystal},
                                               {"xtal", PartKind::crystal},
                                               {"quartz", PartKind::crystal},
                                               {"resonator", PartKind::crystal},
                                               {"toroid", PartKind::coil},
                                               {"ring", PartKind::coil},
                                               {"turns", PartKind::coil},
                                               {"binocular", PartKind::coil},
                                               {"transformer", PartKind::coil},
                                               {"balun", PartKind::coil},
                                               {"npn", PartKind::transistor},
                                               {"pnp", PartKind::transistor},
                                               {"fet", PartKind::transistor},
                                               {"jfet", PartKind::transistor},
                                               {"mosfet", PartKind::transistor},
                                               {"transistor", PartKind::transistor},
                                               {"regulator", PartKind::ic},
                                               {"mixer", PartKind::ic},
                                               {"amplifier", PartKind::ic},
                                               {"microcontroller", PartKind::ic},
                                               {"led", PartKind::diode},
                                               {"diode", PartKind::diode},
                                               {"varactor", PartKind::diode},
                                               {"zener", PartKind::diode},
                                               {"choke", PartKind::inductor},
                                               {"inductor", PartKind::inductor},
                                               {"resistor", PartKind::resistor},
                                               {"capacitor", PartKind::capacitor},
                                               {"electrolytic", PartKind::capacitor}}};

std::vector<std::string> split(std::string_view text) {
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

/// A word without the commas, brackets and stops around it.
std::string bare(std::string word) {
    const std::string around = ",;:()[]{}|\"'";
    while (!word.empty() && around.find(word.back()) != std::string::npos) word.pop_back();
    while (!word.empty() && around.find(word.front()) != std::string::npos) word.erase(0, 1);
    while (word.size() > 1 && word.back() == '.') word.pop_back();
    return word;
}

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

/// The words of a line while they are being taken one by one.
struct Words {
    std::vector<std::string> words;
    std::vector<char> taken;
    explicit Words(std::string_view text) : words(split(text)), taken(words.size(), 0) {}
    void take(std::size_t i) { taken[i] = 1; }
    std::string rest() const {
        std::string out;
        for (std::size_t i = 0; i < words.size(); ++i) {
            if (taken[i]) continue;
            if (!out.empty()) out += ' ';
            out += words[i];
        }
        const auto clean = trimmed(out);
        std::string text(clean);
        while (!text.empty() && (text.back() == ',' || text.back() == ';' || text.back() == '|'))
            text.pop_back();
        while (!text.empty() && (text.front() == ',' || text.front() == '|' || text.front() == '-'))
            text.erase(0, 1);
        return std::string(trimmed(text));
    }
};

/// "50V", "50 V", "63VDC"; "1/4W", "0.25 W"; "5%", "±5 %": the number, and its words taken.
std::optional<double> takeUnit(Words& w, Unit unit, double least, double most) {
    const auto read = [&](std::string text) -> std::optional<double> {
        for (const std::string_view sign : {"±", "+/-", "+-"}) {
            if (text.starts_with(sign)) text.erase(0, sign.size());
        }
        if (text.ends_with("DC") || text.ends_with("dc")) text.resize(text.size() - 2);
        if (unit == Unit::volt && text.ends_with('v')) text.back() = 'V';
        if (unit == Unit::watt && text.ends_with('w')) text.back() = 'W';
        double over = 1;
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
        return value->value / over;
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

/// "(marked 104)", "mark: 104", "code 104", or a run of colour words; its words taken.
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
    int count = 0;
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        std::string word = lowered(bare(w.words[i]));
        for (char& c : word) {
            if (c == '-' || c == '/' || c == ',') c = ' ';
        }
        const auto inside = split(word);
        const bool all = !inside.empty() && std::all_of(inside.begin(), inside.end(),
                                                        [](const std::string& x) { return isBandColour(x); });
        if (!all) continue;
        count += int(inside.size());
        for (const auto& x : inside) colours += (colours.empty() ? "" : " ") + x;
    }
    if (count < 3) return "";
    for (std::size_t i = 0; i < w.words.size(); ++i) {
        std::string word = lowered(bare(w.words[i]));
        for (char& c : word) {
            if (c == '-' || c == '/' || c == ',') c = ' ';
        }
        const auto inside = split(word);
        if (!inside.empty() && isBandColour(inside.front())) w.take(i);
    }
    return colours;
}

struct Value {
    double nominal = 0;
    std::string text;
    bool bare = false;      ///< no unit and no prefix stood with it
    std::size_t count = 0;  ///< values found
};

/// The value among the words, one with a unit or a prefix before a bare number.
Value takeValue(Words& w, PartKind kind) {
    const Unit unit = unitOf(kind);
    Value out;
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

/// A bare number as the value: ohms for a resistor, a mark for the others.
Value takeBareValue(Words& w, PartKind kind) {
    Value out;
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

/// "6x", "x6", "6 pcs" anywhere; else a bare number that can be one: the one that agrees with the designators
/// first, then the last, then the first.
void takeQuantity(Words& w, std::size_t refs, ListLine& out) {
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
            out.quantity = readQuantity(one);
            w.take(i);
            if (pieces) w.take(i + 1);
            if (named) w.take(i - 1);
            return;
        }
        if (allDigits(one) && one.size() <= 3 && !isPackage(one)) numbers.push_back(i);
    }
    const bool ends = !numbers.empty() && (numbers.back() + 1 == w.words.size() || numbers.front() == 0);
    if (!ends) return;
    auto agrees = std::find_if(numbers.rbegin(), numbers.rend(),
                               [&](std::size_t i) { return std::size_t(readQuantity(w.words[i])) == refs; });
    const std::size_t chosen = agrees != numbers.rend()               ? *agrees
                               : numbers.back() + 1 == w.words.size() ? numbers.back()
                                                                      : numbers.front();
    const bool atEnd = chosen + 1 == w.words.size() || chosen == 0;
    if (!atEnd && agrees == numbers.rend()) return;
    out.quantity = readQuantity(w.words[chosen]);
    w.take(chosen);
}

std::optional<PartKind> kindByWords(std::string_view text) {
    for (const std::string& raw : split(text)) {
        std::string word = lowered(bare(raw));
        if (word.size() > 3 && word.ends_with('s') && word != "turns") word.pop_back();
        for (const KindWord& k : kKindWords) {
            if (k.word == word) return k.kind;
        }
        if (word.size() > 4 && (word.starts_with("ft") || word[0] == 't') &&
            word.find('-') != std::string::npos && word[word.find('-') - 1] >= '0' &&
            word[word.find('-') - 1] <= '9')
            return PartKind::coil;
    }
    return std::nullopt;
}

/// "5-30 pF", "5 to 30pF": a trimmer's range.
void readRange(std::string_view text, ListLine& out) {
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (!digit(text[i]) || (i > 0 && (digit(text[i - 1]) || text[i - 1] == '.'))) continue;
        std::size_t end = i;
        while (end < text.size() && (digit(text[end]) || text[end] == '.' || text[end] == ',')) ++end;
        const std::string low(text.substr(i, end - i));
        std::string_view rest = trimmed(text.substr(end));
        if (rest.starts_with("pF")) rest = trimmed(rest.substr(2));
        std::size_t sign = 0;
        for (const std::string_view s : {"\u2013", "\u2026", "..", "to ", "-"}) {
            if (rest.starts_with(s)) sign = s.size();
        }
        if (sign == 0) continue;
        rest = trimmed(rest.substr(sign));
        std::size_t stop = 0;
        while (stop < rest.size() && (digit(rest[stop]) || rest[stop] == '.')) ++stop;
        const std::string_view unit = trimmed(rest.substr(stop));
        if (stop == 0 || !(lowered(unit.substr(0, 2)) == "pf" || unit.starts_with('p'))) continue;
        const auto a = parseQuantity(low + "p", Unit::farad);
        const auto b = parseQuantity(std::string(rest.substr(0, stop)) + "p", Unit::farad);
        if (!a || !b || b->value <= a->value) continue;
        out.low = a->value;
        out.high = b->value;
        out.unit = Unit::farad;
        return;
    }
}

/// A fixed part with a range beside it may be an adjustable one.
void checkRange(std::string_view text, ListLine& out) {
    ListLine range;
    readRange(text, range);
    if (out.kind == PartKind::capacitor && range.high > range.low)
        out.doubts.push_back("A range stands here, " + formatQuantity(range.low, Unit::farad, 3) + " to " +
                             formatQuantity(range.high, Unit::farad, 3) + ": is it adjustable?");
}

void checkPlausible(ListLine& out, const Value& value) {
    const std::string text = formatQuantity(out.nominal, out.unit, 4);
    if (value.count > 1)
        out.doubts.push_back("More than one value stands here; the first was taken: " + text + ".");
    if (value.bare && out.kind != PartKind::resistor)
        out.doubts.push_back("\"" + value.text + "\" has no unit: taken as " + text + ".");
    const bool preferred = isPreferred(out.nominal, Series::e24) || isPreferred(out.nominal, Series::e96) ||
                           isPreferred(out.nominal, Series::e192);
    if (!preferred) out.doubts.push_back(text + " is no preferred value (IEC 60063).");
    struct Range {
        PartKind kind;
        double low, high;
    };
    static constexpr std::array<Range, 3> usual{{{PartKind::resistor, 0.1, 50e6},
                                                 {PartKind::capacitor, 0.2e-12, 0.05},
                                                 {PartKind::inductor, 1e-9, 1}}};
    for (const Range& r : usual) {
        if (r.kind == out.kind && (out.nominal < r.low || out.nominal > r.high))
            out.doubts.push_back(text + " is an unusual value; check its prefix.");
    }
}

void checkMark(ListLine& out) {
    if (out.mark.empty() || !(out.nominal > 0)) return;
    const auto readings = readMark(out.mark, out.kind);
    if (readings.empty()) return;
    const bool agrees = std::any_of(readings.begin(), readings.end(), [&](const MarkReading& r) {
        return std::fabs(r.value / out.nominal - 1) < 1e-3;
    });
    if (!agrees) {
        out.doubts.push_back("The mark " + out.mark + " would be " +
                             formatQuantity(readings.front().value, out.unit, 4) + ", not " +
                             formatQuantity(out.nominal, out.unit, 4) + ".");
    } else if (out.toleranceAssumed && readings.front().tolerancePercent) {
        out.tolerance = *readings.front().tolerancePercent;
        out.toleranceAssumed = false;
    }
}

void readRefs(const std::string& text, ListLine& out) {
    for (DesignatorRun& run : designatorRuns(text)) {
        out.refs.insert(out.refs.end(), run.refs.begin(), run.refs.end());
        if (!run.doubt.empty()) out.doubts.push_back(run.doubt);
    }
    std::vector<std::string> seen;
    for (const std::string& ref : out.refs) {
        if (std::find(seen.begin(), seen.end(), ref) == seen.end()) {
            seen.push_back(ref);
        } else {
            out.doubts.push_back(ref + " stands here twice.");
        }
    }
    out.refs = std::move(seen);
}

PartKind decideKind(const ListFields& fields, const ListLine& line, PartKind hint) {
    if (const auto named = partKind(lowered(trimmed(fields.kind)))) return *named;
    const std::string words = fields.kind + " " + fields.value + " " + fields.description;
    const auto designator = line.refs.empty() ? std::nullopt : readDesignator(line.refs.front());
    const PartKind byLetter = designator ? kindOf(*designator) : hint;
    const auto byWords = kindByWords(words);
    if (byLetter == PartKind::coil) {
        if (byWords && *byWords != PartKind::other) return *byWords;
        Words w(words);
        return takeValue(w, PartKind::inductor).count > 0 ? PartKind::inductor : PartKind::coil;
    }
    // A resistor's or capacitor's letter gives way only to what makes it adjustable or hardware.
    const bool plain = byLetter == PartKind::resistor || byLetter == PartKind::capacitor;
    if (plain) return byWords == PartKind::trimmer || byWords == PartKind::other ? *byWords : byLetter;
    if (byWords && (byLetter == PartKind::other || *byWords == PartKind::other || !designator))
        return *byWords;
    return byLetter;
}

}  // namespace

double usualTolerance(PartKind kind, double nominal, std::string_view description) {
    const std::string words = lowered(description);
    if (kind == PartKind::resistor) return 5;
    if (kind == PartKind::capacitor && (words.find("electrolytic") != std::string::npos || nominal >= 0.9e-6))
        return 20;
    return 10;
}

ListLine understand(const ListFields& fields, PartKind kindHint, double toleranceHint) {
    ListLine out;
    readRefs(fields.refs, out);
    out.kind = decideKind(fields, out, kindHint);
    out.package = std::string(trimmed(fields.package));
    out.code = std::string(trimmed(fields.code));
    Words words(fields.value + "  " + fields.description);
    Words own(fields.tolerance + " ");
    out.mark = fields.mark.empty() ? takeMark(words) : std::string(trimmed(fields.mark));
    Words volts(fields.volts + (fields.volts.find_first_of("Vv") == std::string::npos ? "V" : ""));
    const bool measured = unitOf(out.kind) != Unit::none;
    if (measured) {
        const auto statedVolts = takeUnit(volts, Unit::volt, 0.5, 1e5);
        out.volts = statedVolts ? *statedVolts : takeUnit(words, Unit::volt, 0.5, 1e5).value_or(0);
        out.watts = takeUnit(words, Unit::watt, 0.01, 1000).value_or(0);
        auto percent = takeUnit(own, Unit::percent, 0.005, 100);
        if (!percent && !trimmed(fields.tolerance).empty()) {
            const auto plain = parseQuantity(trimmed(fields.tolerance));
            if (plain && plain->value > 0 && plain->value <= 100) percent = plain->value;
        }
        if (!percent) percent = takeUnit(words, Unit::percent, 0.005, 100);
        Value value = takeValue(words, out.kind);
        if (fields.quantity.empty() && value.count == 0) {
            // A bare value beside a bare quantity: the value is taken first when it cannot be the quantity.
            value = takeBareValue(words, out.kind);
            takeQuantity(words, out.refs.size(), out);
            if (value.bare && out.quantity == 0 && std::size_t(readQuantity(value.text)) == out.refs.size())
                out.doubts.push_back("\"" + value.text + "\" may be the quantity.");
        } else {
            if (fields.quantity.empty()) takeQuantity(words, out.refs.size(), out);
            if (value.count == 0) value = takeBareValue(words, out.kind);
        }
        out.unit = unitOf(out.kind);
        out.nominal = value.nominal;
        out.toleranceAssumed = !percent && !(toleranceHint > 0);
        if (out.nominal > 0) {
            out.tolerance =
                percent ? *percent
                        : (toleranceHint > 0 ? toleranceHint
                                             : usualTolerance(out.kind, out.nominal, fields.description));
            checkPlausible(out, value);
            checkMark(out);
            checkRange(fields.value + " " + fields.description, out);
            out.value = formatQuantity(out.nominal, out.unit, 4);
        } else {
            out.doubts.push_back("No value was found.");
        }
    } else if (fields.quantity.empty()) {
        takeQuantity(words, out.refs.size(), out);
    }
    if (!fields.quantity.empty()) {
        out.quantity = readQuantity(fields.quantity);
        if (out.quantity == 0) out.doubts.push_back("\"" + fields.quantity + "\" is no quantity.");
    }
    out.description = words.rest();
    if (out.kind == PartKind::trimmer) readRange(fields.value + " " + fields.description, out);
    if (!measured) {
        out.value = out.description;
        if (out.value.empty()) out.doubts.push_back("The list does not say what this is.");
    }
    if (out.quantity > 0 && !out.refs.empty() && std::size_t(out.quantity) != out.refs.size()) {
        out.doubts.push_back("The list says " + std::to_string(out.quantity) + ", the designators make " +
                             std::to_string(out.refs.size()) + ".");
    }
    return out;
}

std::string valueText(const ListLine& line) {
    if (!(line.nominal > 0)) return line.value;
    return line.value + " ±" + plainNumber(line.tolerance) + "\u202f%" +
           (line.toleranceAssumed ? " assumed" : "");
}

}  // namespace ombrek
