#include "station/board/cautions.h"

#include <algorithm>
#include <cctype>
#include <initializer_list>
#include <regex>
#include <string_view>
#include <utility>
#include <vector>

#include "core/text/letters.h"
#include "core/text/says.h"

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

}  // namespace

std::string withMore(std::string text, const std::string& more) {
    for (std::size_t from = 0; from < more.size();) {
        const std::size_t end = std::min(more.find(". ", from), more.size() - 1) + 1;
        const std::string sentence = more.substr(from, end - from);
        if (text.find(sentence) == std::string::npos) text += (text.empty() ? "" : " ") + sentence;
        from = std::min(more.find_first_not_of(' ', end), more.size());
    }
    return text;
}

std::vector<std::string> nutDrivers(const std::string& text) {
    static constexpr std::pair<std::string_view, std::string_view> drivers[] = {
        {"m2", "4 mm"},      {"m2.5", "5 mm"},     {"m3", "5.5 mm"},    {"m4", "7 mm"},
        {"m5", "8 mm"},      {"m6", "10 mm"},      {"2-56", "3/16 in"}, {"4-40", "1/4 in"},
        {"6-32", "5/16 in"}, {"8-32", "11/32 in"}, {"10-32", "3/8 in"}};
    static const std::regex nut(
        "\\bnuts?\\b|mutter|\xc3\xa9"
        "crou"),
        thread("\\bm[2-6]([.,]5)?(?![0-9])|\\b(2-56|4-40|6-32|8-32|10-32)\\b");
    std::string low = lowered(text);
    std::replace(low.begin(), low.end(), ',', '.');
    std::vector<std::string> out;
    if (!std::regex_search(low, nut)) return out;
    for (std::sregex_iterator at(low.begin(), low.end(), thread), end; at != end; ++at) {
        for (const auto& [name, across] : drivers) {
            const std::string driver = "nut driver " + std::string(across);
            if (at->str() == name && std::find(out.begin(), out.end(), driver) == out.end())
                out.push_back(driver);
        }
    }
    return out;
}

std::string cautionsOf(const std::string& text) {
    std::string out;
    for (const CautionRow& row : kCautions) {
        if (holdsStem(text, row.words)) out += (out.empty() ? "" : " ") + std::string(row.says);
    }
    return out;
}

}  // namespace ombrek
