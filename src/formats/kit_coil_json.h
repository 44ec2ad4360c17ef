#pragma once

#include "formats/json_fields.h"
#include "kit/kit.h"

namespace ombrek {

/// A coil of a kit file: its core from the table or its own, wire, windings with taps and holes, and what
/// tunes it. @throws JsonFault on what cannot be taken
Coil readCoil(JsonFields& fields, const std::vector<MagneticCore>& cores);

}  // namespace ombrek
