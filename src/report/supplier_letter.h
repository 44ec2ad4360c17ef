#pragma once

#include <string>
#include <vector>

#include "judged/remedy.h"

namespace ombrek {

/// A shopping list as CSV (RFC 4180) rows with a header.
std::vector<std::vector<std::string>> shoppingRows(const std::vector<ShoppingLine>& lines);

/// The letter to the supplier: what is missing, what is wrong and how it was found, what is over. Plain text.
std::string supplierLetter(const Judged& judged);

}  // namespace ombrek
