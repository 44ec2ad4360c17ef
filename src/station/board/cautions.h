#pragma once

#include <string>
#include <vector>

namespace ombrek {

/// The usual cautions for what a step does, by its words, whoever wrote it: hot iron, cut leads, blades,
/// chemicals, drills, screws, power. One sentence each, the worst first; empty where nothing of it hurts.
/// They defer to local rules.
std::string cautionsOf(const std::string& text);

/// One text and what another says beyond it, sentence by sentence.
std::string withMore(std::string text, const std::string& more);

/// What turns the nuts that words name by their thread: "nut driver 5.5 mm" of "4 nuts M3". Widths across
/// flats by ISO 4032 and ASME B18.6.3 (from memory).
std::vector<std::string> nutDrivers(const std::string& text);

}  // namespace ombrek
