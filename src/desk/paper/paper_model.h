#pragma once

#include <string>
#include <vector>

#include "core/coil/core.h"
#include "core/quantity/verdict.h"
#include "desk/pieces/lines.h"
#include "kit/build.h"
#include "kit/kit.h"

namespace ombrek {

/// What of the paper is being entered: the material of one station.
enum class Paper { coils, steps, checks, adjustments, promises };
inline constexpr int kPapers = 5;

/// One kind of material: its word, the station that shows it, and how it is written.
struct PaperRow {
    Paper paper;
    const char* word;     ///< "coils", by which the page is opened
    const char* station;  ///< page id
    const char* asks;     ///< the now line of an empty page
    const char* example;  ///< lines as a manual prints them
    const char* action;   ///< what History calls it
};
/// What there is to say of one kind of paper.
const PaperRow& paperRow(Paper paper);
/// The one of this word; coils for any other.
Paper paperOf(const std::string& word);

/// Lines from the paper before they are the kit's: the text is what is held, and every look at it reads it
/// anew, so that a heading that is changed holds for the rows below.
class PaperModel {
 public:
    struct Row {
        std::size_t line = 1, lines = 1;  ///< of the text, from 1; how many
        std::string source, says, doubts;
        VerdictState state = VerdictState::pass;  ///< fail: not taken; doubtful: something was assumed
    };

    /// An empty text of this kind.
    void begin(Paper paper);
    Paper paper() const { return paper_; }
    /// @param kit  what the lines are read against; a copy is not kept
    void read(std::string text, const Kit& kit, const std::vector<MagneticCore>& cores);
    const std::string& text() const { return text_; }
    /// Doubtful and refused rows first, else in the order of the paper.
    const std::vector<Row>& rows() const { return rows_; }
    int doubtful() const;
    int takable() const;  ///< rows that can be kept

    /// The text with a row said again, left out, or one more line.
    std::string withRow(std::size_t row, const std::string& text) const;
    std::string withLine(const std::string& text) const;

    /// The kit's text with everything that can be kept. @return a Problem when the kit would not hold
    /// together
    Result<std::string> into(const std::string& kitText, const Kit& kit, const Build& build,
                             const std::vector<MagneticCore>& cores) const;

    /// What the page's now line says and why.
    QString now() const;
    QString why() const;

 private:
    Paper paper_ = Paper::coils;
    std::string text_;
    std::vector<Row> rows_;
};

}  // namespace ombrek
