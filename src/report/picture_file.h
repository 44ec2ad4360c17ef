#pragma once

#include <filesystem>

#include "picture/turn_count.h"

namespace ombrek {

/// A PNG or JPEG file as a picture, its orientation mark obeyed. A file that is none, or of more than 60
/// megapixels, is refused before it is decoded. May run on any thread.
Result<Picture> readPicture(const std::filesystem::path& file);

}  // namespace ombrek
