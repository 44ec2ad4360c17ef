#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/proof/harmonics.h"
#include "kit/symptom.h"

namespace ombrek {

/// What one of the three regions of the ITU allocates to amateurs; national rules differ.
struct Allocation {
    std::string band;  ///< "40m"
    int region = 1;    ///< 1: Europe, Africa, northern Asia; 2: the Americas; 3: the rest of Asia, Oceania
    double low = 0, high = 0;  ///< [Hz]
    std::string note;
};

/// A piece of coast, as pairs of longitude and latitude [°].
using Coastline = std::vector<std::pair<double, double>>;

/// The tables that ship with the application.
struct Tables {
    std::vector<Allocation> allocations;
    std::vector<Coastline> coast;  ///< empty: it was not found, and maps are drawn without
    std::vector<MagneticCore> cores;
    std::vector<LimitProfile> profiles;
    std::vector<Symptom> symptoms;

    /// By its designation as it is written there; null when it is not known.
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

/// Allocations from CSV text. The ones that ship are Radio Regulations article 5, from memory.
Result<std::vector<Allocation>> readAllocations(const std::string& csv);

/// Coastlines from CSV text: line, longitude, latitude; rows of one line stand together. What is no number is
/// left out.
std::vector<Coastline> readCoast(const std::string& csv);

/// All tables from a data folder.
Result<Tables> readTables(const std::filesystem::path& folder);

}  // namespace ombrek
