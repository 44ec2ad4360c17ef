#include "formats/tables.h"

#include <charconv>

#include <algorithm>
#include <map>
#include <sstream>

#include "core/quantity/quantity.h"
#include "core/text/letters.h"
#include "formats/csv.h"
#include "formats/files.h"
#include "formats/json_fields.h"

namespace ombrek {
namespace {

struct TableFault {
    Problem problem;
};

/// One data row of a table with a header, cells by column name.
class NamedRow {
 public:
    NamedRow(const std::map<std::string, std::size_t>& columns, const CsvRow& row, std::size_t line)
        : columns_(columns), row_(row), line_(line) {}

    std::string text(const std::string& column) const {
        const auto hit = columns_.find(column);
        if (hit == columns_.end() || hit->second >= row_.size()) fault(column, "This column is missing.");
        return row_[hit->second];
    }
    double number(const std::string& column, double scale = 1.0) const {
        const auto value = parseQuantity(text(column));
        if (!value || value->value < 0) fault(column, "A number is wanted here.");
        return value->value * scale;
    }
    /// The same where the table may be silent.
    double numberOr0(const std::string& column, double scale = 1.0) const {
        return text(column).empty() ? 0.0 : number(column, scale);
    }
    [[noreturn]] void fault(const std::string& column, const std::string& sentence) const {
        throw TableFault{{"line " + std::to_string(line_) + ", " + column, sentence}};
    }

