#include "book/book.h"
#include "cli/commands.h"
#include "cli/print.h"

namespace ombrek {

int rescueCommand(const std::string& book, const std::string& copy, bool json) {
    const auto rescued = Book::rescue(book, copy);
    if (!rescued) return refuse(rescued.error(), json);
    if (json) {
        auto records = nlohmann::ordered_json::array();
        for (const RescuedRecord& r : rescued->records)
            records.push_back({{"name", r.name}, {"saved", r.saved}, {"left_out", r.leftOut}, {"unread", r.unread}, {"why", r.why}});
        printJson({{"rows", rescued->rows()},
                   {"copy", copy},
                   {"complete", rescued->complete()},
                   {"records", records},
                   {"left_out_file", rescued->leftOutFile}});
    } else {
        std::printf("%s\n%s\n", copy.c_str(), rescued->sentence().c_str());
    }
    return 0;
}

}  // namespace ombrek
