#include "formats/core_clues.h"

#include <algorithm>
#include <cctype>
#include <sstream>

#include "kit/instrument.h"

namespace ombrek {

Result<CoreClues> readCoreClues(std::string_view text) {
    CoreClues out;
    std::istringstream words{std::string(text)};
    std::vector<double> sizes;
    for (std::string word; words >> word;) {
        const bool number = std::isdigit(static_cast<unsigned char>(word[0])) || word[0] == '.';
        const bool plain = word.find_first_not_of("0123456789.,") == std::string::npos;
        if (!number) {
            out.paint += (out.paint.empty() ? "" : "/") + word;
            continue;
        }
        const auto value = parseQuantity(word, plain ? Unit::none : Unit::henry);
        if (!value || !(value->value > 0) || (!plain && value->value > 1))
            return problem("core",
                           "\"" + word.substr(0, 30) + "\" is neither a size in mm nor an inductance.");
        if (plain) {
            sizes.push_back(value->value * 1e-3);
        } else {
            out.inductance = value->value;
            out.error = usualUncertainty(Unit::henry, value->value);
        }
    }
    if (sizes.size() > 3) return problem("core", "Three sizes are enough: outside, hole and height.");
    for (std::size_t i = 0; i < sizes.size(); ++i) {
        if (sizes[i] > 0.2) return problem("core", "Sizes are in millimetres, up to 200.");
        (i == 0 ? out.outerDiameter : i == 1 ? out.innerDiameter : out.height) = sizes[i];
    }
    if (sizes.empty() && out.paint.empty() && !(out.inductance > 0))
        return problem(
            "core",
            "Type its sizes in mm, its paint and the inductance of ten turns: 12.7 7.7 4.8 yellow 0.40u.");
    return out;
}

std::vector<MagneticCore> coresInStock(const std::vector<StockLine>& stock,
                                       const std::vector<MagneticCore>& table) {
    std::vector<MagneticCore> out;
    for (const MagneticCore& core : table) {
        const bool here = std::any_of(stock.begin(), stock.end(), [&](const StockLine& line) {
            const auto at = line.what.find(core.designation);
            if (at == std::string::npos || line.count < 1) return false;
            const auto end = at + core.designation.size();
            const bool longer =
                end < line.what.size() && std::isalnum(static_cast<unsigned char>(line.what[end]));
            const bool inside = at > 0 && std::isalnum(static_cast<unsigned char>(line.what[at - 1]));
            return !longer && !inside;  // T50-2 is not T50-26, nor FT50-2
        });
        if (here) out.push_back(core);
    }
    return out;
}

}  // namespace ombrek
