#pragma once

#include <QString>

#include "judged/judged.h"

namespace ombrek {

/// A count in words, for a voice: 10 is "ten", 120 "one hundred and twenty". Below a thousand; else digits.
QString spokenNumber(int number);

/// How a subject stands, for a voice: "R4, pass". Empty for what has no verdict of its own.
QString spokenVerdict(const Judged& judged, const Subject& subject);

}  // namespace ombrek
