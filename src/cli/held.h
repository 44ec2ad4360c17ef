#pragma once

#include <memory>
#include <string>

#include "book/book.h"
#include "formats/tables.h"
#include "kit/kit.h"

namespace ombrek {

/// A book with the build in hand in it and its kit.
struct Held {
    Tables tables;
    std::unique_ptr<Book> book;
    Build build;
    Kit kit;
};
/// @return a Problem where there is no such book, no build in it, or what cannot be read
Result<Held> heldIn(const std::string& book);

}  // namespace ombrek
