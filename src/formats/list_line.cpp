#include "formats/list_line.h"

#include <algorithm>
#include <array>
#include <optional>

#include "core/parts/part_kind.h"
#include "formats/designators.h"
#include "formats/encoding.h"
#include "formats/list_doubts.h"
#include "formats/list_words.h"

namespace ombrek {
namespace {

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

std::optional<PartKind> kindByWords(std::string_view text) {
    for (const std::string& raw : splitWords(text)) {
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

/// The tolerance that the line states [%].
std::optional<double> statedTolerance(const ListFields& fields, Words& words) {
    Words own(fields.tolerance + " ");
    if (const auto percent = takeUnit(own, Unit::percent, 0.005, 100)) return percent;
    if (!trimmed(fields.tolerance).empty()) {
        const auto plain = parseQuantity(trimmed(fields.tolerance));
        if (plain && plain->value > 0 && plain->value <= 100) return plain->value;
    }
    return takeUnit(words, Unit::percent, 0.005, 100);
}

/// Value, tolerance and ratings of a part that has a unit, and what is doubtful about them.
void readValue(const ListFields& fields, double toleranceHint, Words& words, ListLine& out) {
    Words volts(fields.volts + (fields.volts.find_first_of("Vv") == std::string::npos ? "V" : ""));
    const auto statedVolts = takeUnit(volts, Unit::volt, 0.5, 1e5);
    out.volts = statedVolts ? *statedVolts : takeUnit(words, Unit::volt, 0.5, 1e5).value_or(0);
    out.watts = takeUnit(words, Unit::watt, 0.01, 1000).value_or(0);
    const auto percent = statedTolerance(fields, words);
    ValueWords value = takeValue(words, out.kind);
    if (fields.quantity.empty() && value.count == 0) {
        // A bare value beside a bare quantity: the value is taken first when it cannot be the quantity.
        value = takeBareValue(words, out.kind);
        out.quantity = takeQuantity(words, out.refs.size());
        if (value.bare && out.quantity == 0 && std::size_t(readQuantity(value.text)) == out.refs.size())
            out.doubts.push_back("\"" + value.text + "\" may be the quantity.");
    } else {
        if (fields.quantity.empty()) out.quantity = takeQuantity(words, out.refs.size());
        if (value.count == 0) value = takeBareValue(words, out.kind);
    }
    out.unit = unitOf(out.kind);
    out.nominal = value.nominal;
    out.toleranceAssumed = !percent && !(toleranceHint > 0);
    if (!(out.nominal > 0)) {
        out.doubts.push_back("No value was found.");
        return;
    }
    const double usual = usualTolerance(out.kind, out.nominal, fields.description);
    out.tolerance = percent ? *percent : (toleranceHint > 0 ? toleranceHint : usual);
    doubtValue(out, value);
    doubtMark(out);
    doubtRange(fields.value + " " + fields.description, out);
    out.value = formatQuantity(out.nominal, out.unit, 4);
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
    out.mark = fields.mark.empty() ? takeMark(words) : std::string(trimmed(fields.mark));
    const bool measured = unitOf(out.kind) != Unit::none;
    if (measured) {
        readValue(fields, toleranceHint, words, out);
    } else if (fields.quantity.empty()) {
        out.quantity = takeQuantity(words, out.refs.size());
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
    return line.value + " ±" + personNumber(line.tolerance) + "\u202f%" +
           (line.toleranceAssumed ? " assumed" : "");
}

}  // namespace ombrek
