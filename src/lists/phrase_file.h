#pragma once

#include <string>
#include <vector>

namespace ombrek {

/// A row of a file of words (data/words): what it means, of which language, the phrase in small letters.
struct PhraseRow {
    std::string sense, language, text;
};

/// The rows of data/words/NAME, read once by its caller; empty when the file is not there. Blank lines and
/// lines that begin with "# " are left out.
std::vector<PhraseRow> readPhrases(const std::string& name);

/// A word of a text in small letters, with its place.
struct Word {
    std::string text;
    std::size_t begin = 0, end = 0;
};

/// Letters, digits and the hyphens between them make a word; signs of comparison, commas, semicolons, hyphens
/// and runs of points stand alone; brackets, colons and single points part words and are left out. "mustn't"
/// and "cannot" end in "not".
std::vector<Word> wordsIn(const std::string& text);

}  // namespace ombrek
