#include "book/rescued.h"

#include <algorithm>
#include <numeric>

namespace ombrek {

std::size_t Rescued::rows() const {
    return std::accumulate(records.begin(), records.end(), std::size_t(0),
                           [](std::size_t sum, const RescuedRecord& r) { return sum + r.saved; });
}

bool Rescued::complete() const {
    return !schemaMended &&
           std::all_of(records.begin(), records.end(), [](const RescuedRecord& r) { return r.why.empty(); });
}

std::string Rescued::sentence() const {
    std::string out = std::to_string(rows()) + " rows are in the copy.";
    for (const RescuedRecord& r : records) {
        if (r.why.empty()) continue;
        out += " Of \"" + r.name + "\" " + std::to_string(r.saved) + " are saved";
        if (!r.leftOut.empty()) out += ", " + std::to_string(r.leftOut.size()) + " left out";
        if (r.unread > 0) out += ", up to " + std::to_string(r.unread) + " lost";
        out += ": " + r.why + ".";
    }
    if (schemaMended)
        out += " What the file says of its own tables was damaged; that of a new book was taken for it.";
    if (!leftOutFile.empty()) out += " What was left out stands in " + leftOutFile + ".";
    return out;
}

}  // namespace ombrek
