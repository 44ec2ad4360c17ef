#pragma once

#include <optional>

#include "judged/judged.h"

namespace ombrek {

/// Something that is to be seen before the plug goes in, on the builder's word.
struct PlugItem {
    std::string gate;  ///< under which the word is kept
    std::string name;  ///< "ICs"
    std::string now, why;
    bool seen = false;
};

/// What this kit asks for before its first power, in order: polarised parts that nobody has held against the
/// print, chips out of their sockets, jumpers, film and washers, the plug.
std::vector<PlugItem> beforePlug(const Judged& judged);

/// Whether power is on while this is read.
bool powered(const Check& check);

/// Whether anything was read with power on.
bool powerWasOn(const Judged& judged);

/// What is still to be seen before this check; nothing once a check under power has been read: power was on.
std::optional<PlugItem> askBeforePlug(const Judged& judged, const Check& check);

}  // namespace ombrek
