#pragma once

#include <cstdint>
#include <string>
#include <vector>

namespace ombrek {

/// An appointment at the bench. Times in seconds since 1970, UTC.
struct Appointment {
    std::int64_t start = 0, end = 0;
    std::string title, text;
    std::string id;  ///< the same each time the same appointment is written
    bool yearly = false;
};

/// Appointments as an iCalendar file (RFC 5545), by libical; times in UTC.
/// @param now  seconds since 1970
std::string calendarFile(const std::vector<Appointment>& appointments, std::int64_t now);

}  // namespace ombrek
