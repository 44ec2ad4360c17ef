#pragma once

#include <string>
#include <vector>

#include "core/circuit/ladder.h"
#include "core/quantity/problem.h"

namespace ombrek {

/// What a network analyser writes of one port or of two.
struct Touchstone {
    bool twoPort = false;
    double ohms = 50;                 ///< of its ports
    std::vector<double> frequencies;  ///< [Hz], rising
    std::vector<Scattering> points;   ///< of one port: s11 alone
    std::size_t skipped = 0;          ///< lines that are no point: noise data
};

/// Read version 1.0 or 1.1 (.s1p, .s2p): hertz to gigahertz, RI, MA or DB, comments, wrapped lines, any order
/// of the option line's words and none of them (GHZ S MA R 50), S alone. Without an extension that tells,
/// one or two ports are told by the numbers of a line.
/// @param name  of the file, for its extension; may be empty
/// Source: Touchstone File Format Specification 1.1 (from memory)
Result<Touchstone> readTouchstone(const std::string& bytes, const std::string& name = "");

/// Version 1.1 with hertz and real and imaginary parts.
std::string writeTouchstone(const Touchstone& data, const std::string& remark = "");

}  // namespace ombrek
