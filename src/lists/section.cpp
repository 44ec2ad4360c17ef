#include "lists/section.h"

#include <algorithm>
#include <array>
#include <vector>

#include "lists/columns.h"
#include "lists/kind_evidence.h"
#include "lists/list_line.h"
#include "lists/token.h"

namespace ombrek {
namespace {

using Tokens = std::vector<Token>;

template <typename List>
bool among(const List& list, std::string_view word) {
    return std::find(std::begin(list), std::end(list), word) != std::end(list);
}

/// Words of headings that name no kind that is measured.
constexpr std::string_view kMixed[] = {"semiconductors",   "semiconductor",   "halbleiter",
                                       "semi-conducteurs", "semiconducteurs", "semiconductores",
                                       "semiconduttori",   "halfgeleiders"};
constexpr std::string_view kHardwareHeads[] = {
    "hardware",      "mechanical",     "mechanics",     "mechanik",     "mechanisches", "miscellaneous",
    "misc",          "sonstiges",      "verschiedenes", "divers",       "varios",       "varie",
    "mec\u00e1nica", "m\u00e9canique", "accessories",   "zubeh\u00f6r", "wire",         "draht",
    "diversen",      "quincaillerie",  "other",         "others",       "mechanische",  "visserie",
    "sundries",      "sundry",         "extras",        "kleinteile",   "accessoires",  "accesorios",
    "accessori"};
/// Words of things that have no designator.
constexpr std::string_view kThings[] = {"screw",
                                        "screws",
                                        "nut",
                                        "nuts",
                                        "washer",
                                        "washers",
                                        "spacer",
                                        "spacers",
                                        "standoff",
                                        "standoffs",
                                        "bolt",
                                        "bolts",
                                        "knob",
                                        "knobs",
                                        "wire",
                                        "cable",
                                        "coax",
                                        "solder",
                                        "enclosure",
                                        "case",
                                        "box",
                                        "pcb",
                                        "board",
                                        "foot",
                                        "feet",
                                        "insulator",
                                        "insulators",
                                        "bush",
                                        "tubing",
                                        "sleeving",
                                        "heatshrink",
                                        "manual",
                                        "tie",
                                        "ties",
                                        "heatsink",
                                        "sink",
                                        "k\u00fchlk\u00f6rper",
                                        "radiateur",
                                        "disipador",
                                        "clip",
                                        "bracket",
                                        "panel",
                                        "label",
                                        "labels",
                                        "tape",
                                        "bag",
                                        "core",
                                        "cores",
                                        "bead",
                                        "beads",
                                        "socket",
                                        "sockets",
                                        "pin",
                                        "pins",
                                        "schraube",
                                        "schrauben",
                                        "mutter",
                                        "muttern",
                                        "scheibe",
                                        "scheiben",
                                        "abstandshalter",
                                        "abstandsbolzen",
                                        "knopf",
                                        "kn\u00f6pfe",
                                        "draht",
                                        "kupferlackdraht",
                                        "cul",
                                        "litze",
                                        "kabel",
                                        "koaxkabel",
                                        "geh\u00e4use",
                                        "platine",
                                        "lot",
                                        "schrumpfschlauch",
                                        "fu\u00df",
                                        "f\u00fc\u00dfe",
                                        "vis",
                                        "\u00e9crou",
                                        "\u00e9crous",
                                        "rondelle",
                                        "rondelles",
                                        "entretoise",
                                        "entretoises",
                                        "bouton",
                                        "boutons",
                                        "fil",
                                        "c\u00e2ble",
                                        "bo\u00eetier",
                                        "circuit",
                                        "tornillo",
                                        "tornillos",
                                        "tuerca",
                                        "tuercas",
                                        "arandela",
                                        "arandelas",
                                        "separador",
                                        "separadores",
                                        "cable",
                                        "hilo",
                                        "caja",
                                        "placa",
                                        "mando",
                                        "vite",
                                        "viti",
                                        "dado",
                                        "dadi",
                                        "filo",
                                        "manopola",
                                        "schroef",
                                        "schroeven",
                                        "moer",
                                        "moeren",
                                        "draad",
                                        "knop",
                                        "rubber",
                                        "gummif\u00fc\u00dfe",
                                        "stud",
                                        "pillar",
                                        "pillars",
                                        "terminal",
                                        "terminals",
                                        "link",
                                        "links",
                                        "mica",
                                        "hardware",
                                        "film",
                                        "magnet",
                                        "spring",
                                        "glimmerscheibe"};

struct Measure {
    std::string_view word, unit;
};
constexpr Measure kMeasures[] = {{"cm", "cm"},    {"m", "m"},           {"mm", "mm"},    {"in", "in"},
                                 {"inch", "in"},  {"inches", "in"},     {"ft", "ft"},    {"feet", "ft"},
                                 {"g", "g"},      {"metre", "m"},       {"metres", "m"}, {"meter", "m"},
                                 {"meters", "m"}, {"m\u00e8tres", "m"}, {"metros", "m"}};

bool isThing(const Tokens& tokens) {
    return std::any_of(tokens.begin(), tokens.end(), [](const Token& t) {
        const std::string low = lowerText(t.text);
        return among(kThings, low) || byWord(low)[PartKind::other] >= 4;
    });
}

/// A length or a mass at a place: "60 cm", "3m". @return the words it takes; 0: none
std::size_t measureAt(const Tokens& tokens, std::size_t i, double& count, std::string& unit) {
    std::string low = lowerText(tokens[i].text);
    for (const Measure& m : kMeasures) {
        const bool inside = low.size() > m.word.size() && low.ends_with(m.word) &&
                            low[low.size() - m.word.size() - 1] >= '0' &&
                            low[low.size() - m.word.size() - 1] <= '9';
        const bool apart = i + 1 < tokens.size() && lowerText(tokens[i + 1].text) == m.word;
        if (!inside && !apart) continue;
        const std::string number = inside ? low.substr(0, low.size() - m.word.size()) : low;
        Manner manner;
        manner.comma = Manner::Comma::decimal;
        const auto value = readAmount(number, Unit::none, manner);
        if (!value || value->said != Amount::Said::number || !(value->value > 0)) continue;
        count = value->value;
        unit = m.unit;
        return inside ? 1 : 2;
    }
    return 0;
}

constexpr std::string_view kPieces[] = {"x",          "pcs", "pc",  "pce",        "off",  "stk",
                                        "stk.",       "st",  "st.", "ea",         "each", "pieces",
                                        "st\u00fcck", "pz",  "uds", "pi\u00e8ces"};

}  // namespace

std::optional<Section> readSection(std::string_view text) {
    const Tokens tokens = tokensOf(text);
    if (tokens.empty() || tokens.size() > 14) return std::nullopt;
    Section out;
    bool head = false;
    const char first = tokens[0].text[0];
    if (first >= '0' && first <= '9' && !isVariantWord(tokens[0].text)) return std::nullopt;
    if (notFittedIn(text)) {
        // "Not fitted in this version:" is a heading when little else stands there.
        out.fitted = false;
        head = tokens.size() <= 6;
    }
    for (std::size_t i = 0; i < tokens.size() && i < 4; ++i) {
        const std::string low = lowerText(tokens[i].text);
        const KindEvidence said = byWord(low);
        if (out.kind == PartKind::other && said[said.best()] > 0 && i < 3) {
            out.kind = said.best();
            head = true;
        }
        if (among(kMixed, low)) head = true;
        if (among(kHardwareHeads, low) && i < 3) {
            head = true;
            out.hardware = true;
        }
        if (low == "integrated" || low == "integrierte" || low == "ics" || low == "int\u00e9gr\u00e9s") {
            out.kind = PartKind::ic;
            head = true;
        }
        if (low == "connectors" || low == "steckverbinder") head = true;
    }
    if (!head) return std::nullopt;
    if (out.kind == PartKind::other && !out.hardware && out.fitted) {
        // "Screw terminals, 2": a thing, not a heading, unless it is in the plural and alone.
        if (tokens.size() > 4) return std::nullopt;
    }
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        const std::string joined = tokens[i].text + (i + 1 < tokens.size() ? tokens[i + 1].text : "");
        for (const std::string& word : {tokens[i].text, joined}) {
            const auto percent = readAmount(word, Unit::percent);
            const auto watts = readAmount(word, Unit::watt);
            const auto volts = readAmount(word, Unit::volt);
            const auto said = [](const std::optional<Amount>& a) {
                return a && a->said == Amount::Said::unit;
            };
            if (said(percent) && percent->value > 0 && percent->value <= 100 && out.tolerance == 0)
                out.tolerance = percent->value;
            if (said(watts) && watts->value > 0 && watts->value <= 100 && out.watts == 0)
                out.watts = watts->value;
            if (said(volts) && volts->value > 0.5 && volts->value < 1e5 && out.volts == 0)
                out.volts = volts->value;
        }
    }
    out.prefix = prefixOf(text);
    return out;
}

