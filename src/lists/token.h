#pragma once

#include <array>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "lists/amount.h"

namespace ombrek {

/// One word of a row, without the commas and brackets around it. "100NF/50V" gives two, the second glued.
struct Token {
    std::string text;        ///< signs folded (amount.h)
    std::string own;         ///< as it stands
    bool bracketed = false;  ///< stands in ( ) or [ ]
    bool glued = false;      ///< was joined to the word before by / _ ( , or -
    char joint = 0;          ///< by which of them
    bool taken = false;      ///< understood
};

/// The words of a row. A word that begins with a digit is parted where a rating is joined to a value
/// ("10k/1%", "100n_50V", "47u(25V)"); a fraction ("1/4W"), a range ("5-30p") and a decimal comma are not.
std::vector<Token> tokensOf(std::string_view text);

/// The words that nothing has taken, as they stand.
std::string untaken(const std::vector<Token>& tokens);

/// A piece of a line between gaps of two blanks or more, by its place.
struct Piece {
    std::size_t begin = 0, end = 0;
};
/// A line in pieces that stand apart by wide blanks or tabs, with their places.
std::vector<Piece> piecesOf(std::string_view line);

/// Where a phrase stands as words of a text in lower case, not inside another word; npos: nowhere.
std::size_t findWord(std::string_view low, std::string_view phrase);

/// Phrases of which one is looked for in many texts, by findWord's rule, in one pass over the text.
class PhraseSet {
 public:
    PhraseSet() = default;
    explicit PhraseSet(const std::vector<std::string>& phrases) {
        for (const std::string& phrase : phrases) add(phrase);
    }
    /// One phrase more, in small letters.
    void add(const std::string& phrase);
    /// Where the first of them stands in a text in small letters; npos: nowhere.
    std::size_t first(std::string_view low) const;
    bool in(std::string_view low) const { return first(low) != std::string_view::npos; }
    /// Whether this very text is one of them.
    bool holds(std::string_view word) const;
    /// Everywhere that one stands, by its number in the order of adding and its place; sorted.
    std::vector<std::pair<std::size_t, std::size_t>> places(std::string_view low) const;

 private:
    struct Phrase {
        std::string text;
        std::size_t number;
    };
    std::array<std::vector<Phrase>, 256> byFirst_;
    std::size_t added_ = 0;
};

/// A text in which a line of more than 20,000 letters, which no paper has, is cut to its beginning and says
/// so: what reads lines may take time that grows with the square of one.
std::string withoutLongLines(std::string text);

/// A text as an id: small letters and digits, anything else a dash, at most 40; `otherwise` where nothing is
/// left.
std::string plainId(std::string_view text, std::string_view otherwise);

/// Only digits, one to `most` of them.
bool wholeNumber(std::string_view text, std::size_t most = 5);

}  // namespace ombrek
