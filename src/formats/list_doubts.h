#pragma once

#include "formats/list_line.h"
#include "formats/list_words.h"

namespace ombrek {

/// "5-30 pF", "5 to 30pF": a trimmer's range, into low, high and unit of the line.
void readRange(std::string_view text, ListLine& out);

/// What is doubtful about a line's value, said in its doubts: several values, none with a unit, no preferred
/// value, an unusual size; a mark that says otherwise; a range beside a fixed part.
void doubtValue(ListLine& out, const ValueWords& value);
void doubtMark(ListLine& out);
void doubtRange(std::string_view text, ListLine& out);

}  // namespace ombrek
