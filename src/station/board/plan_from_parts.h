#pragma once

#include <vector>

#include "kit/kit.h"

namespace ombrek {

/// A plan for a kit that comes as a parts list alone.
///
/// Like parts of one value are fitted together, up to eight in a step. Groups come in an order that common
/// practice agrees on: resistors, diodes, chokes, sockets, small capacitors, crystals, transistors, trimmers,
/// electrolytics, coils, connectors; then the joints are looked at, the voltages proved with the ICs still
/// out, the ICs set in, and display, panel and case last. Heat-shy and static-shy parts carry their caution,
/// coils wait for their winding. Every step depends only on what must be: the schools sort the rest.
std::vector<Step> planFromParts(const std::vector<Part>& parts);

struct Craft {
    std::string caution, note;
};
/// What the hand should know of the parts that a step fits, whoever wrote the step: the cautions and the
/// craft of their kinds, each once.
Craft craftOf(const Kit& kit, const std::vector<std::string>& fits);

/// The plan with a step for every part that none fits: planned from the part alone, before the look at the
/// joints.
std::vector<Step> withEveryPart(const Kit& kit);

}  // namespace ombrek
