#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/proof/readiness.h"
#include "core/quantity/problem.h"
#include "kit/build.h"

namespace ombrek {

class Judged;

/// What a licence allows on one band, in the builder's own words. Ombrek knows no licence: it holds the rig
/// against what is written here.
struct BandLimit {
    std::string band;          ///< "40m"
    double low = 0, high = 0;  ///< [Hz]
    double watts = 0;          ///< at most; 0: not said
    std::string modes;         ///< "CW SSB"; empty: not said
    bool operator==(const BandLimit&) const = default;
};

/// "40m 7.0-7.2 MHz 100 W CW SSB": the name, the edges with or without a unit (MHz is meant), a power, modes.
Result<BandLimit> readBandLimit(std::string_view text);
std::string bandLimitText(const BandLimit& limit);

/// All of them, as they are kept: one a line. A line that is none is left out.
std::vector<BandLimit> bandLimits(const std::string& kept);
std::string keptLimits(const std::vector<BandLimit>& limits);

/// How wide a signal is by its mode [Hz] (common practice): CW 500, SSB 3000, digital 3000, AM 6000, FM
/// 16000.
double bandwidthOf(const std::string& mode);
inline constexpr const char* kModes[] = {"CW", "SSB", "DIGITAL", "AM", "FM"};

/// One of the rig's bands against the builder's limits.
struct LicenceLine {
    std::string band;                ///< of the kit; empty: its only one
    std::optional<BandLimit> limit;  ///< of the frequency it works on
    double frequency = 0;            ///< as measured, else as rated [Hz]
    double error = 0;                ///< the worst it may be off by [Hz]
    double lowest = 0, highest = 0;  ///< what may be dialled with all errors inside the edges [Hz]
    Verdict verdict;
};
/// What the licence says of each band of the rig.
std::vector<LicenceLine> licenceLines(const Judged& judged);

/// The same as evidence of the licence gate; nothing where the builder said no limits.
std::vector<Evidence> licenceEvidence(const Judged& judged);

/// What the rig sends, Choice::mode; CW until another is said.
std::string rigMode(const Build& build);

}  // namespace ombrek
