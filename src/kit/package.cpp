#include "kit/package.h"

#include <algorithm>
#include <cctype>
#include <initializer_list>
#include <string>

namespace ombrek {
namespace {

using Mark = Package::Mark;

struct Named {
    const char* word;
    double width, height;
    bool round;
};
constexpr Named kNamed[] = {
    {"0402", 1.0, 0.5, false},    {"0603", 1.6, 0.8, false},    {"0805", 2.0, 1.25, false},
    {"1206", 3.2, 1.6, false},    {"DIP-8", 9.8, 7.6, false},   {"DIP-14", 19.3, 7.6, false},
    {"DIP-16", 19.3, 7.6, false}, {"DIP-18", 22.9, 7.6, false}, {"DIP-28", 35.6, 7.6, false},
    {"SO-8", 4.9, 6.0, false},    {"TO-92", 4.8, 3.8, false},   {"TO-220", 10.2, 4.6, false},
    {"HC-49", 11.2, 4.8, false},  {"DO-41", 5.2, 2.7, false},   {"SOT-23", 2.9, 2.4, false}};

struct OfKind {
    PartKind kind;
    double width, height;
    bool round;
    Mark mark;
    bool heatShy;
};
constexpr OfKind kOfKind[] = {{PartKind::resistor, 6.5, 2.4, false, Mark::none, false},
                              {PartKind::capacitor, 5.0, 2.8, false, Mark::none, false},
                              {PartKind::inductor, 7.0, 3.0, false, Mark::none, false},
                              {PartKind::diode, 4.2, 2.0, false, Mark::band, true},
                              {PartKind::transistor, 4.8, 3.8, false, Mark::flat, true},
                              {PartKind::ic, 9.8, 7.6, false, Mark::notch, true},
                              {PartKind::crystal, 11.2, 4.8, false, Mark::none, true},
                              {PartKind::coil, 11.0, 11.0, true, Mark::dot, false},
                              {PartKind::trimmer, 7.0, 7.0, true, Mark::none, true},
                              {PartKind::other, 8.0, 8.0, false, Mark::none, true}};

/// Words of a part in small letters, each with a blank before and after, so that whole words are found.
std::string wordsOf(const Part& part) {
    std::string out = " ";
    for (const char c : part.value + " " + part.what + " " + part.mark) {
        const auto byte = static_cast<unsigned char>(c);
        out += std::isalnum(byte) || byte >= 0x80 ? char(std::tolower(byte)) : ' ';
    }
    return out + " ";
}

/// "R_0805", "TO92": without dashes and underlines, so that "TO-92" is met.
std::string bare(const std::string& package) {
    std::string out;
    for (const char c : package) {
        if (c != '-' && c != '_' && c != ' ') out += char(std::toupper(static_cast<unsigned char>(c)));
    }
    return out;
}

bool says(const std::string& words, std::initializer_list<const char*> parts) {
    return std::any_of(parts.begin(), parts.end(),
                       [&](const char* part) { return words.find(part) != std::string::npos; });
}

}  // namespace

bool polarisedCapacitor(const Part& part) {
    if (part.kind != PartKind::capacitor) return false;
    if (!part.orientation.empty()) return true;
    const std::string words = wordsOf(part);
    if (says(words, {"bipolar", "unpolar", "non polar", "nonpolar", "ungepolt"})) return false;
    if (says(words, {"electrolyt", "elektrolyt", "elko", " elco", "tantal", " alum", "supercap", " polar"}))
        return true;
    const bool dry = says(words, {"ceramic", "keram", "céram", " film", " foil", "folie", " mlcc", " mks",
                                  " mkp", "polyester", "polyprop", " x7r", " x5r", " c0g", " np0", " y5v"});
    return part.nominal >= 1e-6 * (1 - 1e-9) && !dry;
}

bool isLed(const Part& part) {
    if (part.kind != PartKind::diode && part.kind != PartKind::other) return false;
    std::string letters;
    for (const char c : part.ref) {
        if (std::isalpha(static_cast<unsigned char>(c)))
            letters += char(std::toupper(static_cast<unsigned char>(c)));
    }
    return letters == "LED" || says(wordsOf(part), {" led ", " leds ", "light emitting", "leuchtdiode"});
}

namespace {

/// As wordsOf, with the package and how it goes in.
std::string allWordsOf(const Part& part) {
    Part whole = part;
    whole.what += " " + part.package + " " + part.orientation;
    return wordsOf(whole);
}

/// Regulators of a hundred milliamperes, "78L05", "LM79L12", "LP2950", by their usual small package.
bool smallRegulator(const std::string& words) {
    const auto at = words.find("8l"), at9 = words.find("9l");
    for (const std::size_t i : {at, at9}) {
        if (i != std::string::npos && i > 0 && words[i - 1] == '7' && i + 2 < words.size() &&
            std::isdigit(static_cast<unsigned char>(words[i + 2])))
            return true;
    }
    return says(words, {"lp2950", "to 92", "to92", "to 226"});
}

}  // namespace

bool hasTab(const Part& part) {
    if (part.kind != PartKind::transistor && part.kind != PartKind::ic) return false;
    const std::string words = allWordsOf(part);
    if (smallRegulator(words)) return false;
    return says(words, {" to 220", "to220", " to 126",   "to126",    " to 247", " to 202", " dpak",
                        " d2pak",  " tab ", "heat sink", "heatsink", " 7805",   " 7808",   " 7809",
                        " 7810",   " 7812", " 7815",     " lm317 ",  " lm317t", " 7905",   " 7912"});
}

bool isThreeLegged(const Part& part) {
    if (part.kind == PartKind::transistor) return !hasTab(part);
    return part.kind == PartKind::ic &&
           (smallRegulator(allWordsOf(part)) || says(allWordsOf(part), {" flat "}));
}

bool onTwoHoles(const Part& part) {
    return part.kind == PartKind::coil &&
           says(allWordsOf(part), {"two hole", "binocular", "doppelloch", "schweinsnase", " bn43", " bn61",
                                   " bn73", " bn 43", " bn 61", " bn 73"});
}

Package packageOf(const Part& part) {
    Package out;
    for (const OfKind& of : kOfKind) {
        if (of.kind == part.kind) out = {of.width, of.height, of.round, of.mark, of.heatShy};
    }
    if (polarisedCapacitor(part)) out = {6.3, 6.3, true, Mark::plus, true};
    if (part.kind == PartKind::other && part.orientation.empty() && !part.place) out.heatShy = false;
    const std::string package = bare(part.package);
    for (const Named& named : kNamed) {
        const bool said = part.what.find(named.word) != std::string::npos ||
                          part.value.find(named.word) != std::string::npos ||
                          package.find(bare(named.word)) != std::string::npos;
        if (!said) continue;
        out.width = named.width;
        out.height = named.height;
        out.round = named.round;
    }
    if (part.place && part.place->width > 0 && part.place->height > 0) {
        out.width = part.place->width;
        out.height = part.place->height;
    }
    return out;
}

}  // namespace ombrek
