#pragma once

#include <cstdlib>

namespace ombrek {

/// Whether everything is to be tried: ./check --long.
inline bool longRun() { return std::getenv("OMBREK_LONG") != nullptr; }

/// How many draws a simulation makes: all of them under ./check --long, fewer in every check.
inline int draws(int all, int fewer) { return longRun() ? all : fewer; }

}  // namespace ombrek
