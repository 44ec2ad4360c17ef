#pragma once

#include <string_view>

#include "core/quantity/problem.h"
#include "kit/contact.h"

namespace ombrek {

/// A contact as it is typed in one line, over what is known already (time, band, mode, power): the callsign,
/// then in any order reports of two or three digits (sent, then received), a time as 18:30 (UTC), a frequency
/// as 7.031 (MHz), a band as 40m, a power as 3W, a mode, a locator; other words are the name, behind a comma
/// the place, behind another the note. Example: "QX1ABC 599 579 Tom JO62qm, Kiel, first of the evening".
/// @param known  prefilled; its time is kept where none is typed @param now  seconds since 1970
/// @return a Problem for a callsign that is none, or a time that cannot be
Result<Contact> readContactLine(std::string_view text, const Contact& known, std::int64_t now);

/// The same line of a contact, to be changed.
std::string contactLine(const Contact& contact);

/// The report that is usual in a mode, "599" or "59".
std::string usualReport(const std::string& mode);

}  // namespace ombrek
