#pragma once

#include <string>
#include <string_view>

namespace ombrek {

/// A kind of model that the simulator may be given.
struct DeviceKind {
    std::string_view name;        ///< "npn"
    char element;                 ///< the letter of what it models
    std::string_view parameters;  ///< all that it may have, with blanks around each
    /// Whether a parameter of this name, in small letters, is one of this kind of device.
    bool knows(const std::string& parameter) const;
};

/// By its word in small letters; null when it is none of ours.
const DeviceKind* deviceKind(const std::string& word);

/// Whether a parameter of a model is a maker's note that no simulator reckons with ("mfg", "Vceo").
bool noteOfMaker(const std::string& parameter);

/// Whether a parameter of an element does nothing to a circuit at rest at 27 °C ("ic", "tc1").
bool nothingAtRest(const std::string& parameter);

}  // namespace ombrek
