#include "cli/commands.h"
#include "cli/print.h"
#include "formats/files.h"
#include "formats/kit_json.h"
#include "practice/practice_kit.h"

namespace ombrek {

int kitCheckCommand(const std::string& file, bool json) {
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), json);
    const auto read = readKitFile(file, tables->cores);
    if (!read) return refuse(read.error(), json);
    const Kit& kit = read->kit;
    if (json) {
        printJson({{"kit", kit.name},
                   {"parts", kit.parts.size()},
                   {"coils", kit.coils.size()},
                   {"steps", kit.steps.size()},
                   {"checks", kit.checks.size()},
                   {"adjustments", kit.adjustments.size()}});
    } else {
        std::printf("%s: %zu parts, %zu coils, %zu steps, %zu checks, %zu adjustments; no fault found.\n",
                    kit.name.c_str(), kit.parts.size(), kit.coils.size(), kit.steps.size(), kit.checks.size(),
                    kit.adjustments.size());
    }
    return 0;
}

int practiceCommand(const std::string& book, bool finished) {
    if (std::filesystem::exists(book))
        return refuse({book, "There is a file of this name already; it was left as it is."}, false);
    const auto tables = readTables(dataFolder());
    if (!tables) return refuse(tables.error(), false);
    const auto practice = readPracticeKit(dataFolder(), *tables);
    if (!practice) return refuse(practice.error(), false);
    const auto written =
        writePracticeBook(book, *practice, finished ? PracticeStage::finished : PracticeStage::partWay);
    return written ? 0 : refuse(written.error(), false);
}

}  // namespace ombrek
