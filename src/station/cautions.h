#pragma once

#include <string>

namespace ombrek {

/// The usual cautions for what a step does, by its words, whoever wrote it: hot iron, cut leads, blades,
/// chemicals, drills, screws, power. One sentence each, the worst first; empty where nothing of it hurts.
/// They defer to local rules.
std::string cautionsOf(const std::string& text);

}  // namespace ombrek
