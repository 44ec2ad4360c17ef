#include <algorithm>
#include <cmath>

#include "cli/commands.h"
#include "cli/print.h"
#include "core/adjust/joint_null.h"
#include "core/adjust/peak.h"
#include "core/frequency/crystals.h"
#include "core/frequency/reference.h"
#include "core/proof/power.h"
#include "formats/files.h"
#include "formats/number_table.h"

namespace ombrek {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::uintmax_t kLargestTable = 4000000;


Result<NumberTable> numbersOf(const std::string& file, const std::vector<NumberColumn>& columns) {
    const auto bytes = readFile(file, kLargestTable);
    if (!bytes) return tl::make_unexpected(bytes.error());
    return readNumbers(*bytes, columns);
}

/// Where the ends of an adjuster's travel are, in the units of its positions.
struct Travel {
    double low = 0, high = 1;
    double share(double position) const { return (position - low) / (high - low); }
    double position(double share) const { return low + share * (high - low); }
};

/// "0..180". Without words 0 to 1; beyond that per cent or degrees where the positions fill half of them;
/// else from the least to the most that was read.
Result<Travel> travelOf(const std::string& words, const std::vector<double>& positions) {
    if (!words.empty()) {
        const auto dots = words.find("..");
        const auto low = parseQuantity(words.substr(0, dots));
        const auto high = dots == std::string::npos ? low : parseQuantity(words.substr(dots + 2));
        if (!low || !high || !(high->value > low->value))
            return problem("--ends", "The ends are two rising numbers, 0..180.");
        return Travel{low->value, high->value};
    }
    const auto [low, high] = std::minmax_element(positions.begin(), positions.end());
    if (*low >= 0 && *high <= 1) return Travel{};
    for (const double end : {100.0, 180.0, 270.0, 360.0}) {
        if (*low >= 0 && *high > end / 2 && *high <= end) return Travel{0, end};
    }
    return *high > *low ? Travel{*low, *high} : Travel{*low - 0.5, *low + 0.5};
}

const char* wordOf(PeakEstimate::Kind kind) {
    switch (kind) {
        case PeakEstimate::Kind::inside:
            return "inside";
        case PeakEstimate::Kind::atLeast:
            return "at_least";
        case PeakEstimate::Kind::atMost:
            return "at_most";
        case PeakEstimate::Kind::twoHumps:
            return "two_humps";
        case PeakEstimate::Kind::tooFew:
            break;
    }
    return "too_few";
}

}  // namespace

int peakCommand(const PeakQuestion& q, bool json) {
    const auto table = numbersOf(q.file, {{{"position", "pos", "angle", "turns", "x"}},
                                          {{"reading", "volts", "level", "y", "dbm", "watts"}},
                                          {{"u", "error", "uncertainty"}, Unit::none, false}});
    if (!table) return refuse(table.error(), json);
    std::vector<double> positions;
    bool negative = false;
    for (const auto& row : table->rows) {
        positions.push_back(row[0]);
        negative = negative || row[1] < 0;
    }
    const auto travel = travelOf(q.ends, positions);
    if (!travel) return refuse(travel.error(), json);
    std::string as = q.as;
    const std::string head = table->heads[1];
    if (as.empty()) as = negative || head == "dbm" ? "db" : head == "watts" ? "watt" : "volt";
    if (as != "db" && as != "watt" && as != "volt")
        return refuse({"--as", "A reading is a volt, a watt or in db."}, json);
    std::vector<AdjusterReading> readings;
    for (const auto& row : table->rows) {
        const double share = travel->share(row[0]);
        if (share < 0 || share > 1)
            return refuse({"", "A position lies beyond the ends of the travel."}, json);
        // All as amplitudes, and an error with its reading.
        const double y = row[1], u = std::isfinite(row[2]) ? std::abs(row[2]) : 0;
        AdjusterReading r{share, y, u};
        if (as == "watt") r = {share, y > 0 ? std::sqrt(y) : 0, y > 0 ? u / (2 * std::sqrt(y)) : 0};
        if (as == "db") r = {share, std::pow(10.0, y / 20), u * std::log(10.0) / 20 * std::pow(10.0, y / 20)};
        readings.push_back(r);
    }
    const PeakEstimate peak = estimatePeak(readings, NAN);
    const bool known = peak.kind != PeakEstimate::Kind::tooFew;
    const double best = std::clamp(peak.position, 0.0, 1.0);
    const auto place = [&](double share) { return known ? Json(travel->position(share)) : Json(nullptr); };
    if (json) {
        printJson({{"kind", wordOf(peak.kind)},
                   {"best", place(best)},
                   {"low", place(peak.low)},
                   {"high", place(peak.high)},
                   {"next", travel->position(peak.nextPosition)},
                   {"settled", peak.state == VerdictState::pass},
                   {"stands_at_loss_db", orNull(peak.loss)},
                   {"sentence", peak.sentence}});
    } else {
        std::printf("%s\n", peak.sentence.c_str());
    }
    return 0;
}

