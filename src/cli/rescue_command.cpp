#include "book/book.h"
#include "cli/commands.h"
#include "cli/print.h"

namespace ombrek {

int rescueCommand(const std::string& book, const std::string& copy, bool json) {
    const auto rows = Book::rescue(book, copy);
    if (!rows) return refuse(rows.error(), json);
    if (json) {
        printJson({{"rows", *rows}, {"copy", copy}});
    } else {
        std::printf("%zu rows could be read; they are in %s.\n", *rows, copy.c_str());
    }
    return 0;
}

}  // namespace ombrek
