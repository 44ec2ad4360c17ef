#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/quantity/problem.h"
#include "kit/instrument.h"

namespace ombrek {

/// A SCPI program header matched by its short or long form, in any case: "MEASure:VOLTage?" takes
/// "meas:volt?". Source: SCPI-1999, volume 1, 6.2.
bool headerMatches(std::string_view pattern, std::string_view header);

/// The query that measures a unit: "MEAS:VOLT?", … ; empty if no instrument of the bench measures it.
std::string measureQuery(Unit unit);

/// A reply as a number. SCPI's 9.9E37 is an overload, infinite; 9.91E37 (not a number), anything near them
/// that is no reading of anything, and anything that is no number are Problems. Source: SCPI-1999, volume
/// 1, 7.2.1.4 and 7.2.1.5.
Result<double> readReply(std::string_view line);

/// Words between blanks and commas of a SCPI line, quotes taken off: SIM:PROB "part:R1",0.5 → three words.
std::vector<std::string> scpiWords(std::string_view line);

}  // namespace ombrek