int nullCommand(const std::string& file, bool json) {
    const auto table = numbersOf(file, {{{"a", "first", "phase"}},
                                        {{"b", "second", "amplitude"}, Unit::none, false},
                                        {{"c", "third"}, Unit::none, false},
                                        {{"d", "fourth"}, Unit::none, false},
                                        {{"reading_db", "reading", "db", "level"}}});
    if (!table) return refuse(table.error(), json);
    std::size_t n = 1;
    while (n < 4 && table->has(n)) ++n;
    std::vector<Travel> travels;
    for (std::size_t i = 0; i < n; ++i) {
        std::vector<double> positions;
        for (std::size_t r = 0; r < table->rows.size(); ++r) {
            if (std::isnan(table->rows[r][i]))
                return refuse({"line " + std::to_string(table->lines[r]), "A position is missing here."},
                              json);
            positions.push_back(table->rows[r][i]);
        }
        Travel travel = *travelOf("", positions);
        // Beyond 0 to 1 nobody says where the ends are: as much again on either side is left open.
        if (travel.low != 0 || travel.high != 1) {
            const double width = travel.high - travel.low;
            travel = {travel.low - width / 2, travel.high + width / 2};
        }
        travels.push_back(travel);
    }
    std::vector<NullReading> readings;
    for (const auto& row : table->rows) {
        readings.push_back({{}, row[4]});
        for (std::size_t i = 0; i < n; ++i) readings.back().at.push_back(travels[i].share(row[i]));
    }
    const JointNull null = jointNull(readings, n);
    if (!json) {
        std::printf("%s\n", null.sentence.c_str());
        return 0;
    }
    Json best = Json::array(), next = nullptr;
    for (std::size_t i = 0; i < n; ++i) best.push_back(travels[i].position(null.best[i]));
    if (null.adjuster >= 0)
        next = {{"adjuster", std::string(1, char('a' + null.adjuster))},
                {"position", travels[std::size_t(null.adjuster)].position(null.position)}};
    printJson({{"next", next},
               {"best", best},
               {"floor_db", orNull(null.floor)},
               {"stands_db", orNull(null.stands)},
               {"converged", null.converged},
               {"sentence", null.sentence}});
    return 0;
}

namespace {

/// What the last digit that was written stands for: a count of the gate.
double lastDigit(const std::string& text, double value) {
    std::string digits;
    bool point = false;
    int behind = 0;
    for (const char c : text) {
        if (c >= '0' && c <= '9') {
            digits += c;
            behind += point;
        } else if ((c == '.' || c == ',') && !point) {
            point = true;
        } else if (!digits.empty()) {
            break;
        }
    }
    double whole = 0;  // without a mark, so that no locale has a say
    for (const char c : digits) whole = 10 * whole + (c - '0');
    const double written = whole / std::pow(10.0, behind);
    const double scale = written > 0 ? std::abs(value) / written : 1;
    return scale / std::pow(10.0, behind);
}

}  // namespace

