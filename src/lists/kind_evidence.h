#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>

#include "core/parts/part_kind.h"

namespace ombrek {

/// What speaks for a part being of a kind: weights that are added up, one place a kind. About 3 is what a
/// plain designator says, 5 what nobody doubts.
struct KindEvidence {
    std::array<double, kPartKinds> weight{};
    double& operator[](PartKind kind) { return weight[static_cast<std::size_t>(kind)]; }
    double operator[](PartKind kind) const { return weight[static_cast<std::size_t>(kind)]; }
    KindEvidence& operator+=(const KindEvidence& other);
    /// The kind most speaks for.
    PartKind best() const;
    /// By how much it leads the next, and which that is.
    struct Lead {
        double by = 0;
        PartKind next = PartKind::other;
    };
    /// The kind that leads, and by how much.
    Lead lead() const;
};

/// What a designator's letters usually stand for; several kinds where usage differs ("T").
KindEvidence byLetters(std::string_view letters);
/// Whether the letters are among the usual ones.
bool usualLetters(std::string_view letters);

/// A word that says what a part is, in English, German, French, Spanish, Italian or Dutch.
KindEvidence byWord(std::string_view word);
/// Whether a word says of a part that it is adjusted: stronger than its letter.
bool adjustableWord(std::string_view word);

/// A type number as the registers and makers give them: "2N3904", "BC547B", "1N4148", "78L05". Nothing if
/// it has no such form.
std::optional<PartKind> byType(std::string_view word);

/// A package or footprint, "TO-92", "0805", "R_0805", "AXIAL"; nothing if it is none.
/// The evidence may be empty: an 0805 may be anything.
std::optional<KindEvidence> byPackage(std::string_view word);

/// "not fitted", DNP, "entfällt", …: where such words begin in a text and how long they are.
struct NotFitted {
    std::size_t begin = 0, length = 0;
};
/// The first of such words; nothing when there are none.
std::optional<NotFitted> notFittedIn(std::string_view text);

/// Lower case for ASCII and for the capitals of western European letters.
std::string lowerText(std::string_view text);

}  // namespace ombrek
