#include "cli/held.h"

#include <filesystem>

#include "formats/files.h"
#include "formats/kit_json.h"

namespace ombrek {

Result<Held> heldIn(const std::string& path) {
    if (!std::filesystem::exists(path)) return tl::make_unexpected(Problem{path, "There is no such book."});
    auto tables = readTables(dataFolder());
    if (!tables) return tl::make_unexpected(tables.error());
    auto book = Book::open(path);
    if (!book) return tl::make_unexpected(book.error());
    auto build = (*book)->build();
    if (!build) return tl::make_unexpected(Problem{path, "No kit has been begun in this book."});
    auto kit = readKit(build->kitText, tables->cores);
    if (!kit) return tl::make_unexpected(kit.error());
    return Held{std::move(*tables), std::move(*book), std::move(*build), std::move(*kit)};
}

}  // namespace ombrek
