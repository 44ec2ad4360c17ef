#pragma once

#include <string>
#include <vector>

#include "kit/kit.h"

namespace ombrek {

/// One instruction of a manual.
struct PastedStep {
    std::size_t line = 0;
    std::string number;              ///< "12", "3.4"; empty: not numbered
    std::string title;               ///< its first sentence
    std::string text;                ///< all of it
    std::string stage;               ///< of the heading above
    std::vector<std::string> fits;   ///< designators that it fits
    std::vector<std::string> holds;  ///< sentences that forbid, or want a test before one goes on
    std::vector<std::string> keeps;  ///< sentences about what to lay aside for later
    std::vector<std::string> tools;
    std::vector<std::string> doubts;
    std::vector<std::string> winds;     ///< coils that it makes, whether or not it puts them in
    std::vector<std::string> excepted;  ///< designators that it says are not fitted here
    bool boxed = false;                 ///< a box to tick stands before it
};

/// Numbered or ticked instructions, or paragraphs, pasted from a manual: the parts each fits by its verbs
/// ("Solder R1-R4 and C3"; not those of "do not fit U1 yet" or "next to R5"), tools by their names, hold
/// points by "do not", "not yet", "before", "test", "until", and what is to be kept for later by "keep",
/// "save", "later", by data/words/steps.txt.
std::vector<PastedStep> readInstructions(const std::string& bytes);

/// The steps as a kit holds them, one after the other, with ids that `taken` does not have; designators that
/// the parts list does not have are left out, a part is fitted once; screws and the like are fitted where the
/// text names them.
std::vector<Step> stepsOf(const std::vector<PastedStep>& pasted, const Kit& kit);

}  // namespace ombrek
