#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "lists/kind_evidence.h"
#include "lists/token.h"

namespace ombrek {

/// A coil as a list says it: "T50-2 (red), 28 turns #28, 75 cm".
struct ListCoil {
    struct Winding {
        std::string name;  ///< "main", "primary", …
        int turns = 0;
        std::vector<int> taps;  ///< turns from the start
    };
    std::string ref;
    std::string core;  ///< "T50-2"; the words of a can; empty: not said
    std::string wire;  ///< "28AWG", "26SWG", "0.5mm"; empty: not said
    std::vector<Winding> windings;
    std::vector<std::string> twisted;  ///< windings wound as one bundle, by name
    double wireLength = 0;             ///< [m]; 0: not said
    std::vector<std::string> doubts;
};

/// What is taken where a coil's wire is not said, and told.
inline constexpr const char* kWireAssumed = "26AWG";

/// A core's designation in the usual form: "t50-2" and "T-50-2" are "T50-2", "BN-43-202" is "BN43-202".
/// Nothing if the word is none.
std::optional<std::string> coreOf(std::string_view word);

/// What speaks for a row being a coil to wind: a core, turns ("28T", "10T:3T").
KindEvidence coilEvidence(const std::vector<Token>& tokens);

/// The coil in the words of a row; nothing when neither a core nor turns nor a can stand in it.
std::optional<ListCoil> readCoilWords(std::string_view text);

}  // namespace ombrek