bool isHeading(std::string_view text) {
    const Tokens tokens = tokensOf(text);
    if (tokens.empty() || tokens.size() > 5) return false;
    int capitals = 0;
    for (const char c : text) {
        if (c >= '0' && c <= '9') return false;
        if (c >= 'a' && c <= 'z' && !text.ends_with(':')) return false;
        capitals += (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z');
    }
    return capitals >= 4;
}

bool isTitle(std::string_view text) {
    const Tokens tokens = tokensOf(text);
    if (tokens.size() < 3 || tokens.size() > 14 || text.size() > 100 || isThing(tokens)) return false;
    // Columns are of a row.
    if (text.find("  ") != std::string_view::npos) return false;
    if (text[0] >= '0' && text[0] <= '9') return false;
    return std::any_of(tokens.begin(), tokens.end(), [](const Token& t) {
        return t.text.size() > 2 && std::isalpha(static_cast<unsigned char>(t.text[0]));
    });
}

std::optional<Hardware> readHardware(std::string_view text, bool expected) {
    Tokens tokens = tokensOf(text);
    if (tokens.empty() || tokens.size() > 24) return std::nullopt;
    const bool thing = isThing(tokens);
    Hardware out;
    out.text = std::string(text);
    out.unit = "pcs";
    out.countSaid = false;
    std::size_t from = 0, to = tokens.size();
    const auto counted = [&](double count) {
        out.count = count;
        out.countSaid = true;
    };
    if (const std::size_t words = measureAt(tokens, 0, out.count, out.unit)) {
        // "3 m of wire"; "6 mm knob" is a size, not a length to count.
        if (out.unit != "mm") {
            from = words;
            out.countSaid = true;
        } else {
            out = Hardware{0, std::string(text), "", 1, "pcs", false};
        }
    }
    if (!out.countSaid && readQuantity(tokens[0].text) > 0) {
        counted(readQuantity(tokens[0].text));
        from = 1;
        if (tokens.size() > 1 && among(kPieces, lowerText(tokens[1].text))) from = 2;
    }
    if (!out.countSaid && tokens.size() > 1) {
        // The count at the end: "… 4", "… (4)", "… 4 pcs", "…, 3 m".
        for (std::size_t i = tokens.size() - 1; i + 2 >= tokens.size() && i > 0 && !out.countSaid; --i) {
            double count = 0;
            std::string unit;
            const std::size_t words = measureAt(tokens, i, count, unit);
            if (words > 0 && i + words == tokens.size() && unit != "mm") {
                out.unit = unit;
                counted(count);
                to = i;
            }
        }
        const std::string last = lowerText(tokens.back().text);
        const bool pieces =
            among(kPieces, last) && tokens.size() > 2 && wholeNumber(tokens[tokens.size() - 2].text, 4);
        const bool size = tokens.size() > 2 && lowerText(tokens[tokens.size() - 2].text) == "x";
        if (!out.countSaid && pieces) {
            counted(readQuantity(tokens[tokens.size() - 2].text));
            to = tokens.size() - 2;
        } else if (!out.countSaid && readQuantity(last) > 0 && !size) {
            counted(readQuantity(last));
            to = tokens.size() - 1;
        }
    }
    static constexpr std::string_view small[] = {"of", "x", "de", "von", "-"};
    while (from < to && among(small, lowerText(tokens[from].text))) ++from;
    if (from >= to) return std::nullopt;
    for (std::size_t i = 0; i < tokens.size(); ++i) tokens[i].taken = i < from || i >= to;
    out.what = untaken(tokens);
    if (out.what.empty() || out.what.find_first_of("0123456789") == 0) {
        if (!thing && !expected) return std::nullopt;
    }
    // Prose has no count and no thing; a sentence with a number in front has no thing.
    const bool sentence = text.ends_with('.') && tokens.size() > 8;
    if (sentence || (!thing && !(expected && (out.countSaid || tokens.size() <= 8)))) return std::nullopt;
    // "PCB", "28-pin socket": a thing alone in its row is one of it.
    if (!out.countSaid && !expected && (!thing || tokens.size() > 4)) return std::nullopt;
    return out;
}

}  // namespace ombrek
