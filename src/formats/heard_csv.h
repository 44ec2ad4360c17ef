#pragma once

#include <string>
#include <vector>

#include "formats/table_csv.h"
#include "kit/contact.h"

namespace ombrek {

/// Reports of other receivers, as networks of them give them out.
struct HeardTaken {
    std::vector<Heard> reports;
    std::vector<RefusedLine> refused;
    std::size_t duplicates = 0;
};

/// CSV of any dialect with a heading: when, who heard it, where (locator), frequency, how strong; columns are
/// found by their words. Reports that are there already are left out.
/// @param now  seconds since 1970 @return a Problem when no column names a receiver or a time
Result<HeardTaken> readHeard(const std::string& bytes, const std::vector<Heard>& there, std::int64_t now,
                             const Progress& progress = {});

}  // namespace ombrek
