#pragma once

#include <string>
#include <vector>

namespace ombrek {

/// What may be behind a symptom, and how to tell without a voltage.
struct SymptomCause {
    std::string suspect;  ///< "contrast at its end"
    /// Words that a parts list has for it, "contrast"; "-filter": not these; "@low-pass": what the kit says
    /// its low-pass filters are made of.
    std::vector<std::string> parts;
    std::string test, tells;  ///< what to do; what it says when it is this
    double weight = 1;        ///< how usual it is against the others (common practice)
    bool ofKit = false;       ///< the kit's own words
};

/// Something that is seen, heard or smelt and is no voltage.
struct Symptom {
    std::string id, title;
    std::vector<std::string> needs;  ///< words of the parts without which it is nothing to this kit
    std::vector<SymptomCause> causes;
};

}  // namespace ombrek
