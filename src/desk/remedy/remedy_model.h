#pragma once

#include <string>
#include <vector>

#include "station/judged.h"
#include "station/remedy.h"

namespace ombrek {

/// What the page "What to do about it" shows of one trouble.
struct RemedyView {
    std::vector<BagTrouble> troubles;
    std::vector<std::string> decided;  ///< of each trouble; empty where nothing is
    std::size_t at = 0;                ///< the trouble in hand
    const Part* part = nullptr;        ///< its line; null for a part over
    std::string now, why;
    std::vector<std::pair<std::string, std::string>> ways;  ///< what else can be done, and what it is for
    std::vector<LookPlace> places;                          ///< where to look again
    std::vector<Substitute> offers;                         ///< from the drawers, best first
    std::vector<std::string> offerTexts;
    std::string head, beside;
    Verdict verdict;        ///< of the chosen offer: its own limits against the wanted ones
    bool promised = false;  ///< kept back in a drawer and not taken out yet
};

/// @param at      trouble @param offer  line of the offers
RemedyView remedyView(const Judged& judged, const std::vector<StockLine>& stock,
                      const std::vector<Promise>& promises, std::size_t at, std::size_t offer);

}  // namespace ombrek
