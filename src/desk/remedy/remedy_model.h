#pragma once

#include <string>
#include <vector>

#include "book/book.h"
#include "judged/judged.h"
#include "judged/remedy.h"

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
    Verdict verdict;                    ///< of the chosen offer: its own limits against the wanted ones
    std::vector<std::string> promised;  ///< lines of this trouble kept back in a drawer and not taken out yet
};

/// What of the drawers is kept back for every line of a trouble: for its first the chosen offer, for each
/// other the best that is still free and right. A line for which nothing is left is not in it.
std::vector<Book::Kept> keptFor(const BagTrouble& trouble, const Judged& judged,
                                const std::vector<StockLine>& stock, std::vector<Promise> promises,
                                std::size_t offer);

/// @param at      trouble @param offer  line of the offers
RemedyView remedyView(const Judged& judged, const std::vector<StockLine>& stock,
                      const std::vector<Promise>& promises, std::size_t at, std::size_t offer);

}  // namespace ombrek
