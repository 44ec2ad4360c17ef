#pragma once

#include <filesystem>
#include <string>
#include <vector>

#include "core/coil/core.h"
#include "kit/kit.h"

namespace ombrek {

/// Read a kit from its JSON text, whole and checked: every designator, core, step and subject it names must
/// exist, steps must not go in a circle. The format is described in docs/formats/kit.md.
/// @param cores  the core table that coils refer to
/// @return the kit, or the first fault with its line or path
Result<Kit> readKit(const std::string& json, const std::vector<MagneticCore>& cores);

/// The same from a file of at most 16 MB. @return the text too, which the book keeps
struct KitFile {
    Kit kit;
    std::string text;
};
/// A kit file with its text; its first fault at its place.
Result<KitFile> readKitFile(const std::filesystem::path& path, const std::vector<MagneticCore>& cores);

/// A check's quantity as kit files have it, "voltage"; of a unit that no check has: "voltage".
std::string_view quantityWord(Unit unit);
/// The words of an adjustment: "peak", "pot", "s-meter".
std::string_view kindWord(Adjustment::Kind kind);
std::string_view turnedWord(Adjuster::Kind kind);
std::string_view scaleWord(ReadingScale::Kind kind);

}  // namespace ombrek
