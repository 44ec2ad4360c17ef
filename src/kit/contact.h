#pragma once

#include <cmath>
#include <cstdint>
#include <string>

namespace ombrek {

/// A contact on the air, as the station's log has it. Times in UTC.
struct Contact {
    std::int64_t id = 0;
    std::int64_t build = 0;  ///< the rig of this book it was made with; 0: another, or not known
    std::int64_t at = 0;     ///< seconds since 1970, UTC
    std::string call;        ///< in capitals
    double frequency = 0;    ///< [Hz]; 0: only the band is known
    std::string band;        ///< "40m"; may be empty
    std::string mode;        ///< "CW"
    std::string sent, received;  ///< reports, "599"
    double watts = 0;            ///< of this station; 0: not said
    std::string name, place, locator, note;
    std::string own;    ///< the locator of this station then; empty: as the book says
    std::string extra;  ///< other fields of a log that was taken in, as ADIF
};

/// What another receiver reported of this station.
struct Heard {
    std::int64_t id = 0;
    std::int64_t build = 0;  ///< the rig it was; 0: not known
    std::int64_t at = 0;     ///< seconds since 1970, UTC
    std::string by;          ///< callsign of the receiver
    std::string locator;     ///< its place; may be empty
    double frequency = 0;    ///< [Hz]; 0: not said
    double snr = NAN;        ///< [dB]; NaN: not said
    std::string mode;
};

}  // namespace ombrek
