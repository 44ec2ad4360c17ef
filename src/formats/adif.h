#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/quantity/problem.h"
#include "formats/table_csv.h"

namespace ombrek {

/// One record of an ADIF log: its fields in their order, names in capitals, values in UTF-8.
struct AdifRecord {
    std::vector<std::pair<std::string, std::string>> fields;
    std::size_t line = 0;  ///< where it begins, from 1

    /// The value of a field; empty when it has none.
    std::string value(std::string_view name) const;
    void add(std::string name, std::string value);
};

/// A log as it was read, with what was odd about it.
struct AdifFile {
    std::vector<AdifRecord> records;
    std::vector<RefusedLine> doubts;  ///< lengths that were wrong, an end that is missing
};

/// An ADIF log, .adi or .adx (told by what it holds), of any dialect: header or none, names in any case, type
/// letters, comments between, lengths counted in bytes or characters or plainly wrong, UTF-8, UTF-16 or
/// Latin-1, a last record without its end. Source: ADIF 3.1 specification.
/// @return a Problem when nothing in it is ADIF, or `progress` says stop
Result<AdifFile> readAdif(const std::string& bytes, const Progress& progress = {});

/// As .adi. The format is ASCII there: other letters are written as their nearest, with the whole value
/// beside it in a field of our own. @param now  seconds since 1970
std::string writeAdi(const std::vector<AdifRecord>& records, std::int64_t now);
/// As .adx (XML, UTF-8, by pugixml).
std::string writeAdx(const std::vector<AdifRecord>& records, std::int64_t now);

/// "20261127" and "183000" of a time [s since 1970, UTC].
std::string adifDate(std::int64_t at);
std::string adifTime(std::int64_t at);

}  // namespace ombrek
