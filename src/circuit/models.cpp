#include "circuit/models.h"

#include "core/quantity/quantity.h"
#include "formats/files.h"
#include "formats/table_csv.h"

namespace ombrek {
namespace {
constexpr std::uintmax_t kLargest = 1000000;
}

std::string shippedModels() {
    return readFile(dataFolder() / "models" / "models.lib", kLargest).value_or("");
}

FaultPriors shippedPriors() {
    FaultPriors out;
    const auto text = readFile(dataFolder() / "models" / "faults.csv", kLargest);
    if (!text) return out;
    const auto table = readTable(*text);
    if (!table) return out;
    for (const CsvRow& row : table->rows) {
        if (row.size() != 3) continue;
        const auto weight = parseQuantity(row[2]);
        if (weight && weight->value > 0) out[row[0].empty() ? row[1] : row[0] + " " + row[1]] = weight->value;
    }
    return out;
}

}  // namespace ombrek
