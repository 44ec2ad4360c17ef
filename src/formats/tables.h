#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/proof/harmonics.h"
#include "kit/symptom.h"

namespace ombrek {

/// The tables that ship with the application.
struct Tables {
    std::vector<MagneticCore> cores;
    std::vector<LimitProfile> profiles;
    std::vector<Symptom> symptoms;

    const MagneticCore* core(const std::string& designation) const;
    /// The profile with this id, or the first.
    const LimitProfile& profile(const std::string& id) const;
};

/// The core table from CSV text (columns by header name). A fault names the line and the column.
Result<std::vector<MagneticCore>> readCores(const std::string& csv);

/// Two-hole ferrite cores, AL of a turn through both holes; the values that ship are from memory of common
/// tables, and good to a quarter.
Result<std::vector<MagneticCore>> readTwoHoleCores(const std::string& csv);

/// Spurious-emission profiles from JSON text.
Result<std::vector<LimitProfile>> readProfiles(const std::string& json);

/// Symptoms that are no voltage from CSV text, a cause a row; rows of one symptom stand together, several
/// words of a cell are parted by "|". A fault names the line and the column.
Result<std::vector<Symptom>> readSymptoms(const std::string& csv);

/// All tables from a data folder.
Result<Tables> readTables(const std::filesystem::path& folder);

}  // namespace ombrek
