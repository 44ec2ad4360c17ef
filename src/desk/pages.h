#pragma once

#include <vector>

#include "desk/page.h"

namespace ombrek {

/// One page of the window. A new page is its folder and one row in pages.cpp.
struct PageRow {
    const char* id;      ///< pages, pictures and tests name it by this
    const char* opener;  ///< key that opens it from anywhere; empty: another page opens it
    enum class Where {
        station,
        beside,
        start
    } where;            ///< stations are on the wire, in the order of the rows
    const char* from;   ///< the station a page beside is opened from; empty: any
    const char* guide;  ///< the page of the guide that explains it, without ".md"
    Page* (*make)(Session&);
};

/// Every page; the stations first, in the order of the wire.
const std::vector<PageRow>& pageRows();

/// The guide's file for a page of the window: "winding.md".
QString guideOf(const QString& page);

}  // namespace ombrek
