#pragma once

#include <chrono>
#include <filesystem>

namespace ombrek {

/// Delete what a program of ours that was killed left in the folder for temporary files: pages on their way
/// into a PDF ("Ombrek.a1B2c3"), looks at a book ("ombrek-a1B2c3") and circuits ("ombrek-spice-a1B2c3"). Only
/// this person's own, none that is younger than `age`, and no link is followed.
/// @return how many went
int removeLeftBehind(const std::filesystem::path& folder, std::chrono::hours age = std::chrono::hours(24));

}  // namespace ombrek
