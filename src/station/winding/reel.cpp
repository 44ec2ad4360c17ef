#include "station/winding/reel.h"

#include <cmath>
#include <optional>
#include <sstream>

namespace ombrek {
namespace {

struct Reel {
    double bare = 0, metres = 0;
};

std::string withoutComma(std::string word) {
    while (!word.empty() && (word.back() == ',' || word.back() == ';')) word.pop_back();
    return word;
}

/// "enamelled wire 28AWG, 12 m"; "28 AWG wire 12m". Nothing when a word of it is missing.
std::optional<Reel> readReel(const std::string& what) {
    Reel out;
    bool wire = false;
    std::istringstream words(what);
    std::string before, word;
    for (; words >> word; before = word) {
        word = withoutComma(word);
        wire = wire || word == "wire" || word == "Wire";
        const bool gauge = word == "AWG" || word == "SWG" || word == "mm";
        if (const auto hit = parseWire(gauge ? before + word : word); hit && out.bare == 0)
            out.bare = hit->bare;
        const bool apart = word == "m";
        const std::string length = apart ? before : word;
        const auto metres =
            parseQuantity(length.ends_with("m") ? length.substr(0, length.size() - 1) : length, Unit::none);
        if (metres && (apart || (word.ends_with("m") && !word.ends_with("mm")))) out.metres = metres->value;
    }
    if (!wire || !(out.bare > 0) || !(out.metres > 0) || out.metres > 1e5) return std::nullopt;
    return out;
}

std::string metres(double length) { return personNumber(std::round(length * 10) / 10) + "\u202fm"; }

}  // namespace

std::vector<ReelUse> reelUse(const CutList& list, const std::vector<StockLine>& stock) {
    std::vector<ReelUse> out;
    for (const auto& [name, wanted] : list.totals) {
        ReelUse use;
        use.wire = name;
        use.wanted = wanted;
        const double bare = parseWire(name).value_or(Wire{}).bare;
        for (const StockLine& line : stock) {
            if (line.count < 1 || line.what.find("ire") == std::string::npos) continue;
            const auto reel = readReel(line.what);
            if (!reel || std::fabs(reel->bare - bare) > 0.03 * bare) continue;
            use.atHand += reel->metres * line.count;
            use.drawers += (use.drawers.empty() ? "" : ", ") + line.drawer;
        }
        use.state = use.atHand == 0        ? VerdictState::notDone
                    : use.atHand >= wanted ? VerdictState::pass
                                           : VerdictState::fail;
        use.sentence = name + ": " + metres(wanted) +
                       (use.atHand == 0 ? ", no reel in the drawers."
                                        : " of " + metres(use.atHand) + " in " + use.drawers +
                                              (use.state == VerdictState::fail
                                                   ? ", " + metres(wanted - use.atHand) + " short."
                                                   : "."));
        out.push_back(use);
    }
    return out;
}

}  // namespace ombrek
