#pragma once

#include <string>
#include <string_view>

namespace ombrek {

/// What a file or a text that somebody gives is, by its content; the name only helps where that is silent.
enum class GivenKind {
    unknown,
    book,
    kit,
    upgrade,
    picture,
    touchstone,   ///< network parameters, .s1p, .s2p
    log,          ///< a station's log, ADIF
    placement,    ///< where parts sit
    packingList,  ///< what a supplier shipped
    stock,        ///< a drawers table
    partsList,
    voltages,  ///< a manual's table of checks
    steps,     ///< a manual's instructions
    coils,
    archive,  ///< a ZIP, a spreadsheet file
    pdf
};

/// How much of a file is looked at [bytes].
inline constexpr std::size_t kGivenHead = 200000;

/// @param head  the first kGivenHead bytes, or all
/// @param name  of the file, may be empty
GivenKind givenKind(const std::string& head, std::string_view name);

/// "a parts list"
std::string_view word(GivenKind kind);

}  // namespace ombrek
