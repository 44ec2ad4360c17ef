#pragma once

#include <filesystem>
#include <vector>

#include "core/quantity/problem.h"

namespace ombrek {

/// A recording, its channels mixed to one.
struct Recording {
    std::vector<float> samples;
    double rate = 0;  ///< a second
};

/// Read a sound file (WAV, FLAC and what else libsndfile reads), three million samples of it at most. May run
/// on any thread.
Result<Recording> readRecording(const std::filesystem::path& path);

}  // namespace ombrek
