#pragma once

#include "lists/list_line.h"

namespace ombrek {

/// "5-30 pF", "5 to 30pF": a trimmer's range, into low, high and unit of the line.
void readRange(std::string_view text, ListLine& out);

/// What is doubtful about a line's value, said in its doubts: several values, none with a unit, no preferred
/// value, an unusual size; a mark that says otherwise; a range beside a fixed part.
/// @param text   as it stands in the list
/// @param count  values found
/// @param bare   no unit and no prefix stood with it
void doubtValue(ListLine& out, const std::string& text, std::size_t count, bool bare);
void doubtMark(ListLine& out);
void doubtRange(std::string_view text, ListLine& out);

}  // namespace ombrek
