#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <string>
#include <vector>

#include "formats/adif.h"
#include "kit/contact.h"

namespace ombrek {

/// A contact of a record. @param now  seconds since 1970, UTC: none lies behind it
/// @return a Problem without a callsign or a date, or where they cannot be
Result<Contact> contactOf(const AdifRecord& record, std::int64_t now);

/// A record of a contact; what else came with it once goes out again as it came.
/// @param rig  the name of the rig it was made with; may be empty
AdifRecord recordOf(const Contact& contact, const std::string& rig, const std::string& ownCall = "",
                    const std::string& ownLocator = "");

/// Why this is no callsign, as a sentence; empty: it is one. Source: ITU Radio Regulations, article 19, with
/// parts before and behind a stroke.
std::string callTrouble(const std::string& call);

/// Why a contact cannot have been then, as a sentence; empty: it can.
std::string timeTrouble(std::int64_t at, std::int64_t now);

/// A band and a frequency that do not go together, as a sentence; empty: they do, or one is not said.
std::string contactDoubt(const Contact& contact);

/// The same station, band and mode in the same minute.
std::string sameContactKey(const Contact& contact);

inline constexpr std::uintmax_t kLargestLog = 400000000;  ///< [bytes]

/// A log as it goes to a file: .adx when the file is called so, else .adi. @param rigs  names by build
std::string writeLog(const std::vector<Contact>& contacts, const std::map<std::int64_t, std::string>& rigs,
                     const std::string& ownCall, const std::string& ownLocator, std::int64_t now,
                     const std::string& file);

/// What a log gave: contacts that are new, and what else was in it.
struct LogTaken {
    std::vector<Contact> contacts;
    std::size_t read = 0, duplicates = 0;
    std::vector<RefusedLine> refused, doubts;
};

/// The contacts of an ADIF log that are not there yet.
/// @param there  of the log that it is taken into @param rigs  the rig (a build's id) of a name; 0: none
Result<LogTaken> takeAdif(const std::string& bytes, const std::vector<Contact>& there,
                          const std::function<std::int64_t(const std::string& rig)>& rigs, std::int64_t now,
                          const Progress& progress = {});

}  // namespace ombrek
