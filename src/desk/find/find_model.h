#pragma once

#include <QString>
#include <vector>

#include "kit/kit.h"

namespace ombrek {

/// Something that can be found: of the kit or of the program.
struct Findable {
    QString kind;                     ///< "part", "coil", "check", "page", "act" …
    QString title;                    ///< "C5, 100 nF"
    QString detail;                   ///< "decouples IC3"
    QString words;                    ///< more words it is found by, not shown
    QString page, about;              ///< where it is: page id and what its `begin` takes
    QString act;                      ///< id of an act of that page, or of the window when page is empty
    std::vector<std::string> refs{};  ///< parts that the board's map rings
};

/// Everything of a kit.
std::vector<Findable> findablesOf(const Kit& kit);

/// Those in which every typed word stands, the best first: a title that begins with what was typed, then
/// words that begin with it, then the rest; the order of `all` among equals. Case and accents do not matter,
/// "u" is µ, and "100nf" finds "100 nF". Nothing typed: all.
std::vector<std::size_t> narrowed(const std::vector<Findable>& all, const QString& typed);

}  // namespace ombrek