 private:
    const std::map<std::string, std::size_t>& columns_;
    const CsvRow& row_;
    std::size_t line_;
};

MagneticCore coreFrom(const NamedRow& row) {
    MagneticCore core;
    core.designation = row.text("designation");
    core.material = row.text("family");
    core.mix = row.text("mix");
    core.outerDiameter = row.number("od_mm", 1e-3);
    core.innerDiameter = row.number("id_mm", 1e-3);
    core.height = row.number("height_mm", 1e-3);
    core.al = row.number("al_nh_per_turn2", 1e-9);
    core.alTolerancePercent = row.number("al_tolerance_pct");
    core.initialPermeability = row.number("mu_initial");
    core.tempco = row.numberOr0("tempco_ppm_per_c");
    core.qLow = row.numberOr0("q_range_low_mhz", 1e6);
    core.qHigh = row.numberOr0("q_range_high_mhz", 1e6);
    core.paint = row.text("paint");
    if (core.al <= 0) row.fault("al_nh_per_turn2", "AL must be positive.");
    if (core.innerDiameter >= core.outerDiameter) row.fault("id_mm", "The hole is larger than the ring.");
    return core;
}

std::vector<std::string> wordsOf(const std::string& cell) {
    std::vector<std::string> out;
    std::istringstream in(cell);
    for (std::string word; std::getline(in, word, '|');) {
        if (!trimmed(word).empty()) out.push_back(lowered(trimmed(word)));
    }
    return out;
}

/// A symptom with the one cause of its row.
Symptom causeFrom(const NamedRow& row) {
    for (const char* column : {"symptom", "title", "suspect", "test"}) {
        if (trimmed(row.text(column)).empty()) row.fault(column, "This may not be empty.");
    }
    const double weight = row.number("weight");
    if (!(weight > 0 && weight <= 1000)) row.fault("weight", "A weight lies above 0, up to 1000.");
    return {row.text("symptom"),
            row.text("title"),
            wordsOf(row.text("needs")),
            {{row.text("suspect"), wordsOf(row.text("parts")), row.text("test"), row.text("tells"), weight,
              false}}};
}

MagneticCore twoHoleFrom(const NamedRow& row) {
    MagneticCore core;
    core.shape = MagneticCore::Shape::twoHole;
    core.designation = row.text("designation");
    core.material = "ferrite";
    core.mix = row.text("mix");
    core.outerDiameter = row.number("width_mm", 1e-3);
    core.height = row.number("length_mm", 1e-3);
    core.turnLength = row.number("turn_mm", 1e-3);
    core.al = row.number("al_nh_per_turn2", 1e-9);
    core.alTolerancePercent = row.number("al_tolerance_pct");
    if (core.al <= 0) row.fault("al_nh_per_turn2", "AL must be positive.");
    if (core.turnLength <= 0) row.fault("turn_mm", "A turn has a length.");
    return core;
}

}  // namespace

const MagneticCore* Tables::core(const std::string& designation) const {
    const auto hit =
        std::find_if(cores.begin(), cores.end(), [&](const auto& c) { return c.designation == designation; });
    return hit == cores.end() ? nullptr : &*hit;
}

const LimitProfile& Tables::profile(const std::string& id) const {
    const auto hit =
        std::find_if(profiles.begin(), profiles.end(), [&](const auto& p) { return p.id == id; });
    return hit == profiles.end() ? profiles.front() : *hit;
}

namespace {

template <class Row>
Result<std::vector<Row>> readRowsBy(const std::string& csv, Row (*ofRow)(const NamedRow&)) {
    const auto rows = readCsv(csv);
    if (!rows) return tl::make_unexpected(rows.error());
    if (rows->empty()) return problem("line 1", "The table is empty.");
    std::map<std::string, std::size_t> columns;
    for (std::size_t i = 0; i < rows->front().size(); ++i) columns.emplace(rows->front()[i], i);
    std::vector<Row> out;
    try {
        for (std::size_t i = 1; i < rows->size(); ++i) {
            if (!(*rows)[i].empty()) out.push_back(ofRow(NamedRow(columns, (*rows)[i], i + 1)));
        }
    } catch (const TableFault& fault) {
        return tl::make_unexpected(fault.problem);
    }
    return out;
}

}  // namespace

Result<std::vector<MagneticCore>> readCores(const std::string& csv) { return readRowsBy(csv, coreFrom); }

Result<std::vector<MagneticCore>> readTwoHoleCores(const std::string& csv) {
    return readRowsBy(csv, twoHoleFrom);
}

Result<std::vector<Symptom>> readSymptoms(const std::string& csv) {
    const auto causes = readRowsBy(csv, causeFrom);
    if (!causes) return tl::make_unexpected(causes.error());
    std::vector<Symptom> out;
    for (const Symptom& one : *causes) {
        if (out.empty() || out.back().id != one.id) out.push_back({one.id, one.title, one.needs, {}});
        out.back().causes.push_back(one.causes.front());
    }
    return out;
}

Result<std::vector<LimitProfile>> readProfiles(const std::string& json) {
    try {
        const auto document = parseJson(json);
        JsonFields top(document, "");
        std::vector<LimitProfile> out;
        for (JsonFields& row : top.objects("profiles")) {
            LimitProfile p;
            p.id = row.text("id");
            p.name = row.text("name");
            p.base = row.number("base_db", 0, 200);
            p.perDecade = row.number("per_decade_db", 0, 50, 0);
            p.cap = row.number("at_most_db", 0, 200, 200);
            p.source = row.text("source");
            p.from = row.quantity("from", Unit::hertz, 0, 1e12, 0);
            p.to = row.quantity("to", Unit::hertz, p.from, 1e12, 30e6);
            if (row.has("small_w")) {
                p.smallWatts = row.quantity("small_w", Unit::watt, 1e-6, 1e6);
                p.smallBase = row.number("small_base_db", 0, 200);
                p.smallMost = row.quantity("small_most_w", Unit::watt, 1e-12, 1);
                p.smallLeast = row.quantity("small_least_w", Unit::watt, 1e-15, p.smallMost);
            }
            row.finish();
            out.push_back(std::move(p));
        }
        top.finish();
        if (out.empty()) return problem("/profiles", "At least one profile is needed.");
        return out;
    } catch (const JsonFault& fault) {
        return tl::make_unexpected(fault.problem);
    }
}

Result<std::vector<Allocation>> readAllocations(const std::string& csv) {
    const auto rows = readCsv(csv);
    if (!rows) return tl::make_unexpected(rows.error());
    std::vector<Allocation> out;
    for (std::size_t i = 1; i < rows->size(); ++i) {
        const CsvRow& row = (*rows)[i];
        const auto fault = [&](const char* what) { return problem("line " + std::to_string(i + 1), what); };
        if (row.size() < 5) return fault("A row has band, region, low, high and note.");
        Allocation a{row[0], 0, 0, 0, row[4]};
        std::from_chars(row[1].data(), row[1].data() + row[1].size(), a.region);
        const auto low = parseQuantity(row[2], Unit::hertz), high = parseQuantity(row[3], Unit::hertz);
        if (a.region < 1 || a.region > 3) return fault("The region is 1, 2 or 3.");
        if (!low || !high || !(high->value > low->value))
            return fault("Its edges are no rising frequencies.");
        a.low = low->value;
        a.high = high->value;
        out.push_back(std::move(a));
    }
    return out;
}

std::vector<Coastline> readCoast(const std::string& csv) {
    std::vector<Coastline> out;
    std::string line;
    const auto rows = readCsv(csv);
    if (!rows) return out;
    for (const CsvRow& row : *rows) {
        if (row.size() < 3) continue;
        double longitude = 0, latitude = 0;
        const auto number = [](const std::string& text, double& value) {
            return std::from_chars(text.data(), text.data() + text.size(), value).ec == std::errc{};
        };
        if (!number(row[1], longitude) || !number(row[2], latitude)) continue;
        if (out.empty() || row[0] != line) out.emplace_back();
        line = row[0];
        out.back().emplace_back(longitude, latitude);
    }
    return out;
}

Result<Tables> readTables(const std::filesystem::path& folder) {
    Tables out;
    const auto take = [&](const char* name, auto read) -> Result<void> {
        const auto csv = readFile(folder / name, 1000000);
        if (!csv) return tl::make_unexpected(csv.error());
        auto cores = read(*csv);
        if (!cores) return problem(std::string(name) + ", " + cores.error().place, cores.error().sentence);
        out.cores.insert(out.cores.end(), cores->begin(), cores->end());
        return {};
    };
    if (const auto done = take("cores.csv", readCores); !done) return tl::make_unexpected(done.error());
    if (const auto done = take("two_hole_cores.csv", readTwoHoleCores); !done)
        return tl::make_unexpected(done.error());
    const auto symptoms = readFile(folder / "symptoms.csv", 1000000);
    if (!symptoms) return tl::make_unexpected(symptoms.error());
    auto causes = readSymptoms(*symptoms);
    if (!causes) return problem("symptoms.csv, " + causes.error().place, causes.error().sentence);
    out.symptoms = std::move(*causes);
    const auto json = readFile(folder / "limits.json", 1000000);
    if (!json) return tl::make_unexpected(json.error());
    auto profiles = readProfiles(*json);
    if (!profiles) return problem("limits.json, " + profiles.error().place, profiles.error().sentence);
    out.profiles = std::move(*profiles);
    const auto bands = readFile(folder / "bands.csv", 1000000);
    if (!bands) return tl::make_unexpected(bands.error());
    auto allocations = readAllocations(*bands);
    if (!allocations) return problem("bands.csv, " + allocations.error().place, allocations.error().sentence);
    out.allocations = std::move(*allocations);
    if (const auto coast = readFile(folder / "coast.csv", 10000000)) out.coast = readCoast(*coast);
    return out;
}

}  // namespace ombrek
