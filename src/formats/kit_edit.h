#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <vector>

#include "kit/kit.h"
#include "station/rebuild.h"

namespace ombrek {

/// Steps as a kit file has them.
nlohmann::ordered_json stepsJson(const std::vector<Step>& steps);

/// A kit's text with its filters as they are for another band (station/rebuild.h): values, cores, turns,
/// bands.
std::string withBand(const std::string& kitText, const Rebuilt& rebuilt);

/// A kit's text with checks, a coil, an adjustment or steps that its builder entered; one of the same id or
/// designator is replaced. What comes out is to be read by readKit before it is kept: it names what does not
/// fit.
std::string withChecks(const std::string& kitText, const std::vector<Check>& checks);
std::string withCoil(const std::string& kitText, const Coil& coil);
/// The same with a builder's word on the strays across a tuned coil [F]; a coil that is not tuned stays.
std::string withStray(const std::string& kitText, const std::string& coil, double stray);
std::string withAdjustment(const std::string& kitText, const Adjustment& adjustment);
std::string withRatings(const std::string& kitText, const Ratings& ratings);
/// A kit's text with its low-pass, from the finals to the antenna.
std::string withLowPass(const std::string& kitText, const std::vector<FilterElement>& elements);
/// A kit's text with a SPICE netlist as its circuit, line by line.
std::string withCircuit(const std::string& kitText, const std::string& netlist);
/// All steps of the kit anew; look-aheads to steps that are no more are left out.
std::string withSteps(const std::string& kitText, const std::vector<Step>& steps);

/// A kit's text with what the paper has wrong of a part, coil, step, check or adjustment; an empty text takes
/// it out.
std::string withErratum(const std::string& kitText, const Subject& at, const std::string& erratum);

}  // namespace ombrek
