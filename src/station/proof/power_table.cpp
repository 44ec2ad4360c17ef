#include "station/proof/power_table.h"

#include <algorithm>
#include <cmath>

#include "core/proof/budget.h"
#include "station/proof/power_method.h"
#include "station/proof/proof.h"
#include "station/rests_on.h"

namespace ombrek {
namespace {

constexpr double kNear = 0.06;  ///< of a supply: belongs to its column

bool sameDrive(const Reading& r, double drive) {
    const double own = r.setting(kDrive, NAN);
    return std::isnan(drive) ? std::isnan(own) : std::abs(own - drive) < 0.005;
}

std::optional<std::size_t> columnOf(const std::vector<double>& supplies, double volts) {
    std::optional<std::size_t> out;
    for (std::size_t i = 0; i < supplies.size(); ++i) {
        const double off = std::abs(volts / supplies[i] - 1);
        if (off <= kNear && (!out || off < std::abs(volts / supplies[*out] - 1))) out = i;
    }
    return out;
}

/// The last readings of a subject that hold, one for each way, newest last.
std::vector<Reading> lastOfEachWay(const Kit& kit, const Build& build, const Subject& subject, double drive,
                                   const std::vector<double>& supplies, std::size_t column) {
    std::vector<Reading> out;
    for (const Reading& r : standing(kit, build, subject)) {
        const double volts = supplyOf(build, r);
        if (!(volts > 0) || columnOf(supplies, volts) != column || !sameDrive(r, drive)) continue;
        std::erase_if(out, [&](const Reading& other) { return other.method == r.method; });
        out.push_back(r);
    }
    return out;
}

/// Two ways of the same power, or the last alone.
Power powerOfWays(const std::vector<Reading>& ways, double ohms, std::string& words) {
    const Power last = powerOf(ways.back(), ohms);
    if (ways.size() < 2) return last;
    const Power before = powerOf(ways[ways.size() - 2], ohms);
    if (!(last.uncertainty > 0) || !(before.uncertainty > 0)) return last;
    const Combined both = combined({last.watts, last.uncertainty / 2, {}, false},
                                   {before.watts, before.uncertainty / 2, {}, false});
    words = std::string(powerMethod(ways[ways.size() - 2].method).name) + " " +
            formatQuantity(before.watts, Unit::watt, 3) + ", " +
            std::string(powerMethod(ways.back().method).name) + " " +
            formatQuantity(last.watts, Unit::watt, 3) +
            (both.agree ? ": they agree." : ": they differ by more than they may. One of the two is wrong.");
    if (!both.agree) return last;
    Power out = last;
    out.watts = both.watts;
    out.uncertainty = 2 * both.deviation;
    return out;
}

void addCurrent(const Kit& kit, const Build& build, const std::string& band, double drive,
                const std::vector<double>& supplies, std::size_t column, PowerCell& cell) {
    const auto all = lastOfEachWay(kit, build, Subject::current(band), drive, supplies, column);
    if (all.empty()) return;
    cell.current = all.back().value;
    const double in = cell.current * supplyOf(build, all.back());
    if (!cell.reading || !(in > 0) || !std::isfinite(in)) return;
    cell.efficiency = cell.power.watts / in;
    cell.heat = in - cell.power.watts;
}

void judgeCell(const Ratings& rated, VerdictRule rule, bool atRated, PowerCell& cell) {
    const double scale = std::pow(cell.supply / rated.supply, 2);
    cell.promised = rated.power * scale;
    const Verdict v = judge(cell.power.watts, {rated.powerLow * scale, rated.powerHigh * scale},
                            cell.power.uncertainty, rule, Unit::watt);
    cell.state = !atRated && v.state == VerdictState::fail ? VerdictState::doubtful : v.state;
    cell.sentence = formatQuantity(cell.power.watts, Unit::watt, 3) + " \u00b1 " +
                    formatQuantity(cell.power.uncertainty, Unit::watt, 2) + "; " +
                    formatQuantity(cell.promised, Unit::watt, 3) +
                    (atRated ? " promised." : " would be the promise here, as the supply's square.");
    if (std::isfinite(cell.efficiency) && cell.efficiency > 1) {
        cell.state = VerdictState::cannotTell;
        cell.sentence += " More leaves than goes in: a reading is wrong.";
    }
}

/// All bands at the rated supply, then the first band at the others.
void findNext(PowerTable& out) {
    for (std::size_t b = 0; b < out.bands.size(); ++b) {
        if (!out.at(b, out.rated).reading) {
            out.next = std::pair(b, out.rated);
            return;
        }
    }
    for (std::size_t b = 0; b < out.bands.size(); ++b) {
        for (std::size_t s = 0; s < out.supplies.size(); ++s) {
            if (out.at(b, s).reading) continue;
            out.next = std::pair(b, s);
            return;
        }
    }
}

}  // namespace

std::vector<double> suppliesOf(const Kit& kit) {
    const double rated = kit.ratings.supply;
    std::vector<double> out{9, 12, 13.8, 15};
    if (!(rated > 0)) return out;
    // Nothing above what the kit is rated at is ever asked for.
    std::erase_if(out, [&](double v) { return v > 0.97 * rated; });
    out.push_back(rated);
    std::sort(out.begin(), out.end());
    return out;
}

PowerTable powerTable(const Kit& kit, const Build& build, double drive) {
    PowerTable out;
    if (!kit.ratings.transmits()) return out;
    out.bands = kit.ratings.bandNames();
    out.supplies = suppliesOf(kit);
    for (const Reading& r : build.readings) {  // what was read above what is usual stands, too
        const double volts = r.subject.is(Subject::Kind::power) ? supplyOf(build, r) : NAN;
        if (volts > 0 && std::isfinite(volts) && !columnOf(out.supplies, volts) && out.supplies.size() < 8) {
            out.supplies.push_back(std::round(volts * 10) / 10);
            std::sort(out.supplies.begin(), out.supplies.end());
        }
    }
    out.rated = std::size_t(std::find(out.supplies.begin(), out.supplies.end(), kit.ratings.supply) -
                            out.supplies.begin());
    if (out.rated >= out.supplies.size()) out.rated = 0;
    for (const std::string& band : out.bands) {
        std::vector<PowerCell> row(out.supplies.size());
        const Ratings rated = kit.ratings.on(band);
        for (std::size_t s = 0; s < row.size(); ++s) {
            PowerCell& cell = row[s];
            const auto ways = lastOfEachWay(kit, build, Subject::power(band), drive, out.supplies, s);
            cell.promised = rated.power * std::pow(out.supplies[s] / rated.supply, 2);
            if (!ways.empty()) {
                cell.reading = ways.back();
                cell.power = powerOfWays(ways, rated.ohms, cell.ways);
                cell.supply = supplyOf(build, ways.back());
            }
            addCurrent(kit, build, band, drive, out.supplies, s, cell);
            if (cell.reading && std::isfinite(cell.power.watts))
                judgeCell(rated, build.rule, s == out.rated, cell);
        }
        out.cells.push_back(std::move(row));
    }
    findNext(out);
    return out;
}

std::vector<MeterCorrection> wattmeterCorrections(const Kit& kit, const Build& build) {
    std::vector<MeterCorrection> out;
    const std::vector<double> supplies = suppliesOf(kit);
    for (const std::string& band : kit.ratings.bandNames()) {
        for (std::size_t s = 0; s < supplies.size(); ++s) {
            const auto ways = lastOfEachWay(kit, build, Subject::power(band), NAN, supplies, s);
            const auto meter = std::find_if(ways.begin(), ways.end(),
                                            [](const Reading& r) { return r.method == "wattmeter"; });
            if (meter == ways.end() || !(meter->value > 0)) continue;
            for (const Reading& other : ways) {
                const Power power = powerOf(other, kit.ratings.ohms);
                if (other.method == "wattmeter" || !(power.watts > 0)) continue;
                const double factor = power.watts / meter->value;
                out.push_back({meter->value, factor, factor * power.uncertainty / power.watts,
                               std::string(powerMethod(other.method).name)});
            }
        }
    }
    std::sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.reads < b.reads; });
    return out;
}

double correctionAt(const std::vector<MeterCorrection>& all, double reads) {
    if (all.empty() || !std::isfinite(reads)) return 1;
    const auto above =
        std::find_if(all.begin(), all.end(), [&](const MeterCorrection& c) { return c.reads >= reads; });
    if (above == all.end()) return all.back().factor;
    if (above == all.begin() || above->reads == reads) return above->factor;
    const auto below = above - 1;
    const double part = (reads - below->reads) / (above->reads - below->reads);
    return below->factor + part * (above->factor - below->factor);
}

}  // namespace ombrek