int referenceCommand(const std::string& file, bool json) {
    const auto table = numbersOf(file, {{{"read", "reads", "counted", "reading"}, Unit::hertz},
                                        {{"true", "known", "is", "standard"}, Unit::hertz},
                                        {{"u", "error", "uncertainty"}, Unit::hertz, false}});
    if (!table) return refuse(table.error(), json);
    std::vector<CountedPoint> points;
    for (std::size_t r = 0; r < table->rows.size(); ++r) {
        const auto& row = table->rows[r];
        CountedPoint p{row[0], row[1], std::isfinite(row[2]) ? std::abs(row[2]) : 0};
        if (p.error == 0) p.error = lastDigit(table->texts[r][0], row[0]);
        points.push_back(p);
    }
    const ReferenceFit fit = fitReference(points);
    const bool offset = fit.verdict == ReferenceFit::Verdict::offset;
    if (!json) {
        std::printf("%s\n", fit.sentence.c_str());
        return 0;
    }
    printJson({{"offset_hz", orNull(fit.offset)},
               {"error_ppm", orNull(fit.ppm)},
               {"verdict", word(fit.verdict)},
               {"low", orNull(offset ? fit.offsetLow : fit.ppmLow)},
               {"high", orNull(offset ? fit.offsetHigh : fit.ppmHigh)},
               {"of", offset ? "offset_hz" : "error_ppm"},
               {"offset_low_hz", orNull(fit.offsetLow)},
               {"offset_high_hz", orNull(fit.offsetHigh)},
               {"error_low_ppm", orNull(fit.ppmLow)},
               {"error_high_ppm", orNull(fit.ppmHigh)},
               {"sentence", fit.sentence}});
    return 0;
}

int crystalsCommand(const CrystalsQuestion& q, bool json) {
    const auto table = numbersOf(
        q.file, {{{"id", "crystal", "name", "no", "nr", "#"}, Unit::none, true, true},
                 {{"frequency", "frequency_hz", "f", "hz", "freq", "freq_hz", "f_hz"}, Unit::hertz}});
    if (!table) return refuse(table.error(), json);
    if (q.size < 1 || q.size > 100) return refuse({"--set", "A set has 1 to 100 crystals."}, json);
    std::vector<MeasuredCrystal> batch;
    for (std::size_t r = 0; r < table->rows.size(); ++r) {
        const MeasuredCrystal crystal{table->texts[r][0], table->rows[r][1]};
        const std::string line = "line " + std::to_string(table->lines[r]);
        if (!(crystal.frequency > 0)) return refuse({line, "A crystal oscillates above 0 Hz."}, json);
        if (std::any_of(batch.begin(), batch.end(), [&](const auto& c) { return c.id == crystal.id; }))
            return refuse({line, "There are two crystals " + crystal.id.substr(0, 30) + "."}, json);
        batch.push_back(crystal);
    }
    const auto sets = q.together ? crystalSetsTogether(batch, std::size_t(q.size))
                                 : crystalSets(batch, std::size_t(q.size));
    Json ids = Json::array(), spreads = Json::array(), left = Json::array();
    std::vector<bool> used(batch.size(), false);
    for (const CrystalSet& set : sets) {
        Json row = Json::array();
        for (const std::size_t i : set.at) row.push_back(batch[i].id), used[i] = true;
        ids.push_back(row);
        spreads.push_back(set.spread);
        if (json) continue;
        for (const std::size_t i : set.at) std::printf("%s ", batch[i].id.c_str());
        std::printf(" within %s\n", formatQuantity(set.spread, Unit::hertz, 3).c_str());
    }
    for (std::size_t i = 0; i < batch.size(); ++i) {
        if (!used[i]) left.push_back(batch[i].id);
    }
    if (json) {
        printJson({{"sets", ids}, {"spread_hz", spreads}, {"left", left}});
    } else if (sets.empty()) {
        std::printf("There are fewer crystals than a set has.\n");
    }
    return 0;
}

}  // namespace ombrek
