#pragma once

#include <QByteArray>
#include <QString>

#include "core/quantity/problem.h"

namespace ombrek {

/// The longest side of a photograph that the book keeps [pixels].
inline constexpr int kPhotoSide = 1600;

/// A photograph (PNG or JPEG, at most 64 MB and 100 megapixels) turned upright, made small enough for the
/// book, as JPEG. May run on any thread.
/// @return the bytes, or a sentence on what is wrong with the file
Result<QByteArray> readPhoto(const QString& file);

}  // namespace ombrek
