#include "station/cautions.h"

#include <algorithm>
#include <cctype>
#include <initializer_list>
#include <string_view>
#include <vector>

namespace ombrek {
namespace {

/// All common practice of the trade.
struct CautionRow {
    std::initializer_list<std::string_view> words;  ///< beginnings of words
    std::string_view says;
};
const CautionRow kCautions[] = {
    {{"mains", "230 v", "115 v", "netzspannung", "secteur"}, "Mains inside a supply is for the qualified."},
    {{"transmit", "key down", "keyed", "senden", "taste"},
     "Dummy load on before the key goes down; follow your local rules."},
    {{"apply power", "apply 1", "connect the supply", "connect the battery", "switch on", "power up",
      "first power", "smoke test", "einschalten", "mettez sous tension"},
     "A fuse in the lead, and the supply's current limited. Off at once when it smells."},
    {{"drill", "bohr", "perce", "taladr"}, "Clamp what is drilled, eye protection on, no gloves."},
    {{"flux remover", "acetone", "alcohol", "ipa ", "solvent", "spiritus"},
     "Ventilate, no flame near it, gloves on."},
    {{"heat gun", "heat-shrink", "heat shrink", "shrink"},
     "The nozzle stays hot: lay it where nothing melts."},
    {{"strip", "scrape", "enamel", "knife", "emery", "abisolier"},
     "Blades away from the hand that holds; burning enamel smokes: ventilate."},
    {{"solder", "l\xc3\xb6t", "soud", "sold", "sald", "tin ", "reflow"},
     "Hot iron and fumes: ventilate, eye protection on, wash hands after leaded solder."},
    {{"cut the lead", "cut off the lead", "clip the lead", "trim the lead", "cut leads", "clip off", "snip",
      "cut the leg", "cut off the leg"},
     "Cut leads fly: eye protection on, cut downward into a hand or tray."},
    {{"screw", "bolt", "standoff", "nut driver", "schraub", "vis ", "tornillo"},
     "Finger-tight: an over-tightened screw cracks the board."},
};

bool begins(const std::string& low, std::string_view word) {
    for (std::size_t at = low.find(word); at != std::string::npos; at = low.find(word, at + 1)) {
        if (at == 0 || !std::isalnum(static_cast<unsigned char>(low[at - 1]))) return true;
    }
    return false;
}

}  // namespace

std::string cautionsOf(const std::string& text) {
    std::string low;
    for (const char c : text) low += char(std::tolower(static_cast<unsigned char>(c)));
    std::string out;
    for (const CautionRow& row : kCautions) {
        const bool met = std::any_of(row.words.begin(), row.words.end(),
                                     [&](std::string_view word) { return begins(low, word); });
        if (met) out += (out.empty() ? "" : " ") + std::string(row.says);
    }
    return out;
}

}  // namespace ombrek
