#pragma once

#include <map>
#include <string>
#include <vector>

#include "circuit/expected_reading.h"
#include "desk/pieces/lines.h"
#include "judged/judged.h"

namespace ombrek {

/// By check id.
using ExpectedReadings = std::map<std::string, ExpectedReading>;

/// What stands before the plug goes in, each with its state: rail to ground, polarity, polarised parts,
/// joints, the limit to set on the supply.
std::vector<Fact> beforePower(const Judged& judged, const ExpectedReadings& expected);

/// The limit of current to set on the supply at first power [A]: twice the most that a sound rig draws,
/// rounded up to a step of a supply's knob; 0 when nobody says what it draws.
double currentLimit(const Judged& judged, const ExpectedReadings& expected);

/// What a sound rig of these parts reads here, and what that makes of the reading: "4.92 V is 5 V: …". Empty
/// when the circuit does not tell.
std::string expectedWords(const Check& check, const Verdict& verdict, const ExpectedReading& expected);

}  // namespace ombrek
